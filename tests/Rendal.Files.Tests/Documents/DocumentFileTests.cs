using System.IO.Compression;
using System.Text;
using CsCheck;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using DocumentFormat.OpenXml.Validation;
using ExcelDataReader;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Files.Documents;
using Rendal.Files.Pdf;
using Rendal.Html;

namespace Rendal.Files.Tests.Documents;

/// <summary>A statement as files that the recipient goes on with.</summary>
public class DocumentFileTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", ["1 Mill Lane"], [], []);
    private static readonly Layout AllForms = Layout.BuiltIn with { Forms = [DocumentForm.Csv, DocumentForm.Pdf, DocumentForm.Xlsx] };

    /// <summary>What was looked at is compared with what went, byte by byte.</summary>
    [Fact]
    public void The_same_document_is_the_same_bytes_whenever_it_is_made_and_another_is_another()
    {
        var made = Enumerable
            .Range(0, 3)
            .Select(i =>
            {
                using var renderer = new DocumentRenderer();
                renderer.Print(Document(AllForms, "de", [Row(7, 7m)]), AllForms, TestContext.Current.CancellationToken);
                return DocumentFile.Make(
                    Document(AllForms, "en", [Row(1, i == 2 ? 99m : 100m)]),
                    AllForms,
                    renderer,
                    cancel: TestContext.Current.CancellationToken
                );
            })
            .ToList();
        Assert.All(made[0].Zip(made[1]), pair => Assert.Equal(pair.First.Bytes, pair.Second.Bytes));
        Assert.All(made[0].Zip(made[2]), pair => Assert.NotEqual(pair.First.Bytes, pair.Second.Bytes));
        Assert.NotEqual(Identifier(made[0]), Identifier(made[2]));
        using var workbook = new ZipArchive(
            new MemoryStream(made[0].Single(f => f.Name.EndsWith(".xlsx", StringComparison.Ordinal)).Bytes)
        );
        Assert.All(workbook.Entries, entry => Assert.Equal(1980, entry.LastWriteTime.Year));

        // In the trailer and in the metadata it is one.
        static string Identifier(IReadOnlyList<DocumentFile> files)
        {
            var text = System.Text.Encoding.Latin1.GetString(files.Single(f => f.ContentType == DocumentFile.PdfType).Bytes);
            var id = text[(text.LastIndexOf("/ID [<", StringComparison.Ordinal) + 6)..][..32];
            Assert.Contains($"<xmpMM:DocumentID>uuid:{Guid.ParseExact(id, "N")}<", text, StringComparison.Ordinal);
            return id;
        }
    }

    [Fact]
    public void A_document_comes_in_each_form_that_the_layout_asks_for_under_one_name()
    {
        using var renderer = new DocumentRenderer();
        var document = Document(AllForms, "en", [Row(1, 100m)]);
        var files = DocumentFile.Make(document, AllForms, renderer, cancel: TestContext.Current.CancellationToken);
        Assert.Equal(
            ["A statement 2026-10-31.pdf", "A statement 2026-10-31.xlsx", "A statement 2026-10-31.csv"],
            files.Select(f => f.Name)
        );
        Assert.Equal(files.Select(f => f.Name), DocumentFile.Names(document, AllForms));
        Assert.StartsWith("%PDF", Encoding.ASCII.GetString(files[0].Bytes, 0, 4), StringComparison.Ordinal);
    }

    [Fact]
    public void A_workbook_has_numbers_and_dates_and_a_total_that_is_the_sum_of_its_column()
    {
        var rows = Read(Workbook(Document(AllForms, "de", [Row(1, 1234.5m), Row(2, -34.25m)])));
        var headings = rows.FindIndex(r => Equals(r[0], "Nummer"));
        Assert.Equal(["Kontoauszug", "Tarnbrook Linen Hire", "Inn at Kell"], rows.Take(3).Select(r => r[0]));
        Assert.Equal(["Nummer", "Belegart", "Belegdatum", "Fällig", "Tage überfällig", "Betrag", "Offen"], rows[headings]);
        Assert.Equal(
            ["T-0001", "Rechnung", new DateTime(2026, 9, 2), new DateTime(2026, 10, 2), 29.0, 1234.5, 1234.5],
            rows[headings + 1]
        );
        Assert.Equal(
            ["T-0002", "Gutschrift", new DateTime(2026, 9, 3), null, null, -34.25, -34.25],
            rows[headings + 2].Select(c => c is "" ? null : c)
        );
        Assert.Equal(("Offener Saldo", 1200.25), (rows[headings + 3][0], rows[headings + 3][6]));
    }

    [Fact]
    public void The_total_follows_when_the_recipient_changes_a_figure()
    {
        using var file = SpreadsheetDocument.Open(new MemoryStream(Workbook(Document(AllForms, "en", [Row(1, 10m), Row(2, 20m)]))), false);
        var formula = file.WorkbookPart!.WorksheetParts.Single().Worksheet!.Descendants<CellFormula>().Single();
        Assert.Equal("SUM(G9:G10)", formula.Text);
        Assert.Equal("G11", ((Cell)formula.Parent!).CellReference!.Value);
    }

    [Fact]
    public void Each_currency_has_its_sheet_and_its_decimals()
    {
        var bytes = Workbook(Document(AllForms, "en", [Row(1, 10m), Row(2, 20m, "EUR"), Row(3, 1500m, "JPY")]));
        using var file = SpreadsheetDocument.Open(new MemoryStream(bytes), false);
        Assert.Equal(["EUR", "GBP", "JPY"], file.WorkbookPart!.Workbook!.Sheets!.Elements<Sheet>().Select(s => s.Name!.Value).Order());
        Assert.Empty(new OpenXmlValidator().Validate(file, TestContext.Current.CancellationToken).Select(e => e.Description));
    }

    [Fact]
    public void Whatever_the_content_a_workbook_is_valid_and_text_stays_text() =>
        Gen.Select(Gen.String[Gen.OneOf(Gen.Char[' ', 'z'], Gen.Char["=<&\u0001\uFFFFł\uD83C"]), 0, 30], Gen.Int[0, 40])
            .Sample(
                (text, items) =>
                {
                    var name = text.Length == 0 ? "Inn" : text;
                    var layout = AllForms with
                    {
                        Parts =
                        [
                            .. AllForms.Parts.Select(p =>
                                p is TitlePart
                                    ? new TitlePart { Text = "<span data-slot=\"customer.name\" data-or-else=\"Statement\"></span>" }
                                    : p
                            ),
                        ],
                    };
                    var bytes = Workbook(
                        Document(
                            layout,
                            "en",
                            [.. Enumerable.Range(1, items + 1).Select(n => Row(n, n) with { Number = "=" + text })],
                            name
                        )
                    );
                    using var file = SpreadsheetDocument.Open(new MemoryStream(bytes), false);
                    Assert.Empty(new OpenXmlValidator().Validate(file, TestContext.Current.CancellationToken).Select(e => e.Description));
                    Assert.Single(file.WorkbookPart!.WorksheetParts.SelectMany(p => p.Worksheet!.Descendants<CellFormula>()));
                },
                iter: 50
            );

    [Fact]
    public void A_csv_has_plain_numbers_iso_dates_and_no_formula()
    {
        var csv = Encoding.UTF8.GetString(
            StatementCsv.Write(Document(AllForms, "en", [Row(1, 1234.5m) with { Number = "=cmd()" }, Row(2, -34.25m), Row(3, 7m, "EUR")]))
        );
        Assert.Equal(
            """
            Number,Type,Dated,Due,Days overdue,Amount,Open,Currency
            '=cmd(),Invoice,2026-09-02,2026-10-02,29,1234.50,1234.50,GBP
            T-0002,Credit note,2026-09-03,,,-34.25,-34.25,GBP
            T-0003,Invoice,2026-09-04,2026-10-04,27,7.00,7.00,EUR

            """.ReplaceLineEndings("\r\n"),
            csv.TrimStart('\uFEFF')
        );
    }

    [Fact]
    public void Of_a_head_office_each_line_says_whose_it_is()
    {
        var layout = AllForms;
        var branches = new[] { "B1", "B2" }
            .Select((key, i) => Statement.Of(key, Currency.Of("GBP"), [Item(Row(i + 1, 10m * (i + 1)))], AsOf, AgeingRule.Default))
            .ToList();
        var document = StatementDocument.Of(
            new Customer { Key = "H", Name = "Fennimore Inns" },
            [Statement.Gather("H", branches)],
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            nameOf: key => $"Branch {key[1..]}"
        );
        var rows = Read(Workbook(document));
        var headings = rows.FindIndex(r => Equals(r[0], "Account") && Equals(r[1], "Name"));
        Assert.Equal(["B1", "Branch 1", "T-0001"], rows[headings + 1].Take(3));
        Assert.Equal(["B2", "Branch 2", "T-0002"], rows[headings + 2].Take(3));
        Assert.Equal(("Total of all accounts", 30.0), (rows[headings + 3][0], rows[headings + 3][8]));
    }

    [Fact]
    public void What_was_brought_forward_comes_as_movements_with_the_balance()
    {
        var period = new Period(new DateOnly(2026, 10, 1), AsOf);
        var account = new CustomerAccount(
            "A",
            Currency.Of("GBP"),
            [Row(1, 100m) with { Date = new DateOnly(2026, 9, 1) }, Row(2, 50m) with { Date = new DateOnly(2026, 10, 5) }]
        );
        var statement = Statement.Of("A", Currency.Of("GBP"), account.Rows.Select(Item), AsOf, AgeingRule.Default) with
        {
            Forward = BroughtForward.Of(account.Rows, period),
        };
        var rows = Read(
            Workbook(
                StatementDocument.Of(
                    new Customer { Key = "A", Name = "Inn at Kell" },
                    [statement],
                    AgeingRule.Default,
                    Tarnbrook,
                    LayoutReader.Read(AllForms)
                )
            )
        );
        var headings = rows.FindIndex(r => Equals(r[0], "Dated"));
        Assert.Equal(
            [new DateTime(2026, 10, 1), "Brought forward", 100.0],
            new[] { rows[headings + 1][0], rows[headings + 1][1], rows[headings + 1][5] }
        );
        Assert.Equal([50.0, 150.0], new[] { rows[headings + 2][3], rows[headings + 2][5] });
        Assert.Equal(150.0, rows[headings + 3][5]);
    }

    private static byte[] Workbook(StatementDocument document) => StatementWorkbook.Write(document);

    private static List<object?[]> Read(byte[] workbook)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        using var reader = ExcelReaderFactory.CreateReader(new MemoryStream(workbook));
        var rows = new List<object?[]>();
        while (reader.Read())
        {
            rows.Add([.. Enumerable.Range(0, reader.FieldCount).Select(reader.GetValue)]);
        }

        return rows;
    }

    private static OpenItem Item(LedgerRow row) => new(row, row.Open);

    private static LedgerRow Row(int n, decimal amount, string currency = "GBP") =>
        new()
        {
            Customer = "A",
            CustomerName = "A",
            Kind = amount < 0 ? ItemKind.CreditNote : ItemKind.Invoice,
            Number = $"T-{n:0000}",
            Date = new DateOnly(2026, 9, 1).AddDays(n),
            Due = new DateOnly(2026, 10, 1).AddDays(n),
            Currency = Currency.Of(currency),
            Original = amount,
            Open = amount,
            Source = new SourceRef("f", null, n),
        };

    private static StatementDocument Document(Layout layout, string language, LedgerRow[] rows, string name = "Inn at Kell")
    {
        var statements = rows.GroupBy(r => r.Currency)
            .Select(g => Statement.Of("A", g.Key, g.Select(Item), AsOf, AgeingRule.Default))
            .ToList();
        var customer = new Customer
        {
            Key = "A",
            Name = name,
            Language = language,
        };
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            new Dictionary<string, string> { ["customer.name"] = name }
        );
    }
}
