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
        Assert.Equal(HttpStatusCode.NoContent, (await later.PostAsJsonAsync("/api/session", new { name = name.ToUpperInvariant(), password = Password }, Cancel)).StatusCode);
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
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.DeleteAsync($"{desk.Api}/people/invitations/{listed.Single(i => i.Text("name") == taken).Id()}", Cancel)).StatusCode);
        var (old, tooOld) = await InviteAsync(desk);
        await using (var age = rendal.App.Services.GetRequiredService<NpgsqlDataSource>().CreateCommand($"update invitation set good_until = now() - interval '1 second' where name = '{old}'"))
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
    public async Task Who_can_sign_in_already_has_the_book_at_once_until_it_is_taken_away()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var next = await Desk.AtAsync(rendal);
        var (name, key) = await InviteAsync(desk);
        using var colleague = rendal.Browser();
        await JoinAsync(colleague, key, Password);
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);

        var given = await next.Browser.PostJsonAsync($"{next.Api}/people", new { name = $" {name.ToUpperInvariant()} " });
        Assert.Equal(System.Text.Json.JsonValueKind.Null, given.GetProperty("key").ValueKind);
        Assert.Equal(HttpStatusCode.OK, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);

        var person = (await next.Browser.GetJsonAsync($"{next.Api}/people")).GetProperty("people").EnumerateArray().Single(p => p.Text("name") == name).Id();
        Assert.Equal(HttpStatusCode.NoContent, (await next.Browser.DeleteAsync($"{next.Api}/people/{person}", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync(next.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await colleague.GetAsync(desk.Api, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await next.Browser.DeleteAsync($"{next.Api}/people/{person}", Cancel)).StatusCode);
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
    [InlineData(" ")]
    [InlineData("ines\r\nBcc: all@tarnbrook.example")]
    public async Task A_name_that_nobody_could_sign_in_with_is_refused(string name)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/people", new { name }, Cancel);
        Assert.Equal("Say the name that they sign in with, or are to sign in with: at most 100 characters, on one line.", await answer.DetailAsync());
    }

    private static async Task<(string Name, string Key)> InviteAsync(Desk desk, string? name = null)
    {
        name ??= $"ines-{Guid.NewGuid():N}";
        var given = await desk.Browser.PostJsonAsync($"{desk.Api}/people", new { name });
        return (name, given.Text("key"));
    }

    private static Task<HttpResponseMessage> JoinAsync(HttpClient browser, string key, string password) =>
        browser.PostAsJsonAsync("/api/invitations/join", new { key, password }, Cancel);
}
