using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Customers;

public class CustomerTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_list_is_looked_at_first_and_then_fills_the_cards_of_customers_known_from_the_ledger_only()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB/01,Invoice,T-1,2026-09-01,2026-10-01,10.00,");
        Assert.True((await CardAsync(desk)).GetProperty("fromLedger").GetBoolean());
        var intake = await desk.BeginAsync(
            "customers",
            "Code,Name,Contact,E-mail,Shelf",
            "AB/01,Abbot’s Table,Owen Farrow,a@abbot.example,S1",
            "BE02,Beacon Lodge,,office@@beacon,"
        );
        var look = await desk.LookAsync(intake);
        Assert.Equal(
            (2, 1, "customers"),
            (look.GetProperty("rowsKept").GetInt32(), look.GetProperty("newCustomers").GetInt32(), look.Text("kind"))
        );
        Assert.Equal("bad-address", Assert.Single(look.List("findings")).Text("code"));
        Assert.True((await CardAsync(desk)).GetProperty("fromLedger").GetBoolean());

        await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{intake}/keep", new { });
        var card = await CardAsync(desk);
        var contact = Assert.Single(card.List("contacts"));
        Assert.Equal(
            ("Abbot’s Table", "Owen Farrow", "a@abbot.example", "S1"),
            (card.Text("name"), contact.Text("name"), contact.Text("address"), card.GetProperty("extra").Text("Shelf"))
        );
        Assert.False(card.GetProperty("fromLedger").GetBoolean());

        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.PostAsync($"{desk.Api}/intakes/{intake}/undo", null, Cancel)).StatusCode
        );
        Assert.True((await CardAsync(desk)).GetProperty("fromLedger").GetBoolean());
    }

    [Fact]
    public async Task The_history_of_a_customer_tells_what_was_claimed_and_how_the_balance_moved_from_ledger_to_ledger()
    {
        using var desk = await Desk.AtAsync(rendal);
        const string headings = "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail";
        await desk.TakeInAsync(
            headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,GBP,100.00,a@abbot.example",
            "AB01,Abbot’s Table,Invoice,T-2,2026-09-01,2026-10-01,EUR,7.50,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        await desk.ReleaseAsync(round.Id(), 1);
        await desk.SettledAsync(round.Id());
        await desk.PrepareAsync();
        await desk.TakeInAsync(
            headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,GBP,40.00,a@abbot.example",
            "AB01,Abbot’s Table,Invoice,T-3,2026-10-01,2026-10-31,GBP,25.00,a@abbot.example"
        );

        var history = await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=AB01");
        Assert.Equal(
            [("GBP", "65.00", 2), ("EUR", "7.50", 1), ("GBP", "100.00", 1)],
            history.List("balances").Select(b => (b.Text("currency"), b.Text("balance"), b.GetProperty("items").GetInt32()))
        );
        var claim = history.List("claims").Single();
        Assert.Equal(("October", "2026-10-31", "sent"), (claim.Text("roundName"), claim.Text("asOf"), claim.Text("state")));
        Assert.Equal(["EUR 7.50", "GBP 100.00"], claim.List("sums").Select(s => $"{s.Text("currency")} {s.Text("total")}"));
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=nobody")).List("balances"));
    }

    [Fact]
    public async Task A_file_that_is_no_customer_list_is_said_to_lack_its_headings()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync("customers", "some,words", "and,more");
        Assert.Equal(
            "No row of headings with a customer code or name was found. Say which row has them.",
            Assert.Single((await desk.LookAsync(intake)).List("lacks")).GetString()
        );
        var kept = await desk.Browser.PostAsync($"{desk.Api}/intakes/{intake}/keep", null, Cancel);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, kept.StatusCode);
    }

    [Theory]
    [InlineData("onHold", "on-hold")]
    [InlineData("nothing", "no-way-to-reach")]
    [InlineData("minimum", "below-the-minimum")]
    public async Task What_the_card_says_keeps_a_customer_out_with_that_reason(string what, string reason)
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB/01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        await (
            await desk.PutCardAsync(
                "AB/01",
                "Abbot’s Table",
                "a@abbot.example",
                onHold: what == "onHold",
                delivery: what == "nothing" ? "nothing" : "email",
                minimum: what == "minimum" ? 10.01m : null
            )
        ).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.Empty(round.List("parcels"));
        Assert.Equal(reason, Assert.Single(round.List("leftOut")).Text("reason"));
    }

    [Fact]
    public async Task A_head_office_must_be_there_and_must_not_run_in_a_circle()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.KeepAsync("customers", "Code,Name,Head office", "AB/01,Abbot’s Table,", "BE02,Beacon Lodge,AB/01");
        Assert.Equal(
            "There is no customer XX that could be the head office.",
            await (await desk.PutCardAsync("AB/01", "Abbot’s Table", "a@abbot.example", headOffice: "XX")).DetailAsync()
        );
        Assert.Equal(
            "AB/01 is under BE02 is under AB/01: then none of them is at the top.",
            await (await desk.PutCardAsync("AB/01", "Abbot’s Table", "a@abbot.example", headOffice: "BE02")).DetailAsync()
        );
        Assert.Equal("BE02", Assert.Single((await CardAsync(desk)).List("branches")).GetString());
    }

    [Fact]
    public async Task What_is_put_right_on_a_card_is_listed_and_can_be_taken_back()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.KeepAsync("customers", "Code,Name,Notes", "AB/01,Abbot’s Table,\"=cmd()\"");
        await (await desk.PutCardAsync("AB/01", "Abbot’s Table", "a@abbot.example", notes: "rings on Fridays")).JsonAsync();
        var correction = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray(), c =>
            c.Text("column") == "Notes"
        );
        Assert.Equal(
            ("card", "AB/01", "=cmd()", "rings on Fridays"),
            (correction.Text("kind"), correction.Text("concerns"), correction.Text("was"), correction.Text("becomes"))
        );
        var csv = await desk.Browser.GetStringAsync($"{desk.Api}/corrections/list.csv", Cancel);
        Assert.Contains("AB/01,Notes,'=cmd(),rings on Fridays", csv, StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.DeleteAsync($"{desk.Api}/corrections/{correction.Id()}", Cancel)).StatusCode
        );
        Assert.Equal("=cmd()", (await CardAsync(desk)).Text("notes"));
    }

    [Fact]
    public async Task Of_two_who_change_one_card_the_second_is_told_and_nothing_of_the_first_is_lost()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.KeepAsync("customers", "Code,Name,Notes", "AB/01,Abbot’s Table,");
        var opened = (await CardAsync(desk)).GetProperty("version").GetInt64();
        await (await desk.PutCardAsync("AB/01", "Abbot’s Table", "a@abbot.example", notes: "rings on Fridays")).JsonAsync();
        var body = System.Text.Json.Nodes.JsonNode.Parse((await CardAsync(desk)).GetRawText())!;
        (body["version"], body["notes"]) = (opened, "pays late");
        using var second = await desk.Browser.PutAsJsonAsync($"{desk.Api}/customers/card?key=AB%2F01", body, Cancel);
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.StartsWith("odile changed this card since you opened it.", await second.DetailAsync());
        Assert.Equal("rings on Fridays", (await CardAsync(desk)).Text("notes"));
    }

    private static Task<JsonElement> CardAsync(Desk desk) => desk.Browser.GetJsonAsync($"{desk.Api}/customers/card?key=AB%2F01");
}
