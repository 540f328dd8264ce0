using System.IO.Compression;
using CsCheck;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Validation;
using DocumentFormat.OpenXml.Wordprocessing;
using Rendal.Core.Layouts;
using Rendal.Core.Wordings;
using Rendal.Files.Docx;
using UglyToad.PdfPig;

namespace Rendal.Files.Tests.Docx;

/// <summary>Letters that were written in a word processor, looked through and filled.</summary>
public class LetterTests
{
    private static readonly DocxContent Kell = new(
        new Dictionary<string, string>
        {
            ["customer.name"] = "Inn at Kell",
            ["customer.code"] = "H014",
            ["statement.total"] = "£1,240.50",
            ["firm.address"] = "1 Mill Lane\nKelby",
            ["column.Delivery round"] = "N2",
        },
        [
            new Dictionary<string, string>
            {
                ["item.number"] = "T-1",
                ["item.open"] = "1,200.50",
                ["item.Delivery round"] = "N2",
            },
            new Dictionary<string, string> { ["item.number"] = "T-2", ["item.open"] = "40.00" },
        ],
        new HashSet<TextWhen> { TextWhen.Always, TextWhen.Overdue, TextWhen.SeveralItems, TextWhen.NoReminder }
    );

    [Fact]
    public void A_slot_is_found_however_the_word_processor_has_broken_it_over_runs()
    {
        const string text = "Dear {{ customer.name }}, you owe {{statement.total}} on {{ Customer code }}.";
        Gen.Int[1, text.Length - 1]
            .HashSet[0, 25]
            .Sample(cuts =>
            {
                var edges = cuts.Append(0).Append(text.Length).Order().ToList();
                var letter = Docx.Of(Docx.Paragraph([.. edges.Zip(edges.Skip(1)).Select(e => text[e.First..e.Second])]));
                Assert.Equal(["customer.name", "statement.total", "customer.code"], DocxInspection.At(letter).Slots.Select(s => s.Name));
                Assert.Equal(["Dear Inn at Kell, you owe £1,240.50 on H014."], Docx.Lines(DocxFilling.Fill(letter, Kell)));
            });
    }

    [Fact]
    public void Every_place_is_filled_body_header_footer_and_text_box()
    {
        var letter = Docx.Of(
            WordprocessingDocumentType.Document,
            main =>
            {
                main.AddNewPart<HeaderPart>().Header = new Header(Docx.Paragraph("Account {{ customer", ".code }}"));
                main.AddNewPart<FooterPart>().Footer = new Footer(Docx.Paragraph("{{ statement.total }}"));
            },
            new Paragraph(
                new Run(
                    new Picture(
                        new DocumentFormat.OpenXml.Vml.Shape(
                            new DocumentFormat.OpenXml.Vml.TextBox(new TextBoxContent(Docx.Paragraph("box: {{ customer.name }}")))
                        )
                    ),
                    new Text("beside it {{ customer.name }}")
                )
            ),
            Docx.Paragraph("{{ customer.name }} and again {{ customer.name }}")
        );
        Assert.Empty(DocxInspection.At(letter).Problems);
        Assert.Equal(
            ["Account H014", "beside it Inn at Kell", "box: Inn at Kell", "Inn at Kell and again Inn at Kell", "£1,240.50"],
            Docx.Lines(DocxFilling.Fill(letter, Kell))
        );
    }

    [Fact]
    public void A_row_of_a_table_stands_once_for_each_item_and_the_rest_once()
    {
        var letter = Docx.Of(
            Docx.Table(
                ["Number", "Round", "Open"],
                ["{{ item.number }}", "{{ item.Delivery round or else – }}", "{{ item.open }}"],
                ["Total", "", "{{ statement.total }}"]
            )
        );
        var filled = DocxFilling.Fill(letter, Kell);
        Assert.Equal(
            ["Number", "Round", "Open", "T-1", "N2", "1,200.50", "T-2", "–", "40.00", "Total", "", "£1,240.50"],
            Docx.Lines(filled)
        );
        using var file = WordprocessingDocument.Open(new MemoryStream(filled), false);
        Assert.Empty(new OpenXmlValidator().Validate(file, TestContext.Current.CancellationToken).Select(e => e.Description));
    }

    [Fact]
    public void Braces_in_the_data_of_an_item_stay_braces()
    {
        var content = Kell with { Items = [new Dictionary<string, string> { ["item.number"] = "{{ statement.total }}" }] };
        Assert.Equal(
            ["{{ statement.total }} of £1,240.50"],
            Docx.Lines(DocxFilling.Fill(Docx.Of(Docx.Table(["{{ item.number }} of {{ statement.total }}"])), content))
        );
    }

