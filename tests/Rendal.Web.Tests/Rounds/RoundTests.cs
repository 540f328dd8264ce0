using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

public class RoundTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail,Unit,Dispute",
        "AB01,Abbot’s Table,Invoice,T-1,2026-07-01,2026-08-01,GBP,100.00,a@abbot.example,Northgate,",
        "AB01,Abbot’s Table,Credit note,C-1,2026-10-01,,GBP,-10.00,a@abbot.example,Northgate,",
        "BE02,Beacon Lodge,Invoice,T-2,2026-10-01,2026-10-31,GBP,60.05,b@beacon.example,Harbour,",
        "CA01,Carrow House,Invoice,T-3,2026-08-01,2026-09-01,EUR,40.00,c@carrow.example,Harbour,short delivery",
        "DU04,Dunmore Clinic,Invoice,T-4,2026-08-01,2026-09-01,GBP,5.00,d@dunmore.example,Northgate,",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_choice_shows_its_effect_and_the_proof_closes_every_time()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        Assert.Equal(["AB01", "BE02", "CA01", "DU04"], Customers(round));
        Assert.Equal("90.00", Sum(round, "AB01"));

        Assert.Equal(["AB01", "CA01", "DU04"], Customers(await ChangeAsync(desk, round, s => s["overdueDays"] = 30)));
        Assert.Equal(["AB01", "BE02", "CA01"], Customers(await ChangeAsync(desk, round, s => s["leastBalance"] = 10)));
        Assert.Equal(["AB01", "BE02", "DU04"], Customers(await ChangeAsync(desk, round, s => s["leaveOutHeld"] = true)));
        Assert.Equal(["BE02", "CA01"], Customers(await ChangeAsync(desk, round, s => s["units"] = new[] { "Harbour" })));
        var without = await ChangeAsync(desk, round, s => s["withCredits"] = false);
        Assert.Equal("100.00", Sum(without, "AB01"));
        Assert.Equal(["AB01", "CA01", "DU04"], Customers(await ChangeAsync(desk, round, s => s["dueTo"] = "2026-09-30")));
        Assert.Equal(
            ["BE02"],
            Customers(
                await ChangeAsync(desk, round, s => (s["datedFrom"], s["datedTo"], s["withCredits"]) = ("2026-10-01", "2026-10-31", false))
            )
        );
        Assert.Contains(without.List("leftOut"), l => l.Text("reason") == "credits-not-wanted" && l.Text("amount") == "-10.00");
    }

    [Fact]
    public async Task What_a_choice_would_come_to_is_told_before_it_is_carried_out_and_is_what_it_comes_to()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([
            .. Ledger,
            "EA01,East Quay,Invoice,T-5,2026-08-01,31/31/2026,GBP,5.00,,Northgate,",
            "FE01,Fernlea,Invoice,T-6,2026-08-01,2026-09-01,GBP,7.00,,Northgate,",
        ]);
        var round = await desk.PrepareAsync();
        await DecideAsync(desk, round, "BE02", "removed", "asked");
        foreach (
            var change in new Action<Dictionary<string, object?>>[]
            {
                s => s["leaveOutHeld"] = true,
                s => s["units"] = new[] { "Harbour" },
                s => s["withCredits"] = false,
                s => s["asOf"] = "2026-08-15",
            }
        )
        {
            Assert.Equal(
                HttpStatusCode.NoContent,
                (await desk.Browser.PostAsJsonAsync($"{desk.Api}/rounds/{round.Id()}/count", Changed(round, change), Cancel)).StatusCode
            );
        }

        Action<Dictionary<string, object?>>[] changes =
        [
            s => s["overdueDays"] = 30,
            s => s["leastBalance"] = 50,
            s => s["notWithinDays"] = 7,
            s => (s["overdueDays"], s["leastBalance"]) = (30, 20),
            s => s["headOffices"] = new[] { "AB01" },
            s => s["groups"] = "both",
        ];
        foreach (var change in changes)
        {
            var count = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/count", Changed(round, change));
            var changed = await ChangeAsync(desk, round, change);
            Assert.Equal(changed.List("parcels").Count(), count.GetProperty("parcels").GetInt32());
            Assert.Equal(
                changed.List("proof").Select(p => (p.Text("currency"), p.Text("parcels"))).Where(p => p.Item2 != "0.00"),
                count.List("sums").Select(s => (s.Text("currency"), s.Text("amount")))
            );
            Assert.Equal(
                changed.List("leftOut").GroupBy(l => l.Text("reason")).Select(g => (g.Key, g.Count())).Order(),
                count.List("leftOut").Select(l => (l.Text("reason"), l.GetProperty("customers").GetInt32())).Order()
            );
        }
    }

    [Fact]
    public async Task A_choice_is_saved_under_a_name_and_used_in_another_round_with_that_rounds_own_day()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        await ChangeAsync(desk, round, s => (s["units"], s["leaveOutHeld"], s["overdueDays"]) = (new[] { "Northgate" }, true, 60));
        var saved = (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/choices", new { name = " Northern reminders " }))
            .EnumerateArray()
            .Single();
        Assert.Equal("Northern reminders", saved.Text("name"));

        var other = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "September", asOf = "2026-09-30" });
        var used = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{other.Id()}/choices/{saved.Id()}?revision={await desk.RevisionAsync(other.Id())}",
            new { }
        );
        Assert.Equal(["AB01"], Customers(used));
        Assert.Equal(
            ("2026-09-30", 60, true),
            (
                used.GetProperty("settings").Text("asOf"),
                used.GetProperty("settings").GetProperty("overdueDays").GetInt32(),
                used.GetProperty("settings").GetProperty("leaveOutHeld").GetBoolean()
            )
        );

        // Saved again under the same name, whatever its case, it is replaced; forgotten, it is gone.
        await ChangeAsync(desk, other, s => s["leastBalance"] = 5);
        Assert.Single(
            (
                await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{other.Id()}/choices", new { name = "northern Reminders" })
            ).EnumerateArray()
        );
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.DeleteAsync($"{desk.Api}/choices/{saved.Id()}", Cancel)).StatusCode);
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/choices")).EnumerateArray());
        Assert.Equal(
            "Give the choice a name.",
            await (await desk.Browser.PostAsJsonAsync($"{desk.Api}/rounds/{other.Id()}/choices", new { name = " " }, Cancel)).DetailAsync()
        );
    }

    [Fact]
    public async Task Currencies_have_a_proof_each_and_the_books_own_comes_first()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var proofs = (await desk.PrepareAsync()).List("proof").ToList();
        Assert.Equal([("GBP", "155.05"), ("EUR", "40.00")], proofs.Select(p => (p.Text("currency"), p.Text("ledger"))));
        Assert.All(proofs, p => Assert.Equal("0.00", p.Text("difference")));
        Assert.All(proofs, p => Assert.Equal(1, p.List("parts").Sum(part => part.GetProperty("share").GetDouble()), 6));
    }

    [Fact]
    public async Task A_customer_is_held_taken_out_and_put_back()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var held = await DecideAsync(desk, round, "AB01", "held", "");
        Assert.Equal("held", held.List("parcels").Single(p => p.Text("customer") == "AB01").Text("status"));
        var removed = await DecideAsync(desk, round, "AB01", "removed", "paid this morning");
        Assert.Contains(removed.List("leftOut"), l =>
            l.Text("customer") == "AB01" && l.Text("reason") == "removed-by-hand" && l.Text("amount") == "90.00"
        );
        Assert.Contains("AB01", Customers(await DecideAsync(desk, round, "AB01", null, "")));
        var nonsense = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/decisions?revision=1",
            new
            {
                customers = new[] { "AB01" },
                decision = "burnt",
                reason = "",
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, nonsense.StatusCode);
    }

    [Fact]
    public async Task What_is_held_or_waits_for_a_person_stays_when_the_rest_is_released()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([.. Ledger, "EA01,East Quay,Invoice,T-5,2026-08-01,2026-09-01,GBP,9.00,ok@quay.example,Harbour,"]);
        await (await desk.PutCardAsync("EA01", "East Quay", "east@@quay; ok@quay.example")).JsonAsync();
        var round = await desk.PrepareAsync();
        await DecideAsync(desk, round, "AB01", "held", "");
        var summary = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/summary",
            new { parcels = (long[]?)null, count = 0 }
        );
        Assert.Equal(
            (3, 1, 1),
            (summary.GetProperty("messages").GetInt32(), summary.GetProperty("held").GetInt32(), summary.GetProperty("needYou").GetInt32())
        );
        var ready = summary.GetProperty("messages").GetInt32();
        await (await desk.ReleaseAsync(round.Id(), ready)).JsonAsync();
        var settled = await desk.SettledAsync(round.Id());
        Assert.Equal("held", settled.List("parcels").Single(p => p.Text("customer") == "AB01").Text("status"));
        Assert.Equal(ready, rendal.Mailbox.Of($"book-{desk.Book}").Count);
        Assert.DoesNotContain(rendal.Mailbox.Of($"book-{desk.Book}"), m => m.Recipients.Contains("a@abbot.example"));
    }

    [Fact]
    public async Task A_released_round_stays_as_it_is()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var shown = await desk.SummaryAsync(round.Id());
        await (await desk.ReleaseSeenAsync(round.Id(), shown)).JsonAsync();
        await desk.SettledAsync(round.Id());
        foreach (
            var answer in new[]
            {
                await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel),
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}/decisions?revision=1",
                    new
                    {
                        customers = new[] { "AB01" },
                        decision = "held",
                        reason = "",
                    },
                    Cancel
                ),
                await desk.ReleaseSeenAsync(round.Id(), shown),
            }
        )
        {
            Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        }

        Assert.Equal(4, rendal.Mailbox.Of($"book-{desk.Book}").Count);
    }

    [Fact]
    public async Task Who_was_written_to_lately_is_left_out_when_asked_for()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var first = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(first.Id(), 4)).JsonAsync();
        await desk.SettledAsync(first.Id());
        var today = (await desk.Browser.GetJsonAsync(desk.Api)).Text("today");
        var second = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "Again", asOf = today });
        Assert.Equal(4, second.List("parcels").Count());
        var spared = await ChangeAsync(desk, second, s => s["notWithinDays"] = 7);
        Assert.Empty(spared.List("parcels"));
        Assert.All(spared.List("leftOut"), l => Assert.Equal("written-to-recently", l.Text("reason")));
    }

    [Fact]
    public async Task Without_a_ledger_there_is_nothing_to_prepare()
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/rounds", new { name = "October", asOf = "2026-10-31" }, Cancel);
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Equal("There is no ledger. Take in a ledger file first.", await answer.DetailAsync());
    }

    private static IEnumerable<string> Customers(JsonElement round)
    {
        Assert.All(round.List("proof"), p => Assert.Equal("0.00", p.Text("difference")));
        return round.List("parcels").Select(p => p.Text("customer")).Order(StringComparer.Ordinal);
    }

    private static string Sum(JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer).List("sums").Single().Text("total");

    internal static async Task<JsonElement> ChangeAsync(Desk desk, JsonElement round, Action<Dictionary<string, object?>> change)
    {
        return await (
            await desk.Browser.PutAsJsonAsync(
                $"{desk.Api}/rounds/{round.Id()}?revision={await desk.RevisionAsync(round.Id())}",
                Changed(round, change),
                Cancel
            )
        ).JsonAsync();
    }

    /// <summary>The settings of a round with a change.</summary>
    internal static Dictionary<string, object?> Changed(JsonElement round, Action<Dictionary<string, object?>> change)
    {
        var settings = JsonSerializer.Deserialize<Dictionary<string, object?>>(round.GetProperty("settings").GetRawText())!;
        change(settings);
        return settings;
    }

    /// <summary>Decides about a customer.</summary>
    /// <returns>The round afterwards.</returns>
    private static async Task<JsonElement> DecideAsync(Desk desk, JsonElement round, string customer, string? decision, string reason)
    {
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/decisions?revision={await desk.RevisionAsync(round.Id())}",
            new
            {
                customers = new[] { customer },
                decision,
                reason,
            }
        );
        return await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
    }
}
