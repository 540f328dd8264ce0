using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Postroom;
using Rendal.Store.Senders;
using Rendal.Web.Hosting;
using Rendal.Web.Postroom;

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
    public async Task A_password_is_kept_encrypted_never_shown_and_stays_when_none_is_given()
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var shown = await (await PutAsync(desk, "ledger@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", null)).JsonAsync();
        Assert.True(shown.GetProperty("hasPassword").GetBoolean());
        Assert.DoesNotContain("secret", shown.GetRawText());

        var stored = Assert.Single(await new SenderStore(Source, desk.Book).ListAsync(0, Cancel));
        Assert.DoesNotContain("secret", Encoding.Latin1.GetString(stored.ProtectedPassword!));
        Assert.Equal("a very secret one", Secrets.AccountOf(desk.Book, "Etc/UTC", stored)?.Password);
        Assert.Null(Secrets.AccountOf(desk.Book, "Etc/UTC", stored with { Host = "mail.elsewhere.example" }));
    }

    [Theory]
    [InlineData("mail.elsewhere.example", 587, "starttls")]
    [InlineData("mail.tarnbrook.example", 25, "starttls")]
    [InlineData("mail.tarnbrook.example", 587, "tls")]
    [InlineData("127.0.0.1", 587, "none")]
    public async Task A_kept_password_goes_to_no_other_server_than_it_was_given_for(string host, int port, string security)
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var says = $"The password was given for mail.tarnbrook.example, port 587. Type it again for {host}, port {port}.";
        var kept = await PutAsync(desk, "accounts@tarnbrook.example", host, port, security, null);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, says), (kept.StatusCode, await kept.DetailAsync()));
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var tried = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/senders/{sender}/try",
            Account("accounts@tarnbrook.example", host, port, security, null),
            Cancel
        );
        Assert.Equal(says, await tried.DetailAsync());

        // Even where the row is changed behind the back of the application, nothing else can be made of it.
        await using var move = Source.CreateCommand("update sender set host = $2, port = $3, security = $4 where book_id = $1");
        foreach (var value in new object[] { desk.Book, host, port, security })
        {
            move.Parameters.Add(new() { Value = value });
        }

        await move.ExecuteNonQueryAsync(Cancel);
        Assert.Null(Secrets.AccountOf(desk.Book, "Etc/UTC", Assert.Single(await new SenderStore(Source, desk.Book).ListAsync(0, Cancel))));
    }

    [Fact]
    public async Task The_password_of_a_sender_is_not_given_to_a_mailbox_nor_that_of_a_mailbox_to_another_server()
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var replies =
            $"{desk.Api}/senders/{(await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id()}/replies";
        Task<HttpResponseMessage> PutMailboxAsync(string host, string? password) =>
            desk.Browser.PutAsJsonAsync(
                replies,
                new
                {
                    host,
                    port = 993,
                    security = "tls",
                    userName = "accounts",
                    password,
                },
                Cancel
            );
        Assert.Equal("Give the password of the mailbox.", await (await PutMailboxAsync("imap.tarnbrook.example", null)).DetailAsync());
        await (await PutMailboxAsync("imap.tarnbrook.example", "another secret")).JsonAsync();
        await (await PutMailboxAsync("imap.tarnbrook.example", null)).JsonAsync();
        Assert.Equal(
            "The password was given for imap.tarnbrook.example, port 993. Type it again for imap.elsewhere.example, port 993.",
            await (await PutMailboxAsync("imap.elsewhere.example", null)).DetailAsync()
        );
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
    public async Task A_password_whose_key_is_lost_pauses_the_sender_once_and_goes_on_when_it_is_typed_again()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Invoice,T-2,2026-09-01,2026-10-01,10.00,b@beacon.example"
        );
        await (await PutAsync(desk, "accounts@tarnbrook.example", "127.0.0.1", 1, "none", "x")).JsonAsync();
        var round = await desk.PrepareAsync();
        await using (var lose = Source.CreateCommand("update sender set password = 'what no key opens' where book_id = $1"))
        {
            lose.Parameters.Add(new() { Value = desk.Book });
            Assert.Equal(1, await lose.ExecuteNonQueryAsync(Cancel));
        }

        Assert.False(
            (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().GetProperty("hasPassword").GetBoolean()
        );
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        System.Text.Json.JsonElement stopped;
        while (
            (stopped = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).Text("senderPaused").Length == 0
            || stopped.List("parcels").Any(p => p.Text("status") == "sending")
        )
        {
            await Task.Delay(50, Cancel);
        }

        Assert.Equal(SenderSecrets.CannotBeRead, stopped.Text("senderPaused"));
        Assert.All(stopped.List("parcels"), p => Assert.Equal(("released", ""), (p.Text("status"), p.Text("answer"))));
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray());
        var practice = rendal.App.Services.GetRequiredService<HostParts>();
        await (
            await PutAsync(desk, "accounts@practice.example", "127.0.0.1", practice.MailPort, "none", "typed again", $"book-{desk.Book}")
        ).JsonAsync();
        while ((await desk.SettledAsync(round.Id())).List("parcels").Any(p => p.Text("status") != "sent"))
        {
            await Task.Delay(100, Cancel);
        }

        Assert.Equal(2, rendal.Mailbox.Of($"book-{desk.Book}").Count);
    }

    [Fact]
    public async Task What_belongs_to_the_book_stays_the_books_and_what_is_a_colleagues_is_told_as_that()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("second@tarnbrook.example", isMine: false), Cancel)
        ).JsonAsync();
        foreach (var sender in (await colleague.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().ToList())
        {
            var refused = await colleague.PutAsJsonAsync(
                $"{desk.Api}/senders/{sender.Id()}",
                Account("accounts@tarnbrook.example", isMine: true),
                Cancel
            );
            Assert.Equal(
                "This sender belongs to the book, and everybody who has it sends by it. Add another one to have one of your own.",
                await refused.DetailAsync()
            );
        }

        await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
        ).JsonAsync();
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        var parcel = round.List("parcels").Single().Id();
        Assert.Equal(
            "Tarnbrook Linen Hire <odile@tarnbrook.example>",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Text("from")
        );
        Assert.Equal("a colleague’s sender", (await colleague.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Text("from"));
        var summary = await colleague.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/summary", new { parcels = (long[]?)null, count = 1 });
        Assert.Equal(("a colleague’s sender", ""), (summary.Text("sender"), summary.Text("server")));
    }

    [Fact]
    public async Task A_sender_of_ones_own_is_there_for_nobody_else_and_goes_first_for_oneself()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        var shared = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var own = await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
        ).JsonAsync();
        Assert.Equal([own.Id(), shared], (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Select(s => s.Id()));
        Assert.Equal([shared], (await colleague.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Select(s => s.Id()));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await colleague.PutAsJsonAsync($"{desk.Api}/senders/{own.Id()}", Account("odile@tarnbrook.example", isMine: false), Cancel)
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await colleague.PostAsJsonAsync(
                    $"{desk.Api}/senders/{own.Id()}/try",
                    Account("odile@tarnbrook.example", isMine: false),
                    Cancel
                )
            ).StatusCode
        );
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync($"{desk.Api}/senders/{own.Id()}/replies", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.DeleteAsync($"{desk.Api}/senders/{own.Id()}/replies", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await colleague.PostAsync($"{desk.Api}/senders/{own.Id()}/replies/fetch", null, Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task A_round_under_somebodys_own_sender_is_released_by_them_or_under_another_one()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        var shared = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var own = (
            await (
                await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
            ).JsonAsync()
        ).Id();
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        Assert.Equal(own, round.GetProperty("settings").GetProperty("senderId").GetInt64());
        var api = $"{desk.Api}/rounds/{round.Id()}";
        var refused = await ReleaseAsync();
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "This round goes by a sender that is somebody’s own. Choose another one under “Goes by”, or let them release it."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );

        var settings = System.Text.Json.Nodes.JsonNode.Parse(round.GetProperty("settings").GetRawText())!;
        settings["name"] = "Looked through by a colleague";
        await (await PutAsync()).JsonAsync();
        settings["senderId"] = shared;
        await (await PutAsync()).JsonAsync();
        settings["senderId"] = own;
        Assert.Equal(HttpStatusCode.NotFound, (await PutAsync()).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await ReleaseAsync()).StatusCode);
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));

        async Task<HttpResponseMessage> PutAsync() =>
            await colleague.PutAsJsonAsync($"{api}?revision={await desk.RevisionAsync(round.Id())}", settings, Cancel);

        async Task<HttpResponseMessage> ReleaseAsync() =>
            await colleague.PostAsJsonAsync(
                $"{api}/release",
                new
                {
                    parcels = (long[]?)null,
                    revision = await desk.RevisionAsync(round.Id()),
                    seen = (await desk.SummaryAsync(round.Id())).Text("seen"),
                },
                Cancel
            );
    }

    private static object Account(string address, bool isMine) =>
        new
        {
            name = "Tarnbrook Linen Hire",
            address,
            replyTo = "",
            copyToSelf = false,
            host = "mail.tarnbrook.example",
            port = 587,
            security = "starttls",
            userName = "odile",
            password = (string?)null,
            aMinute = (int?)null,
            aDay = (int?)null,
            largestBytes = (int?)null,
            isMine,
        };

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
        while ((await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status") != "sent")
        {
            await Task.Delay(100, Cancel);
        }

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
                    largestBytes: 150_000
                ),
                Cancel
            )
        ).JsonAsync();
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

    private static async Task<HttpResponseMessage> PutAsync(
        Desk desk,
        string address,
        string host,
        int port,
        string security,
        string? password,
        string userName = "accounts"
    )
    {
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().First().Id();
        return await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/senders/{sender}",
            Account(address, host, port, security, password, userName),
            Cancel
        );
    }

    private static object Account(
        string address,
        string host,
        int port,
        string security,
        string? password,
        string userName = "accounts",
        string replyTo = "",
        bool copyToSelf = false,
        int? aMinute = null,
        int? aDay = null,
        int? largestBytes = null,
        int[]? pauseMinutes = null
    ) =>
        new
        {
            name = "Tarnbrook",
            address,
            replyTo,
            copyToSelf,
            host,
            port,
            security,
            userName,
            password,
            aMinute,
            aDay,
            largestBytes,
            pauseMinutes,
        };
}
