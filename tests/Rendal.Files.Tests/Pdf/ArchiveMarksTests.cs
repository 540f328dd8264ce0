using System.Text;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;
using Rendal.Html;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokens;

namespace Rendal.Files.Tests.Pdf;

/// <summary>What ISO 19005-2 (PDF/A-2, level B) asks of a file, as far as it can be read from its objects.</summary>
public class ArchiveMarksTests
{
    private static readonly Firm Tarnbrook = new(
        "Tarnbrook Linen Hire",
        ["1 Mill Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example"],
        ["Bank of Kelby, DE89 3704 0044 0532 0130 00"]
    );

    public static TheoryData<string, string> Layouts() =>
        [.. ReadyMade.All.Select(r => (r.Language, r.Layout.Name)).Append(("de", Layout.BuiltIn.Name))];

    [Theory]
    [MemberData(nameof(Layouts))]
    public void Each_ready_made_layout_makes_an_archival_document(string language, string name)
    {
        var layout = ReadyMade.All.FirstOrDefault(r => r.Language == language && r.Layout.Name == name)?.Layout ?? Layout.BuiltIn;
        layout = layout with
        {
            Parts =
            [
                .. layout.Parts,
                new TextPart { Text = "<p>Pay at <a href=\"https://pay.example/x\">our page</a>.</p>" },
                new PaymentPart { Iban = "DE89370400440532013000" },
            ],
        };
        var pdf = Printed(layout, language);
        using var document = PdfDocument.Open(pdf);
        var objects = document.Structure.CrossReferenceTable.ObjectOffsets.Keys.Select(r => document.Structure.GetObject(r).Data).ToList();
        var dictionaries = objects.SelectMany(Dictionaries).ToList();

        // 6.1.2, 6.1.3: the header has a line of bytes beyond ASCII; the trailer has an ID and no encryption.
        Assert.StartsWith("%PDF-1.", Encoding.ASCII.GetString(pdf, 0, 7), StringComparison.Ordinal);
        Assert.True(pdf[9] == '%' && pdf[10..14].All(b => b > 127));
        // Either way to write a string will do for the ID, between < > or between ( ): 16 bytes each.
        var trailer = document.Structure.Trailer;
        Assert.Equal(2, trailer.Identifier.Count);
        Assert.All(trailer.Identifier, id =>
            Assert.Equal(16, id is HexToken hex ? hex.Bytes.Length : ((StringToken)id).GetBytes().Length)
        );
        Assert.Null(trailer.EncryptionToken);

        // 6.2.3: one output intent with a profile in it; colours are therefore said.
        var catalogue = document.Structure.Catalog.CatalogDictionary;
        var intent = Assert.IsType<DictionaryToken>(Assert.Single(Assert.IsType<ArrayToken>(catalogue.Data["OutputIntents"]).Data));
        Assert.Equal("GTS_PDFA1", ((NameToken)intent.Data["S"]).Data);
        var profile = (StreamToken)document.Structure.GetObject(((IndirectReferenceToken)intent.Data["DestOutputProfile"]).Data).Data;
        Assert.Equal("acsp", Encoding.ASCII.GetString(Inflated(profile)[36..40]));

        // 6.2.11: every font is in the file, with its widths.
        var fonts = dictionaries.Where(d => Name(d, "Type") == "Font" && Name(d, "Subtype") != "Type0").ToList();
        Assert.NotEmpty(fonts);
        Assert.All(fonts, font =>
        {
            var descriptor = (DictionaryToken)
                document.Structure.GetObject(((IndirectReferenceToken)font.Data["FontDescriptor"]).Data).Data;
            Assert.True(descriptor.Data.ContainsKey("FontFile2"));
            Assert.Equal("Identity", Name(font, "CIDToGIDMap"));
        });

        // 6.1.7, 6.2.8: no LZW, no smoothed pictures. 6.3: links are printed along and do nothing but lead. 6.5, 6.9: no scripts, no files
        // within.
        Assert.DoesNotContain(dictionaries, d =>
            Name(d, "Filter") == "LZWDecode" || d.Data.TryGetValue("Interpolate", out var smooth) && smooth is BooleanToken { Data: true }
        );
        var links = dictionaries.Where(d => Name(d, "Subtype") == "Link").ToList();
        Assert.NotEmpty(links);
        Assert.All(links, link => Assert.Equal(4, ((NumericToken)link.Data["F"]).Int & 0b11111));
        Assert.DoesNotContain(dictionaries, d =>
            Name(d, "S") is "JavaScript" or "Launch" or "SubmitForm" || d.Data.ContainsKey("AA") || d.Data.ContainsKey("EmbeddedFiles")
        );

        // 6.6: the metadata says what the file is, in the clear, and agrees with the document's own fields.
        var metadata = (StreamToken)document.Structure.GetObject(((IndirectReferenceToken)catalogue.Data["Metadata"]).Data).Data;
        Assert.False(metadata.StreamDictionary.Data.ContainsKey("Filter"));
        var xmp = Encoding.UTF8.GetString(metadata.Data.Span);
        Assert.Contains("<pdfaid:part>2</pdfaid:part>", xmp, StringComparison.Ordinal);
        Assert.Contains("<pdfaid:conformance>B</pdfaid:conformance>", xmp, StringComparison.Ordinal);
        Assert.Contains($">{document.Information.Title}<", xmp, StringComparison.Ordinal);
        Assert.Equal(language, ((StringToken)catalogue.Data["Lang"]).Data);
    }

    private static byte[] Printed(Layout layout, string language)
    {
        var euro = Currency.Of("EUR");
        var row = new LedgerRow
        {
            Customer = "C1",
            CustomerName = "C1",
            Kind = ItemKind.Invoice,
            Number = "T-0001",
            Date = new DateOnly(2026, 9, 1),
            Due = new DateOnly(2026, 10, 1),
            Currency = euro,
            Original = 120.5m,
            Open = 120.5m,
            Source = new SourceRef("f", null, 2),
        };
        var customer = new Customer
        {
            Key = "C1",
            Name = "Café فندق 海边",
            Salutation = "Dear Ines",
            Language = language,
        };
        IReadOnlyList<Statement> statements =
        [
            Statement.Of("C1", euro, [new OpenItem(row, row.Open)], new DateOnly(2026, 10, 31), AgeingRule.Default),
        ];
        using var renderer = new DocumentRenderer();
        return renderer.Print(
            StatementDocument.Of(
                customer,
                statements,
                AgeingRule.Default,
                Tarnbrook,
                LayoutReader.Read(layout),
                ParcelSlots.Of(customer, statements, Tarnbrook, "Credit control", new RoundIdentity("October"), 1),
                reminderLevel: 1
            ),
            layout
        );
    }

    private static string? Name(DictionaryToken of, string key) =>
        of.Data.TryGetValue(key, out var value) && value is NameToken name ? name.Data : null;

    private static IEnumerable<DictionaryToken> Dictionaries(IToken token) =>
        token switch
        {
            DictionaryToken d => d.Data.Values.SelectMany(Dictionaries).Prepend(d),
            StreamToken s => Dictionaries(s.StreamDictionary),
            ArrayToken a => a.Data.SelectMany(Dictionaries),
            _ => [],
        };

    private static byte[] Inflated(StreamToken stream)
    {
        using var zlib = new System.IO.Compression.ZLibStream(
            new MemoryStream(stream.Data.ToArray()),
            System.IO.Compression.CompressionMode.Decompress
        );
        using var all = new MemoryStream();
        zlib.CopyTo(all);
        return all.ToArray();
    }
}
