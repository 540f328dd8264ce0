using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Rendal.Web.Tests.SignIn;

public class DoorTests(RunningRendal rendal)
{
    /// <summary>What has to be open to those who are not signed in yet.</summary>
    private static readonly string[] Open =
    [
        "POST /api/session",
        "GET /api/first-run",
        "POST /api/first-run",
        "GET /api/invitations/{key}",
        "POST /api/invitations/join",
        "GET /api/resets/{key}",
        "POST /api/resets/follow",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Without_a_session_every_endpoint_but_the_door_is_shut()
    {
        using var stranger = rendal.Browser();
        var asked = 0;
        foreach (var endpoint in rendal.App.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>())
        {
            var pattern = "/" + endpoint.RoutePattern.RawText!.TrimStart('/');
            foreach (var method in endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"])
            {
                if (Open.Contains($"{method} {pattern}"))
                {
                    continue;
                }

                var path = System.Text.RegularExpressions.Regex.Replace(pattern, @"\{[^}]*\}", "1");
                using var request = new HttpRequestMessage(new HttpMethod(method), path)
                {
                    Content = method is "GET" or "DELETE" ? null : JsonContent.Create(new { }),
                };
                var answer = await stranger.SendAsync(request, Cancel);
                Assert.True(answer.StatusCode == HttpStatusCode.Unauthorized, $"{method} {pattern} answered {answer.StatusCode}");
                asked++;
            }
        }

        Assert.True(asked > 30, $"only {asked} endpoints were asked");
    }

    [Fact]
    public async Task The_cookie_is_out_of_reach_of_scripts_and_of_other_sites()
    {
        using var browser = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = rendal.Address };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        var answer = await browser.PostAsJsonAsync("/api/session", new { name = "odile", password = RunningRendal.Password }, Cancel);
        Assert.All(answer.Headers.GetValues("Set-Cookie"), cookie =>
        {
            Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
            Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        });
    }

    [Fact]
    public async Task Behind_a_proxy_that_is_trusted_the_cookie_goes_by_TLS_only_and_no_other_is_believed()
    {
        await using var behind = new RunningRendal { Proxies = ["127.0.0.0/8"] };
        await behind.InitializeAsync();
        Assert.True(await IsSecureAsync(behind.Address));
        Assert.False(await IsSecureAsync(rendal.Address));

        static async Task<bool> IsSecureAsync(Uri address)
        {
            using var browser = new HttpClient(new HttpClientHandler { UseCookies = false })
            {
                BaseAddress = address,
                DefaultRequestHeaders = { { "X-Rendal", "1" }, { "X-Forwarded-Proto", "https" } },
            };
            var answer = await browser.PostAsJsonAsync("/api/session", new { name = "odile", password = RunningRendal.Password }, Cancel);
            return answer.Headers.GetValues("Set-Cookie").All(cookie => cookie.Contains("; secure", StringComparison.OrdinalIgnoreCase));
        }
    }

    [Fact]
    public async Task A_change_that_another_site_asks_for_is_refused()
    {
        using var signedIn = await rendal.SignedInAsync();
        signedIn.DefaultRequestHeaders.Remove("X-Rendal");
        var answer = await signedIn.PostAsJsonAsync("/api/books", RunningRendal.Firm("Forged"), Cancel);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("The request did not come from Rendal’s own pages.", await answer.DetailAsync());
    }

    [Fact]
    public async Task The_first_run_is_only_for_who_has_the_key_and_only_once()
    {
        using var browser = rendal.Browser();
        foreach (var key in new[] { RunningRendal.FirstRunKey, "another key" })
        {
            var answer = await browser.PostAsJsonAsync(
                "/api/first-run",
                new
                {
                    key,
                    name = "second",
                    password = "long enough it is",
                    book = RunningRendal.Firm("Second"),
                },
                Cancel
            );
            Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        }
    }

    [Fact]
    public async Task A_host_that_was_not_named_is_not_answered()
    {
        using var browser = rendal.Browser();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/first-run") { Headers = { Host = "rendal.elsewhere.example" } };
        Assert.Equal(HttpStatusCode.BadRequest, (await browser.SendAsync(request, Cancel)).StatusCode);
    }

    [Fact]
    public async Task A_book_of_somebody_else_does_not_exist()
    {
        using var desk = await Desk.AtAsync(rendal);
        var people = rendal.App.Services.GetRequiredService<Store.People.PersonStore>();
        var hash = rendal
            .App.Services.GetRequiredService<Microsoft.AspNetCore.Identity.PasswordHasher<Store.People.Person>>()
            .HashPassword(null!, "another person's");
        await people.AddAsync("wilma", hash, Cancel);
        using var other = rendal.Browser();
        await other.PostJsonAsync("/api/session", new { name = "wilma", password = "another person's" });
        foreach (var path in new[] { "", "/customers", "/rounds", "/dispatch", "/postroom", "/senders", "/intakes", "/dispatch/log.csv" })
        {
            Assert.Equal(HttpStatusCode.NotFound, (await other.GetAsync(desk.Api + path, Cancel)).StatusCode);
        }
    }
}
