using System.Net;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;

namespace Rendal.Web.Tests.Dispatch;

/// <summary>What leaves otherwise than by a mail server: as files, and by post.</summary>
public class OtherChannelTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_round_can_leave_as_files_for_another_mail_program_and_is_sent_when_a_person_says_so()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,",
            "BE02,Beacon / Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example"
        );
        await (
            await desk.PutCardAsync(
                "AB01",
                "Abbot’s Table",
                "a@abbot.example",
                more: new
                {
                    name = "",
                    title = "",
                    address = "owner@abbot.example",
                    role = "blind-copy",
                    rounds = Array.Empty<string>(),
                }
            )
        ).JsonAsync();
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2, channel: "file")).JsonAsync();
        Assert.All((await desk.SettledAsync(round.Id())).List("parcels"), p => Assert.Equal("exported", p.Text("status")));
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));

        using var zip = new System.IO.Compression.ZipArchive(
            new MemoryStream(await desk.Browser.GetByteArrayAsync($"{desk.Api}/rounds/{round.Id()}/messages.zip", Cancel))
        );
        Assert.Equal(["AB01 Abbot’s Table.eml", "BE02 Beacon _ Lodge.eml"], zip.Entries.Select(e => e.FullName));
        using var stream = new MemoryStream();
        await zip.Entries[0].Open().CopyToAsync(stream, Cancel);
        stream.Position = 0;
        var message = await MimeMessage.LoadAsync(stream, Cancel);
        Assert.Equal(("a@abbot.example", "owner@abbot.example"), (message.To.ToString(), message.Bcc.ToString()));

        using var mbox = new MemoryStream(await desk.Browser.GetByteArrayAsync($"{desk.Api}/rounds/{round.Id()}/messages.mbox", Cancel));
        Assert.Equal(["a@abbot.example", "b@beacon.example"], Rendal.Mail.BounceReader.Open(mbox).Select(m => m.Message.To.ToString()));

        Assert.Equal(
            2,
            (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/exported-went", new { })).GetProperty("parcels").GetInt32()
        );
        Assert.All((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels"), p =>
            Assert.Equal("sent", p.Text("status"))
        );
        Assert.Equal(2, (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?outcome=exported")).GetArrayLength());
        var notes = await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch/{round.List("parcels").First().Id()}/notes");
        Assert.Equal("Sent from another mail program.", notes.EnumerateArray().Single().Text("text"));
    }

    [Fact]
    public async Task Who_wants_paper_gets_it_from_one_file_for_the_printer_and_the_log_has_what_went()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
            "CA01,Carrow House,Invoice,T-3,2026-09-01,2026-10-01,30.00,",
            "DU04,Dunmore Clinic,Invoice,T-4,2026-09-01,2026-10-01,40.00,"
        );
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example")).JsonAsync();
        await (
            await desk.PutCardAsync(
                "BE02",
                "Beacon Lodge",
                "b@beacon.example",
                delivery: "both",
                postalLines: ["3 Tenter Lane", "Kelby KB2 4RT"]
            )
        ).JsonAsync();
        await (
            await desk.PutCardAsync(
                "CA01",
                "Carrow House",
                "",
                delivery: "post",
                postalLines: ["Am Kai 5", "24937 Flensburg"],
                country: "Germany"
            )
        ).JsonAsync();
        await (
            await desk.PutCardAsync("DU04", "Dunmore Clinic", "", delivery: "both", postalLines: ["9 Quay", "Marl KB1 1AA"])
        ).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.Equal(
            ["it is to get messages too, and the card has no e-mail address"],
            round.List("parcels").Where(p => p.Text("status") == "needs-you").Select(p => p.Text("problem"))
        );
        await (
            await desk.PutCardAsync("DU04", "Dunmore Clinic", "", delivery: "post", postalLines: ["9 Quay", "Marl KB1 1AA"])
        ).JsonAsync();
        round = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { });
        var summary = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/summary",
            new { parcels = (long[]?)null, count = 0 }
        );
        Assert.Equal(
            (4, 2, 3),
            (
                summary.GetProperty("parcels").GetInt32(),
                summary.GetProperty("messages").GetInt32(),
                summary.GetProperty("letters").GetInt32()
            )
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await desk.Browser.GetAsync($"{desk.Api}/rounds/{round.Id()}/post.pdf", Cancel)).StatusCode
        );

        await (await desk.ReleaseAsync(round.Id(), 4)).JsonAsync();
        Assert.Equal(
            ["printed", "printed", "sent", "sent"],
            (await desk.SettledAsync(round.Id())).List("parcels").Select(p => p.Text("status"))
        );
        Assert.Equal(2, rendal.Mailbox.Of($"book-{desk.Book}").Count);

        using var bundle = UglyToad.PdfPig.PdfDocument.Open(
            await desk.Browser.GetByteArrayAsync($"{desk.Api}/rounds/{round.Id()}/post.pdf?bothSides=true", Cancel)
        );
        var pages = bundle.GetPages().Select(p => string.Join(' ', p.GetWords())).ToList();
        Assert.Equal(8, pages.Count);
        Assert.Contains("3 letters, 3 pages on 3 sheets", pages[0]);
        Assert.Equal(
            [("T-4", ""), ("T-2", ""), ("T-3", "")],
            new[] { (2, "T-4"), (4, "T-2"), (6, "T-3") }.Select(at =>
                (pages[at.Item1].Contains(at.Item2) ? at.Item2 : pages[at.Item1], pages[at.Item1 + 1])
            )
        );

        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?outcome=printed")).EnumerateArray().ToList();
        Assert.Equal(["BE02", "CA01", "DU04"], log.Select(e => e.Text("customer")).Order());
        var carrow = log.Single(e => e.Text("customer") == "CA01");
        Assert.Equal(
            ("", "Am Kai 5, 24937 Flensburg, Germany"),
            (carrow.Text("messageId"), carrow.GetProperty("recipients")[0].GetString())
        );
        var pdf = await desk.Browser.GetByteArrayAsync($"{desk.Api}/dispatch/{carrow.GetProperty("parcel").GetInt64()}/letter", Cancel);
        Assert.Equal(carrow.Text("sha256"), Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(pdf)));
        Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?search=Flensburg")).EnumerateArray());

        // Who got paper was written to.
        var next = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "Next", asOf = "2026-10-31" });
        var settings = System.Text.Json.JsonSerializer.Deserialize<Dictionary<string, object?>>(
            next.GetProperty("settings").GetRawText()
        )!;
        settings["notWithinDays"] = 30;
        Assert.Empty(
            (
                await (
                    await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                        desk.Browser,
                        $"{desk.Api}/rounds/{next.Id()}?revision=1",
                        settings,
                        Cancel
                    )
                ).JsonAsync()
            ).List("parcels")
        );
    }

    [Fact]
    public async Task Who_gets_post_alone_is_not_asked_for_what_only_the_message_needs()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "CA01,Carrow House,Invoice,T-3,2026-09-01,2026-10-01,30.00,"
        );
        await (
            await desk.PutCardAsync("CA01", "Carrow House", "", delivery: "post", postalLines: ["Am Kai 5", "24937 Flensburg"])
        ).JsonAsync();
        var round = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "October", asOf = "2026-10-31" });
        Assert.Equal(
            [("AB01", "salutation is empty"), ("CA01", "")],
            round.List("parcels").Select(p => (p.Text("customer"), p.Text("problem")))
        );
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal(["needs-you", "printed"], (await desk.SettledAsync(round.Id())).List("parcels").Select(p => p.Text("status")));
    }
}
