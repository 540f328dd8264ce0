using System.Net;
using System.Net.Http.Json;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Rendal.Web.Tests.Books;

public class PeopleTests(RunningRendal rendal)
{
    private const string Password = "linen and lavender";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Who_is_invited_chooses_a_password_and_has_that_book_and_no_other()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var other = await Desk.AtAsync(rendal);
        var (name, key) = await InviteAsync(desk);
        using var stranger = rendal.Browser();
        var invited = await stranger.GetJsonAsync($"/api/invitations/{key}");
        Assert.Equal(name, invited.Text("name"));
        Assert.StartsWith("Firm ", invited.Text("firm"), StringComparison.Ordinal);
        Assert.Equal("The password needs at least 10 characters.", await (await JoinAsync(stranger, key, "short")).DetailAsync());
        Assert.Equal(HttpStatusCode.NoContent, (await JoinAsync(stranger, key, Password)).StatusCode);

        var session = await stranger.GetJsonAsync("/api/session");
        Assert.Equal((name, desk.Book), (session.Text("name"), session.GetProperty("books").EnumerateArray().Single().Id()));
        Assert.Equal(HttpStatusCode.OK, (await stranger.GetAsync($"{desk.Api}/people", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.GetAsync($"{other.Api}/people", Cancel)).StatusCode);
        using var later = rendal.Browser();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await later.PostAsJsonAsync("/api/session", new { name = name.ToUpperInvariant(), password = Password }, Cancel)).StatusCode
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/people")).GetProperty("invitations").EnumerateArray());
    }

    [Fact]
    public async Task An_invitation_is_good_once_until_it_is_taken_back_made_anew_or_too_old()
    {
        const string gone = "This invitation was followed already, was taken back or is too old. Ask for a new one.";
        using var desk = await Desk.AtAsync(rendal);
        using var stranger = rendal.Browser();
        var (_, followed) = await InviteAsync(desk);
        await JoinAsync(stranger, followed, Password);
        var (name, before) = await InviteAsync(desk);
        var (_, anew) = await InviteAsync(desk, name);
        var (taken, takenBack) = await InviteAsync(desk);
        var listed = (await desk.Browser.GetJsonAsync($"{desk.Api}/people")).GetProperty("invitations").EnumerateArray().ToList();
        Assert.Equal(2, listed.Count);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await desk.Browser.DeleteAsync($"{desk.Api}/people/invitations/{listed.Single(i => i.Text("name") == taken).Id()}", Cancel)
            ).StatusCode
        );
        var (old, tooOld) = await InviteAsync(desk);
        await using (
            var age = rendal
                .App.Services.GetRequiredService<NpgsqlDataSource>()
                .CreateCommand($"update invitation set good_until = now() - interval '1 second' where name = '{old}'")
        )
        {
            Assert.Equal(1, await age.ExecuteNonQueryAsync(Cancel));
        }

        foreach (var key in new[] { followed, before, takenBack, tooOld, "0" })
        {
            Assert.Equal(gone, await (await stranger.GetAsync($"/api/invitations/{key}", Cancel)).DetailAsync());
            Assert.Equal(gone, await (await JoinAsync(stranger, key, Password)).DetailAsync());
        }

        Assert.Equal(HttpStatusCode.NoContent, (await JoinAsync(stranger, anew, Password)).StatusCode);
    }

    [Fact]
    public async Task Who_can_sign_in_already_has_the_book_when_they_follow_and_until_it_is_taken_away()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var next = await Desk.AtAsync(rendal);
        var (name, key) = await InviteAsync(desk);
        using var colleague = rendal.Browser();
        await JoinAsync(colleague, key, Password);
        var (_, second) = await InviteAsync(next, $" {name.ToUpperInvariant()} ");
        Assert.True((await colleague.GetJsonAsync($"/api/invitations/{second}")).GetProperty("canSignIn").GetBoolean());
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await JoinAsync(rendal.Browser(), second, Password)).StatusCode);
        Assert.StartsWith(
            "This invitation is for ",
            await (await AcceptAsync(desk.Browser, second)).DetailAsync(),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.NoContent, (await AcceptAsync(colleague, second)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await AcceptAsync(colleague, second)).StatusCode);
        Assert.Equal(
            $"{name} has this book already.",
            await (await next.Browser.PostAsJsonAsync($"{next.Api}/people", new { name }, Cancel)).DetailAsync()
        );

        // Who loses a book is signed out; what else they have is theirs when they sign in again.
        var person = await NumberAsync(next, name);
        Assert.Equal(HttpStatusCode.NoContent, (await next.Browser.DeleteAsync($"{next.Api}/people/{person}", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await colleague.GetAsync("/api/session", Cancel)).StatusCode);
        await colleague.PostJsonAsync("/api/session", new { name, password = Password });
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await colleague.GetAsync(desk.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await next.Browser.DeleteAsync($"{next.Api}/people/{person}", Cancel)).StatusCode);
    }

    [Fact]
    public async Task Nobody_takes_a_book_from_who_made_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await ColleagueAsync(desk);
        var maker = (await colleague.GetJsonAsync($"{desk.Api}/people"))
            .GetProperty("people")
            .EnumerateArray()
            .Single(p => p.GetProperty("made").GetBoolean())
            .Id();
        var refused = await colleague.DeleteAsync($"{desk.Api}/people/{maker}", Cancel);
        Assert.Equal(
            (HttpStatusCode.Conflict, "This person made the book. Only they themselves can leave it."),
            (refused.StatusCode, await refused.DetailAsync())
        );
        Assert.Equal(HttpStatusCode.OK, (await desk.Browser.GetAsync(desk.Api, Cancel)).StatusCode);
    }

    [Fact]
    public async Task What_was_somebodys_own_falls_to_the_book_without_its_password_and_their_invitations_die()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await ColleagueAsync(desk);
        var invited = await colleague.PostJsonAsync($"{desk.Api}/people", new { name = $"ines-{Guid.NewGuid():N}" });
        await colleague.PostJsonAsync(
            $"{desk.Api}/senders",
            new
            {
                name = "Own",
                address = "own@tarnbrook.example",
                replyTo = "",
                copyToSelf = false,
                host = "mail.tarnbrook.example",
                port = 587,
                security = "starttls",
                userName = "own",
                password = "secret",
                aMinute = (int?)null,
                aDay = (int?)null,
                largestBytes = (int?)null,
                isMine = true,
            }
        );
        Assert.DoesNotContain((await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray(), s =>
            s.Text("address") == "own@tarnbrook.example"
        );
        var person = (await desk.Browser.GetJsonAsync($"{desk.Api}/people"))
            .GetProperty("people")
            .EnumerateArray()
            .Single(p => !p.GetProperty("isYou").GetBoolean())
            .Id();
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.DeleteAsync($"{desk.Api}/people/{person}", Cancel)).StatusCode);
        var left = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders"))
            .EnumerateArray()
            .Single(s => s.Text("address") == "own@tarnbrook.example");
        Assert.False(left.GetProperty("hasPassword").GetBoolean());
        Assert.Equal("This was the own sender of somebody who has left. Type its password to send by it.", left.Text("paused"));
        using var late = rendal.Browser();
        Assert.Equal(HttpStatusCode.NotFound, (await JoinAsync(late, invited.Text("key"), Password)).StatusCode);
    }

    [Fact]
    public async Task A_name_that_looks_like_anothers_cannot_be_had()
    {
        using var desk = await Desk.AtAsync(rendal);
        var name = $"The Boss {Guid.NewGuid():N}";
        var (_, key) = await InviteAsync(desk, name);
        await JoinAsync(rendal.Browser(), key, Password);
        using var strangers = await Desk.AtAsync(rendal);
        var (_, alike) = await InviteAsync(strangers, name.Replace("The", "\u0422h\u0435", StringComparison.Ordinal));
        using var stranger = rendal.Browser();
        Assert.Equal(HttpStatusCode.NotFound, (await JoinAsync(stranger, alike, "a stranger's own")).StatusCode);
    }

    [Fact]
    public async Task A_stream_of_progress_ends_with_the_session()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await ColleagueAsync(desk);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        using var answer = await colleague.GetAsync(
            $"{desk.Api}/rounds/{round.Id()}/progress",
            HttpCompletionOption.ResponseHeadersRead,
            Cancel
        );
        await using var stream = await answer.Content.ReadAsStreamAsync(Cancel);
        Assert.True(await stream.ReadAsync(new byte[1], Cancel) > 0);
        Assert.Equal(HttpStatusCode.NoContent, (await colleague.DeleteAsync("/api/session", Cancel)).StatusCode);
        await stream.CopyToAsync(Stream.Null, Cancel);
    }

    [Fact]
    public async Task A_book_is_never_nobodys()
    {
        using var desk = await Desk.AtAsync(rendal);
        var me = (await desk.Browser.GetJsonAsync($"{desk.Api}/people")).GetProperty("people").EnumerateArray().Single();
        Assert.True(me.GetProperty("isYou").GetBoolean());
        var refused = await desk.Browser.DeleteAsync($"{desk.Api}/people/{me.Id()}", Cancel);
        Assert.Equal("Nobody else has this book, so it cannot be taken away. Give it to somebody first.", await refused.DetailAsync());
    }

    [Theory]
    [InlineData(" ", "Say the name to sign in with.")]
    [InlineData("ines\r\nBcc: all@tarnbrook.example", "A name to sign in with has at most 100 characters, on one line.")]
    public async Task A_name_that_nobody_could_sign_in_with_is_refused(string name, string says)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/people", new { name }, Cancel);
        Assert.Equal(says, await answer.DetailAsync());
    }

    private static async Task<(string Name, string Key)> InviteAsync(Desk desk, string? name = null)
    {
        name ??= $"ines-{Guid.NewGuid():N}";
        var given = await desk.Browser.PostJsonAsync($"{desk.Api}/people", new { name });
        return (name, given.Text("key"));
    }

    private static Task<HttpResponseMessage> AcceptAsync(HttpClient browser, string key) =>
        browser.PostAsJsonAsync("/api/invitations/accept", new { key }, Cancel);

    private static async Task<long> NumberAsync(Desk desk, string name) =>
        (await desk.Browser.GetJsonAsync($"{desk.Api}/people"))
            .GetProperty("people")
            .EnumerateArray()
            .Single(p => p.Text("name") == name)
            .Id();

    /// <summary>Somebody else who has the book.</summary>
    private async Task<HttpClient> ColleagueAsync(Desk desk)
    {
        var browser = rendal.Browser();
        Assert.Equal(HttpStatusCode.NoContent, (await JoinAsync(browser, (await InviteAsync(desk)).Key, Password)).StatusCode);
        return browser;
    }

    private static Task<HttpResponseMessage> JoinAsync(HttpClient browser, string key, string password) =>
        browser.PostAsJsonAsync("/api/invitations/join", new { key, password }, Cancel);
}
