using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Tests;
using Rendal.Postroom;
using Rendal.Web.Postroom;
using static Rendal.Web.Tests.Senders.SenderRequests;

namespace Rendal.Web.Tests.Senders;

public class SenderTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private SenderSecrets Secrets => rendal.App.Services.GetRequiredService<SenderSecrets>();

    private NpgsqlDataSource Source => rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

    [Fact]
    public async Task A_new_book_practises_with_the_postroom()
    {
        using var desk = await Desk.AtAsync(rendal);
        var sender = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray());
        Assert.True(sender.GetProperty("isPractice").GetBoolean());
        Assert.True(sender.GetProperty("hasPassword").GetBoolean());
    }

    [Theory]
    [InlineData(
        "accounts@tarnbrook.example",
        "mail.tarnbrook.example",
        25,
        "none",
        "Without security mail can only go to this machine. Choose STARTTLS (port 587) or TLS (port 465) for mail.tarnbrook.example."
    )]
    [InlineData(
        "two@a.example; b@b.example",
        "mail.tarnbrook.example",
        587,
        "starttls",
        "“two@a.example; b@b.example” is not one e-mail address."
    )]
    [InlineData("accounts@tarnbrook.example", " ", 587, "starttls", "Say the mail server’s name and its port.")]
    [InlineData("accounts@tarnbrook.example", "mail.tarnbrook.example", 0, "tls", "Say the mail server’s name and its port.")]
    [InlineData("accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "hope", "Choose how the line is secured.")]
    public async Task An_account_that_cannot_be_right_is_refused_with_the_remedy(
        string address,
        string host,
        int port,
        string security,
        string says
    )
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await PutAsync(desk, address, host, port, security, "secret");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(says, await answer.DetailAsync());
    }

    [Fact]
    public async Task A_book_practises_under_its_own_name_and_no_other()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var other = await Desk.AtAsync(rendal);
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        var refused = await PutAsync(
            desk,
            "accounts@practice.example",
            "127.0.0.1",
            practice.GetProperty("port").GetInt32(),
            "none",
            "x",
            $"book-{other.Book}"
        );
        Assert.Equal($"The postroom knows this book as book-{desk.Book}. Give that as the user name.", await refused.DetailAsync());
        var accounts = rendal.App.Services.GetRequiredService<BookAccounts>();
        Assert.True(accounts.Has($"book-{desk.Book}", accounts.Password(desk.Book)));
        Assert.False(accounts.Has($"book-{other.Book}", accounts.Password(desk.Book)));
        Assert.False(accounts.Has($"book-{desk.Book}", "practice"));
        Assert.False(accounts.Has("anybody", "practice"));
    }

    [Fact]
    public async Task A_refused_sign_in_stops_the_sender_until_it_is_put_right()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        var drills = rendal.App.Services.GetRequiredService<Drills>();
        drills.Begin($"book-{desk.Book}", new Drill(DrillStep.SignIn, DrillAct.Answer, "535 5.7.8 the name or the password is wrong"));
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        var stopped = await desk.SettledAsync(round.Id());
        Assert.StartsWith("The mail server refused the sign-in: 535 5.7.8", stopped.Text("senderPaused"));
        Assert.Equal("to-be-retried", stopped.List("parcels").Single().Text("status"));
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));

        drills.End($"book-{desk.Book}");
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        await (
            await PutAsync(
                desk,
                "accounts@practice.example",
                "127.0.0.1",
                practice.GetProperty("port").GetInt32(),
                "none",
                "right again",
                $"book-{desk.Book}"
            )
        ).JsonAsync();
        await Eventually.HoldsAsync(async () => (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status") == "sent");

        Assert.Single(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    [Fact]
    public async Task Trying_an_account_says_which_step_failed_and_what_to_do_and_keeps_nothing()
    {
        using var desk = await Desk.AtAsync(rendal);
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        var port = practice.GetProperty("port").GetInt32();
        Assert.Equal(
            [("name", true), ("line", true), ("sign-in", true), ("address", true)],
            Steps(await TryAsync("127.0.0.1", port, "none", null))
        );
        Assert.Equal(26_214_400, (await TryAsync("127.0.0.1", port, "none", null)).GetProperty("largestBytes").GetInt32());
        Assert.Equal(("name", false), Steps(await TryAsync("no-such-server.invalid", 587, "starttls", "x"))[^1]);
        Assert.Equal(("line", false), Steps(await TryAsync("127.0.0.1", 1, "none", "x"))[^1]);
        var secured = await TryAsync("127.0.0.1", port, "starttls", "x");
        Assert.Equal(("certificate", false), Steps(secured)[^1]);
        Assert.Equal(
            "The certificate of 127.0.0.1 is signed by “Postroom practice authority”, whom this machine does not trust.",
            secured.List("answers").Last().Text("words")
        );
        Assert.Equal(
            practice.GetRawText(),
            (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().GetRawText()
        );

        // What a server says is not read out: whatever listens at a port that somebody names could be asked so.
        var drills = rendal.App.Services.GetRequiredService<Drills>();
        drills.Begin($"book-{desk.Book}", new Drill(DrillStep.Sender, DrillAct.Answer, "553 5.7.1 a secret of the server"));
        Assert.Equal(
            (
                "the server answers 553",
                "The server does not let this account send as accounts@tarnbrook.example. Use the account’s own address, or "
                    + "ask your mail provider to allow this one."
            ),
            Last(await TryAsync("127.0.0.1", port, "none", "x"))
        );
        drills.End($"book-{desk.Book}");
        drills.Begin($"book-{desk.Book}", new Drill(DrillStep.SignIn, DrillAct.Answer, "535 5.7.8 a secret of the server"));
        Assert.Equal(
            (
                $"the server does not let book-{desk.Book} in (535)",
                "Check the user name and the password. Many providers want an app password here, which is made in the "
                    + "security settings of the account."
            ),
            Last(await TryAsync("127.0.0.1", port, "none", "x"))
        );
        drills.End($"book-{desk.Book}");

        Task<System.Text.Json.JsonElement> TryAsync(string host, int at, string security, string? password, string? userName = null) =>
            desk.Browser.PostJsonAsync(
                $"{desk.Api}/senders/{practice.Id()}/try",
                Account("accounts@tarnbrook.example", host, at, security, password, userName ?? $"book-{desk.Book}")
            );

        static List<(string, bool)> Steps(System.Text.Json.JsonElement trial) =>
            [.. trial.List("answers").Select(a => (a.Text("step"), a.GetProperty("passed").GetBoolean()))];
        static (string, string) Last(System.Text.Json.JsonElement trial) =>
            (trial.List("answers").Last().Text("words"), trial.List("answers").Last().Text("remedy"));
    }

    [Fact]
    public async Task Answers_go_where_the_sender_wants_them_and_a_copy_to_itself()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Invoice,T-2,2026-09-01,2026-10-01,20.00,drill.recipient.550@beacon.example"
        );
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        await (
            await desk.Browser.PutAsJsonAsync(
                $"{desk.Api}/senders/{practice.Id()}",
                Account(
                    "accounts@practice.example",
                    "127.0.0.1",
                    practice.GetProperty("port").GetInt32(),
                    "none",
                    null,
                    $"book-{desk.Book}",
                    replyTo: "ledger@practice.example",
                    copyToSelf: true
                ),
                Cancel
            )
        ).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        Assert.Equal(
            [("BE02", "refused"), ("AB01", "sent")],
            (await desk.SettledAsync(round.Id())).List("parcels").Select(p => (p.Text("customer"), p.Text("status")))
        );
        var received = rendal.Mailbox.Of($"book-{desk.Book}");
        var abbot = Assert.Single(received, m => m.Recipients.Contains("a@abbot.example"));
        Assert.Equal(["a@abbot.example", "accounts@practice.example"], abbot.Recipients);
        var text = Encoding.ASCII.GetString(rendal.Mailbox.Bytes(abbot));
        Assert.Contains("\r\nReply-To: ledger@practice.example\r\n", text, StringComparison.Ordinal);
        Assert.Contains("\r\nTo: a@abbot.example\r\n", text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Several_senders_are_kept_each_with_its_allowance()
    {
        using var desk = await Desk.AtAsync(rendal);
        var added = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/senders",
            Account("second@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "x", aMinute: 30, aDay: 500)
        );
        Assert.Equal(
            (30, 500, 0),
            (added.GetProperty("aMinute").GetInt32(), added.GetProperty("aDay").GetInt32(), added.GetProperty("begunToday").GetInt32())
        );
        Assert.Equal(2, (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).GetArrayLength());
        var refused = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/senders",
            Account("second@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "x", aMinute: 0),
            Cancel
        );
        Assert.Equal("An allowance is at least one message; leave it empty for as many as go.", await refused.DetailAsync());
    }

    [Fact]
    public async Task A_message_larger_than_the_server_takes_is_told_before_it_is_released()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            .. Enumerable.Range(1, 2_000).Select(i => $"BE02,Invoice,B-{i},2026-09-01,2026-10-01,20.00,b@beacon.example"),
        ]);
        var round = await desk.PrepareAsync();
        Assert.All(round.List("parcels"), p => Assert.Equal("prepared", p.Text("status")));
        await LimitMessagesAsync(desk, 150_000);
        round = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { });
        var parcels = round.List("parcels").ToDictionary(p => p.Text("customer"), p => p.Text("problem"));
        Assert.Equal("", parcels["AB01"]);
        Assert.Matches(
            @"^the message is \d\.\d+ MB, and 127\.0\.0\.1 takes 0\.15 MB: enclose fewer forms of the document, or smaller pictures$",
            parcels["BE02"]
        );
    }

    [Fact]
    public async Task How_often_and_when_a_message_is_tried_again_is_the_senders_to_say()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,drill.recipient.451@abbot.example"
        );
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        Assert.Equal([1, 5, 15, 60], practice.List("pauseMinutes").Select(p => p.GetInt32()));
        Assert.Equal([10, 20], (await (await KeepAsync(10, 20)).JsonAsync()).List("pauseMinutes").Select(p => p.GetInt32()));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await KeepAsync(0)).StatusCode);
        await (await KeepAsync()).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal("refused", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));

        Task<HttpResponseMessage> KeepAsync(params int[] pauses) =>
            desk.Browser.PutAsJsonAsync(
                $"{desk.Api}/senders/{practice.Id()}",
                Account(
                    "accounts@practice.example",
                    "127.0.0.1",
                    practice.GetProperty("port").GetInt32(),
                    "none",
                    null,
                    $"book-{desk.Book}",
                    pauseMinutes: pauses
                ),
                Cancel
            );
    }
}
