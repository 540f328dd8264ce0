using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using MimeKit;
using Npgsql;
using Rendal.Web.Tests.Senders;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Enclosures;

/// <summary>Files are given in, matched with invoices, and go with the right message and no other.</summary>
public class EnclosureTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,TL-1001,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "AB01,Abbot’s Table,Invoice,TL-1002,2026-09-08,2026-10-08,15.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,TL-1003,2026-09-01,2026-10-01,20.00,b@beacon.example",
        "CA01,Carding Inn,Invoice,TL-1004,2026-09-01,2026-10-01,30.00,c@carding.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Copies_from_a_zip_and_from_one_pdf_of_many_go_each_with_the_message_about_its_invoice()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var zip = CopyPdf.Zip(
            ("October/TL-1001.pdf", CopyPdf.Of("Invoice TL-1001")),
            ("October/Invoice TL-1002 Abbot.pdf", CopyPdf.Of("Invoice TL-1002")),
            ("October/.DS_Store", [1, 2, 3]),
            ("October/terms\0\u001b.txt", [.. "as agreed\0"u8, 0xFF, 0xD8]),
            ("../../TL-1003.exe", "MZ…"u8.ToArray())
        );
        var added = await GiveInAsync(desk, "October.zip", zip);
        Assert.Equal((3, 0), (added.Number("added"), added.Number("known")));
        Assert.Equal("is a program", added.List("refused").Single().Text("reason"));
        var many = await GiveInAsync(
            desk,
            "scans.pdf",
            CopyPdf.Of("Invoice TL-1003", "terms", "Invoice TL-0900\nan old one", "Invoice TL-1004")
        );
        Assert.Equal(3, many.Number("added"));

        await EncloseAsync(desk, round, e => e["copies"] = "single");
        var copies = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/copies");
        Assert.Equal(
            ["question 0", "missing 0", "matched 4", "not-needed 0", "left-over 2"],
            copies.List("counts").Select(c => $"{c.Text("state")} {c.Number("count")}")
        );

        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        await desk.SettledAsync(round);
        var delivered = Delivered(desk);
        Assert.Equal(["TL-1001.pdf", "Invoice TL-1002 Abbot.pdf"], Enclosed(delivered["a@abbot.example"]).Skip(1).Select(e => e.Name));
        var (name, text, pages) = Enclosed(delivered["b@beacon.example"]).Last();
        Assert.Equal(("scans, TL-1003.pdf", 2), (name, pages));
        Assert.Contains("TL-1003", text, StringComparison.Ordinal);
        Assert.Equal("scans, TL-1004.pdf", Enclosed(delivered["c@carding.example"]).Last().Name);

        // Given in once more, it is known.
        Assert.Equal(
            (0, 3),
            ((await GiveInAsync(desk, "October.zip", zip)) is var again ? (again.Number("added"), again.Number("known")) : default)
        );
    }

    [Fact]
    public async Task A_credit_note_without_a_copy_goes_without_and_is_not_told_to_have_one()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([.. Ledger, "CA01,Carding Inn,Credit note,TL-0901,2026-09-15,2026-09-15,-5.00,c@carding.example"]);
        var round = (await desk.PrepareAsync()).Id();
        await EncloseAsync(desk, round, e => e["copies"] = "single");
        await GiveInAsync(
            desk,
            "October.zip",
            CopyPdf.Zip([.. Enumerable.Range(1001, 4).Select(n => ($"TL-{n}.pdf", CopyPdf.Of($"Invoice TL-{n}")))])
        );
        var copies = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/copies");
        Assert.Equal(
            ["question 0", "missing 0", "matched 4", "not-needed 1", "left-over 0"],
            copies.List("counts").Select(c => $"{c.Text("state")} {c.Number("count")}")
        );
        Assert.Equal("TL-0901", copies.List("lines").Single(l => l.Text("state") == "not-needed").Text("number"));
    }

    [Fact]
    public async Task A_missing_copy_and_one_in_question_keep_a_parcel_until_they_are_settled()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await GiveInAsync(desk, "TL-1001.pdf", CopyPdf.Of("Invoice TL-1001, first"));
        await GiveInAsync(desk, "TL-1001 again.pdf", CopyPdf.Of("Invoice TL-1001, second"));
        await GiveInAsync(desk, "TL-1002.pdf", CopyPdf.Of("Invoice TL-1002"));
        await GiveInAsync(desk, "scan.pdf", CopyPdf.Of("nothing to be found by"));
        await EncloseAsync(desk, round, e => e["copies"] = "joined");
        Assert.Equal("copies: TL-1001 is in question", (await LineAsync(desk, round, "AB01")).Text("problem"));
        Assert.Equal("copies: TL-1003 is missing", (await LineAsync(desk, round, "BE02")).Text("problem"));

        var lines = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/copies")).List("lines").ToList();
        var question = lines.Single(l => l.Text("number") == "TL-1001");
        var second = question.List("files").Single(f => f.Text("name") == "TL-1001 again.pdf").Id();
        await SayAsync(
            desk,
            new
            {
                files = new[] { second },
                customer = "AB01",
                numbers = new[] { "TL-1001" },
            }
        );
        var scan = lines.Single(l => l.Text("state") == "left-over").List("files").Single().Id();
        await SayAsync(
            desk,
            new
            {
                files = new[] { scan },
                customer = "BE02",
                numbers = new[] { "TL-1003" },
            }
        );
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (
                await desk.Browser.PutAsJsonAsync(
                    $"{desk.Api}/enclosures/copies",
                    new
                    {
                        files = new[] { scan },
                        customer = "CA01",
                        numbers = new[] { "TL-1003" },
                    },
                    Cancel
                )
            ).StatusCode
        );
        await EncloseAsync(desk, round, e => e["withoutMissing"] = true);

        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        await desk.SettledAsync(round);
        var delivered = Delivered(desk);
        var (name, text, pages) = Enclosed(delivered["a@abbot.example"]).Last();
        Assert.Equal(("TL-1001, TL-1002.pdf", 2), (name, pages));
        Assert.Contains("second", text, StringComparison.Ordinal);
        Assert.DoesNotContain("first", text, StringComparison.Ordinal);
        Assert.Equal("scan.pdf", Enclosed(delivered["b@beacon.example"]).Last().Name);
        Assert.Single(Enclosed(delivered["c@carding.example"]));
    }

    [Fact]
    public async Task A_copy_that_turns_out_to_be_anothers_after_the_release_goes_with_nothing()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await GiveInAsync(desk, "TL-1003.pdf", CopyPdf.Of("Invoice TL-1003"));
        await EncloseAsync(desk, round, e => (e["copies"], e["withoutMissing"]) = ("single", true));
        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round), at: "2099-01-01T08:00")).JsonAsync();
        var file = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/copies?state=matched"))
            .List("lines")
            .Single()
            .List("files")
            .Single()
            .Id();
        await SayAsync(
            desk,
            new
            {
                files = new[] { file },
                customer = "CA01",
                numbers = new[] { "TL-1004" },
            }
        );
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/stop", new { });

        // The round can be changed again, and follows: the file goes where it belongs now.
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        var lodge = (await LineAsync(desk, round, "BE02")).Id();
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{lodge}")).List("enclosures"));
        var inn = (await LineAsync(desk, round, "CA01")).Id();
        Assert.Equal(
            "TL-1003.pdf",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{inn}")).List("enclosures").Single().Text("name")
        );
    }

    [Fact]
    public async Task No_message_takes_along_a_file_of_another_customers_invoice_however_it_came_to_be_on_the_parcel()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await GiveInAsync(desk, "TL-1003.pdf", CopyPdf.Of("Invoice TL-1003"));
        await EncloseAsync(desk, round, e => (e["copies"], e["withoutMissing"]) = ("single", true));
        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round), at: "2099-01-01T08:00")).JsonAsync();

        // As nothing in Rendal does it: the file of one parcel on another, under that one's name and number.
        var database = rendal.App.Services.GetRequiredService<NpgsqlDataSource>();
        await using var forging = database.CreateCommand(
            $"""
            update parcel p set enclosures = case customer when 'AB01' then o.enclosures
                when 'CA01' then replace(replace(o.enclosures::text, 'BE02', 'CA01'), '"TL-1003"', '"TL-1004"')::jsonb
                else p.enclosures end
            from (select enclosures from parcel where round_id = {round} and customer = 'BE02') o where round_id = {round};
            update parcel set next_attempt_at = now() where round_id = {round}
            """
        );
        await forging.ExecuteNonQueryAsync(Cancel);
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/pause", new { paused = false });
        await desk.SettledAsync(round);
        Assert.Equal(["b@beacon.example"], Delivered(desk).Keys);
        var problems = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/parcels"))
            .List("parcels")
            .ToDictionary(l => l.Text("customer"), l => l.Text("problem"));
        Assert.All(new[] { "AB01", "CA01" }, customer =>
            Assert.Contains("“TL-1003.pdf” is no copy of what is on its statement", problems[customer], StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task Files_for_all_for_one_customer_and_for_one_parcel_go_where_they_are_wanted()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await GiveInAsync(desk, "prices 2027.pdf", CopyPdf.Of("prices"), "picked");
        await GiveInAsync(desk, "map.png", [0x89, 0x50, 0x4E, 0x47, 1], "picked");
        await GiveInAsync(desk, "contract.pdf", CopyPdf.Of("contract"), "customer", "BE02");
        var files = (await desk.Browser.GetJsonAsync($"{desk.Api}/enclosures"))
            .EnumerateArray()
            .ToDictionary(f => f.Text("name"), f => f.Id());
        await EncloseAsync(desk, round, e => e["forAll"] = new JsonArray(files["prices 2027.pdf"]));
        var carding = (await LineAsync(desk, round, "CA01")).Id();
        await ChangeAsync(desk, round, carding, leftOut: [files["prices 2027.pdf"]], added: [files["map.png"]]);
        Assert.Equal(
            ["enclosures"],
            (await LineAsync(desk, round, "CA01")).GetProperty("altered").EnumerateArray().Select(a => a.GetString())
        );
        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        await desk.SettledAsync(round);
        var delivered = Delivered(desk);
        Assert.Equal(["prices 2027.pdf"], Names(delivered["a@abbot.example"]));
        Assert.Equal(["contract.pdf", "prices 2027.pdf"], Names(delivered["b@beacon.example"]));
        Assert.Equal(["map.png"], Names(delivered["c@carding.example"]));
    }

    [Fact]
    public async Task The_message_can_say_which_copies_are_enclosed_and_is_marked_where_that_is_another()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await GiveInAsync(desk, "TL-1001.pdf", CopyPdf.Of("Invoice TL-1001"));
        await EncloseAsync(desk, round, e => (e["copies"], e["withoutMissing"]) = ("single", true));
        var parcel = (await LineAsync(desk, round, "AB01")).Id();
        var wording = (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Number("wordingId");
        var now = (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").Single(w => w.Id() == wording);
        using var reworded = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/wordings/{wording}",
            new
            {
                version = now.Number("version"),
                name = now.Text("name"),
                language = now.Text("language"),
                subject = "Statement",
                body = "<p data-when=\"copies\">Enclosed: <span data-slot=\"copies.enclosed\"></span>.</p>"
                    + "<p data-when=\"no-copies\">No copies.</p>",
            },
            Cancel
        );
        reworded.EnsureSuccessStatusCode();
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        Assert.Contains(
            "Enclosed: TL-1001.",
            await desk.MessageAsync((await LineAsync(desk, round, "AB01")).Id()),
            StringComparison.Ordinal
        );
        Assert.Contains("No copies.", await desk.MessageAsync((await LineAsync(desk, round, "BE02")).Id()), StringComparison.Ordinal);

        await desk.LookAtAsync(round);
        await GiveInAsync(desk, "TL-1002.pdf", CopyPdf.Of("Invoice TL-1002"));
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        Assert.Equal(
            ["the enclosures"],
            (await LineAsync(desk, round, "AB01")).GetProperty("changed").EnumerateArray().Select(c => c.GetString())
        );
    }

    [Fact]
    public async Task An_upload_that_was_cut_is_gone_on_with_and_one_that_skips_is_refused()
    {
        using var desk = await DeskAsync();
        var file = new byte[4_000_000 + 10];
        "%PDF-1.7"u8.CopyTo(file);
        var request = new
        {
            name = "large.pdf",
            size = file.Length,
            mark = "1",
        };
        var begun = await desk.Browser.PostJsonAsync($"{desk.Api}/enclosures/uploads", request);
        Assert.Equal(4_000_000, begun.Number("pieceSize"));
        await PieceAsync(desk, begun.Id(), 0, file[..4_000_000]);
        Assert.Equal(HttpStatusCode.Conflict, (await PutPieceAsync(desk, begun.Id(), 0, file[..4_000_000])).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await PutPieceAsync(desk, begun.Id(), 4_000_000, file[^5..])).StatusCode);
        using var early = await desk.Browser.PostAsync($"{desk.Api}/enclosures/uploads/{begun.Id()}/add", null, Cancel);
        Assert.Equal(HttpStatusCode.Conflict, early.StatusCode);

        var again = await desk.Browser.PostJsonAsync($"{desk.Api}/enclosures/uploads", request);
        Assert.Equal((begun.Id(), 4_000_000), (again.Id(), again.Number("received")));
        await PieceAsync(desk, again.Id(), 4_000_000, file[4_000_000..]);
        var added = await desk.Browser.PostJsonAsync($"{desk.Api}/enclosures/uploads/{again.Id()}/add", new { });
        Assert.Contains("damaged", added.List("refused").Single().Text("reason"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Nobody_reaches_the_files_of_a_book_that_is_not_theirs()
    {
        using var desk = await DeskAsync();
        await GiveInAsync(desk, "prices.pdf", CopyPdf.Of("prices"), "picked");
        var file = (await desk.Browser.GetJsonAsync($"{desk.Api}/enclosures"))[0].Id();
        using var other = await Desk.AtAsync(rendal);
        using var answer = await other.Browser.GetAsync($"{other.Api}/enclosures/{file}/file", Cancel);
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    [Fact]
    public async Task What_is_too_large_for_one_message_goes_as_two_and_both_are_on_record()
    {
        using var desk = await DeskAsync();
        var terms = Encoding.ASCII.GetBytes(string.Concat(Enumerable.Range(0, 10_000).Select(i => $"{i:0000}\r\n")));
        await GiveInAsync(
            desk,
            "October.zip",
            CopyPdf.Zip(("TL-1001.txt", terms), ("TL-1002.txt", [.. terms, .. "\r\nagain"u8]), ("TL-1003.txt", [.. "\r\n"u8, .. terms]))
        );
        await SenderRequests.LimitMessagesAsync(desk, 160_000);
        var round = (await desk.PrepareAsync()).Id();
        await EncloseAsync(desk, round, e => (e["copies"], e["withoutMissing"]) = ("single", true));
        var line = await LineAsync(desk, round, "AB01");
        Assert.Matches(
            "^the message is 0.21 MB, .* takes 0.16 MB: enclose its 2 files .* send it as several messages",
            line.Text("problem")
        );

        await EncloseAsync(desk, round, e => e["split"] = true);
        line = await LineAsync(desk, round, "AB01");
        Assert.Equal("", line.Text("problem"));
        var enclosed = (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{line.Id()}")).List("enclosures");
        Assert.Equal([("TL-1001.txt", 0), ("TL-1002.txt", 1)], enclosed.Select(e => (e.Text("name"), e.Number("message"))));

        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        Assert.All((await desk.SettledAsync(round)).List("parcels"), p => Assert.Equal("sent", p.Text("status")));
        var got = rendal
            .Mailbox.Of($"book-{desk.Book}")
            .Select(m => MimeMessage.Load(new MemoryStream(rendal.Mailbox.Bytes(m)), Cancel))
            .Where(m => m.To.Mailboxes.First().Address == "a@abbot.example")
            .OrderBy(m => m.Subject, StringComparer.Ordinal)
            .ToList();
        Assert.Equal(2, got.Count);
        Assert.EndsWith(" (1 of 2)", got[0].Subject, StringComparison.Ordinal);
        Assert.EndsWith(" (2 of 2)", got[1].Subject, StringComparison.Ordinal);
        Assert.Equal(["TL-1001.txt"], Names(got[0]));
        Assert.Equal(["TL-1002.txt"], got[1].Attachments.Select(a => ((MimePart)a).FileName));
        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch"))
            .EnumerateArray()
            .Where(e => e.Text("customer") == "AB01")
            .ToList();
        foreach (var entry in log)
        {
            var message = await desk.Browser.GetJsonAsync(
                $"{desk.Api}/dispatch/{entry.GetProperty("parcel")}/messages/{entry.GetProperty("message")}"
            );
            Assert.Equal(entry.Text("subject"), message.Text("subject"));
        }

        Assert.Equal(["(1 of 2)", "(2 of 2)"], log.Select(e => e.Text("subject")[^8..]).Order());
    }

    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        return desk;
    }

    private static async Task<JsonElement> GiveInAsync(Desk desk, string name, byte[] content, string use = "copy", string customer = "")
    {
        var begun = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/enclosures/uploads",
            new
            {
                name,
                size = content.Length,
                mark = "",
            }
        );
        await PieceAsync(desk, begun.Id(), 0, content);
        return await desk.Browser.PostJsonAsync($"{desk.Api}/enclosures/uploads/{begun.Id()}/add?use={use}&customer={customer}", new { });
    }

    private static async Task PieceAsync(Desk desk, long upload, long at, byte[] piece) =>
        await (await PutPieceAsync(desk, upload, at, piece)).JsonAsync();

    private static async Task<HttpResponseMessage> PutPieceAsync(Desk desk, long upload, long at, byte[] piece)
    {
        using var content = new ByteArrayContent(piece);
        return await desk.Browser.PutAsync($"{desk.Api}/enclosures/uploads/{upload}/{at}", content, Cancel);
    }

    private static async Task EncloseAsync(Desk desk, long round, Action<JsonNode> change)
    {
        var view = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
        var settings = JsonNode.Parse(view.GetProperty("settings").GetRawText())!;
        change(settings["enclosing"]!);
        using var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/rounds/{round}?revision={await desk.RevisionAsync(round)}",
            settings,
            Cancel
        );
        await answer.JsonAsync();
    }

    private static async Task ChangeAsync(Desk desk, long round, long parcel, long[] leftOut, long[] added)
    {
        using var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/parcels/{parcel}/change?revision={await desk.RevisionAsync(round)}",
            new
            {
                recipients = (object?)null,
                words = (object?)null,
                documentNote = "",
                leftOut,
                added,
            },
            Cancel
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task SayAsync(Desk desk, object said)
    {
        using var answer = await desk.Browser.PutAsJsonAsync($"{desk.Api}/enclosures/copies", said, Cancel);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task<JsonElement> LineAsync(Desk desk, long round, string customer)
    {
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        return (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/parcels"))
            .List("parcels")
            .Single(p => p.Text("customer") == customer);
    }

    private Dictionary<string, MimeMessage> Delivered(Desk desk) =>
        rendal
            .Mailbox.Of($"book-{desk.Book}")
            .Select(m => MimeMessage.Load(new MemoryStream(rendal.Mailbox.Bytes(m)), Cancel))
            .ToDictionary(m => m.To.Mailboxes.First().Address);

    private static IEnumerable<string> Names(MimeMessage message) => message.Attachments.Skip(1).Select(a => ((MimePart)a).FileName!);

    private static List<(string Name, string Text, int Pages)> Enclosed(MimeMessage message) =>
        [
            .. message
                .Attachments.Cast<MimePart>()
                .Select(part =>
                {
                    using var bytes = new MemoryStream();
                    part.Content!.DecodeTo(bytes, Cancel);
                    using var pdf = PdfDocument.Open(bytes.ToArray());
                    return (part.FileName!, string.Join(' ', pdf.GetPages().Select(p => p.Text)), pdf.NumberOfPages);
                }),
        ];
}
