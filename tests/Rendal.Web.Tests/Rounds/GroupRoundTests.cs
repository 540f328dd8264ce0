using System.Text.Json;
using MimeKit;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Rounds;

public class GroupRoundTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
        "FE01,Fernlea Hotels,Invoice,T-1,2026-08-01,2026-09-01,GBP,10.00,office@fernlea.example",
        "FE02,Fernlea Quay,Invoice,T-2,2026-08-01,2026-09-01,GBP,100.00,quay@fernlea.example",
        "FE02,Fernlea Quay,Invoice,T-3,2026-08-01,2026-09-01,EUR,7.00,quay@fernlea.example",
        "FE03,Fernlea Hill,Invoice,T-4,2026-10-01,2026-11-01,GBP,50.00,hill@fernlea.example",
        "AB01,Abbot’s Table,Invoice,T-5,2026-08-01,2026-09-01,GBP,5.00,a@abbot.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_head_office_is_sent_what_all_its_branches_owe_and_each_branch_remembers_it()
    {
        using var desk = await GroupAsync("head-office");
        var round = await desk.PrepareAsync();
        Assert.Equal([("AB01", "5.00"), ("FE01", "160.00 7.00")], Parcels(round));
        var office = round.List("parcels").Single(p => p.Text("customer") == "FE01");
        Assert.Equal(["FE02", "FE01", "FE03"], office.List("accounts").Select(a => a.Text("key")));

        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var received = rendal.Mailbox.Of($"book-{desk.Book}");
        Assert.Equal(2, received.Count);
        var letter = await LetterToAsync(desk, "FE01");
        Assert.Equal(["office@fernlea.example"], letter.To.Mailboxes.Select(m => m.Address));
        var html = letter.HtmlBody!;
        Assert.All(
            ["Fernlea Hotels (FE01)", "Fernlea Quay (FE02)", "Fernlea Hill (FE03)", "160.00", "7.00", "Total of all accounts"],
            words => Assert.Contains(words, html)
        );
        using var content = new MemoryStream();
        ((MimePart)letter.Attachments.Single()).Content!.DecodeTo(content, Cancel);
        using var pdf = PdfDocument.Open(content.ToArray());
        var text = string.Join(' ', pdf.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
        Assert.All(["T-1", "T-2", "T-3", "T-4"], number => Assert.Contains(number, text));

        var claim = (await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=FE03")).List("claims").Single();
        Assert.Equal(("FE01", "sent"), (claim.Text("to"), claim.Text("state")));
        Assert.Equal(
            JsonValueKind.Null,
            (await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=FE01")).List("claims").Single().GetProperty("to").ValueKind
        );
        Assert.Equal(0, (await desk.Browser.GetJsonAsync($"{desk.Api}/today")).GetProperty("notWrittenCount").GetInt32());
    }

    [Fact]
    public async Task What_both_get_is_sent_to_both_and_counted_once()
    {
        using var desk = await GroupAsync("both");
        var round = await desk.PrepareAsync();
        Assert.Equal([("AB01", "5.00"), ("FE01", "160.00 7.00"), ("FE02", "100.00 7.00"), ("FE03", "50.00")], Parcels(round));
        var copy = round.List("parcels").Single(p => p.Text("customer") == "FE03").List("sums").Single();
        Assert.Equal("FE01", copy.Text("alsoOn"));
        var pounds = round.List("proof").First();
        Assert.Equal(("165.00", "165.00", "0.00"), (pounds.Text("ledger"), pounds.Text("parcels"), pounds.Text("difference")));
        Assert.Equal("165.00", pounds.List("parts").Single().Text("amount"));
        var summary = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/summary",
            new { parcels = (long[]?)null, count = 0 }
        );
        Assert.Equal(4, summary.GetProperty("messages").GetInt32());
        Assert.Contains("165", summary.List("totals").First().ToString());

        await (await desk.ReleaseAsync(round.Id(), 4)).JsonAsync();
        Assert.All((await desk.SettledAsync(round.Id())).List("parcels"), p => Assert.Equal("sent", p.Text("status")));
        Assert.DoesNotContain("T-2", (await LetterToAsync(desk, "FE03")).HtmlBody);
    }

    [Fact]
    public async Task A_round_can_write_to_the_branches_though_the_card_says_the_head_office()
    {
        using var desk = await GroupAsync("head-office");
        var round = await desk.PrepareAsync();
        var changed = await RoundTests.ChangeAsync(desk, round, s => s["groups"] = "branches");
        Assert.Equal(["AB01", "FE01", "FE02", "FE03"], Parcels(changed).Select(p => p.Customer));
    }

    [Fact]
    public async Task A_branch_that_is_renamed_after_it_was_looked_at_is_not_released_unseen()
    {
        using var desk = await GroupAsync("head-office");
        var round = await desk.PrepareAsync();
        await (await desk.PutCardAsync("FE03", "Fernlea Hill & Spa", "hill@fernlea.example", headOffice: "FE01")).JsonAsync();
        Assert.Equal("Since this round was looked through, the recipients (one parcel) changed.", await desk.UnseenAsync(round.Id()));
    }

    [Fact]
    public async Task A_brought_forward_statement_is_set_for_the_book_or_for_one_customer()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Amount,Reference,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-08-01,2026-09-01,GBP,100.00,,a@abbot.example",
            "AB01,Abbot’s Table,Payment,P-1,2026-10-05,,GBP,-40.00,T-1,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-10-01,2026-10-31,GBP,60.00,,b@beacon.example"
        );
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", form: "brought-forward")).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.Contains("Brought forward", await PageAsync(desk, round, "AB01"));
        Assert.DoesNotContain("Brought forward", await PageAsync(desk, round, "BE02"));

        await RulesTests.PutAsync(desk, rules => rules["form"] = "brought-forward");
        var after = await desk.PrepareAsync();
        Assert.Contains("Brought forward", await PageAsync(desk, after, "BE02"));
        Assert.DoesNotContain(
            "Brought forward",
            await PageAsync(desk, await RoundTests.ChangeAsync(desk, after, s => s["form"] = "open-items"), "AB01")
        );
    }

    private async Task<Desk> GroupAsync(string groups)
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        await (await desk.PutCardAsync("FE02", "Fernlea Quay", "quay@fernlea.example", headOffice: "FE01")).JsonAsync();
        await (await desk.PutCardAsync("FE03", "Fernlea Hill", "hill@fernlea.example", headOffice: "FE01")).JsonAsync();
        await (await desk.PutCardAsync("FE01", "Fernlea Hotels", "office@fernlea.example", groups: groups)).JsonAsync();
        return desk;
    }

    private static async Task<MimeMessage> LetterToAsync(Desk desk, string customer)
    {
        var entry = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray().Single(e => e.Text("customer") == customer);
        using var stream = new MemoryStream(
            await desk.Browser.GetByteArrayAsync(
                $"{desk.Api}/dispatch/{entry.GetProperty("parcel").GetInt64()}/messages/0/message.eml",
                Cancel
            )
        );
        return await MimeMessage.LoadAsync(stream, Cancel);
    }

    private static Task<string> PageAsync(Desk desk, JsonElement round, string customer) =>
        desk.MessageAsync(round.List("parcels").Single(p => p.Text("customer") == customer).Id());

    private static IEnumerable<(string Customer, string Sums)> Parcels(JsonElement round) =>
        round
            .List("parcels")
            .Select(p =>
                (
                    p.Text("customer"),
                    string.Join(' ', p.List("sums").OrderByDescending(s => s.Text("currency")).Select(s => s.Text("total")))
                )
            )
            .OrderBy(p => p.Item1, StringComparer.Ordinal);
}
