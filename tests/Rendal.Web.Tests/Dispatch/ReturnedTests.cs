using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Dispatch;

/// <summary>Mail that comes back, from the postroom's report to the customer's card.</summary>
public class ReturnedTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_delivery_report_makes_its_parcel_returned_and_the_address_needs_a_person_until_it_is_good_again()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,A@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,10.00,b@beacon.example"
        );
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "A@abbot.example")).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var message = rendal.Mailbox.Of($"book-{desk.Book}").Single(m => m.Recipients.Contains("A@abbot.example"));
        var report = await desk.Browser.PostJsonAsync($"{desk.Api}/postroom/{message.Id}/return", new { });
        var eml = await desk.Browser.GetByteArrayAsync($"{desk.Api}/postroom/{report.Id()}/message.eml", Cancel);

        var taken = (await (await UploadAsync(desk, "report.eml", eml)).JsonAsync()).EnumerateArray().Single();
        Assert.Equal(
            ("returned", "AB01", "550 5.1.1 no such mailbox here"),
            (taken.Text("outcome"), taken.Text("customer"), taken.Text("reason"))
        );
        var parcels = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}"))
            .List("parcels")
            .ToDictionary(p => p.Text("customer"));
        Assert.Equal(("returned", "550 5.1.1 no such mailbox here"), (parcels["AB01"].Text("status"), parcels["AB01"].Text("answer")));
        Assert.Equal("sent", parcels["BE02"].Text("status"));
        Assert.Equal("known", (await (await UploadAsync(desk, "again.eml", eml)).JsonAsync()).EnumerateArray().Single().Text("outcome"));

        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray();
        Assert.Equal(
            [("AB01", true), ("BE02", false)],
            log.Select(e => (e.Text("customer"), e.GetProperty("cameBack").GetBoolean())).Order()
        );
        Assert.Equal(
            "AB01",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?outcome=returned")).EnumerateArray().Single().Text("customer")
        );
        var history = await HistoryAsync(desk);
        Assert.Equal("550 5.1.1 no such mailbox here", history.List("returned").Single().Text("reason"));
        Assert.Equal("a@abbot.example", history.List("returnedAddresses").Single().Text("address"));

        // The next round waits for a person there, and for nobody else.
        var next = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "November", asOf = "2026-11-30" });
        Assert.Equal(
            [("AB01", "needs-you"), ("BE02", "prepared")],
            next.List("parcels").Select(p => (p.Text("customer"), p.Text("status")))
        );
        Assert.StartsWith(
            "mail to “a@abbot.example” came back on ",
            next.List("parcels").First().Text("problem"),
            StringComparison.Ordinal
        );

        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.DeleteAsync($"{desk.Api}/customers/returned-address?address=A%40abbot.example", Cancel)).StatusCode
        );
        Assert.True(
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{next.Id()}/revision?revision={next.GetProperty("revision").GetInt64()}"))
                .GetProperty("isBehind")
                .GetBoolean()
        );
        var again = await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{next.Id()}/prepare", null, Cancel)).JsonAsync();
        Assert.All(again.List("parcels"), p => Assert.Equal("prepared", p.Text("status")));
        Assert.Empty((await HistoryAsync(desk)).List("returnedAddresses"));
        Assert.Single((await HistoryAsync(desk)).List("returned"));
    }

    [Fact]
    public async Task An_automatic_reply_stands_in_the_history_only()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var id = rendal.Mailbox.Of($"book-{desk.Book}").Single().MessageId;
        var reply = System.Text.Encoding.UTF8.GetBytes(
            $"From: a@abbot.example\r\nSubject: Out of office\r\nIn-Reply-To: <{id}>\r\nAuto-Submitted: "
                + "auto-replied\r\n\r\nBack on Monday.\r\n"
        );
        Assert.Equal(
            "automatic-reply",
            (await (await UploadAsync(desk, "reply.eml", reply)).JsonAsync()).EnumerateArray().Single().Text("outcome")
        );
        Assert.Equal("sent", (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single().Text("status"));
        Assert.Equal("Back on Monday.", (await HistoryAsync(desk)).List("returned").Single().Text("reason"));
    }

    [Fact]
    public async Task A_report_counts_only_for_the_recipient_that_it_names_and_what_is_unclear_waits_for_a_person()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var sent = rendal.Mailbox.Of($"book-{desk.Book}").Single();
        Task<JsonElement> TakeAsync(string mail) =>
            TakenAsync(desk, mail.Replace("OURS", $"<{sent.MessageId}>", StringComparison.Ordinal));
        async Task<string> StandingAsync() =>
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single().Text("status");

        Assert.Equal("own-copy", (await TakeAsync(Report(sent.From, "552 5.2.2 mailbox full"))).Text("outcome"));
        Assert.Equal(
            "answer",
            (
                await TakeAsync(
                    "From: a@abbot.example\nReturn-Path: <a@abbot.example>\nSubject: Undelivered linen on your "
                        + "invoice\nIn-Reply-To: OURS\n\nTwo sheets were missing.\n"
                )
            ).Text("outcome")
        );
        Assert.Equal("sent", await StandingAsync());
        Assert.Empty((await HistoryAsync(desk)).List("returnedAddresses"));

        // It may have been passed on to somebody who is not there.
        Assert.Equal("unclear", (await TakeAsync(Report("gone@abbot.example", "550 5.1.1 nobody"))).Text("outcome"));
        Assert.Equal(
            "unclear",
            (
                await TakeAsync(
                    "From: mailer-daemon@mx.example\nReturn-Path: <>\nSubject: Notice\n\nYour letter OURS to a@abbot.example "
                        + "is here, and nobody fetches it.\n"
                )
            ).Text("outcome")
        );
        Assert.Equal("sent", await StandingAsync());

        var unclear = (await desk.Browser.GetJsonAsync($"{desk.Api}/returned/unclear")).EnumerateArray().ToList();
        Assert.Equal(
            [("AB01", "550 5.1.1 nobody"), ("AB01", $"Your letter <{sent.MessageId}> to a@abbot.example is here, and nobody fetches it.")],
            unclear.Select(m => (m.Text("customer"), m.Text("reason")))
        );
        Assert.Equal("Notice", (await desk.Browser.GetJsonAsync($"{desk.Api}/returned/{unclear[1].Id()}")).Text("subject"));
        Assert.Equal(HttpStatusCode.NoContent, (await DecideAsync(desk, unclear[0], false)).StatusCode);
        Assert.Equal("sent", await StandingAsync());
        Assert.Equal(HttpStatusCode.NoContent, (await DecideAsync(desk, unclear[1], true)).StatusCode);
        Assert.Equal("returned", await StandingAsync());
        Assert.Equal("a@abbot.example", (await HistoryAsync(desk)).List("returnedAddresses").Single().Text("address"));
        Assert.Equal("This message is decided already.", await (await DecideAsync(desk, unclear[1], false)).DetailAsync());
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/returned/unclear")).EnumerateArray());
        Assert.Equal(
            ["failed", "other", "other", "own-copy"],
            (await HistoryAsync(desk)).List("returned").Select(m => m.Text("kind")).Order()
        );
    }

    [Fact]
    public async Task A_report_about_another_message_to_the_same_address_is_for_a_person_to_judge()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        Assert.Equal(
            "unclear",
            (
                await TakenAsync(
                    desk,
                    Report("a@abbot.example", "550 5.1.1 nobody").Replace("OURS", "<private@tarnbrook.example>", StringComparison.Ordinal)
                )
            ).Text("outcome")
        );

        // One that carries nothing is about the last that went there.
        Assert.Equal(
            "returned",
            (
                await TakenAsync(
                    desk,
                    Report("a@abbot.example", "550 5.1.1 nobody")
                        .Replace("Message-ID: OURS", "Subject: Statement", StringComparison.Ordinal)
                )
            ).Text("outcome")
        );
    }

    [Fact]
    public async Task A_recipient_who_is_refused_among_others_is_shown_wherever_the_message_is_and_next_time_too()
    {
        const string Bad = "drill.recipient.550@abbot.example";
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,10.00,drill.recipient.554@beacon.example"
        );
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", $"a@abbot.example; {Bad}")).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        const string Told = $"1 of 2 recipients refused: {Bad}: 550 the address asked for this answer";
        var parcels = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}"))
            .List("parcels")
            .ToDictionary(p => p.Text("customer"));
        Assert.Equal("sent", parcels["AB01"].Text("status"));
        Assert.EndsWith(Told, parcels["AB01"].Text("answer"), StringComparison.Ordinal);
        var entry = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?search=AB01")).EnumerateArray().Single();
        Assert.Equal(("accepted", 1), (entry.Text("outcome"), entry.GetProperty("refused").GetInt32()));
        Assert.EndsWith(Told, entry.Text("answer"), StringComparison.Ordinal);
        Assert.Contains(Told, await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/log.csv", Cancel), StringComparison.Ordinal);

        // A refusal that says nothing of the address does not count against it.
        var next = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "November", asOf = "2026-11-30" });
        Assert.Equal(
            [("AB01", "needs-you"), ("BE02", "prepared")],
            next.List("parcels").Select(p => (p.Text("customer"), p.Text("status")))
        );
        Assert.StartsWith($"the mail server refused “{Bad}” on ", next.List("parcels").First().Text("problem"), StringComparison.Ordinal);
        var flagged = (await HistoryAsync(desk)).List("returnedAddresses").Single();
        Assert.Equal(
            (Bad, true, "550 the address asked for this answer"),
            (flagged.Text("address"), flagged.GetProperty("isRefused").GetBoolean(), flagged.Text("reason"))
        );
    }

    [Fact]
    public async Task What_is_about_nothing_that_was_sent_from_here_is_said_to_be_so_and_what_is_no_message_is_refused()
    {
        using var desk = await Desk.AtAsync(rendal);
        var stranger = "From: mailer-daemon@mx.example\r\nSubject: failure notice\r\n\r\n<x@y.example>: 550 5.1.1 unknown\r\n"u8.ToArray();
        Assert.Equal(
            "fits-none",
            (await (await UploadAsync(desk, "stranger.eml", stranger)).JsonAsync()).EnumerateArray().Single().Text("outcome")
        );
        var hostile =
            "Return-Path: <>\r\nFrom: mailer-daemon@mx.example\r\nSubject: =?utf-8?q?a=00b?=\r\n\r\n<x@y.example>: 550 no\0body\r\n"u8.ToArray();
        Assert.Equal(
            "fits-none",
            (await (await UploadAsync(desk, "hostile.eml", hostile)).JsonAsync()).EnumerateArray().Single().Text("outcome")
        );
        var half = await UploadAsync(
            desk,
            "half.mbox",
            "From a@b.example Sat Nov 28 10:00:00 2026\nFrom: a@b.example\nSubject: x\n\nhi\n\nFrom a@b.example Sat Nov 28 10:00:00 2026\n\nnothing\n"u8.ToArray()
        );
        Assert.Equal(
            "half.mbox is read up to message 1, which was taken in; what follows is no message. Look at the rest of the file.",
            await half.DetailAsync()
        );
        var refused = await UploadAsync(desk, "ledger.csv", "Code;Amount\nAB01;10,00\n"u8.ToArray());
        Assert.Equal(
            "ledger.csv is no message. Save the mail that came back as .eml, or many of them as mbox, and take that in.",
            await refused.DetailAsync()
        );
    }

    [Fact]
    public async Task Reports_are_fetched_from_the_mailbox_of_the_sender_and_other_mail_in_it_is_left_alone()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var account = $"book-{desk.Book}";
        rendal.Mailbox.Add(
            account,
            "guest@inn.example",
            ["accounts@practice.example"],
            "From: guest@inn.example\r\nSubject: Towels\r\n\r\nPlease send more.\r\n"u8.ToArray(),
            DateTimeOffset.UtcNow
        );
        rendal.Mailbox.Add(
            account,
            "",
            ["accounts@practice.example"],
            "From: mailer-daemon@mx.example\r\nSubject: failure notice\r\n\r\n<x@y.example>: 550 5.1.1 unknown\r\n"u8.ToArray(),
            DateTimeOffset.UtcNow
        );
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/postroom/{rendal.Mailbox.Of(account).Single(m => m.Recipients.Contains("a@abbot.example")).Id}/return",
            new { }
        );

        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var replies = $"{desk.Api}/senders/{sender}/replies";
        var proposed = await desk.Browser.GetJsonAsync(replies);
        Assert.False(proposed.GetProperty("isKept").GetBoolean());
        Assert.Equal(HttpStatusCode.NotFound, (await desk.Browser.PostAsync($"{replies}/fetch", null, Cancel)).StatusCode);
        var mailbox = new
        {
            host = proposed.Text("host"),
            port = proposed.GetProperty("port").GetInt32(),
            security = "none",
            userName = account,
            password = (string?)null,
        };
        var elsewhere = await desk.Browser.PutAsJsonAsync(replies, mailbox with { host = "imap.mail.example" }, Cancel);
        Assert.Equal(
            "Without security mail can only go to this machine. Choose STARTTLS (port 143) or TLS (port 993) for imap.mail.example.",
            await elsewhere.DetailAsync()
        );

        // Kept, it is fetched from by itself; what comes of it is the same whoever is first.
        Assert.True((await (await desk.Browser.PutAsJsonAsync(replies, mailbox, Cancel)).JsonAsync()).GetProperty("isKept").GetBoolean());
        var fetched = await (await desk.Browser.PostAsync($"{replies}/fetch", null, Cancel)).JsonAsync();
        Assert.Equal("", fetched.Text("trouble"));
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single();
        Assert.Equal(("returned", "550 5.1.1 no such mailbox here"), (parcel.Text("status"), parcel.Text("answer")));
        Assert.Single((await HistoryAsync(desk)).List("returned"));
        var again = await (await desk.Browser.PostAsync($"{replies}/fetch", null, Cancel)).JsonAsync();
        Assert.Empty(again.List("taken"));
        Assert.NotEqual(JsonValueKind.Null, (await desk.Browser.GetJsonAsync(replies)).GetProperty("lookedAt").ValueKind);

        Assert.True(
            (await desk.Browser.PutAsJsonAsync(replies, mailbox with { port = 1, password = "typed" }, Cancel)).IsSuccessStatusCode
        );
        Assert.StartsWith(
            "127.0.0.1 does not answer at port 1.",
            (await (await desk.Browser.PostAsync($"{replies}/fetch", null, Cancel)).JsonAsync()).Text("trouble"),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "127.0.0.1 does not answer at port 1.",
            (await desk.Browser.GetJsonAsync(replies)).Text("trouble"),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.DeleteAsync(replies, Cancel)).StatusCode);
        Assert.False((await desk.Browser.GetJsonAsync(replies)).GetProperty("isKept").GetBoolean());
    }

    private static Task<JsonElement> HistoryAsync(Desk desk) => desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=AB01");

    private static string Report(string recipient, string answer) =>
        "From: mailer-daemon@mx.example\nSubject: Undelivered\nMIME-Version: 1.0\nContent-Type: multipart/report; "
        + "report-type=delivery-status; boundary=b\n\n--b\nContent-Type: text/plain\n\nNot delivered.\n--b\nContent-Type: "
        + $"message/delivery-status\n\nReporting-MTA: dns; mx.example\n\nFinal-Recipient: rfc822; {recipient}\nAction: "
        + $"failed\nStatus: {answer.Split(' ')[1]}\nDiagnostic-Code: smtp; {answer}\n\n--b\nContent-Type: "
        + "text/rfc822-headers\n\nMessage-ID: OURS\n\n--b--\n";

    private static async Task<JsonElement> TakenAsync(Desk desk, string mail) =>
        (await (await UploadAsync(desk, "mail.eml", System.Text.Encoding.UTF8.GetBytes(mail.ReplaceLineEndings("\r\n")))).JsonAsync())
            .EnumerateArray()
            .Single();

    private static Task<HttpResponseMessage> DecideAsync(Desk desk, JsonElement mail, bool isFailure) =>
        desk.Browser.PutAsJsonAsync($"{desk.Api}/returned/{mail.Id()}/decision", new { isFailure }, Cancel);

    private static async Task<HttpResponseMessage> UploadAsync(Desk desk, string name, byte[] content)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(content), "files", name } };
        return await desk.Browser.PostAsync($"{desk.Api}/returned", form, Cancel);
    }
}
