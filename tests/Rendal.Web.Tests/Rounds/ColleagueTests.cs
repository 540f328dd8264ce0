using System.Text.Json;

namespace Rendal.Web.Tests.Rounds;

/// <summary>Who looks after an account gets a copy of its messages, by a column of the ledger.</summary>
public class ColleagueTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Looked after by",
        "AB01,Abbot’s Table,Invoice,T-1,2026-02-01,2026-03-01,100.00,a@abbot.example,joan@tarnbrook.example",
        "AB01,Abbot’s Table,Invoice,T-2,2026-09-01,2026-10-01,50.00,a@abbot.example,JOAN@tarnbrook.example",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-01,2026-10-01,200.00,b@beacon.example,",
        "CE03,Cedar Spa,Invoice,T-4,2026-09-01,2026-10-01,20.00,c@cedar.example,joan@@tarnbrook.example",
    ];

    [Fact]
    public async Task The_colleague_gets_a_blind_copy_once_and_the_customer_does_not_see_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        Assert.Empty(await BlindCopiesAsync(desk, round, "AB01"));
        round = await RoundTests.ChangeAsync(desk, round, s => s["colleagueColumn"] = "Looked after by");
        Assert.Equal("Looked after by", round.GetProperty("settings").Text("colleagueColumn"));
        Assert.Equal(["joan@tarnbrook.example"], await BlindCopiesAsync(desk, round, "AB01"));
        Assert.Empty(await BlindCopiesAsync(desk, round, "BE02"));
        Assert.Equal("“joan@@tarnbrook.example” is no address", round.ParcelOf("CE03").Text("problem"));

        await desk.LookAtAsync(round.Id());
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var message = rendal.Mailbox.Of($"book-{desk.Book}").Single(m => m.Recipients.Contains("a@abbot.example"));
        Assert.Equal(["a@abbot.example", "joan@tarnbrook.example"], message.Recipients.Order());
        Assert.DoesNotContain(
            "joan",
            System.Text.Encoding.Latin1.GetString(rendal.Mailbox.Bytes(message)),
            StringComparison.OrdinalIgnoreCase
        );

        // The card has what it had: the copy belongs to the round.
        var card = await desk.Browser.GetJsonAsync($"{desk.Api}/customers/card?key=AB01");
        Assert.Equal(["a@abbot.example"], card.List("contacts").Select(c => c.Text("address")));
    }

    [Fact]
    public async Task A_copy_of_the_round_keeps_its_colleagues_and_without_the_column_there_are_none()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        round = await RoundTests.ChangeAsync(desk, round, s => s["colleagueColumn"] = "Looked after by");
        var copy = await desk.CopyAsync(round);
        Assert.Equal(["joan@tarnbrook.example"], await BlindCopiesAsync(desk, copy, "AB01"));
        var without = await RoundTests.ChangeAsync(desk, round, s => s["colleagueColumn"] = "");
        Assert.Empty(await BlindCopiesAsync(desk, without, "AB01"));
        Assert.Equal("", without.ParcelOf("CE03").Text("problem"));
    }

    [Fact]
    public async Task A_ledger_without_the_column_stops_the_parcels_as_nobody_would_miss_the_copies()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await RoundTests.ChangeAsync(desk, await desk.PrepareAsync(), s => s["colleagueColumn"] = "Looked after by");
        await desk.TakeInAsync([
            .. Ledger.Select((row, at) => at == 0 ? row.Replace("Looked after by", "Agent", StringComparison.Ordinal) : row),
        ]);
        var copy = await desk.CopyAsync(round);
        Assert.All(new[] { "AB01", "BE02", "CE03" }, customer =>
            Assert.Equal(
                "the ledger has no column “Looked after by”, which is to name the colleagues who get a copy",
                copy.ParcelOf(customer).Text("problem")
            )
        );
        copy = await RoundTests.ChangeAsync(desk, copy, s => s["colleagueColumn"] = "Agent");
        Assert.Equal("", copy.ParcelOf("AB01").Text("problem"));
        Assert.Equal(["joan@tarnbrook.example"], await BlindCopiesAsync(desk, copy, "AB01"));
    }

    private static async Task<List<string>> BlindCopiesAsync(Desk desk, JsonElement round, string customer) =>
        [
            .. (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{round.ParcelOf(customer).Id()}"))
                .GetProperty("blindCopies")
                .EnumerateArray()
                .Select(a => a.GetString()!),
        ];
}
