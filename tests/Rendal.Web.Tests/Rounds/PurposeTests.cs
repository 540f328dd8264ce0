using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

public class PurposeTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
        "AB01,Abbot’s Table,Invoice,T-1,2026-07-01,2026-08-01,GBP,100.00,a@abbot.example",
        "AB01,Abbot’s Table,Credit note,C-1,2026-10-01,,GBP,-10.00,a@abbot.example",
        "KR04,Gasthof zur Krone,Credit note,C-2,2026-10-01,2026-10-31,EUR,-60.05,b@krone.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Confirmations_go_to_those_in_credit_too_each_in_its_language_and_on_its_paper()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", "Owen Prys", "Mr")).JsonAsync();
        await (await desk.PutCardAsync("KR04", "Gasthof zur Krone", "b@krone.example", "Łucja Brandt", "Ms", language: "de")).JsonAsync();
        var round = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Year end",
                asOf = "2026-10-31",
                about = "confirmations",
            }
        );
        Assert.Equal(["AB01", "KR04"], round.List("parcels").Select(p => p.Text("customer")));

        var (english, german) = (await ParcelAsync(desk, round, "AB01"), await ParcelAsync(desk, round, "KR04"));
        Assert.Contains("please confirm your balance at 31 October 2026", english.Subject);
        Assert.Contains("you owe us £90.00", english.Page);
        Assert.Equal("AB01 Balance confirmation 2026-10-31.pdf", english.Document);
        Assert.Contains("Bitte bestätigen Sie Ihren Saldo zum 31. Oktober 2026", german.Subject);
        Assert.Contains("wir schulden Ihnen", german.Page);

        var layouts = await desk.Browser.GetJsonAsync($"{desk.Api}/layouts");
        Assert.Equal(
            [("confirmation", "", "Balance confirmation"), ("confirmation", "de", "Saldenbestätigung")],
            layouts
                .List("uses")
                .Select(u =>
                    (
                        u.Text("purpose"),
                        u.Text("language"),
                        layouts.List("layouts").Single(l => l.Id() == u.GetProperty("id").GetInt64()).Text("name")
                    )
                )
        );

        var summary = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/summary",
            new { parcels = (long[]?)null, count = 0 }
        );
        Assert.Equal("Balance confirmation as PDF (1), Saldenbestätigung as PDF (1)", summary.Text("enclosure"));
        Assert.Equal(
            [("Confirmation of balance", 1), ("Saldenbestätigung", 1)],
            summary.List("wordings").Select(w => (w.Text("name"), w.GetProperty("messages").GetInt32()))
        );

        // A second round begins with the same, and adds nothing.
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Again",
                asOf = "2026-10-31",
                about = "confirmations",
            }
        );
        Assert.Equal(2, (await desk.Browser.GetJsonAsync($"{desk.Api}/layouts")).List("layouts").Count());
    }

    [Fact]
    public async Task A_list_of_invoices_lists_no_credits_and_goes_back_to_statements_with_their_words()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", "Owen Prys", "Mr")).JsonAsync();
        var round = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Invoices",
                asOf = "2026-10-31",
                about = "invoices",
            }
        );
        Assert.Equal(["AB01"], round.List("parcels").Select(p => p.Text("customer")));
        Assert.Contains("your open invoices", (await ParcelAsync(desk, round, "AB01")).Subject);

        var settings = JsonSerializer.Deserialize<Dictionary<string, object?>>(round.GetProperty("settings").GetRawText())!;
        (settings["about"], settings["withCredits"]) = ("statements", true);
        var statements = await (
            await desk.Browser.PutAsJsonAsync(
                $"{desk.Api}/rounds/{round.Id()}?revision={await desk.RevisionAsync(round.Id())}",
                settings,
                Cancel
            )
        ).JsonAsync();
        Assert.Contains("statement at 31 October 2026, £90.00", (await ParcelAsync(desk, statements, "AB01")).Subject);

        settings["about"] = "notices";
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await desk.Browser.PutAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}?revision={await desk.RevisionAsync(round.Id())}",
                    settings,
                    Cancel
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task Who_reads_another_language_gets_the_wording_that_is_used_for_it_but_the_cards_own_comes_first()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
            "KR04,Gasthof zur Krone,Invoice,T-1,2026-07-01,2026-08-01,EUR,100.00,b@krone.example"
        );
        await (await desk.PutCardAsync("KR04", "Gasthof zur Krone", "b@krone.example", "Łucja Brandt", "Ms", language: "de")).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.StartsWith("Statement of", (await ParcelAsync(desk, round, "KR04")).Subject);

        var ready = (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings/ready-made"))
            .EnumerateArray()
            .Single(r => r.Text("purpose") == "statement" && r.GetProperty("wording").Text("language") == "de");
        var german = (await desk.Browser.PostJsonAsync($"{desk.Api}/wordings", ready.GetProperty("wording"))).Id();
        await Use(
            new
            {
                purpose = "statement",
                language = "de",
                id = (long?)german,
            },
            HttpStatusCode.NoContent
        );
        round = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { });
        Assert.Contains("Kontoauszug zum 31. Oktober 2026", (await ParcelAsync(desk, round, "KR04")).Subject);

        await Use(
            new
            {
                purpose = "statement",
                language = "de",
                id = (long?)null,
            },
            HttpStatusCode.NoContent
        );
        Assert.StartsWith("Statement of", (await ParcelAsync(desk, round, "KR04")).Subject);
        await Use(
            new
            {
                purpose = "statement",
                language = "de",
                id = (long?)999_999,
            },
            HttpStatusCode.NotFound
        );
        await Use(
            new
            {
                purpose = "greeting",
                language = "de",
                id = (long?)german,
            },
            HttpStatusCode.UnprocessableEntity
        );
        await Use(
            new
            {
                purpose = "statement",
                language = "tlh",
                id = (long?)german,
            },
            HttpStatusCode.UnprocessableEntity
        );

        async Task Use(object use, HttpStatusCode expected) =>
            Assert.Equal(expected, (await desk.Browser.PostAsJsonAsync($"{desk.Api}/wordings/use", use, Cancel)).StatusCode);
    }

    private static async Task<(string Subject, string Page, string Document)> ParcelAsync(Desk desk, JsonElement round, string customer)
    {
        var id = round.List("parcels").Single(p => p.Text("customer") == customer).Id();
        var view = await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{id}");
        return (
            view.Text("subject"),
            System.Net.WebUtility.HtmlDecode(Desk.Untraced(view.Text("message"))).Replace('\u00A0', ' '),
            view.List("documents").Single().Text("name")
        );
    }
}
