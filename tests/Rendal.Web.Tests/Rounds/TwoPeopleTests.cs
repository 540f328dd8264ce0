using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

/// <summary>Two people have one round open; each names the revision that they saw.</summary>
public sealed class TwoPeopleTests(RunningRendal rendal) : IClassFixture<RunningRendal>
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_both_change_stands_and_the_second_to_change_the_same_is_told_who_was_first()
    {
        var (desk, colleague, round) = await OpenAsync();
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(colleague, desk, round, s => s["leastBalance"] = 15)).StatusCode);
        var both = await (await ChangeAsync(desk.Browser, desk, round, s => s["name"] = "The round of October")).JsonAsync();
        Assert.Equal(
            ("The round of October", "15"),
            (both.Text("name"), both.GetProperty("settings").GetProperty("leastBalance").ToString())
        );
        Assert.Equal(["BE02"], both.List("parcels").Select(p => p.Text("customer")));

        var refused = await ChangeAsync(desk.Browser, desk, round, s => s["leastBalance"] = 30);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Matches(
            @"^colleague-\w+ changed the minimum balance at \d\d:\d\d:\d\d since you saw it\. Look at it; if yours is to stand, change it again\.$",
            await refused.DetailAsync()
        );
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(desk.Browser, desk, both, s => s["leastBalance"] = 0)).StatusCode);
    }

    [Fact]
    public async Task Two_hold_different_parcels_and_of_two_who_decide_about_one_the_second_is_told()
    {
        var (desk, colleague, round) = await OpenAsync();
        await (await DecideAsync(colleague, desk, round, "AB01", "held")).JsonAsync();
        await (await DecideAsync(desk.Browser, desk, round, "BE02", "held")).JsonAsync();
        var both = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        Assert.All(both.List("parcels"), p => Assert.Equal("held", p.Text("status")));
        Assert.Equal(round.List("parcels").Select(p => p.Id()), both.List("parcels").Select(p => p.Id()));
        var refused = await DecideAsync(desk.Browser, desk, round, "AB01", null);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Matches(@"^colleague-\w+ decided about Abbot’s Table at ", await refused.DetailAsync());
        Assert.Equal(HttpStatusCode.NoContent, (await DecideAsync(desk.Browser, desk, both, "AB01", null)).StatusCode);
    }

    [Fact]
    public async Task Who_releases_names_the_revision_that_was_shown()
    {
        var (desk, colleague, round) = await OpenAsync();
        var shown = await desk.SummaryAsync(round.Id());
        await (await DecideAsync(colleague, desk, round, "AB01", "held")).JsonAsync();
        await (
            await DecideAsync(colleague, desk, (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")), "AB01", null)
        ).JsonAsync();

        // Exactly the same parcels are ready as before; still somebody was at them.
        Assert.Equal(shown.Text("seen"), (await desk.SummaryAsync(round.Id())).Text("seen"));
        var refused = await desk.ReleaseSeenAsync(round.Id(), shown);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.StartsWith("colleague-", await refused.DetailAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round.Id(), 2)).StatusCode);
    }

    [Fact]
    public async Task Who_has_it_open_hears_that_it_was_changed_by_its_revision()
    {
        var (desk, colleague, round) = await OpenAsync();
        Assert.Equal((false, false), await NowAsync(desk, round));
        await (await DecideAsync(colleague, desk, round, "AB01", "held")).JsonAsync();
        Assert.Equal((true, false), await NowAsync(desk, round));
        var seen = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "other@abbot.example")).JsonAsync();
        Assert.Equal((false, true), await NowAsync(desk, seen));
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { });
        Assert.Equal((true, false), await NowAsync(desk, seen));
        var missing = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/decisions",
            new
            {
                customers = new[] { "AB01" },
                decision = "held",
                reason = "",
            },
            Cancel
        );
        Assert.Equal((HttpStatusCode.BadRequest, "The request is not understood."), (missing.StatusCode, await missing.DetailAsync()));
    }

    private async Task<(Desk Desk, HttpClient Colleague, JsonElement Round)> OpenAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        return (desk, await desk.ColleagueAsync(rendal), await desk.PrepareAsync());
    }

    /// <summary>Whether a round is another than somebody sees, and whether it is behind what it uses.</summary>
    private static async Task<(bool IsOther, bool IsBehind)> NowAsync(Desk desk, JsonElement seen)
    {
        var now = await desk.Browser.GetJsonAsync(
            $"{desk.Api}/rounds/{seen.Id()}/revision?revision={seen.GetProperty("revision")}&preparedAt={Uri.EscapeDataString(seen.Text("preparedAt"))}"
        );
        return (now.GetProperty("isOther").GetBoolean(), now.GetProperty("isBehind").GetBoolean());
    }

    private static Task<HttpResponseMessage> ChangeAsync(
        HttpClient browser,
        Desk desk,
        JsonElement seen,
        Action<Dictionary<string, object?>> change
    ) =>
        browser.PutAsJsonAsync(
            $"{desk.Api}/rounds/{seen.Id()}?revision={seen.GetProperty("revision")}",
            RoundTests.Changed(seen, change),
            Cancel
        );

    private static Task<HttpResponseMessage> DecideAsync(
        HttpClient browser,
        Desk desk,
        JsonElement seen,
        string customer,
        string? decision
    ) =>
        browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{seen.Id()}/decisions?revision={seen.GetProperty("revision")}",
            new
            {
                customers = new[] { customer },
                decision,
                reason = "",
            },
            Cancel
        );
}
