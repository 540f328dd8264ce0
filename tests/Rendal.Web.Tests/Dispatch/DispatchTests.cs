using System.Net;
using System.Security.Cryptography;
using System.Text;
using MimeKit;

namespace Rendal.Web.Tests.Dispatch;

public class DispatchTests(RunningRendal rendal)
{
    private const string Headings = "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_was_looked_at_is_what_arrives_and_what_the_log_keeps()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,1118.20,a@abbot.example; b@abbot.example", "BE02,Beacon <b>Lodge</b>,Invoice,T-2,2026-10-01,2026-11-01,60.05,b@beacon.example");
        var round = await desk.PrepareAsync();
        var looked = new Dictionary<string, string>();
        foreach (var parcel in round.List("parcels"))
        {
            looked.Add(parcel.Text("customer"), await desk.Browser.GetStringAsync($"{desk.Api}/parcels/{parcel.Id()}/page", Cancel));
        }

        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        var settled = await desk.SettledAsync(round.Id());

        Assert.All(settled.List("parcels"), p => Assert.Equal("sent", p.Text("standing")));
        var received = rendal.Mailbox.Of($"book-{desk.Book}");
        Assert.Equal(2, received.Count);
        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray().ToList();
        Assert.Equal(2, log.Count);
        foreach (var entry in log)
        {
            var copy = await desk.Browser.GetByteArrayAsync($"{desk.Api}/dispatch/{entry.GetProperty("parcel").GetInt64()}/message.eml", Cancel);
            Assert.Equal(entry.Text("sha256"), Convert.ToHexStringLower(SHA256.HashData(copy)));
            var arrived = Assert.Single(received, m => m.MessageId == entry.Text("messageId"));
            Assert.Equal(copy, rendal.Mailbox.Bytes(arrived));
            Assert.Equal("accepted", entry.Text("ending"));
            Assert.StartsWith("250 ", entry.Text("answer"));
            using var stream = new MemoryStream(copy);
            var message = await MimeMessage.LoadAsync(stream, Cancel);
            Assert.Equal(looked[entry.Text("customer")].ReplaceLineEndings(), message.HtmlBody!.ReplaceLineEndings());
            Assert.Equal($"{entry.Text("customer")} statement 2026-10-31.pdf", Assert.Single(message.Attachments.OfType<MimePart>()).FileName);
        }

        Assert.Equal("Statement of Beacon <b>Lodge</b>", log.Single(e => e.Text("customer") == "BE02").Text("subject"));
    }

    [Fact]
    public async Task A_count_that_is_no_longer_right_releases_nothing()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        var answer = await desk.ReleaseAsync(round.Id(), 2);
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Equal("1 parcel is ready now, not 2. Look again and release then.", await answer.DetailAsync());
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    [Fact]
    public async Task What_changed_after_it_was_looked_at_is_not_released_unseen()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "other@abbot.example")).JsonAsync();
        var answer = await desk.ReleaseAsync(round.Id(), 1);
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    [Fact]
    public async Task Cells_of_the_saved_log_that_could_be_formulas_are_made_harmless()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Headings, "AB01,\"=HYPERLINK(\"\"x\"\")\",Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var csv = await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/log.csv", Cancel);
        Assert.Contains("a@abbot.example", csv);
        Assert.DoesNotContain(",\"=", csv);
        Assert.DoesNotContain(",=", csv);
    }

    [Fact]
    public async Task The_html_of_a_message_is_served_so_that_it_can_run_and_fetch_nothing()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        var page = await desk.Browser.GetAsync($"{desk.Api}/parcels/{round.List("parcels").Single().Id()}/page", Cancel);
        var policy = string.Join(' ', page.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("sandbox;", policy);
        Assert.Contains("default-src 'none'", policy);
        Assert.Equal("no-store", page.Headers.CacheControl!.ToString());
        Assert.DoesNotContain("<script", Encoding.UTF8.GetString(await page.Content.ReadAsByteArrayAsync(Cancel)), StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task Copies_stand_on_the_message_blind_copies_do_not_and_all_get_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,");
        object Contact(string address, string role) => new { name = "", title = "", address, role, rounds = Array.Empty<string>() };
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", more: [Contact("c@abbot.example", "copy"), Contact("b@abbot.example", "blind-copy")])).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var received = Assert.Single(rendal.Mailbox.Of($"book-{desk.Book}"));
        Assert.Equal(["a@abbot.example", "b@abbot.example", "c@abbot.example"], received.Recipients.Order());
        var text = System.Text.Encoding.ASCII.GetString(rendal.Mailbox.Bytes(received));
        Assert.Contains("\r\nTo: a@abbot.example\r\n", text, StringComparison.Ordinal);
        Assert.Contains("\r\nCc: c@abbot.example\r\n", text, StringComparison.Ordinal);
        Assert.DoesNotContain("b@abbot.example", text, StringComparison.Ordinal);
    }
}
