using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Store.People;

namespace Rendal.Web.Tests.SignIn;

/// <summary>A Rendal of its own: guesses are counted by the address that they come from, which is the same for all tests.</summary>
public sealed class SessionTests : IAsyncLifetime
{
    private const string Password = "the right password";

    private readonly StillClock clock = new();
    private readonly RunningRendal rendal;

    public SessionTests() => rendal = new RunningRendal { Clock = clock };

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public ValueTask InitializeAsync() => rendal.InitializeAsync();

    public ValueTask DisposeAsync() => rendal.DisposeAsync();

    [Fact]
    public async Task A_session_ends_for_good_when_it_is_signed_out_whoever_kept_its_cookie()
    {
        var cookies = new CookieContainer();
        using var browser = Browser(cookies);
        await SignInAsync(browser, "odile", RunningRendal.Password);
        var kept = cookies.GetCookieHeader(rendal.Address);
        Assert.Equal(HttpStatusCode.NoContent, (await browser.DeleteAsync("/api/session", Cancel)).StatusCode);
        using var thief = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = rendal.Address };
        thief.DefaultRequestHeaders.Add("Cookie", kept);
        Assert.Equal(HttpStatusCode.Unauthorized, (await thief.GetAsync("/api/session", Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_password_is_changed_by_who_knows_it_and_all_other_sessions_end()
    {
        await AddAsync("ines");
        using var here = await SignedInAsync("ines");
        using var there = await SignedInAsync("ines");
        Assert.Equal(2, (await here.GetJsonAsync("/api/sessions")).GetArrayLength());
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (
                await here.PutAsJsonAsync("/api/session/password", new { current = "a wrong one", password = "another good one" }, Cancel)
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await here.PutAsJsonAsync("/api/session/password", new { current = Password, password = "short" }, Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await here.PutAsJsonAsync("/api/session/password", new { current = Password, password = "another good one" }, Cancel)
            ).StatusCode
        );
        Assert.Equal(HttpStatusCode.OK, (await here.GetAsync("/api/session", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await there.GetAsync("/api/session", Cancel)).StatusCode);
        using var later = rendal.Browser();
        Assert.Equal(HttpStatusCode.Unauthorized, (await SignInAsync(later, "ines", Password)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await SignInAsync(later, "ines", "another good one")).StatusCode);
    }

    [Fact]
    public async Task All_other_sessions_are_ended_at_once()
    {
        await AddAsync("ines");
        using var here = await SignedInAsync("ines");
        using var there = await SignedInAsync("ines");
        Assert.Equal(1, (await (await here.DeleteAsync("/api/sessions/others", Cancel)).JsonAsync()).GetProperty("sessions").GetInt32());
        Assert.Equal(HttpStatusCode.Unauthorized, (await there.GetAsync("/api/session", Cancel)).StatusCode);
        Assert.True((await here.GetJsonAsync("/api/sessions")).EnumerateArray().Single().GetProperty("isThis").GetBoolean());
    }

    [Fact]
    public async Task Who_forgot_their_password_chooses_another_by_an_address_that_the_administrator_makes_good_once()
    {
        await AddAsync("ines");
        using var ines = await SignedInAsync("ines");
        Assert.Equal(HttpStatusCode.Forbidden, (await ines.PostAsJsonAsync("/api/resets", new { name = "odile" }, Cancel)).StatusCode);
        using var administrator = await rendal.SignedInAsync();
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await administrator.PostAsJsonAsync("/api/resets", new { name = "nobody" }, Cancel)).StatusCode
        );
        var first = (await administrator.PostJsonAsync("/api/resets", new { name = "ines" })).Text("key");
        var key = (await administrator.PostJsonAsync("/api/resets", new { name = "INES" })).Text("key");
        using var anew = rendal.Browser();
        Assert.Equal(HttpStatusCode.NotFound, (await anew.GetAsync($"/api/resets/{first}", Cancel)).StatusCode);
        Assert.Equal("ines", (await anew.GetJsonAsync($"/api/resets/{key}")).Text("name"));
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await anew.PostAsJsonAsync("/api/resets/follow", new { key, password = "another good one" }, Cancel)).StatusCode
        );
        Assert.Equal("ines", (await anew.GetJsonAsync("/api/session")).Text("name"));
        Assert.Equal(HttpStatusCode.Unauthorized, (await ines.GetAsync("/api/session", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await anew.PostAsJsonAsync("/api/resets/follow", new { key, password = "yet another one" }, Cancel)).StatusCode
        );

        // Who remembers after all, and changes it themselves, leaves no address behind by which somebody else could.
        var left = (await administrator.PostJsonAsync("/api/resets", new { name = "ines" })).Text("key");
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await anew.PutAsJsonAsync(
                    "/api/session/password",
                    new { current = "another good one", password = "one of her own" },
                    Cancel
                )
            ).StatusCode
        );
        Assert.Equal(HttpStatusCode.NotFound, (await anew.GetAsync($"/api/resets/{left}", Cancel)).StatusCode);
    }

    [Theory]
    [InlineData("guessed")]
    [InlineData("nobody of this name")]
    public async Task Guesses_are_slowed_before_they_are_looked_at_however_many_come_at_once(string name)
    {
        await AddAsync("guessed");
        using var guesser = rendal.Browser();
        var answers = await Task.WhenAll(Enumerable.Range(0, 40).Select(i => SignInAsync(guesser, name, $"guess {i}")));
        Assert.Equal(5, answers.Count(a => a.StatusCode == HttpStatusCode.Unauthorized));
        Assert.All(answers.Where(a => a.StatusCode != HttpStatusCode.Unauthorized), a =>
            Assert.Equal(HttpStatusCode.TooManyRequests, a.StatusCode)
        );
        var late = await SignInAsync(guesser, name, Password);
        Assert.Equal(HttpStatusCode.TooManyRequests, late.StatusCode);
        Assert.Equal(TimeSpan.FromSeconds(1), late.Headers.RetryAfter!.Delta);

        // Each that fails makes the next wait twice as long.
        foreach (var seconds in new[] { 1, 2, 4 })
        {
            clock.Advance(TimeSpan.FromSeconds(seconds));
            Assert.Equal(HttpStatusCode.Unauthorized, (await SignInAsync(guesser, name, "another guess")).StatusCode);
            clock.Advance(TimeSpan.FromSeconds(2 * seconds) - TimeSpan.FromMilliseconds(1));
            Assert.Equal(HttpStatusCode.TooManyRequests, (await SignInAsync(guesser, name, Password)).StatusCode);
            clock.Advance(TimeSpan.FromMilliseconds(1) - TimeSpan.FromSeconds(2 * seconds));
        }
    }

    [Fact]
    public async Task A_stranger_does_not_lock_a_person_out_of_their_own_browser()
    {
        await AddAsync("ines");
        using var own = await SignedInAsync("ines");
        await own.DeleteAsync("/api/session", Cancel);
        using var stranger = rendal.Browser();
        await Task.WhenAll(Enumerable.Range(0, 60).Select(i => SignInAsync(stranger, "ines", $"guess {i}")));
        Assert.Equal(HttpStatusCode.TooManyRequests, (await SignInAsync(stranger, "ines", Password)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await SignInAsync(own, "ines", Password)).StatusCode);

        // A known browser guesses no faster than another.
        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(i => SignInAsync(own, "ines", $"guess {i}")));
        Assert.Equal(5, answers.Count(a => a.StatusCode == HttpStatusCode.Unauthorized));
    }

    private HttpClient Browser(CookieContainer cookies)
    {
        var browser = new HttpClient(new HttpClientHandler { CookieContainer = cookies }) { BaseAddress = rendal.Address };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        return browser;
    }

    private async Task<HttpClient> SignedInAsync(string name)
    {
        var browser = rendal.Browser();
        Assert.Equal(HttpStatusCode.NoContent, (await SignInAsync(browser, name, Password)).StatusCode);
        return browser;
    }

    private static Task<HttpResponseMessage> SignInAsync(HttpClient browser, string name, string password) =>
        browser.PostAsJsonAsync("/api/session", new { name, password }, Cancel);

    private Task AddAsync(string name) =>
        rendal
            .App.Services.GetRequiredService<PersonStore>()
            .AddAsync(name, rendal.App.Services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password), Cancel);
}

/// <summary>The first run of an installation.</summary>
public class FirstRunTests
{
    [Fact]
    public async Task Of_any_number_who_are_first_at_once_one_is()
    {
        await using var rendal = new RunningRendal { IsNew = true };
        await rendal.InitializeAsync();
        using var browser = rendal.Browser();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(i =>
                    browser.PostAsJsonAsync(
                        "/api/first-run",
                        new
                        {
                            key = RunningRendal.FirstRunKey,
                            name = $"first-{i}",
                            password = "long enough it is",
                            book = RunningRendal.Firm($"Firm {i}"),
                        },
                        TestContext.Current.CancellationToken
                    )
                )
        );
        Assert.Equal(1, answers.Count(a => a.StatusCode == HttpStatusCode.NoContent));
        Assert.Equal(7, answers.Count(a => a.StatusCode == HttpStatusCode.Forbidden));
    }
}
