using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Wordprocessing;
using Rendal.Files.Docx;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Layouts;

/// <summary>Letters that were written in a word processor, from the file to the enclosure.</summary>
public class LetterTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_customer_gets_the_letter_filled_with_its_own_as_docx_and_as_pdf_where_that_can_be_made()
    {
        using var desk = await DeskAsync();
        var brought = await (
            await BringAsync(desk, Letter("To {{ customer", ".name }} on round {{ column.Delivery round }}: {{ statement.total }}"))
        ).JsonAsync();
        Assert.Equal(
            ["customer.name", "column.Delivery round", "statement.total", "item.number", "item.Delivery round"],
            brought.List("slots").Select(s => s.GetString())
        );
        var layout = JsonNode.Parse(brought.GetProperty("layout").GetRawText())!.AsObject();
        layout["forms"] = WordProcessor.Program is null ? new JsonArray("docx") : new JsonArray("pdf", "docx");
        var made = await (await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts", layout, Cancel)).JsonAsync();
        Assert.True(
            (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/layouts/use",
                    new
                    {
                        purpose = "statement",
                        language = "",
                        id = made.Id(),
                    },
                    Cancel
                )
            ).IsSuccessStatusCode
        );
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());

        foreach (
            var (customer, words) in new[]
            {
                ("AB01", new[] { "To Abbot’s Table on round N7: £120.00", "T-1", "N7", "T-2", "N7" }),
                ("BE02", ["To Beacon Lodge on round N8: £60.00", "T-3", "N8"]),
            }
        )
        {
            var enclosed = await LayoutDesk.EnclosedAsync(desk, customer);
            var docx = enclosed.Single(e => e.Name == $"{customer} statement 2026-10-31.docx").Bytes;
            using var letter = WordprocessingDocument.Open(new MemoryStream(docx), false);
            Assert.Equal(words, letter.MainDocumentPart!.Document!.Body!.Descendants<Paragraph>().Select(p => p.InnerText));
            if (WordProcessor.Program is not null)
            {
                using var pdf = PdfDocument.Open(enclosed.Single(e => e.Name.EndsWith(".pdf", StringComparison.Ordinal)).Bytes);
                Assert.Equal(string.Join(' ', words), string.Join(' ', pdf.GetPage(1).GetWords().Select(w => w.Text)));
            }
        }
    }

    [Fact]
    public async Task A_slot_without_a_value_stops_its_parcel_whatever_was_said_of_the_letter()
    {
        using var desk = await DeskAsync();
        var brought = await (
            await BringAsync(desk, Letter("Dear {{ customer.contact }}, {{ if reminder }}{{ reminder.level }}{{ end }}"))
        ).JsonAsync();
        var layout = JsonNode.Parse(brought.GetProperty("layout").GetRawText())!.AsObject();
        layout["forms"] = new JsonArray("docx");
        layout["letter"]!["slots"] = new JsonArray();
        var made = await (await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts", layout, Cancel)).JsonAsync();
        await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/layouts/use",
            new
            {
                purpose = "statement",
                language = "",
                id = made.Id(),
            },
            Cancel
        );
        Assert.All((await desk.PrepareAsync()).List("parcels"), p => Assert.Equal("contact is empty on the document", p.Text("problem")));
    }

    [Fact]
    public async Task What_is_wrong_with_a_letter_is_told_and_nothing_is_kept()
    {
        using var desk = await DeskAsync();
        var brought = await (await BringAsync(desk, Letter("{{ column.Delivery rund }} {{ customer.name }}"))).JsonAsync();
        Assert.Equal(JsonValueKind.Null, brought.GetProperty("layout").ValueKind);
        Assert.Equal(
            ["In the body: “column.Delivery rund” names nothing known; did you mean “column.Delivery round”?"],
            brought.List("problems").Select(p => p.GetString())
        );
        Assert.Equal(
            ["The file is no DOCX. Save the letter as DOCX in your word processor."],
            (await (await BringAsync(desk, Encoding.UTF8.GetBytes("Dear all"))).JsonAsync()).List("problems").Select(p => p.GetString())
        );
        Assert.Equal(
            "The file is larger than 5 MB. Make its pictures smaller.",
            await (await BringAsync(desk, new byte[5_000_001])).DetailAsync()
        );
        var bad = new
        {
            name = "x",
            forms = new[] { "docx" },
            letter = new { fileName = "x.docx", bytes = Convert.ToBase64String("no letter"u8.ToArray()) },
            parts = Array.Empty<object>(),
        };
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts", bad, Cancel)).StatusCode
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/layouts")).List("layouts"));
    }

    private static byte[] Letter(params string[] runs)
    {
        using var stream = new MemoryStream();
        using (var file = WordprocessingDocument.Create(stream, WordprocessingDocumentType.Document))
        {
            file.AddMainDocumentPart().Document = new Document(
                new Body(
                    new Paragraph(runs.Select(r => new Run(new Text(r) { Space = SpaceProcessingModeValues.Preserve }))),
                    new Table(
                        new TableProperties(),
                        new TableGrid(new GridColumn(), new GridColumn()),
                        new TableRow(Cell("{{ item.number }}"), Cell("{{ item.Delivery round }}"))
                    )
                )
            );
        }

        return stream.ToArray();

        static TableCell Cell(string text) => new(new Paragraph(new Run(new Text(text))));
    }

    private static async Task<HttpResponseMessage> BringAsync(Desk desk, byte[] letter)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(letter), "file", "October letter.docx" } };
        return await desk.Browser.PostAsync($"{desk.Api}/layouts/letter", form, Cancel);
    }

    private Task<Desk> DeskAsync() => LayoutDesk.AtAsync(rendal);
}
