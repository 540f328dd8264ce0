using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Html;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Layouts;

/// <summary>What a layout may be, and what a document by it says.</summary>
public sealed class LayoutTemplateTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", ["1 Mill Lane"], [], ["Quote your account"]);

    public static TheoryData<string, Layout> Wrong { get; } =
        new()
        {
            { "Give the layout a name.", Layout.BuiltIn with { Name = " " } },
            { "“red” is not a colour", Layout.BuiltIn with { Accent = "red" } },
            { "The size of the text is 7 to 12 points.", Layout.BuiltIn with { TextSize = 20 } },
            { "Margins are 8 to 60 mm, at the bottom 16 at least.", Layout.BuiltIn with { Margins = new Margins(18, 18, 18, 10) } },
            { "A layout without parts is an empty sheet; add one.", Layout.BuiltIn with { Parts = [] } },
            { "A layout has the table of items only once.", With(new ItemsPart { Columns = [new("open")] }) },
            { "A layout has the title only once.", With(new TitlePart()) },
            { "Part 5, table of items: “colour” is not a field that is known.", Of(new ItemsPart { Columns = [new("colour")] }) },
            { "Part 5, table of items: “open” stands in two columns.", Of(new ItemsPart { Columns = [new("open"), new("open")] }) },
            { "Part 5, table of items: it has no column.", Of(new ItemsPart()) },
            { "Part 5, table of items: a column is 5 to 150 mm wide, not 2.5.", Of(new ItemsPart { Columns = [new("open", "", 2.5m)] }) },
            {
                "Part 5, table of items: “extra:” is not a field that is known.",
                Of(new ItemsPart { Columns = [new("open")], GroupBy = "extra:" })
            },
            {
                "Part 9, text: The body has a slot “customer.nmae” that names nothing known",
                With(new TextPart { Text = "<p><span data-slot=\"customer.nmae\"></span></p>" })
            },
            {
                "Part 9, text: “Table of items” is a part of its own here.",
                With(new TextPart { Text = "<p><span data-slot=\"statement.table\"></span></p>" })
            },
            { "Part 8, how to pay: “DE00” is not an IBAN.", Paying(new PaymentPart { Iban = "DE00" }) },
            {
                "Part 8, how to pay: “COBA DE” is not a BIC.",
                Paying(new PaymentPart { Iban = "DE89 3704 0044 0532 0130 00", Bic = "COBA DE" })
            },
            {
                "Part 8, how to pay: the link begins with https:// and the name of the site",
                Paying(new PaymentPart { Link = "javascript:alert(1)" })
            },
            {
                "Part 8, how to pay: the link begins with https:// and the name of the site",
                Paying(new PaymentPart { Link = "https://<span data-slot=\"customer.name\"></span>/pay" })
            },
            {
                "Part 8, how to pay: link: The subject has a slot",
                Paying(new PaymentPart { Link = "https://pay.example/<span data-slot=\"customer.nmae\"></span>" })
            },
            {
                "Part 8, how to pay: bar code: The subject has a slot",
                Paying(new PaymentPart { BarCode = BarCodeKind.Code128, BarCodeText = "<span data-slot=\"no.such\"></span>" })
            },
            { "Part 9, signature: it is 4 to 60 mm high.", With(new SignaturePart { Height = 90 }) },
            {
                "Part 2, address: its lines begin 5 to 120 mm from the left",
                Layout.BuiltIn with
                {
                    Parts = [Layout.BuiltIn.Parts[0], new AddressPart { Left = 150 }, .. Layout.BuiltIn.Parts.Skip(2)],
                }
            },
            {
                "Part 1, letterhead: the logo is larger than 500 kB.",
                Layout.BuiltIn with
                {
                    Parts = [new LetterheadPart { Logo = new byte[500_001] }, .. Layout.BuiltIn.Parts.Skip(1)],
                }
            },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void What_keeps_a_layout_from_being_used_is_said_with_its_part(string expected, Layout layout) =>
        Assert.Contains(LayoutReader.Read(layout).Errors, e => e.StartsWith(expected, StringComparison.Ordinal));

    [Fact]
    public void The_one_that_comes_with_it_can_be_used() => Assert.Empty(LayoutReader.BuiltIn.Errors);

    [Fact]
    public void The_ready_made_ones_can_be_used_and_fill_every_slot_in_each_language()
    {
        Assert.Equal(["de", "en", "es", "fr", "it", "nl"], ReadyMade.All.Select(r => r.Language).Distinct().Order());
        Assert.All(ReadyMade.All.GroupBy(r => r.Language), of => Assert.Equal(7, of.Select(r => r.Layout.Name).Distinct().Count()));
        Assert.All(ReadyMade.All, made =>
        {
            Assert.Empty(LayoutReader.Read(made.Layout).Errors);
            var document = Document(made.Layout, level: 1, language: made.Language, contact: "Ines Caldera");
            Assert.Empty(document.EmptySlots);
            Assert.DoesNotContain(Words(document).Append(document.Title), w => w.Contains('{', StringComparison.Ordinal));
        });
    }

    [Fact]
    public void Values_in_a_link_are_escaped_and_a_hostile_one_leads_nowhere_else()
    {
        var layout = Paying(
            new PaymentPart
            {
                Link =
                    "https://pay.example/?to=<span data-slot=\"customer.name\"></span>&amp;sum=<span "
                    + "data-slot=\"statement.amount\"></span>&amp;in=<span data-slot=\"statement.currency\"></span>",
            }
        );
        var link = Document(layout, name: "Inn & Bar/../?x=1#y @evil.example").PayLink;
        Assert.StartsWith(
            "https://pay.example/?to=Inn%20%26%20Bar%2F..%2F%3Fx%3D1%23y%20%40evil.example&sum=",
            link,
            StringComparison.Ordinal
        );
        Assert.EndsWith("&in=GBP", link, StringComparison.Ordinal);
        Assert.Matches("sum=[0-9]+[.][0-9]{2}&", link);
        Assert.Equal("pay.example", new Uri(link!).Host);
    }

    [Fact]
    public void A_bar_code_says_the_customers_code_or_words_of_its_own_and_what_cannot_be_one_stops()
    {
        Assert.Equal("A", Document(Paying(new PaymentPart { BarCode = BarCodeKind.Code39 })).BarCode!.Text);
        var own = Document(
            Paying(new PaymentPart { BarCode = BarCodeKind.Code128, BarCodeText = "TLH-<span data-slot=\"customer.code\"></span>" })
        );
        Assert.Equal(("TLH-A", ""), (own.BarCode!.Text, own.Problem));
        var not = Document(
            Paying(new PaymentPart { BarCode = BarCodeKind.Code39, BarCodeText = "<span data-slot=\"customer.name\"></span>" }),
            name: "Łabędź"
        );
        Assert.Equal("the bar code “Łabędź” has “Ł”, which Code 39 has not", not.Problem);
    }

    [Fact]
    public void A_letter_without_a_table_leaves_the_message_its_own()
    {
        var document = Document(ReadyMade.All.Last(r => r.Language == "en").Layout, contact: "Ines Caldera");
        Assert.Equal("Your account A", document.Title);
        Assert.Contains("T-1", StatementTable.Html(document));
    }

    [Fact]
    public void The_columns_stand_in_their_order_under_their_headings()
    {
        var document = Document(
            Of(new ItemsPart { Columns = [new("open", "Still open"), new("number"), new("extra:Delivery round"), new("reference")] })
        );
        Assert.Equal(["Still open", "Number", "Delivery round", "Reference"], document.Columns.Select(c => c.Heading));
        Assert.Equal(["100.00", "T-1", "N2", "PO 7"], document.Sections[0].Rows.First());
        Assert.Equal([true, false, false, false], document.Columns.Select(c => c.IsFigure));
    }

    [Fact]
    public void Items_are_put_together_by_a_column_each_group_with_its_sum()
    {
        var parts = Document(
            Of(
                new ItemsPart
                {
                    Columns = ItemsPart.UsualColumns,
                    GroupBy = "extra:Delivery round",
                    CarryForward = true,
                }
            )
        ).Sections[0];
        Assert.Equal(
            [("Delivery round N1", "50.00"), ("Delivery round N2", "130.00"), ("–", "7.00")],
            parts.Parts.Select(p => (p.Heading, p.Total))
        );
        Assert.Equal(["T-2", "T-1", "T-3", "T-4"], parts.Rows.Select(r => r[0]));
        Assert.Equal(["50.00", "150.00", "180.00", "187.00"], parts.Carried);
        Assert.Equal("£187.00", parts.Total);
    }

    [Fact]
    public void A_text_stands_only_where_it_is_wanted_and_is_filled_in_the_customers_language()
    {
        var layout = With(
            Text("Past due: <span data-slot=\"statement.overdue\"></span>", TextWhen.Overdue),
            Text("All well", TextWhen.NotOverdue),
            Text("Reminder <span data-slot=\"reminder.level\"></span>", TextWhen.Reminder),
            Text("No reminder", TextWhen.NoReminder)
        );
        Assert.Equal(["Past due: £100.00", "No reminder"], Words(Document(layout)));
        Assert.Equal(["Past due: £100.00", "Reminder 2"], Words(Document(layout, level: 2)));
        Assert.Equal(["All well", "No reminder"], Words(Document(layout, asOf: new DateOnly(2026, 9, 30))));
        Assert.Equal(["Past due: 100,00\u00A0£", "No reminder"], Words(Document(layout, language: "de")));
    }

    [Fact]
    public void A_slot_without_a_value_is_told_of_unless_it_has_an_or_else()
    {
        var empty = Document(With(Text("<span data-slot=\"customer.contact\"></span>", TextWhen.Always)));
        Assert.Equal(["customer.contact"], empty.EmptySlots.Select(s => s.Name));
        var orElse = Document(
            With(Text("<span data-slot=\"customer.contact\" data-or-else=\"the accounts office\"></span>", TextWhen.Always))
        );
        Assert.Empty(orElse.EmptySlots);
        Assert.Equal(["the accounts office"], Words(orElse));
        Assert.Empty(Document(With(Text("<span data-slot=\"customer.contact\"></span>", TextWhen.Reminder))).EmptySlots);
    }

    [Fact]
    public void The_title_is_the_usual_one_or_ones_own()
    {
        Assert.Equal("Statement of account", Document(Layout.BuiltIn).Title);
        Assert.Equal("Reminder 2", Document(Layout.BuiltIn, level: 2).Title);
        Assert.Equal("2. Zahlungserinnerung", Document(Layout.BuiltIn, level: 2, language: "de").Title);
        var own = Layout.BuiltIn with
        {
            Parts =
            [
                .. Layout.BuiltIn.Parts.Select(p =>
                    p is TitlePart ? new TitlePart { Text = "Account of <span data-slot=\"customer.name\"></span>" } : p
                ),
            ],
        };
        Assert.Equal("Account of Inn & <Kell>", Document(own).Title);
    }

    [Fact]
    public void The_name_of_the_file_is_the_usual_one_or_made_from_slots()
    {
        Assert.Equal("A statement 2026-10-31", Document(Layout.BuiltIn).FileName);
        Assert.Equal("A reminder 2 2026-10-31", Document(Layout.BuiltIn, level: 2).FileName);
        var own = Layout.BuiltIn with
        {
            FileName = "<span data-slot=\"statement.day\"></span> <span data-slot=\"customer.name\"></span> {{ x }}",
        };
        Assert.Equal("2026-10-31 Inn & <Kell> {{ x }}", Document(own).FileName);
        Assert.Equal(
            ["customer.contact"],
            Document(Layout.BuiltIn with { FileName = "<span data-slot=\"customer.contact\"></span>" }).EmptySlots.Select(s => s.Name)
        );
        Assert.Contains(
            "Name of the file: The subject has a slot “no.such”",
            LayoutReader.Read(Layout.BuiltIn with { FileName = "<span data-slot=\"no.such\"></span>" }).Errors[0]
        );
    }

    [Fact]
    public void A_code_for_a_transfer_stands_for_euro_alone()
    {
        var layout = Layout.BuiltIn with
        {
            Parts = [.. Layout.BuiltIn.Parts.Take(7), new PaymentPart { Iban = "DE89 3704 0044 0532 0130 00" }],
        };
        Assert.Null(Document(layout).Sections[0].Transfer);
        Assert.Equal(
            new SepaTransfer("Tarnbrook Linen Hire", "DE89 3704 0044 0532 0130 00", "", 187m, "A 31 Oct 2026"),
            Document(layout, currency: "EUR").Sections[0].Transfer
        );
    }

    [Fact]
    public void Values_never_become_markup_or_slots()
    {
        var layout = With(Text("<b>To</b> <span data-slot=\"customer.name\"></span> {{ customer.code }}", TextWhen.Always));
        Assert.Equal(["To Inn & <Kell> {{ customer.code }}"], Words(Document(layout)));
    }

    private static TextPart Text(string html, TextWhen when) => new() { Text = $"<p>{html}</p>", When = when };

    private static Layout With(params LayoutPart[] more) => Layout.BuiltIn with { Parts = [.. Layout.BuiltIn.Parts, .. more] };

    private static Layout Paying(PaymentPart payment) => Layout.BuiltIn with { Parts = [.. Layout.BuiltIn.Parts.Take(7), payment] };

    private static Layout Of(ItemsPart items) =>
        Layout.BuiltIn with
        {
            Parts = [.. Layout.BuiltIn.Parts.Select(p => p is ItemsPart ? items : p)],
        };

    private static IEnumerable<string> Words(StatementDocument document) =>
        document.Texts.OfType<IReadOnlyList<TextParagraph>>().SelectMany(t => t).Select(p => string.Concat(p.Runs.Select(r => r.Text)));

    private static StatementDocument Document(
        Layout layout,
        int? level = null,
        string language = "en",
        string currency = "GBP",
        DateOnly? asOf = null,
        string contact = "",
        string name = "Inn & <Kell>"
    )
    {
        var money = Rendal.Core.Money.Currency.Of(currency);
        LedgerRow[] rows =
        [
            Round(Row("A", 100m, "2026-09-01", "2026-10-01", "T-1", money, "PO 7"), "N2"),
            Round(Row("A", 50m, "2026-09-02", "2026-11-02", "T-2", money), "N1"),
            Round(Row("A", 30m, "2026-09-03", "2026-11-03", "T-3", money), "N2"),
            Round(Row("A", 7m, "2026-09-04", "2026-11-04", "T-4", money), ""),
        ];
        var customer = new Customer
        {
            Key = "A",
            Name = name,
            Language = language,
            Contacts = contact.Length > 0 ? [new Contact { Name = contact, Title = "Ms" }] : [],
        };
        Statement[] statements = [Statement.Of("A", money, rows.Select(r => new OpenItem(r, r.Open)), asOf ?? AsOf, AgeingRule.Default)];
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            ParcelSlots.Of(customer, statements, Tarnbrook, "Marta", new RoundIdentity("October"), level),
            level
        );
    }

    private static LedgerRow Round(LedgerRow row, string round) => row with { Extra = new ExtraColumns(["Delivery round"], [round]) };
}
