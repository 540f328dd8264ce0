using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

public class AccountTests(RunningRendal rendal)
{
    /// <summary>A file of movements: what was charged and what was paid, each with its full amount.</summary>
    private static readonly string[] Movements =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Amount,Reference,E-mail,Van",
        "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,GBP,100.00,,a@abbot.example,N1",
        "AB01,Abbot’s Table,Invoice,T-2,2026-03-01,2026-04-01,GBP,50.00,,a@abbot.example,N1",
        "AB01,Abbot’s Table,Payment,P-1,2026-05-01,,GBP,-120.00,T-2,a@abbot.example,N1",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-01,2026-10-01,GBP,200.00,,b@beacon.example,N2",
        "BE02,Beacon Lodge,Invoice,T-4,2026-09-08,2026-10-08,GBP,30.00,,b@beacon.example,N2",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Every_figure_of_an_account_tells_its_row_and_what_settled_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var account = await AccountAsync(desk, round, "AB01");
        Assert.Equal(
            [("T-1", "30.00", "", 2), ("T-2", "0.00", "settled", 3), ("P-1", "0.00", "settled", 4)],
            account.List("items").Select(i => (i.Text("name"), i.Text("open"), i.Text("reason"), i.GetProperty("row").GetInt32()))
        );
        Assert.Equal(
            [("P-1", "T-2", "50.00", "reference"), ("P-1", "T-1", "70.00", "age")],
            account.List("settlings").Select(s => (s.Text("credit"), s.Text("charge"), s.Text("amount"), s.Text("by")))
        );
    }

    [Fact]
    public async Task A_payment_is_set_by_hand_and_that_is_remembered_over_the_next_intake_until_it_is_taken_back()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var (payment, first) = (await KeyAsync(desk, round, "P-1"), await KeyAsync(desk, round, "T-1"));
        await SayAsync(
            desk,
            "settlements",
            new
            {
                customer = "AB01",
                credit = payment,
                charge = first,
                amount = 100m,
            }
        );
        Assert.Equal([("T-1", "0.00"), ("T-2", "30.00"), ("P-1", "0.00")], Open(await AccountAsync(desk, round, "AB01")));

        await desk.TakeInAsync([.. Movements, "AB01,Abbot’s Table,Invoice,T-9,2026-10-01,2026-10-31,GBP,5.00,,a@abbot.example,N1"]);
        var next = await desk.PrepareAsync();
        Assert.Equal("35.00", Total(next, "AB01"));
        var account = await AccountAsync(desk, next, "AB01");
        Assert.Equal([("T-1", "0.00"), ("T-2", "30.00"), ("P-1", "0.00"), ("T-9", "5.00")], Open(account));
        var said = account.List("said").Single();
        Assert.Equal(("P-1", "T-1"), (said.Text("credit"), said.Text("charge")));
        await SayAsync(desk, $"settlements/{said.Id()}/take-back", new { });
        Assert.Equal([("T-1", "30.00"), ("T-2", "0.00"), ("P-1", "0.00"), ("T-9", "5.00")], Open(await AccountAsync(desk, next, "AB01")));

        await SayAsync(
            desk,
            "settlements",
            new
            {
                customer = "AB01",
                credit = payment,
                charge = (string?)null,
                amount = (decimal?)null,
            }
        );
        Assert.Equal(
            [("T-1", "100.00"), ("T-2", "50.00"), ("P-1", "-120.00"), ("T-9", "5.00")],
            Open(await AccountAsync(desk, next, "AB01"))
        );
    }

    [Fact]
    public async Task What_cannot_be_set_is_refused_in_words()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var (payment, first, second) = (
            await KeyAsync(desk, round, "P-1"),
            await KeyAsync(desk, round, "T-1"),
            await KeyAsync(desk, round, "T-2")
        );
        Assert.Equal(
            "T-1 is not a payment or credit.",
            await RefusedAsync(
                desk,
                "settlements",
                new
                {
                    customer = "AB01",
                    credit = first,
                    charge = second,
                    amount = (decimal?)null,
                },
                HttpStatusCode.UnprocessableEntity
            )
        );
        Assert.Equal(
            "P-1 is nothing that a payment could be set against.",
            await RefusedAsync(
                desk,
                "settlements",
                new
                {
                    customer = "AB01",
                    credit = payment,
                    charge = payment,
                    amount = (decimal?)null,
                },
                HttpStatusCode.UnprocessableEntity
            )
        );
        Assert.Equal(
            "Set an amount above 0, or none for as much as there is.",
            await RefusedAsync(
                desk,
                "settlements",
                new
                {
                    customer = "AB01",
                    credit = payment,
                    charge = first,
                    amount = -1m,
                },
                HttpStatusCode.UnprocessableEntity
            )
        );
        await RefusedAsync(
            desk,
            "settlements",
            new
            {
                customer = "BE02",
                credit = payment,
                charge = first,
                amount = 1m,
            },
            HttpStatusCode.NotFound
        );
        Assert.Equal(
            "The day on which it comes up again has to lie ahead.",
            await RefusedAsync(
                desk,
                "holds",
                new
                {
                    customer = "AB01",
                    item = first,
                    note = "asked",
                    until = "2020-01-01",
                },
                HttpStatusCode.UnprocessableEntity
            )
        );
        Assert.Equal(
            "Say why it is held back.",
            await RefusedAsync(
                desk,
                "holds",
                new
                {
                    customer = "AB01",
                    item = first,
                    note = " ",
                    until = (string?)null,
                },
                HttpStatusCode.UnprocessableEntity
            )
        );
    }

    [Fact]
    public async Task An_item_is_taken_out_with_a_reason_and_the_proof_holds()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var item = await KeyAsync(desk, round, "T-4", "BE02");
        var without = await DecideAsync(desk, round, item, "out", "paid on site");
        Assert.Equal("200.00", Total(without, "BE02"));
        Assert.Contains(without.List("leftOut"), l => l.Text("reason") == "taken-out" && l.Text("amount") == "30.00");
        Assert.All(without.List("proof"), p => Assert.Equal("0.00", p.Text("difference")));
        var line = (await AccountAsync(desk, round, "BE02")).List("items").Single(i => i.Text("name") == "T-4");
        Assert.Equal(("taken-out", "paid on site"), (line.Text("reason"), line.Text("note")));
        Assert.Equal("230.00", Total(await DecideAsync(desk, round, item, null, ""), "BE02"));
        Assert.Equal(
            "Give the reason; it is listed with what is left out.",
            await (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}/items?revision={await desk.RevisionAsync(round.Id())}",
                    new
                    {
                        customer = "BE02",
                        item,
                        decision = "out",
                        reason = "",
                    },
                    Cancel
                )
            ).DetailAsync()
        );
    }

    [Fact]
    public async Task A_held_item_stays_out_of_every_round_until_its_hold_ends()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var item = await KeyAsync(desk, await desk.PrepareAsync(), "T-4", "BE02");
        await SayAsync(
            desk,
            "holds",
            new
            {
                customer = "BE02",
                item,
                note = "towels torn",
                until = "2099-12-01",
            }
        );
        var round = await desk.PrepareAsync();
        Assert.Equal("200.00", Total(round, "BE02"));
        Assert.Contains(round.List("leftOut"), l => l.Text("reason") == "held-back" && l.Text("amount") == "30.00");
        var held = (await desk.Browser.GetJsonAsync($"{desk.Api}/today")).List("held").Single();
        Assert.Equal(
            ("Beacon Lodge", "T-4", "towels torn", "2099-12-01", false),
            (held.Text("name"), held.Text("itemName"), held.Text("note"), held.Text("until"), held.GetProperty("isUp").GetBoolean())
        );
        Assert.Equal("230.00", Total(await DecideAsync(desk, round, item, "in", "they agreed"), "BE02"));
        await SayAsync(desk, "holds/end", new { item });
        Assert.Equal("230.00", Total(await desk.PrepareAsync(), "BE02"));
    }

    [Fact]
    public async Task What_was_released_is_sent_as_it_was_looked_at_whatever_is_decided_afterwards()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var item = await KeyAsync(desk, round, "T-4", "BE02");
        await DecideAsync(desk, round, item, "out", "paid on site");
        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round.Id(), 2)).StatusCode);
        await SayAsync(
            desk,
            "holds",
            new
            {
                customer = "BE02",
                item = await KeyAsync(desk, round, "T-3", "BE02"),
                note = "asked",
                until = (string?)null,
            }
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}/items?revision={await desk.RevisionAsync(round.Id())}",
                    new
                    {
                        customer = "BE02",
                        item,
                        decision = (string?)null,
                        reason = "",
                    },
                    Cancel
                )
            ).StatusCode
        );
        var sent = await desk.SettledAsync(round.Id());
        Assert.All(sent.List("parcels"), p => Assert.Equal("sent", p.Text("status")));
        Assert.Equal("200.00", Total(sent, "BE02"));
    }

    [Fact]
    public async Task A_round_of_brought_forward_statements_is_chosen_and_one_that_does_not_close_waits_for_a_person()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        var round = await desk.PrepareAsync();
        var forward = await RoundTests.ChangeAsync(desk, round, s => (s["form"], s["periodFrom"]) = ("brought-forward", "2026-05-01"));
        Assert.Equal("brought-forward", forward.GetProperty("settings").Text("form"));
        Assert.All(forward.List("parcels"), p => Assert.Equal("prepared", p.Text("status")));
        Assert.Equal("30.00", Total(forward, "AB01"));
        Assert.Equal(
            "The period of the statement begins after it ends.",
            await (
                await desk.Browser.PutAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}?revision={await desk.RevisionAsync(round.Id())}",
                    RoundTests.Changed(forward, s => s["periodFrom"] = "2026-11-01"),
                    Cancel
                )
            ).DetailAsync()
        );

        // The same invoice with what is left of it, but without the payment: its movements cannot come to what is open.
        using var other = await Desk.AtAsync(rendal);
        await other.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Amount,Outstanding,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,GBP,100.00,30.00,a@abbot.example"
        );
        var next = await other.PrepareAsync();
        var waits = (await RoundTests.ChangeAsync(other, next, s => s["form"] = "brought-forward")).List("parcels").Single();
        Assert.Equal(
            ("needs-you", "its movements come to 100.00 GBP, its open items to 30.00"),
            (waits.Text("status"), waits.Text("problem"))
        );
    }

    [Fact]
    public async Task What_is_said_between_preparing_and_releasing_is_told_first_and_then_in_message_and_document_alike()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Movements[0],
            "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,GBP,50.00,,a@abbot.example,N1",
            "AB01,Abbot’s Table,Invoice,T-2,2026-02-01,2026-03-01,GBP,50.00,,a@abbot.example,N1",
            "AB01,Abbot’s Table,Payment,P-1,2026-05-01,,GBP,-50.00,,a@abbot.example,N1"
        );
        var round = await desk.PrepareAsync();

        // The sums stay the same; which of the two invoices is open does not.
        await SayAsync(
            desk,
            "settlements",
            new
            {
                customer = "AB01",
                credit = await KeyAsync(desk, round, "P-1"),
                charge = await KeyAsync(desk, round, "T-2"),
                amount = (decimal?)null,
            }
        );
        Assert.Equal("Since this round was looked through, the figures (one parcel) changed.", await desk.UnseenAsync(round.Id()));
        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round.Id(), 1)).StatusCode);
        await SayAsync(
            desk,
            "settlements",
            new
            {
                customer = "AB01",
                credit = await KeyAsync(desk, round, "P-1"),
                charge = (string?)null,
                amount = (decimal?)null,
            }
        );
        var parcel = (await desk.SettledAsync(round.Id())).List("parcels").Single();
        Assert.Equal("sent", parcel.Text("status"));
        Assert.Equal([("T-1", "50.00"), ("T-2", "0.00"), ("P-1", "0.00")], Open(await AccountAsync(desk, round, "AB01")));
        var page = await desk.MessageAsync(parcel.Id());
        Assert.Contains("T-1", page, StringComparison.Ordinal);
        Assert.DoesNotContain("T-2", page, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Columns_and_head_offices_are_chosen_by_their_values()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Movements);
        await desk.KeepAsync(
            "customers",
            "Code,Name,E-mail,Head office",
            "HO01,Inns of the Fell,h@fell.example,",
            "BE02,Beacon Lodge,b@beacon.example,HO01"
        );
        var round = await desk.PrepareAsync();
        Assert.Equal("Van", round.List("columns").Single().GetString());
        Assert.Equal(
            ["N1", "N2"],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/values?column=Van"))
                .EnumerateArray()
                .Select(v => v.GetString())
        );
        Assert.Equal(
            ["AB01"],
            (await RoundTests.ChangeAsync(desk, round, s => s["columns"] = new Dictionary<string, string[]> { ["Van"] = ["N1"] }))
                .List("parcels")
                .Select(p => p.Text("customer"))
        );
        Assert.Equal("Inns of the Fell", round.List("headOffices").Single().Text("name"));
        Assert.Equal(
            ["BE02"],
            (await RoundTests.ChangeAsync(desk, round, s => s["headOffices"] = new[] { "HO01" }))
                .List("parcels")
                .Select(p => p.Text("customer"))
        );
    }

    private static Task<JsonElement> AccountAsync(Desk desk, JsonElement round, string customer) =>
        desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/accounts/{customer}");

    private static async Task<string> KeyAsync(Desk desk, JsonElement round, string name, string customer = "AB01") =>
        (await AccountAsync(desk, round, customer)).List("items").Single(i => i.Text("name") == name).Text("key");

    private static async Task SayAsync(Desk desk, string what, object said)
    {
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/items/{what}", said, Cancel);
        Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
    }

    private static async Task<string> RefusedAsync(Desk desk, string what, object said, HttpStatusCode status)
    {
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/items/{what}", said, Cancel);
        Assert.Equal(status, answer.StatusCode);
        return await answer.DetailAsync();
    }

    private static async Task<JsonElement> DecideAsync(Desk desk, JsonElement round, string item, string? decision, string reason)
    {
        (
            await desk.Browser.PostAsJsonAsync(
                $"{desk.Api}/rounds/{round.Id()}/items?revision={await desk.RevisionAsync(round.Id())}",
                new
                {
                    customer = "BE02",
                    item,
                    decision,
                    reason,
                },
                Cancel
            )
        ).EnsureSuccessStatusCode();
        return await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
    }

    private static IEnumerable<(string, string)> Open(JsonElement account) =>
        account.List("items").Select(i => (i.Text("name"), i.Text("open")));

    private static string Total(JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer).List("sums").Single().Text("total");
}