    [Fact]
    public void Paragraphs_stand_or_fall_with_their_condition_and_conditions_within_one_another()
    {
        var letter = Docx.Of(
            "{{ if overdue }}",
            "Please pay.",
            "{{ if one item }}",
            "It is one.",
            "{{ end }}",
            "{{ end }}",
            "{{ if not overdue }}",
            "All is well.",
            "{{ end }}",
            "Your {{ if one item }}invoice{{ end }}{{ if several items }}invoices{{ end }} stand open."
        );
        Assert.Empty(DocxInspection.At(letter).Problems);
        Assert.Equal(["Please pay.", "Your invoices stand open."], Docx.Lines(DocxFilling.Fill(letter, Kell)));
    }

    [Fact]
    public void A_slot_under_a_condition_says_so_and_a_fallback_stands_where_a_value_is_empty()
    {
        var letter = Docx.Of(
            "{{ if reminder }}",
            "Reminder {{ reminder.level }}",
            "{{ end }}",
            "Dear {{ customer.contact or else “Sir or Madam” }},"
        );
        var slots = DocxInspection.At(letter).Slots;
        Assert.Equal([TextWhen.Reminder], slots[0].When);
        Assert.Equal(("customer.contact", "Sir or Madam"), (slots[1].Name, slots[1].OrElse));
        Assert.Equal(["Dear Sir or Madam,"], Docx.Lines(DocxFilling.Fill(letter, Kell)));
    }

    [Fact]
    public void Values_are_text_whatever_they_look_like_and_keep_their_lines()
    {
        var content = Kell with
        {
            Values = new Dictionary<string, string>
            {
                ["customer.name"] = "<b>{{ firm.name }}</b> & \u0001",
                ["firm.address"] = "1 Mill Lane\nKelby",
            },
        };
        Assert.Equal(
            ["<b>{{ firm.name }}</b> &   at 1 Mill Lane\nKelby, so"],
            Docx.Lines(DocxFilling.Fill(Docx.Of("{{ customer.name }} at {{ firm.address }}, so"), content))
        );
    }

    [Theory]
    [InlineData("Dear {{ custmer.name }}", "In the body: “custmer.name” names nothing known; did you mean “customer.name”?")]
    [InlineData("Dear {{ Custommer }}", "In the body: “Custommer” names nothing known; did you mean “Customer”?")]
    [InlineData("Dear {{ xyzzy }}", "In the body: “xyzzy” names nothing known.")]
    [InlineData(
        "Dear {{ customer.name",
        "In the body, “Dear {{ customer.name”: a slot stands between two opening and two closing braces, {{ like this }}."
    )]
    [InlineData(
        "{{ item.number }}",
        "In the body: “item.number” is of one item, so it has to stand in a row of a table; the row then stands once for each item."
    )]
    [InlineData(
        "{{ column.Delivery rond }}",
        "In the body: “column.Delivery rond” names nothing known; did you mean “column.Delivery round”?"
    )]
    [InlineData(
        "{{ if overdu }}x{{ end }}",
        "In the body: “overdu” is no condition that is known; there are “overdue”, “not overdue”, “reminder”, “no reminder”, "
            + "“one item”, “several items”, “they owe”, “we owe”, “balanced”, “credits”, “interest”, “group”, “copies”, “no copies”."
    )]
    [InlineData("{{ if overdue }}", "In the body a condition is opened with “{{ if … }}” and not ended with “{{ end }}” beside it.")]
    [InlineData(
        "{{ if overdue }} now",
        "In the body, “{{ if overdue }} now”: a condition begins and ends within one paragraph, or “{{ if … }}” and “{{ end "
            + "}}” stand in paragraphs of their own."
    )]
    [InlineData("{{ end }}", "In the body, “{{ end }}”: “{{ end }}” ends nothing.")]
    public void What_is_wrong_in_a_letter_is_said_with_its_place(string text, string problem) =>
        Assert.Equal([problem], DocxInspection.At(Docx.Of(text), ["Delivery round"]).Problems);

