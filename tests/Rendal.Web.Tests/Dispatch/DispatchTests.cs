using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using Rendal.Core.Tests;

namespace Rendal.Web.Tests.Dispatch;

public class DispatchTests(RunningRendal rendal)
{
    private const string FetchesNothing = "default-src 'none'; style-src 'unsafe-inline'; img-src data:";

    /// <summary>What a message carries while it is looked at, and not when it goes.</summary>
    private const string OwnPolicy = $"<meta http-equiv=\"Content-Security-Policy\" content=\"{FetchesNothing}\">";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_was_looked_at_is_what_arrives_and_what_the_log_keeps()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,1118.20,a@abbot.example; b@abbot.example",
            "BE02,Beacon <b>Lodge</b>,Invoice,T-2,2026-10-01,2026-11-01,60.05,b@beacon.example"
        );
        var round = await desk.PrepareAsync();
        var looked = new Dictionary<string, string>();
        foreach (var parcel in round.List("parcels"))
        {
            looked.Add(parcel.Text("customer"), (await desk.MessageAsync(parcel.Id())).Replace(OwnPolicy, "", StringComparison.Ordinal));
        }

        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        var settled = await desk.SettledAsync(round.Id());

        Assert.All(settled.List("parcels"), p => Assert.Equal("sent", p.Text("status")));
        var received = rendal.Mailbox.Of($"book-{desk.Book}");
        Assert.Equal(2, received.Count);
        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray().ToList();
        Assert.Equal(2, log.Count);
        foreach (var entry in log)
        {
            var copy = await desk.Browser.GetByteArrayAsync(
                $"{desk.Api}/dispatch/{entry.GetProperty("parcel").GetInt64()}/messages/0/message.eml",
                Cancel
            );
            Assert.Equal(entry.Text("sha256"), Convert.ToHexStringLower(SHA256.HashData(copy)));
            var arrived = Assert.Single(received, m => m.MessageId == entry.Text("messageId"));
            Assert.Equal(copy, rendal.Mailbox.Bytes(arrived));
            Assert.Equal("accepted", entry.Text("outcome"));
            Assert.StartsWith("250 ", entry.Text("answer"));
            using var stream = new MemoryStream(copy);
            var message = await MimeMessage.LoadAsync(stream, Cancel);
            Assert.Equal(looked[entry.Text("customer")].ReplaceLineEndings(), message.HtmlBody!.ReplaceLineEndings());
            Assert.Equal(
                $"{entry.Text("customer")} statement 2026-10-31.pdf",
                Assert.Single(message.Attachments.OfType<MimePart>()).FileName
            );
        }

        Assert.Equal("Statement of Beacon <b>Lodge</b>", log.Single(e => e.Text("customer") == "BE02").Text("subject"));
    }

    [Fact]
    public async Task A_round_released_for_a_set_time_waits_for_it_and_can_be_stopped_and_released_again()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        Assert.Equal(
            "1 November 2025, 08:00 is over. Choose a later moment, or release now.",
            await (await ReleaseForAsync("2025-11-01T08:00")).DetailAsync()
        );
        Assert.Equal("“soon” is no date and time.", await (await ReleaseForAsync("soon")).DetailAsync());
        Assert.Equal("released", (await (await ReleaseForAsync("2099-07-01T08:00")).JsonAsync()).List("parcels").Single().Text("status"));

        // By the clock of London, where July is an hour ahead of UTC.
        var progress = await ProgressAsync(desk, round.Id());
        Assert.Equal(new DateTimeOffset(2099, 7, 1, 7, 0, 0, TimeSpan.Zero), progress.GetProperty("leavesAt").GetDateTimeOffset());
        Assert.Equal(1, progress.GetProperty("forecast").GetProperty("today").GetInt32());

        Assert.Equal(
            1,
            (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/stop", new { })).GetProperty("parcels").GetInt32()
        );
        Assert.Equal(
            "prepared",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single().Text("status")
        );
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));
        Assert.Single(rendal.Mailbox.Of($"book-{desk.Book}"));

        Task<HttpResponseMessage> ReleaseForAsync(string at) => desk.ReleaseAsync(round.Id(), 1, at);
    }

    [Fact]
    public async Task Before_the_release_it_is_said_what_the_allowance_lets_go_today_and_the_rest_waits_for_tomorrow()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([
            Desk.Headings,
            .. Enumerable.Range(1, 5).Select(i => $"AB0{i},Abbot {i},Invoice,T-{i},2026-09-01,2026-10-01,10.00,a{i}@abbot.example"),
        ]);
        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/senders/{practice.Id()}",
                new
                {
                    name = "Tarnbrook",
                    address = practice.Text("address"),
                    replyTo = "",
                    copyToSelf = false,
                    host = "127.0.0.1",
                    port = practice.GetProperty("port").GetInt32(),
                    security = "none",
                    userName = practice.Text("userName"),
                    password = (string?)null,
                    aMinute = (int?)null,
                    aDay = 2,
                    largestBytes = (int?)null,
                },
                Cancel
            )
        ).JsonAsync();
        var round = await desk.PrepareAsync();
        var forecast = (
            await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/summary", new { parcels = (long[]?)null, count = 0 })
        ).GetProperty("forecast");
        Assert.Equal((2, 3), (forecast.GetProperty("today").GetInt32(), forecast.GetProperty("later").GetInt32()));
        await (await desk.ReleaseAsync(round.Id(), 5)).JsonAsync();
        await Eventually.HoldsAsync(() => rendal.Mailbox.Of($"book-{desk.Book}").Count >= 2);

        var progress = await ProgressAsync(desk, round.Id());
        Assert.Equal(
            (2, 3),
            (
                progress.GetProperty("counts").GetProperty("sent").GetInt32(),
                progress.GetProperty("counts").GetProperty("released").GetInt32()
            )
        );
        Assert.Equal(
            (0, 3),
            (
                progress.GetProperty("forecast").GetProperty("today").GetInt32(),
                progress.GetProperty("forecast").GetProperty("later").GetInt32()
            )
        );
        Assert.Equal(
            2,
            (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().GetProperty("begunToday").GetInt32()
        );
    }

    /// <summary>How sending goes once nothing of it is in the hands of a worker.</summary>
    private static async Task<JsonElement> ProgressAsync(Desk desk, long round)
    {
        using var stream = await desk.Browser.GetStreamAsync($"{desk.Api}/rounds/{round}/progress", Cancel);
        using var reader = new StreamReader(stream);
        while (await reader.ReadLineAsync(Cancel) is { } line)
        {
            if (
                line.StartsWith("data: ", StringComparison.Ordinal)
                && JsonDocument.Parse(line[6..]).RootElement is var progress
                && !progress.GetProperty("counts").TryGetProperty("sending", out _)
            )
            {
                return progress;
            }
        }

        throw new InvalidOperationException("The server said nothing of how sending goes.");
    }

    [Fact]
    public async Task One_is_sent_once_more_on_purpose_to_the_address_as_it_is_now_and_the_log_marks_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,drill.recipient.550@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example"
        );
        var first = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "October",
                asOf = "2026-10-31",
                about = "reminders",
            }
        );
        await PutAllRightAsync(desk);
        first = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{first.Id()}/prepare", new { });
        var parcel = first.List("parcels").Single(p => p.Text("customer") == "AB01");
        Assert.Equal(HttpStatusCode.Conflict, (await RepeatAsync(parcel.Id())).StatusCode);
        await (await desk.ReleaseAsync(first.Id(), 2)).JsonAsync();
        Assert.Equal(["refused", "sent"], (await desk.SettledAsync(first.Id())).List("parcels").Select(p => p.Text("status")));

        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "new@abbot.example", "Owen Prys", "Mr")).JsonAsync();
        var again = await desk.Browser.GetJsonAsync(
            $"{desk.Api}/rounds/{(await (await RepeatAsync(parcel.Id())).JsonAsync()).GetProperty("round").GetInt64()}"
        );
        Assert.Equal("October, once more", again.Text("name"));
        var repeat = Assert.Single(again.List("parcels"));
        Assert.Equal(
            ("AB01", "prepared", parcel.GetProperty("reminderLevel").GetInt32()),
            (repeat.Text("customer"), repeat.Text("status"), repeat.GetProperty("reminderLevel").GetInt32())
        );
        Assert.Equal("0.00", again.List("proof").Single().Text("difference"));
        await (await desk.ReleaseAsync(again.Id(), 1)).JsonAsync();
        Assert.Equal("sent", (await desk.SettledAsync(again.Id())).List("parcels").Single().Text("status"));

        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?round={again.Id()}")).EnumerateArray().ToList();
        Assert.Equal(
            ("new@abbot.example", true),
            (log.Single().GetProperty("recipients")[0].GetString(), log.Single().GetProperty("isRepeat").GetBoolean())
        );
        Assert.Equal(2, (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?round={first.Id()}")).GetArrayLength());
        Assert.Equal(
            3,
            (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray().Select(e => e.Text("messageId")).Distinct().Count()
        );

        Task<HttpResponseMessage> RepeatAsync(long id) => desk.Browser.PostAsync($"{desk.Api}/dispatch/{id}/repeat", null, Cancel);

        static async Task PutAllRightAsync(Desk desk)
        {
            await (await desk.PutCardAsync("AB01", "Abbot’s Table", "drill.recipient.550@abbot.example", "Owen Prys", "Mr")).JsonAsync();
            await (await desk.PutCardAsync("BE02", "Beacon Lodge", "b@beacon.example", "Ines Caldera", "Ms")).JsonAsync();
        }
    }

    [Fact]
    public async Task Those_that_did_not_go_become_a_round_in_one_step_and_what_was_refused_stays_on_record()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,drill.recipient.550@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
            "CR03,Crown Inn,Invoice,T-3,2026-09-01,2026-10-01,30.00,c@crown.example"
        );
        var round = await desk.PrepareAsync();
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/rounds/{round.Id()}/decisions?revision={round.GetProperty("revision").GetInt64()}",
                new
                {
                    customers = new[] { "CR03" },
                    decision = "held",
                    reason = "",
                },
                Cancel
            )
        ).Content.ReadAsStringAsync(Cancel);
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        var settled = await desk.SettledAsync(round.Id());
        Assert.Equal(2, settled.GetProperty("rest").GetInt32());

        var both = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(_ => desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/rest", null, Cancel))
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(a => a.StatusCode).Order());
        var rest = await both.Single(a => a.IsSuccessStatusCode).JsonAsync();
        Assert.Equal(["AB01", "CR03"], rest.List("parcels").Select(p => p.Text("customer")).Order());
        var after = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        Assert.Equal(0, after.GetProperty("rest").GetInt32());
        Assert.Equal("refused", after.List("parcels").Single(p => p.Text("customer") == "AB01").Text("status"));
    }

    [Fact]
    public async Task Who_released_a_round_is_told_when_it_has_ended_by_a_message_and_by_a_notice_until_it_is_seen()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s <b>Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,drill.recipient.550@beacon.example"
        );
        var round = await desk.PrepareAsync();
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/rounds/{round.Id()}/pause",
                new { paused = true },
                Cancel
            )
        ).Content.ReadAsStringAsync(Cancel);
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();

        // Somebody else than the person of the other tests, who is to be told at no address.
        await RunAsync(
            $"with owner as (insert into person (name, password_hash, address) values ('Owner of {desk.Book}', '-', "
                + "'owner@tarnbrook.example') returning id) update round set ends_for = (select id from owner) where book_id = "
                + $"{desk.Book}"
        );
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/rounds/{round.Id()}/pause",
                new { paused = false },
                Cancel
            )
        ).Content.ReadAsStringAsync(Cancel);
        await Eventually.HoldsAsync(() =>
            rendal.Mailbox.Of($"book-{desk.Book}").Any(m => m.Recipients.Contains("owner@tarnbrook.example"))
        );

        using var bytes = new MemoryStream(
            rendal.Mailbox.Bytes(rendal.Mailbox.Of($"book-{desk.Book}").Single(m => m.Recipients.Contains("owner@tarnbrook.example")))
        );
        var message = await MimeMessage.LoadAsync(bytes, Cancel);
        Assert.Equal("October: 1 sent, 1 refused", message.Subject);
        Assert.Contains("Beacon Lodge: refused – 550", message.HtmlBody);
        Assert.DoesNotContain("Abbot", message.HtmlBody);

        await RunAsync(
            "update round_end set person_id = (select made_by from round r where r.book_id = round_end.book_id and r.id = "
                + $"round_end.round_id) where book_id = {desk.Book}"
        );
        var ended = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/ended")).EnumerateArray().Single();
        Assert.Equal(
            ("October", 1, 1),
            (
                ended.Text("name"),
                ended.GetProperty("counts").GetProperty("sent").GetInt32(),
                ended.GetProperty("counts").GetProperty("refused").GetInt32()
            )
        );
        await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/seen", null, Cancel);
        Assert.Equal(0, (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/ended")).GetArrayLength());

        async Task RunAsync(string sql)
        {
            await using var command = rendal.App.Services.GetRequiredService<Npgsql.NpgsqlDataSource>().CreateCommand(sql);
            Assert.NotEqual(0, await command.ExecuteNonQueryAsync(Cancel));
        }
    }

    [Theory]
    [InlineData("marta@tarnbrook.example; other@tarnbrook.example")]
    [InlineData("marta@tarnbrook")]
    public async Task The_address_of_a_person_is_one_or_none(string address)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
            desk.Browser,
            "/api/session/address",
            new { address },
            Cancel
        );
        Assert.Equal($"“{address}” is not one e-mail address.", await answer.DetailAsync());
        Assert.Equal("", (await desk.Browser.GetJsonAsync("/api/session")).Text("address"));
    }

    [Fact]
    public async Task Copies_stand_on_the_message_blind_copies_do_not_and_all_get_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,");
        object Contact(string address, string role) =>
            new
            {
                name = "",
                title = "",
                address,
                role,
                rounds = Array.Empty<string>(),
            };
        await (
            await desk.PutCardAsync(
                "AB01",
                "Abbot’s Table",
                "a@abbot.example",
                more: [Contact("c@abbot.example", "copy"), Contact("b@abbot.example", "blind-copy")]
            )
        ).JsonAsync();
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
