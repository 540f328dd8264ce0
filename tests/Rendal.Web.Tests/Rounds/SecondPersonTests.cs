using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

/// <summary>In a book that asks for it, nobody releases what they prepared themselves.</summary>
public sealed class SecondPersonTests(RunningRendal rendal) : IClassFixture<RunningRendal>
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
        "CR03,Crown Inn,Credit note,C-1,2026-09-01,,-5.00,c@crown.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Who_prepared_a_round_does_not_release_it_and_somebody_else_does()
    {
        var (desk, colleague, round) = await OpenAsync();
        var refused = await desk.ReleaseAsync(round, 2);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Equal(
            "You made or changed this round, and in this book somebody else releases it. Request its release.",
            await refused.DetailAsync()
        );
        Assert.All((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels"), p =>
            Assert.Equal("prepared", p.Text("status"))
        );
        Assert.False((await ApprovalAsync(desk.Browser, desk, round)).GetProperty("mayRelease").GetBoolean());
        Assert.True((await ApprovalAsync(colleague, desk, round)).GetProperty("mayRelease").GetBoolean());
        Assert.Equal(HttpStatusCode.OK, (await (desk with { Browser = colleague }).ReleaseAsync(round, 2)).StatusCode);
    }

    [Fact]
    public async Task Who_only_keeps_a_parcel_back_releases_the_others_and_who_lets_it_go_again_does_not()
    {
        var (desk, colleague, round) = await OpenAsync();
        await DecideAsync(colleague, desk, round, "AB01", "held");
        Assert.True(await MayAsync(colleague, desk, round));
        await DecideAsync(colleague, desk, round, "AB01", null);
        Assert.False(await MayAsync(colleague, desk, round));
        Assert.Equal(HttpStatusCode.Conflict, (await (desk with { Browser = colleague }).ReleaseAsync(round, 2)).StatusCode);
        await DecideAsync(colleague, desk, round, "AB01", "held");
        Assert.Equal(HttpStatusCode.OK, (await (desk with { Browser = colleague }).ReleaseAsync(round, 1)).StatusCode);
    }

    [Fact]
    public async Task Who_changes_what_goes_is_one_of_those_who_prepared_it()
    {
        var (desk, colleague, round) = await OpenAsync();
        var theirs = desk with { Browser = colleague };

        // The card of a customer that is not in it is no matter.
        await (await theirs.PutCardAsync("CR03", "Crown Inn", "other@crown.example")).JsonAsync();
        Assert.True(await MayAsync(colleague, desk, round));
        await (await theirs.PutCardAsync("AB01", "Abbot’s Table", "mine@elsewhere.example")).JsonAsync();
        Assert.False(await MayAsync(colleague, desk, round));
        Assert.Equal(HttpStatusCode.Conflict, (await theirs.ReleaseAsync(round, 2)).StatusCode);
    }

    [Fact]
    public async Task Who_is_asked_is_told_by_whom_and_what_changed_since()
    {
        var (desk, colleague, round) = await OpenAsync();
        Assert.Equal("", (await ApprovalAsync(colleague, desk, round)).Text("requestedBy"));
        await RequestAsync(desk, round);
        var asked = await ApprovalAsync(colleague, desk, round);
        Assert.Equal(("odile", ""), (asked.Text("requestedBy"), asked.Text("since")));
        Assert.Equal(["odile"], asked.List("preparers").Select(p => p.GetString()));
        Assert.NotEmpty(asked.List("sample"));
        Assert.Equal("odile", await RequestedByAsync(colleague, desk, round));

        await DecideAsync(desk.Browser, desk, round, "AB01", "held");
        Assert.Matches(@"^odile decided about Abbot’s Table at \d", (await ApprovalAsync(colleague, desk, round)).Text("since"));
        await RequestAsync(desk, round);
        Assert.Equal("", (await ApprovalAsync(colleague, desk, round)).Text("since"));

        // What changes by itself is told as well, also when somebody has said to have seen it.
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "other@beacon.example")).JsonAsync();
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        await desk.LookAtAsync(round);
        Assert.StartsWith(
            "what goes is not what it was",
            (await ApprovalAsync(colleague, desk, round)).Text("since"),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.OK, (await (desk with { Browser = colleague }).ReleaseAsync(round, 1)).StatusCode);
        Assert.Equal("", await RequestedByAsync(colleague, desk, round));
    }

    [Fact]
    public async Task A_request_names_what_was_shown()
    {
        var (desk, _, round) = await OpenAsync();
        var shown = await desk.SummaryAsync(round);
        await DecideAsync(desk.Browser, desk, round, "AB01", "held");
        var refused = await RequestAsync(desk, round, shown);
        Assert.Equal(
            (HttpStatusCode.Conflict, "The round is not what you were shown any more. Look at it, and ask again."),
            (refused.StatusCode, await refused.DetailAsync())
        );
        await DecideAsync(desk.Browser, desk, round, "BE02", "held");
        refused = await RequestAsync(desk, round, await desk.SummaryAsync(round));
        Assert.Equal("Nothing of this round is ready to be released.", await refused.DetailAsync());
    }

    [Fact]
    public async Task Only_who_made_the_book_asks_for_a_second_person_and_not_while_there_is_none()
    {
        using var desk = await Desk.AtAsync(rendal);
        var alone = await DemandAsync(desk.Browser, desk, true);
        Assert.Equal(
            (HttpStatusCode.Conflict, "Nobody else has this book, so nobody could release anything. Invite somebody first."),
            (alone.StatusCode, await alone.DetailAsync())
        );
        var colleague = await desk.ColleagueAsync(rendal);
        var notTheirs = await DemandAsync(colleague, desk, true);
        Assert.Equal(
            (HttpStatusCode.Conflict, "Only who made the book decides that: odile."),
            (notTheirs.StatusCode, await notTheirs.DetailAsync())
        );
        Assert.Equal(HttpStatusCode.NoContent, (await DemandAsync(desk.Browser, desk, true)).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await DemandAsync(colleague, desk, false)).StatusCode);
        Assert.True((await colleague.GetJsonAsync($"{desk.Api}/people")).GetProperty("needsSecondPerson").GetBoolean());
    }

    private async Task<(Desk Desk, HttpClient Colleague, long Round)> OpenAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        var colleague = await desk.ColleagueAsync(rendal);
        Assert.Equal(HttpStatusCode.NoContent, (await DemandAsync(desk.Browser, desk, true)).StatusCode);
        await desk.TakeInAsync(Ledger);
        return (desk, colleague, (await desk.PrepareAsync()).Id());
    }

    private static Task<HttpResponseMessage> DemandAsync(HttpClient browser, Desk desk, bool isNeeded) =>
        browser.PutAsJsonAsync($"{desk.Api}/people/second-person", new { isNeeded }, Cancel);

    private static async Task<JsonElement> ApprovalAsync(HttpClient browser, Desk desk, long round) =>
        (await (desk with { Browser = browser }).SummaryAsync(round)).GetProperty("approval");

    private static async Task<bool> MayAsync(HttpClient browser, Desk desk, long round) =>
        (await ApprovalAsync(browser, desk, round)).GetProperty("mayRelease").GetBoolean();

    private static async Task RequestAsync(Desk desk, long round) =>
        Assert.Equal(HttpStatusCode.NoContent, (await RequestAsync(desk, round, await desk.SummaryAsync(round))).StatusCode);

    private static Task<HttpResponseMessage> RequestAsync(Desk desk, long round, JsonElement shown) =>
        desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round}/release-request",
            new { revision = shown.GetProperty("revision").GetInt64(), seen = shown.GetProperty("approval").Text("allSeen") },
            Cancel
        );

    private static async Task<string> RequestedByAsync(HttpClient browser, Desk desk, long round) =>
        (await browser.GetJsonAsync($"{desk.Api}/rounds")).List("rounds").Single(r => r.Id() == round).Text("requestedBy");

    private static async Task DecideAsync(HttpClient browser, Desk desk, long round, string customer, string? decision)
    {
        var answer = await browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round}/decisions?revision={await desk.RevisionAsync(round)}",
            new
            {
                customers = new[] { customer },
                decision,
                reason = "",
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
    }
}