    [Fact]
    public void What_is_no_letter_is_refused_by_what_it_is()
    {
        Assert.StartsWith("The file is no DOCX.", Problem("plain text"u8.ToArray()));
        Assert.StartsWith("The file is no DOCX.", Problem([]));
        Assert.StartsWith("The file is under a password, or in the older form", Problem([0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1]));
        Assert.StartsWith(
            "The file has macros",
            Problem(Docx.Of(WordprocessingDocumentType.MacroEnabledDocument, null, Docx.Paragraph("x")))
        );
        Assert.StartsWith(
            "The file has macros",
            Problem(
                Docx.Of(
                    WordprocessingDocumentType.Document,
                    main => main.AddNewPart<VbaProjectPart>().FeedData(new MemoryStream([1, 2])),
                    Docx.Paragraph("x")
                )
            )
        );
        Assert.StartsWith("The file is a template.", Problem(Docx.Of(WordprocessingDocumentType.Template, null, Docx.Paragraph("x"))));
        Assert.StartsWith("The file is damaged, or no DOCX.", Problem(Zip(("a.txt", new byte[10]))));
        Assert.StartsWith("The file unpacks to more than a letter can be.", Problem(Zip(("word/document.xml", new byte[120_000_000]))));
    }

    [Fact]
    public void A_letter_that_would_fetch_something_is_refused()
    {
        var linked = Docx.Of(
            WordprocessingDocumentType.Document,
            main =>
                main.AddExternalRelationship(
                    "http://schemas.openxmlformats.org/officeDocument/2006/relationships/image",
                    new Uri("http://pictures.example/x.png")
                ),
            Docx.Paragraph("x")
        );
        Assert.Equal(
            "The letter takes in something from elsewhere (http://pictures.example/x.png). Put it into the document itself.",
            Problem(linked)
        );
        Assert.Contains("(INCLUDETEXT)", Problem(Docx.Of(new Paragraph(new Run(new FieldCode(" INCLUDETEXT \"/etc/passwd\" "))))));
    }

    [Fact]
    public void Where_the_template_lies_on_its_writers_computer_does_not_leave()
    {
        var letter = Docx.Of(
            WordprocessingDocumentType.Document,
            main =>
            {
                var settings = main.AddNewPart<DocumentSettingsPart>();
                settings.AddExternalRelationship(
                    "http://schemas.openxmlformats.org/officeDocument/2006/relationships/attachedTemplate",
                    new Uri("file:///C:/Users/marta/house.dotx"),
                    "rId9"
                );
                settings.Settings = new Settings(new AttachedTemplate { Id = "rId9" });
            },
            Docx.Paragraph("Dear {{ customer.name }}")
        );
        Assert.Null(Problem(letter));
        using var zip = new ZipArchive(new MemoryStream(DocxFilling.Fill(letter, Kell)));
        Assert.All(zip.Entries, entry =>
        {
            using var reader = new StreamReader(entry.Open());
            Assert.DoesNotContain("marta", reader.ReadToEnd());
        });
    }

    [Fact]
    public void Damage_is_refused_or_harmless_and_never_a_crash()
    {
        var good = Docx.Of(Docx.Paragraph("Dear {{ customer", ".name }}"), Docx.Table(["{{ item.number }}"]));
        Gen.Select(Gen.Int[0, good.Length - 1], Gen.Byte)
            .Array[1, 20]
            .Sample(
                hits =>
                {
                    var bytes = (byte[])good.Clone();
                    Array.ForEach(hits, hit => bytes[hit.Item1] = hit.Item2);
                    var look = DocxInspection.At(bytes);
                    if (look.Problems.Count == 0)
                    {
                        Assert.Contains("Dear Inn at Kell", Docx.Lines(DocxFilling.Fill(bytes, Kell)));
                    }
                },
                iter: 300
            );
    }

    /// <summary>Where LibreOffice is not installed, the words that say so are what a person gets.</summary>
    [Fact]
    public void Letters_become_pdfs_many_in_one_call_or_the_want_of_the_program_is_said()
    {
        var letters = new[] { "Inn at Kell", "Moor Hotel" }
            .Select(name =>
                DocxFilling.Fill(
                    Docx.Of("Dear {{ customer.name }}"),
                    Kell with
                    {
                        Values = new Dictionary<string, string> { ["customer.name"] = name },
                    }
                )
            )
            .ToList();
        if (WordProcessor.Program is null)
        {
            Assert.Equal(WordProcessor.Missing, Assert.Throws<DocxConversionFailed>(() => WordProcessor.Pdfs(letters)).Message);
            return;
        }

        var texts = WordProcessor
            .Pdfs(letters)
            .Select(pdf =>
            {
                using var document = PdfDocument.Open(pdf);
                return document.GetPage(1).Text;
            });
        Assert.Equal(["Dear Inn at Kell", "Dear Moor Hotel"], texts.Select(t => t.Trim()));
    }

    private static string? Problem(byte[] bytes) => DocxInspection.At(bytes).Problems is [var first, ..] ? first : null;

    private static byte[] Zip(params (string Name, byte[] Content)[] entries)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create))
        {
            foreach (var (name, content) in entries)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(content);
            }
        }

        return stream.ToArray();
    }
}
