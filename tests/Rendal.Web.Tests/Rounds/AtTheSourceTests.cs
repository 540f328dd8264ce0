using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

/// <summary>What is wrong in a preview is put right where it was read from.</summary>
public class AtTheSourceTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due by,Outstanding,E-mail,Van",
        "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,100.00,a@abbot.example,N1",
        "AB01,Abbot’s Table,Invoice,T-2,2026-09-01,2026-10-01,50.00,a@abbot.example,N1",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-01,2026-10-01,200.00,b@beacon.example,N2",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_figure_leads_to_its_cell_and_the_parcel_follows_what_is_put_right_there_and_no_other_is_touched()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        await desk.LookAtAsync(round.Id());
        var parcel = ParcelOf(round, "AB01");
        Assert.Contains("data-from=\"row 3 due\">1 Oct 2026<", await desk.TracedAsync(parcel));
        var cell = (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}/source?from=row 3 due")).GetProperty("cell");
        Assert.Equal(
            ("ledger.csv", 3, "Due by", "2026-10-01", "2026-10-01", true),
            (
                cell.Text("file"),
                cell.GetProperty("row").GetInt32(),
                cell.Text("heading"),
                cell.Text("says"),
                cell.Text("holds"),
                cell.GetProperty("isNow").GetBoolean()
            )
        );

        Assert.Equal(HttpStatusCode.NoContent, (await PutRightAsync(desk.Browser, desk, parcel, "row 3 open", "55.50")).StatusCode);
        round = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        Assert.Equal(
            [("AB01", "155.50", true), ("BE02", "200.00", false)],
            round
                .List("parcels")
                .Select(p => (p.Text("customer"), p.List("sums").Single().Text("total"), p.List("changed").Any()))
                .OrderBy(p => p.Item1)
        );
        Assert.Contains(">55.50<", await desk.MessageAsync(parcel));
        cell = (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}/source?from=row 3 open")).GetProperty("cell");
        Assert.Equal(("50.00", "55.50"), (cell.Text("says"), cell.Text("holds")));
        var correction = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
        Assert.Equal(("Outstanding", "50.00", "55.50"), (correction.Text("column"), correction.Text("was"), correction.Text("becomes")));

        // The next file still says what was wrong, so that the correction holds; another round has it too.
        await desk.TakeInAsync([.. Ledger, "BE02,Beacon Lodge,Invoice,T-4,2026-10-01,2026-10-31,1.00,b@beacon.example,N2"]);
        var next = await desk.PrepareAsync();
        Assert.Contains(">55.50<", await desk.MessageAsync(ParcelOf(next, "AB01")));
    }

    [Fact]
    public async Task Every_open_round_of_the_ledger_follows_and_one_that_was_released_stays()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var went = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(went.Id(), 2)).JsonAsync();
        var (one, other) = (await desk.PrepareAsync(), await desk.PrepareAsync());
        var put = await PutRightAsync(desk.Browser, desk, ParcelOf(one, "BE02"), "row 4 number", "T-30");
        Assert.Equal(HttpStatusCode.NoContent, put.StatusCode);
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{other.Id()}/prepare", new { });
        foreach (var round in new[] { one, other })
        {
            Assert.Contains(">T-30<", await desk.MessageAsync(ParcelOf(round, "BE02")));
        }

        Assert.Contains(">T-3<", await desk.MessageAsync(ParcelOf(went, "BE02")));
        var refused = await PutRightAsync(desk.Browser, desk, ParcelOf(went, "BE02"), "row 4 number", "T-31");
        Assert.Equal(
            (HttpStatusCode.Conflict, "Parcels of this round were released; what they were made from stays as it is."),
            (refused.StatusCode, await refused.DetailAsync())
        );
    }

    [Fact]
    public async Task What_would_make_the_row_unusable_is_refused_with_the_reason_and_nothing_is_changed()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var parcel = ParcelOf(await desk.PrepareAsync(), "AB01");
        await PutRightAsync(desk.Browser, desk, parcel, "row 3 due", "2026-10-15");
        var ledger = (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("intakeId").GetInt64();
        foreach (var wrong in new[] { "15th of Octember", "2026-02-30" })
        {
            var refused = await PutRightAsync(desk.Browser, desk, parcel, "row 3 due", wrong);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
            Assert.StartsWith(
                "With that the row could not be used, and would be on no statement.",
                await refused.DetailAsync(),
                StringComparison.Ordinal
            );
        }

        Assert.Equal(ledger, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("intakeId").GetInt64());
        Assert.Contains(">15 Oct 2026<", await desk.MessageAsync(parcel));
        var holding = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
        Assert.Equal("2026-10-15", holding.Text("becomes"));
    }

    [Fact]
    public async Task An_item_that_is_held_back_keeps_the_number_that_it_is_known_by_until_it_is_let_go()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var parcel = ParcelOf(round, "AB01");
        var account = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/accounts/AB01");
        var item = account.List("items").Single(i => i.Text("name") == "T-2").Text("key");
        await HoldAsync(
            "holds",
            new
            {
                customer = "AB01",
                item,
                note = "two bags short",
                until = (string?)null,
            }
        );
        var refused = await PutRightAsync(desk.Browser, desk, parcel, "row 3 number", "T-20");
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "T-2 is held back, and is known by what you are about to change. Take that back first, put this right, and say it again."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());

        // Its amount says nothing about which item it is; it stays held back.
        Assert.Equal(HttpStatusCode.NoContent, (await PutRightAsync(desk.Browser, desk, parcel, "row 3 open", "51.00")).StatusCode);
        account = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/accounts/AB01");
        Assert.True(account.List("items").Single(i => i.Text("name") == "T-2").GetProperty("isHeld").GetBoolean());
        await HoldAsync("holds/end", new { item });
        Assert.Equal(HttpStatusCode.NoContent, (await PutRightAsync(desk.Browser, desk, parcel, "row 3 number", "T-20")).StatusCode);

        async Task HoldAsync(string what, object body) =>
            Assert.Equal(
                HttpStatusCode.NoContent,
                (await desk.Browser.PostAsJsonAsync($"{desk.Api}/items/{what}", body, Cancel)).StatusCode
            );
    }

    [Fact]
    public async Task An_item_that_was_taken_out_by_hand_in_another_open_round_keeps_its_number_as_well()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var (one, other) = (await desk.PrepareAsync(), await desk.PrepareAsync());
        var account = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{other.Id()}/accounts/AB01");
        var item = account.List("items").Single(i => i.Text("name") == "T-2").Text("key");
        var decided = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{other.Id()}/items?revision={await desk.RevisionAsync(other.Id())}",
            new
            {
                customer = "AB01",
                item,
                decision = "out",
                reason = "two bags short",
            },
            Cancel
        );
        Assert.True(decided.IsSuccessStatusCode, await decided.Content.ReadAsStringAsync(Cancel));
        var refused = await PutRightAsync(desk.Browser, desk, ParcelOf(one, "AB01"), "row 3 number", "T-20");
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains(
            $"T-2 is taken out or put in by hand in “{other.Text("name")}”",
            await refused.DetailAsync(),
            StringComparison.Ordinal
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
    }

    [Fact]
    public async Task Of_two_rows_that_are_alike_none_is_put_right_because_the_other_would_be_too()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([.. Ledger, "AB01,Abbot’s Table,Invoice,T-2,2026-09-01,2026-10-01,7.00,a@abbot.example,N1"]);
        var parcel = ParcelOf(await desk.PrepareAsync(), "AB01");
        var intakes = (await desk.Browser.GetJsonAsync($"{desk.Api}/intakes")).GetArrayLength();
        var refused = await PutRightAsync(desk.Browser, desk, parcel, "row 3 due", "2026-10-15");
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "Rows 3 and 5 of ledger.csv are alike in customer, kind, number and what is to be put right, so that one correction "
                    + "would change both. Put it right in the file, and take that in."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
        Assert.Equal(intakes, (await desk.Browser.GetJsonAsync($"{desk.Api}/intakes")).GetArrayLength());
    }

    [Fact]
    public async Task What_is_put_right_while_its_round_is_released_either_goes_as_it_was_looked_at_or_is_not_released()
    {
        for (var time = 0; time < 5; time++)
        {
            using var desk = await Desk.AtAsync(rendal);
            using var colleague = await desk.ColleagueAsync(rendal);
            await desk.TakeInAsync(Ledger);
            var round = await desk.PrepareAsync();
            await desk.LookAtAsync(round.Id());
            var parcel = ParcelOf(round, "AB01");
            var putting = PutRightAsync(colleague, desk, parcel, "row 3 open", "55.50");
            var releasing = desk.ReleaseAsync(round.Id(), 2);
            var (put, released) = (await putting, await releasing);
            var (isPut, isReleased) = (put.IsSuccessStatusCode, released.IsSuccessStatusCode);
            Assert.True(isPut != isReleased, $"put right: {put.StatusCode}, released: {released.StatusCode}");

            // Released is what was looked at; what was put right waits to be looked at.
            Assert.Contains(isReleased ? ">50.00<" : ">55.50<", await desk.MessageAsync(parcel));
            Assert.Equal(isPut, (await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray().Any());
        }
    }

    [Fact]
    public async Task A_round_whose_ledger_another_took_the_place_of_puts_nothing_right()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var parcel = ParcelOf(await desk.PrepareAsync(), "AB01");
        var newest = await desk.TakeInAsync([.. Ledger, "CE03,Cedar Spa,Invoice,T-5,2026-10-01,2026-10-31,9.00,c@cedar.example,N2"]);
        var cell = (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}/source?from=row 3 due")).GetProperty("cell");
        Assert.False(cell.GetProperty("isNow").GetBoolean());
        var refused = await PutRightAsync(desk.Browser, desk, parcel, "row 3 due", "2026-10-15");
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Equal(newest, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("intakeId").GetInt64());
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
    }

    [Fact]
    public async Task Of_two_at_once_none_is_lost_whoever_is_told_to_do_it_again()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var (mine, theirs) = (ParcelOf(round, "AB01"), ParcelOf(round, "BE02"));
        var answers = await Task.WhenAll(
            PutRightAsync(desk.Browser, desk, mine, "row 2 number", "T-10"),
            PutRightAsync(colleague, desk, theirs, "row 4 number", "T-30")
        );
        Assert.Contains(answers, a => a.StatusCode == HttpStatusCode.NoContent);
        Assert.All(answers, a => Assert.True(a.StatusCode is HttpStatusCode.NoContent or HttpStatusCode.Conflict, $"{a.StatusCode}"));

        // What is listed as put right is in the ledger, and nothing else is.
        var listed = (await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray().Select(c => c.Text("becomes")).Order();
        Assert.Equal(
            new[] { (Answer: answers[0], Number: "T-10"), (Answer: answers[1], Number: "T-30") }
                .Where(a => a.Answer.StatusCode == HttpStatusCode.NoContent)
                .Select(a => a.Number),
            listed
        );
        var shown = await desk.MessageAsync(mine) + await desk.MessageAsync(theirs);
        Assert.All(listed, number => Assert.Contains($">{number}<", shown));
    }

    [Fact]
    public async Task What_the_file_has_no_column_for_was_reckoned_and_other_fields_lead_to_theirs()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Number,Date,Debit,Credit,E-mail,Van",
            "AB01,Abbot’s Table,T-1,2026-02-01,100.00,,a@abbot.example,N1",
            "AB01,Abbot’s Table,C-2,2026-02-02,,20.00,a@abbot.example,N1"
        );
        var parcel = ParcelOf(await desk.PrepareAsync(), "AB01");
        Assert.Equal(JsonValueKind.Null, (await SourceAsync("row 2 due")).ValueKind);
        Assert.Equal("Debit", (await SourceAsync("row 2 original")).Text("heading"));
        Assert.Equal("Credit", (await SourceAsync("row 3 original")).Text("heading"));
        Assert.Equal("Van", (await SourceAsync("row 3 extra:Van")).Text("heading"));
        foreach (var nothing in new[] { "card name", "row 0 due", "row x due", "", "row 1 due", "row 99 due" })
        {
            var refused = await desk.Browser.GetAsync($"{desk.Api}/parcels/{parcel}/source?from={Uri.EscapeDataString(nothing)}", Cancel);
            Assert.Equal((nothing, HttpStatusCode.UnprocessableEntity), (nothing, refused.StatusCode));
        }

        async Task<JsonElement> SourceAsync(string from) =>
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}/source?from={from}")).GetProperty("cell");
    }

    [Fact]
    public async Task The_message_that_goes_has_nothing_of_where_it_is_from()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        Assert.Contains("data-from", await desk.TracedAsync(ParcelOf(round, "AB01")));
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        Assert.DoesNotContain("data-from", await desk.TracedAsync(ParcelOf(round, "AB01")));
    }

    private static long ParcelOf(JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer).Id();

    private static Task<HttpResponseMessage> PutRightAsync(HttpClient browser, Desk desk, long parcel, string from, string becomes) =>
        browser.PostAsJsonAsync($"{desk.Api}/parcels/{parcel}/source?from={Uri.EscapeDataString(from)}", new { becomes }, Cancel);
}
