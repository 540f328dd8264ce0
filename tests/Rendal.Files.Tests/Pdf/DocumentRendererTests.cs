using System.Globalization;
using System.Text;
using Rendal.Core.Budgets;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Files.Pdf;
using Rendal.Html;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.DocumentLayoutAnalysis.TextExtractor;

namespace Rendal.Files.Tests.Pdf;

public class DocumentRendererTests
{
    private static readonly Firm Tarnbrook = new(
        "Tarnbrook Linen Hire",
        ["1 Mill Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example"],
        ["Bank of Kelby, 00-00-00, 12345678", "Please quote your account."]
    );

    [Fact]
    public void Every_item_stands_once_in_order_with_heading_and_page_number_on_each_page()
    {
        var statement = Items(95);
        var pages = Print(new Customer { Key = "H014", Name = "Inn at Kell" }, statement);
        Assert.Equal(3, pages.Count);
        var words = pages.SelectMany(p => p.Split([' ', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries)).ToList();
        Assert.Equal(statement.Items.Select(i => i.Row.Number), words.Where(w => w.StartsWith("T-", StringComparison.Ordinal)));
        Assert.All(pages, (page, i) => Assert.Contains($"Page {i + 1} of 3", page));
        Assert.All(pages, page => Assert.Contains("Days overdue", page));
        Assert.Contains("£" + statement.Total.ToString("N2", CultureInfo.InvariantCulture), pages[^1]);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(30)]
    [InlineData(33)]
    [InlineData(34)]
    [InlineData(35)]
    [InlineData(36)]
    [InlineData(37)]
    [InlineData(38)]
    public void The_total_is_never_cut_from_its_rows(int items)
    {
        var pages = Print(new Customer { Key = "H014", Name = "Inn at Kell" }, Items(items));
        Assert.Contains("T-", pages.Single(p => p.Contains("Total outstanding", StringComparison.Ordinal)));
    }

    [Theory]
    [InlineData(3)]
    [InlineData(95)]
    public void Where_a_figure_of_a_row_is_said_to_stand_it_can_be_read_on_the_page(int items)
    {
        var statement = Items(items);
        var customer = new Customer
        {
            Key = "H014",
            Name = "Inn at Kell with a name that goes over more than one line of the address, as some of them do",
            PostalLines = ["2 Weir Row"],
        };
        using var renderer = new DocumentRenderer();
        var document = StatementDocument.Of(customer, [statement], AgeingRule.Default, Tarnbrook, LayoutReader.BuiltIn);
        var (places, size) = renderer.Places(document, Layout.BuiltIn, TestContext.Current.CancellationToken);
        using var pdf = PdfDocument.Open(renderer.Print(document, Layout.BuiltIn, TestContext.Current.CancellationToken));
        Assert.Equal((595, 842), ((int)size.Width, (int)Math.Round(size.Height)));
        foreach (var item in statement.Items)
        {
            var row = item.Row.Source.Row;
            Assert.Equal(item.Row.Number, Read($"row {row} number"));
            Assert.Equal(item.Open.ToString("N2", CultureInfo.InvariantCulture), Read($"row {row} open"));
        }

        Assert.Equal("2WeirRow", Read("card address"));
        Assert.Equal(customer.Name.Replace(" ", "", StringComparison.Ordinal), Read("card name"));
        Assert.StartsWith("£", Read("slot statement.total"), StringComparison.Ordinal);

        string Read(string from) =>
            string.Concat(
                    places
                        .Where(p => p.From.ToString() == from)
                        .SelectMany(p =>
                            pdf.GetPage(p.Page)
                                .Letters.Where(l =>
                                    l.StartBaseLine.X > p.Area.Left - 0.5
                                    && l.StartBaseLine.X < p.Area.Right
                                    && size.Height - l.StartBaseLine.Y > p.Area.Top
                                    && size.Height - l.StartBaseLine.Y < p.Area.Bottom
                                )
                        )
                        .Select(l => l.Value)
                )
                .Replace(" ", "", StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    [InlineData("fr")]
    [InlineData("es")]
    public void No_date_and_no_number_is_broken_over_two_lines(string language)
    {
        Assert.True(Rendal.Core.Wordings.Language.TryParse(language, out var known));
        var statement = Items(20);
        var page = Print(
            new Customer
            {
                Key = "H014",
                Name = "Inn at Kell",
                Language = language,
            },
            statement
        )[0];
        foreach (var item in statement.Items)
        {
            Assert.Contains(known.WriteShort(item.Row.Date!.Value), page);
            Assert.Contains(known.WriteShort(item.Row.Due), page);
            Assert.Contains(item.Row.Number, page);
        }
    }

    [Fact]
    public void Interest_stands_under_the_total_and_goes_on_over_the_page()
    {
        var statement = Items(60);
        statement = statement with { Interest = InterestLine.On(statement, 8) };
        using var renderer = new DocumentRenderer();
        var pages = Text(
            renderer.Print(
                StatementDocument.Of(
                    new Customer { Key = "H014", Name = "Inn at Kell" },
                    [statement],
                    AgeingRule.Default,
                    Tarnbrook,
                    LayoutReader.BuiltIn,
                    interestPercent: 8
                ),
                Layout.BuiltIn,
                cancel: TestContext.Current.CancellationToken
            )
        );
        var all = string.Join('\n', pages);
        Assert.Equal(60, statement.Interest.Count);
        Assert.All(statement.Interest, line => Assert.Contains($"on {line.Item.Row.Number}, {line.Days} days", all));
        Assert.Contains("£" + statement.ToPay.ToString("N2", CultureInfo.InvariantCulture), pages[^1]);
    }

    [Theory]
    [InlineData(27)]
    [InlineData(28)]
    [InlineData(29)]
    [InlineData(30)]
    [InlineData(31)]
    [InlineData(60)]
    public void The_name_of_a_branch_stays_with_its_first_row_and_its_sum_with_the_last(int items)
    {
        var parts = new[] { "B1", "B2", "B3" }.Select((key, i) => Items(i == 1 ? 1 : items) with { Customer = key }).ToList();
        using var renderer = new DocumentRenderer();
        var document = StatementDocument.Of(
            new Customer { Key = "H", Name = "Fennimore Inns" },
            [Statement.Gather("H", parts)],
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn,
            nameOf: key => $"Branch {key[1..]}"
        );
        var pages = Text(renderer.Print(document, Layout.BuiltIn, cancel: TestContext.Current.CancellationToken));
        Assert.All(["Branch 1 (B1)", "Branch 2 (B2)", "Branch 3 (B3)"], name =>
            Assert.Contains("T-0001", After(pages.Single(p => p.Contains(name, StringComparison.Ordinal)), name))
        );
        Assert.Equal(3, pages.Sum(p => p.Split("Subtotal").Length - 1));
        Assert.All(pages.Where(p => p.Contains("Subtotal", StringComparison.Ordinal)), p =>
            Assert.Contains("T-", p[..p.IndexOf("Subtotal", StringComparison.Ordinal)])
        );
        Assert.Contains(
            "Total of all accounts",
            pages.Single(p =>
                p.Contains("£" + ((items * (items + 1)) + 1).ToString("N2", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            )
        );
        Assert.Equal((items * 2) + 1, pages.Sum(p => p.Split("T-0").Length - 1));

        static string After(string page, string name) => page[page.IndexOf(name, StringComparison.Ordinal)..];
    }

    [Fact]
    public void Text_is_copied_word_by_word_in_every_script_that_the_faces_have()
    {
        var page = Print(
            new Customer
            {
                Key = "Ł-1",
                Name = "Hotel Łabędź & Smørrebrød",
                PostalLines = ["Οδός Ερμού 5", "улица Мира 12", "Straße größer, offici fiancé"],
            },
            Items(1)
        )[0];
        Assert.Contains("Hotel Łabędź & Smørrebrød", page);
        Assert.Contains("Οδός Ερμού 5", page);
        Assert.Contains("улица Мира 12", page);
        Assert.Contains("Straße größer, offici fiancé", page);
    }

    [Theory]
    [InlineData("Hebrew", "מלון הגליל (תל אביב) 12")]
    [InlineData("Arabic", "فندق البحر ٤٢")]
    [InlineData("Armenian", "Հյուրանոց Սևան")]
    [InlineData("Georgian", "სასტუმრო ბათუმი")]
    [InlineData("Thai", "โรงแรมริมน้ำ")]
    [InlineData("Devanagari", "होटल हिमालय")]
    [InlineData("Chinese", "海边酒店有限公司")]
    [InlineData("Emoji", "Hotel 🌊 Seaview 👩‍🍳")]
    public void A_name_in_another_script_is_drawn_with_glyphs_of_its_own_and_can_be_copied(string script, string name)
    {
        using var renderer = new DocumentRenderer();
        var bytes = renderer.Print(
            StatementDocument.Of(
                new Customer { Key = "X1", Name = name },
                [Items(1)],
                AgeingRule.Default,
                Tarnbrook,
                LayoutReader.BuiltIn
            ),
            Layout.BuiltIn,
            cancel: TestContext.Current.CancellationToken
        );
        using var document = PdfDocument.Open(bytes);
        var letters = document.GetPage(1).Letters;
        var fonts = letters.Where(l => l.FontName?.Contains("Noto", StringComparison.Ordinal) == true).ToList();
        Assert.True(fonts.Count > 0, $"nothing of the {script} name is drawn with a font that has it");
        // Where a glyph is the form of a letter within a word, the letter itself is kept with it.
        var copied = string.Concat(letters.Select(l => l.Value).Concat(Kept(document.GetPage(1).GetMarkedContents())))
            .Normalize(NormalizationForm.FormKC);
        Assert.All(name.Normalize(NormalizationForm.FormKC).EnumerateRunes().Where(Rune.IsLetterOrDigit), rune =>
            Assert.Contains(rune.ToString(), copied, StringComparison.Ordinal)
        );
        Assert.True(bytes.Length < 60_000, $"{bytes.Length} bytes");

        static IEnumerable<string> Kept(IReadOnlyList<MarkedContentElement> marked) =>
            marked.SelectMany(m => Kept(m.Children).Prepend(m.ActualText ?? ""));
    }

    [Theory]
    [InlineData("Hotel Łabędź", null)]
    [InlineData("فندق البحر 🏨 海边", null)]
    [InlineData("Inn\u200E at\u00A0Kell\uFE0F", null)]
    [InlineData("한강 호텔", "한")]
    [InlineData("Inn \uE000", "\uE000")]
    public void A_character_that_no_face_has_is_named(string name, string? character) =>
        Assert.Equal(
            character,
            DocumentRenderer.Unprintable(
                StatementDocument.Of(
                    new Customer { Key = "X1", Name = name },
                    [Items(1)],
                    AgeingRule.Default,
                    Tarnbrook,
                    LayoutReader.BuiltIn
                )
            )
        );

    [Fact]
    public void Euro_and_true_minus_come_out_right()
    {
        var euro = Currency.Of("EUR");
        var rows = new[] { Row(1, 1500m, euro), Row(2, -60m, euro) };
        var page = Print(
            new Customer
            {
                Key = "D1",
                Name = "Krone",
                Language = "de",
            },
            Of(rows, euro)
        )[0];
        Assert.Contains("1.440,00\u00A0€", page.Replace(" €", "\u00A0€", StringComparison.Ordinal));
        Assert.Contains("\u221260,00", page);
    }

    [Fact]
    public void Two_currencies_stand_in_one_document_with_a_total_each()
    {
        var euro = Currency.Of("EUR");
        using var renderer = new DocumentRenderer();
        var document = StatementDocument.Of(
            new Customer { Key = "A", Name = "A" },
            [Of([Row(1, 5m, euro)], euro), Items(2)],
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn
        );
        var text = Text(renderer.Print(document, Layout.BuiltIn, cancel: TestContext.Current.CancellationToken))[0];
        Assert.Contains("€5.00", text);
        Assert.Contains("£3.00", text);
    }

    [Fact]
    public void A_press_kept_for_a_round_prints_the_same_text_as_a_new_one()
    {
        using var kept = new DocumentRenderer();
        foreach (var name in new[] { "Inn", "Łabędź", "Ωμέγα", "Inn" })
        {
            var document = Document(new Customer { Key = "A", Name = name }, Items(3));
            using var fresh = new DocumentRenderer();
            Assert.Equal(
                Text(fresh.Print(document, Layout.BuiltIn, cancel: TestContext.Current.CancellationToken)),
                Text(kept.Print(document, Layout.BuiltIn, cancel: TestContext.Current.CancellationToken))
            );
        }
    }

    [Fact]
    public void Long_words_are_broken_and_lose_nothing()
    {
        var name = new string('W', 200);
        var page = Print(new Customer { Key = "A", Name = name }, Items(1))[0];
        Assert.Equal(200, page.Count(c => c == 'W'));
    }

    [Fact]
    public void A_number_that_takes_more_than_a_page_goes_on_on_the_next_and_loses_nothing()
    {
        var rows = new[]
        {
            Row(1, 1m, Currency.Of("GBP")),
            Row(2, 2m, Currency.Of("GBP")) with
            {
                Number = "T-" + new string('W', 1_900),
            },
            Row(3, 3m, Currency.Of("GBP")),
        };
        var pages = Print(new Customer { Key = "A", Name = "A" }, Of(rows, Currency.Of("GBP")));
        Assert.InRange(pages.Count, 3, 10);
        Assert.Equal(1_900, pages.Sum(p => p.Count(c => c == 'W')));
        Assert.All(pages, (page, i) => Assert.Contains($"Page {i + 1} of {pages.Count}", page));
        Assert.Contains("T-0003", pages[^1]);
    }

    [Fact]
    public void A_value_that_no_document_can_show_is_told()
    {
        Assert.Equal(
            "“T-WWWWWWWWWWWWWWWWWW…” has 9002 characters; a document shows 2000 of a value at the most",
            Document(
                new Customer { Key = "A", Name = "A" },
                Of([Row(1, 1m, Currency.Of("GBP")) with { Number = "T-" + new string('W', 9_000) }], Currency.Of("GBP"))
            ).Problem
        );
        Assert.Equal(
            "“AAAAAAAAAAAAAAAAAAAA…” in its name or address has 300 characters; a line has 200 at the most",
            Document(new Customer { Key = "A", Name = new string('A', 300) }, Items(1)).Problem
        );
        Assert.Equal(
            "its address has 14 lines; a letter has room for 12",
            Document(
                new Customer
                {
                    Key = "A",
                    Name = "A",
                    PostalLines = [.. Enumerable.Repeat("x", 13)],
                },
                Items(1)
            ).Problem
        );
    }

    [Fact]
    public void A_document_of_more_pages_than_anybody_reads_is_broken_off_and_the_press_goes_on()
    {
        // With few rows on a page it is the pages that run out, and not the time, however slow the machine.
        using var renderer = new DocumentRenderer();
        var small = Layout.BuiltIn with { Margins = Layout.BuiltIn.Margins with { Top = 120, Bottom = 120 } };
        var error = Assert.Throws<OverBudget>(() =>
            renderer.Print(
                Document(new Customer { Key = "A", Name = "A" }, Items(25_000)),
                small,
                cancel: TestContext.Current.CancellationToken
            )
        );
        Assert.Equal(
            "The document has more than 2,000 pages, which is the most that is worked through. Choose fewer items for this "
                + "customer, or enclose them as a workbook.",
            error.Message
        );
        Assert.Single(
            Text(
                renderer.Print(
                    Document(new Customer { Key = "A", Name = "A" }, Items(3)),
                    Layout.BuiltIn,
                    cancel: TestContext.Current.CancellationToken
                )
            )
        );
    }

    [Fact]
    public void Printing_ends_when_whoever_asked_for_it_has_gone()
    {
        using var renderer = new DocumentRenderer();
        Assert.Throws<OperationCanceledException>(() =>
            renderer.Print(Document(new Customer { Key = "A", Name = "A" }, Items(3)), Layout.BuiltIn, new CancellationToken(true))
        );
    }

    [Fact]
    public void A_page_of_thirty_rows_is_small_and_says_what_it_is()
    {
        using var renderer = new DocumentRenderer();
        var pdf = renderer.Print(
            Document(new Customer { Key = "H014", Name = "Inn at Kell" }, Items(30)),
            Layout.BuiltIn,
            cancel: TestContext.Current.CancellationToken
        );
        Assert.InRange(pdf.Length, 5_000, 40_000);
        using var document = PdfDocument.Open(pdf);
        Assert.Equal("Statement of account – Inn at Kell", document.Information.Title);
    }

    private static Statement Items(int count) =>
        Of([.. Enumerable.Range(1, count).Select(n => Row(n, n, Currency.Of("GBP")))], Currency.Of("GBP"));

    private static LedgerRow Row(int n, decimal amount, Currency currency) =>
        new()
        {
            Customer = "A",
            CustomerName = "A",
            Kind = amount < 0 ? ItemKind.CreditNote : ItemKind.Invoice,
            Number = $"T-{n:0000}",
            Date = new DateOnly(2026, 1, 1).AddDays(n),
            Due = new DateOnly(2026, 1, 31).AddDays(n),
            Currency = currency,
            Original = amount,
            Open = amount,
            Source = new SourceRef("f", null, n),
        };

    private static Statement Of(LedgerRow[] rows, Currency currency) =>
        Statement.Of("A", currency, rows.Select(r => new OpenItem(r, r.Open)), new DateOnly(2026, 10, 31), AgeingRule.Default);

    private static StatementDocument Document(Customer customer, Statement statement) =>
        StatementDocument.Of(customer, [statement], AgeingRule.Default, Tarnbrook, LayoutReader.BuiltIn);

    private static List<string> Print(Customer customer, Statement statement)
    {
        using var renderer = new DocumentRenderer();
        return Text(renderer.Print(Document(customer, statement), Layout.BuiltIn));
    }

    private static List<string> Text(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return [.. document.GetPages().Select(page => ContentOrderTextExtractor.GetText(page))];
    }
}
