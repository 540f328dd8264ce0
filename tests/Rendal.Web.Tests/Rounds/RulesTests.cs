using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Rendal.Web.Tests.Rounds;

/// <summary>What is set for all statements of a book.</summary>
public class RulesTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-21,2026-10-21,GBP,100.00,a@abbot.example",
        "AB01,Abbot’s Table,Credit note,C-1,2026-09-30,2026-09-30,GBP,-30.00,a@abbot.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>Changes the rules of a book.</summary>
    internal static async Task PutAsync(Desk desk, Action<JsonObject> change)
    {
        var rules = JsonNode.Parse((await desk.Browser.GetJsonAsync(desk.Api)).GetProperty("rules").GetRawText())!.AsObject();
        change(rules);
        var answer = await desk.Browser.PutAsJsonAsync($"{desk.Api}/rules", rules, Cancel);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
    }

    [Fact]
    public async Task Bands_age_and_credits_go_by_what_is_set_and_a_released_round_stays_as_it_was()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var before = await desk.PrepareAsync();
        Assert.Equal("0.00 100.00 0.00 0.00 0.00 | -30.00 | 100.00", Figures(before));
        await (await desk.ReleaseAsync(before.Id(), 1)).JsonAsync();
        await desk.SettledAsync(before.Id());

        await PutAsync(desk, rules => (rules["edges"], rules["by"], rules["creditsByDate"]) = ("7, 35", "document", true));
        Assert.Equal(
            ["not due", "1–7", "8–35", "35+"],
            (await desk.Browser.GetJsonAsync(desk.Api)).List("ageLabels").Select(l => l.GetString())
        );
        Assert.Equal("0.00 0.00 -30.00 100.00 | 0.00 | 100.00", Figures(await desk.PrepareAsync()));

        var released = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{before.Id()}");
        Assert.Equal(["not due", "1–30", "31–60", "61–90", "90+"], released.List("ageLabels").Select(l => l.GetString()));
        Assert.Contains("61–90 days", await desk.MessageAsync(released.List("parcels").Single().Id()));
    }

    [Fact]
    public async Task What_was_looked_at_by_other_bands_is_not_released_unseen()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        await PutAsync(desk, rules => rules["edges"] = "5 50");
        Assert.Equal(
            "Since this round was looked through, the figures (one parcel) and the round’s name, date or ages (one parcel) changed.",
            await desk.UnseenAsync(round.Id())
        );
    }

    [Fact]
    public async Task Payments_settle_only_what_they_name_where_that_is_set()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Amount,Reference,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-08-01,2026-09-01,100.00,,a@abbot.example",
            "AB01,Abbot’s Table,Payment,P-1,2026-09-05,,-60.00,,a@abbot.example"
        );
        Assert.Equal(1, Items(await desk.PrepareAsync()));
        await PutAsync(desk, rules => rules["settlement"] = "reference");
        Assert.Equal(2, Items(await desk.PrepareAsync()));

        static int Items(System.Text.Json.JsonElement round) => round.List("parcels").Single().GetProperty("items").GetInt32();
    }

    [Theory]
    [InlineData("30, 30")]
    [InlineData("")]
    [InlineData("30, a month")]
    [InlineData("-1")]
    [InlineData("99999999999")]
    public async Task Bands_that_do_not_grow_are_refused_in_words(string edges)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/rules",
            new
            {
                edges,
                by = "due",
                creditsByDate = false,
                form = "open-items",
                settlement = (string?)null,
                termsDays = 30,
                levels = new[] { new { days = 7, gap = 0 } },
                maySkip = false,
                mayRepeat = false,
            },
            Cancel
        );
        Assert.Equal(
            (HttpStatusCode.UnprocessableEntity, "The bands need one to eight last days that grow, such as 30, 60, 90."),
            (answer.StatusCode, await answer.DetailAsync())
        );
    }

    private static string Figures(System.Text.Json.JsonElement round)
    {
        var sum = round.List("parcels").Single().List("sums").Single();
        return $"{string.Join(' ', sum.List("bands").Select(b => b.GetString()))} | {sum.Text("credits")} | {sum.Text("overdue")}";
    }
}
