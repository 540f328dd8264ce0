using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

/// <summary>Which wording each parcel of a round has: by a column, by the round, by the card, by what goes and the language.</summary>
public class WordingOfEachTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Words",
        "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,100.00,a@abbot.example,friendly",
        "AB01,Abbot’s Table,Invoice,T-2,2026-09-01,2026-10-01,50.00,a@abbot.example,",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-01,2026-10-01,200.00,b@beacon.example,",
        "CE03,Cedar Spa,Invoice,T-4,2026-09-01,2026-10-01,20.00,c@cedar.example,Soft",
        "DU04,Dunwater Clinic,Invoice,T-5,2026-09-01,2026-10-01,30.00,d@dunwater.example,Friendly",
        "DU04,Dunwater Clinic,Invoice,T-6,2026-09-02,2026-10-02,30.00,d@dunwater.example,Firm",
    ];

    [Fact]
    public async Task A_column_names_it_customer_by_customer_and_a_name_that_is_none_stops_its_parcel()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        await WordingAsync(desk, "Friendly", "Dear friends of <span data-slot=\"customer.name\"></span>");
        var firm = await WordingAsync(desk, "Firm", "We must ask <span data-slot=\"customer.name\"></span>");
        Assert.Equal("of-purpose", (await ParcelAsync(desk, round, "AB01")).Text("wordingReason"));
        round = await RoundTests.ChangeAsync(desk, round, s => s["wordingColumn"] = "Words");
        var first = await ParcelAsync(desk, round, "AB01");
        Assert.Equal(("named-in-row", "Friendly"), (first.Text("wordingReason"), first.Text("wordingName")));
        Assert.Equal("of-purpose", (await ParcelAsync(desk, round, "BE02")).Text("wordingReason"));
        Assert.Equal("“Soft” in “Words” is no wording of this book", round.ParcelOf("CE03").Text("problem"));
        Assert.Equal("its rows name two wordings in “Words”, “Friendly” and “Firm”", round.ParcelOf("DU04").Text("problem"));

        await desk.LookAtAsync(round.Id());
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var message = rendal.Mailbox.Of($"book-{desk.Book}").Single(m => m.Recipients.Contains("a@abbot.example"));
        Assert.Equal("Dear friends of Abbot’s Table", message.Subject);

        // What went is not told by what is set today.
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/wordings/use",
            new
            {
                purpose = "statement",
                language = "",
                id = firm,
            }
        );
        var sent = await ParcelAsync(desk, round, "BE02");
        Assert.Equal(("Plain", JsonValueKind.Null), (sent.Text("wordingName"), sent.GetProperty("wordingReason").ValueKind));
    }

    [Fact]
    public async Task One_picked_for_the_round_goes_before_the_card_and_none_picked_leaves_it_to_the_card()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var friendly = await WordingAsync(desk, "Friendly", "Dear friends of <span data-slot=\"customer.name\"></span>");
        var firm = await WordingAsync(desk, "Firm", "We must ask <span data-slot=\"customer.name\"></span>");
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", ownWording: friendly)).JsonAsync();
        round = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        Assert.Equal(("on-card", "Friendly"), await WhyAsync("AB01"));
        Assert.Equal("of-purpose", (await WhyAsync("BE02")).Why);
        round = await RoundTests.ChangeAsync(desk, round, s => s["wordingId"] = firm);
        Assert.Equal(("picked", "Firm"), await WhyAsync("AB01"));
        Assert.Equal(("picked", "Firm"), await WhyAsync("BE02"));
        var counts = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/remarks");
        Assert.Equal(["Firm: 4"], counts.List("wordings").Select(w => $"{w.Text("name")}: {w.GetProperty("parcels")}"));

        async Task<(string Why, string Name)> WhyAsync(string customer)
        {
            var parcel = await ParcelAsync(desk, round, customer);
            return (parcel.Text("wordingReason"), parcel.Text("wordingName"));
        }
    }

    [Fact]
    public async Task Where_the_next_ledger_lacks_the_column_every_parcel_waits_for_a_person()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        round = await RoundTests.ChangeAsync(desk, round, s => s["wordingColumn"] = "Words");
        await desk.TakeInAsync([.. Ledger.Select(line => line[..line.LastIndexOf(',')])]);
        var next = await desk.CopyAsync(round);
        Assert.All(next.List("parcels"), p =>
            Assert.Equal("the ledger has no column “Words”, which is to name its wording", p.Text("problem"))
        );
        next = await RoundTests.ChangeAsync(desk, next, s => s["wordingColumn"] = "");
        Assert.All(next.List("parcels"), p => Assert.Equal("", p.Text("problem")));
    }

    private static async Task<long> WordingAsync(Desk desk, string name, string subject) =>
        (
            await desk.Browser.PostJsonAsync(
                $"{desk.Api}/wordings",
                new
                {
                    name,
                    language = "en",
                    subject,
                    body = "<p>Your statement is enclosed.</p>",
                }
            )
        ).Id();

    private static async Task<JsonElement> ParcelAsync(Desk desk, JsonElement round, string customer) =>
        await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{round.ParcelOf(customer).Id()}");
}
