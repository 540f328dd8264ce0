using System.Text.RegularExpressions;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files.Pdf;
using Rendal.Html;
using SkiaSharp;
using UglyToad.PdfPig;

namespace Rendal.Files.Tests.Pdf;

/// <summary>Documents by layouts of one's own, read back.</summary>
public class LayoutPrintTests
{
    private const float PointsPerMillimetre = 72 / 25.4f;

    private static readonly Firm Tarnbrook = new(
        "Tarnbrook Linen Hire",
        ["1 Mill Lane", "Kelby KB1 2LH"],
        ["accounts@tarnbrook.example"],
        ["Bank of Kelby, 12345678"]
    );

    [Fact]
    public void The_parts_stand_in_their_order()
    {
        var parts = Layout.BuiltIn.Parts;
        var turned = Layout.BuiltIn with
        {
            Parts =
            [
                parts[0],
                parts[1],
                parts[2],
                parts[7],
                parts[3],
                Text("Dear colleagues"),
                parts[5],
                parts[6],
                parts[4],
                Text("Thank you"),
            ],
        };
        using var document = PdfDocument.Open(Print(turned, 3));
        string[] anchors =
        [
            "How to pay",
            "Statement of account",
            "Dear colleagues",
            "Total outstanding",
            "Number Type",
            "T-0001",
            "Thank you",
        ];
        Assert.Equal(
            anchors,
            Lines(document.GetPage(1)).Select(l => anchors.FirstOrDefault(a => l.StartsWith(a, StringComparison.Ordinal))).OfType<string>()
        );
    }

    [Fact]
    public void How_to_pay_never_stands_alone_on_a_last_page_and_takes_its_bar_code_along()
    {
        var layout = Layout.BuiltIn with
        {
            Parts = [.. Layout.BuiltIn.Parts.Select(p => p is PaymentPart payment ? payment with { BarCode = BarCodeKind.Code128 } : p)],
        };
        var layouts = new[] { layout, layout with { Parts = [.. layout.Parts.Where(p => p is not AgesPart)] } };
        foreach (var (of, items) in layouts.SelectMany(l => Enumerable.Range(1, 80).Select(n => (l, n))))
        {
            using var document = PdfDocument.Open(Print(of, items));
            var last = document.GetPage(document.NumberOfPages).GetWords().Select(w => w.Text).ToList();
            Assert.Equal(items, document.GetPages().Sum(p => p.GetWords().Count(w => w.Text.StartsWith("T-", StringComparison.Ordinal))));
            Assert.True(last.Contains("pay") == last.Contains("H014"), "The bar code is parted from the rest.");
            if (last.Contains("pay") && document.NumberOfPages > 1)
            {
                Assert.Contains(last, w => w.StartsWith("T-", StringComparison.Ordinal) || w is "not" or "Open");
            }
        }
    }

    [Theory]
    [InlineData(AddressPlace.Din5008A, 25, 44.7)]
    [InlineData(AddressPlace.Din5008B, 25, 62.7)]
    [InlineData(AddressPlace.Free, 80, 100)]
    public void The_address_stands_in_its_window(AddressPlace place, double left, double top)
    {
        var layout = Layout.BuiltIn with
        {
            Parts =
            [
                .. Layout.BuiltIn.Parts.Select(p =>
                    p is AddressPart
                        ? new AddressPart
                        {
                            Place = place,
                            Left = 80,
                            Top = 100,
                            WithReturnLine = true,
                        }
                        : p
                ),
            ],
        };
        using var document = PdfDocument.Open(Print(layout, 1));
        var page = document.GetPage(1);
        var name = page.GetWords().First(w => w.Text == "Inn").BoundingBox;
        Assert.InRange(name.Left / PointsPerMillimetre, left - 0.6, left + 0.6);
        Assert.InRange((page.Height - name.Top) / PointsPerMillimetre, top, top + 5);
        Assert.InRange(page.GetWords().First(w => w.Text == "·").BoundingBox.Bottom, name.Top, name.Top + 14);
    }

    [Fact]
    public void The_sheet_its_margins_and_the_size_of_text_are_as_set()
    {
        var layout = Layout.BuiltIn with
        {
            Paper = PaperSize.Letter,
            Margins = new Margins(30, 10, 12, 40),
            TextSize = 11,
            Footer = "Registered in Kelby",
            Accent = "#123456",
        };
        using var document = PdfDocument.Open(Print(layout, 60));
        foreach (var page in document.GetPages())
        {
            Assert.Equal((612, 792), (page.Width, page.Height));
            var rows = page.GetWords().Where(w => w.Text.StartsWith("T-", StringComparison.Ordinal)).ToList();
            Assert.All(rows, w => Assert.InRange(w.BoundingBox.Left, 30 * PointsPerMillimetre - 1, 30 * PointsPerMillimetre + 1));
            Assert.All(rows, w => Assert.True(w.BoundingBox.Bottom > 40 * PointsPerMillimetre));
            Assert.All(rows, w => Assert.Equal(11, w.Letters[0].PointSize, 0.1));
            Assert.InRange(
                page.GetWords().Max(w => w.BoundingBox.Right),
                612 - (12 * PointsPerMillimetre) - 1,
                612 - (12 * PointsPerMillimetre) + 1
            );
            Assert.Contains("Registered", page.GetWords().Select(w => w.Text));
        }

        Assert.Equal(60, document.GetPages().SelectMany(p => p.GetWords()).Count(w => w.Text.StartsWith("T-", StringComparison.Ordinal)));
    }

    [Theory]
    [InlineData(200, 50, 48, 12)]
    [InlineData(400, 20, 87, 4.35)]
    public void A_logo_stands_as_high_as_wanted_or_as_wide_as_there_is_room_and_in_its_own_proportions(
        int width,
        int height,
        double wide,
        double high
    )
    {
        var layout = Layout.BuiltIn with
        {
            Parts = [new LetterheadPart { Logo = Png(width, height), LogoHeight = 12 }, .. Layout.BuiltIn.Parts.Skip(1)],
        };
        using var document = PdfDocument.Open(Print(layout, 2));
        var picture = Assert.Single(document.GetPage(1).GetImages()).BoundingBox;
        Assert.Equal(high, picture.Height / PointsPerMillimetre, 0.1);
        Assert.Equal(wide, picture.Width / PointsPerMillimetre, 0.1);
        Assert.DoesNotContain("Linen", document.GetPage(1).GetWords().Where(w => w.BoundingBox.Bottom > 100).Select(w => w.Text));
    }

    [Theory]
    [InlineData("", "PNG or JPEG")]
    [InlineData("<svg/>", "PNG or JPEG")]
    [InlineData("GIF89a", "PNG or JPEG")]
    public void What_is_no_picture_is_refused_in_words(string content, string expected) =>
        Assert.Contains(expected, Picture.Problem(System.Text.Encoding.ASCII.GetBytes(content), "logo"));

    [Fact]
    public void A_press_prints_one_layout_with_pictures_after_another()
    {
        using var renderer = new DocumentRenderer();
        for (var i = 0; i < 12; i++)
        {
            // A layout that comes anew each time, as one being edited does, has its logo and its signature on the sheet.
            var layout = Layout.BuiltIn with
            {
                Parts =
                [
                    new LetterheadPart { Logo = Png(30, 10) },
                    .. Layout.BuiltIn.Parts.Skip(1),
                    new SignaturePart { Picture = Png(20, 10) },
                ],
            };
            using var document = PdfDocument.Open(
                Print(renderer, layout, [Row(1, 1)], new Customer { Key = "H014", Name = "Inn at Kell" })
            );
            Assert.Equal(2, document.GetPages().Sum(p => p.GetImages().Count()));
        }
    }

    [Fact]
    public void A_picture_that_is_cut_short_is_refused()
    {
        var whole = Png(300, 300, noise: true);
        Assert.Null(Picture.Problem(whole, "logo"));
        Assert.Contains("damaged", Picture.Problem(whole[..(whole.Length / 2)], "logo"));
    }

    [Theory]
    [InlineData(40)]
    [InlineData(75)]
    [InlineData(130)]
    public void The_sum_is_carried_from_each_page_to_the_next(int items)
    {
        var layout = With(new ItemsPart { Columns = ItemsPart.UsualColumns, CarryForward = true });
        using var document = PdfDocument.Open(Print(layout, items));
        var pages = document.GetPages().Select(p => Lines(p)).ToList();
        Assert.True(pages.Count > 1);
        for (var i = 1; i < pages.Count; i++)
        {
            var before = pages[i - 1].Single(l => l.StartsWith("Carried forward", StringComparison.Ordinal));
            var after = pages[i].Single(l => l.StartsWith("Brought forward", StringComparison.Ordinal));
            Assert.Equal(before.Split(' ')[^1], after.Split(' ')[^1]);
            var last = pages[i - 1].Last(l => l.StartsWith("T-", StringComparison.Ordinal));
            var n = int.Parse(last[2..6], System.Globalization.CultureInfo.InvariantCulture);
            Assert.Equal((n * (n + 1) / 2).ToString("N2", System.Globalization.CultureInfo.InvariantCulture), before.Split(' ')[^1]);
        }
    }

    [Fact]
    public void Emphasis_lists_and_links_of_a_text_come_through()
    {
        var text = new TextPart
        {
            Text =
                "<p>Please <strong>pay now</strong> at <a href=\"https://pay.example/x\">our page</a>.</p><ul><li>by "
                + "card</li><li>by transfer</li></ul>",
        };
        using var document = PdfDocument.Open(Print(Layout.BuiltIn with { Parts = [.. Layout.BuiltIn.Parts, text] }, 1));
        var page = document.GetPage(1);
        Assert.Contains("Please pay now at our page.", Lines(page));
        Assert.Contains("• by transfer", Lines(page));
        Assert.Contains("SemiBold", page.GetWords().Last(w => w.Text == "now").FontName);
        Assert.Contains("https://pay.example/x", page.GetHyperlinks().Select(h => h.Uri));
    }

    [Fact]
    public void Two_breaks_leave_a_line_empty()
    {
        var text = new TextPart { Text = "<p>Alpha<br>Beta<br><br>Gamma</p>" };
        using var document = PdfDocument.Open(Print(Layout.BuiltIn with { Parts = [text] }, 1));
        var words = document
            .GetPage(1)
            .GetWords()
            .Where(w => w.Text is "Alpha" or "Beta" or "Gamma")
            .ToDictionary(w => w.Text, w => w.Letters[0].StartBaseLine.Y);
        Assert.Equal(2 * (words["Alpha"] - words["Beta"]), words["Beta"] - words["Gamma"], 0.1);
    }

    public static TheoryData<string, int> EachLayout() =>
        [
            .. ReadyMade
                .All.Where(r => r.Language == "de")
                .Select(r => r.Layout.Name)
                .Append(Layout.BuiltIn.Name)
                .SelectMany(name => new[] { (name, 1), (name, 40) }),
        ];

    /// <summary>Hostile content in every place that a layout has.</summary>
    [Theory]
    [MemberData(nameof(EachLayout))]
    public void Nothing_is_lost_cut_or_laid_over_another_whatever_the_content(string name, int items)
    {
        var start = ReadyMade.All.FirstOrDefault(r => r.Layout.Name == name)?.Layout ?? Layout.BuiltIn;
        var hostile = new string('W', 200);
        var extra = new ExtraColumns(["Round", "Note"], ["<b>{{ x }}</b>", hostile]);
        var rows = Enumerable
            .Range(1, items)
            .Select(n => Row(n, 987_654_321_098_765.43m) with { Extra = extra, Reference = "فندق البحر 🏨" })
            .ToArray();
        var layout = start with
        {
            Parts =
            [
                .. start.Parts.Select(p =>
                    p is ItemsPart
                        ? new ItemsPart
                        {
                            Columns =
                            [
                                .. ItemsPart.UsualColumns,
                                new("reference"),
                                new("extra:Round", "A heading of many words", 20),
                                new("extra:Note"),
                            ],
                        }
                        : p
                ),
                new TextPart { Text = $"<p>To <span data-slot=\"customer.name\"></span>: {hostile}</p>" },
            ],
        };
        var customer = new Customer
        {
            Key = hostile,
            Name = hostile,
            PostalLines = [hostile],
            Salutation = hostile,
        };
        using var pdf = PdfDocument.Open(Print(layout, rows, customer));
        var document = Document(layout, rows, customer);
        var all = string.Concat(pdf.GetPages().SelectMany(p => p.Letters).Select(l => l.Value));
        var hasTable = layout.First<ItemsPart>() is not null;
        Assert.Equal(hasTable ? items : 0, Regex.Count(all, "T-[0-9]{4}"));
        var rowsWords = hasTable ? 0 : document.Sections.SelectMany(section => section.Rows).SelectMany(row => row).Sum(Ws);
        Assert.Equal(document.Words.Sum(Ws) - rowsWords, all.Count(c => c == 'W'));
        if (hasTable)
        {
            Assert.True(Regex.Count(all, "987,654,321,098,765.43") >= 2 * items);
        }

        foreach (var page in pdf.GetPages())
        {
            // Each letter lies on the sheet, and no figure reaches into the text beside it.
            Assert.All(page.Letters.Where(l => l.Value.Trim().Length > 0), l =>
                Assert.True(
                    l.BoundingBox.Left >= 0
                        && l.BoundingBox.Right <= page.Width + 0.5
                        && l.BoundingBox.Bottom >= 0
                        && l.BoundingBox.Top <= page.Height
                )
            );
            foreach (var line in page.GetWords().GroupBy(w => Math.Round(w.BoundingBox.Bottom)))
            {
                // The dots of Arabic letters are glyphs that stand over them: an Arabic text is one box.
                var boxes = line.GroupBy(w =>
                        w.FontName?.Contains("Arabic", StringComparison.Ordinal) == true ? "Arabic" : $"{w.Text} {w.BoundingBox.Left}"
                    )
                    .Select(g => (Text: g.Key, Left: g.Min(w => w.BoundingBox.Left), Right: g.Max(w => w.BoundingBox.Right)))
                    .OrderBy(b => b.Left)
                    .ToList();
                Assert.All(boxes.Zip(boxes.Skip(1)), pair =>
                    Assert.True(pair.First.Right <= pair.Second.Left + 1.5, $"“{pair.First.Text}” lies over “{pair.Second.Text}”")
                );
            }
        }

        static int Ws(string text) => text.Count(c => c == 'W');
    }

    [Theory]
    [InlineData(3)]
    [InlineData(27)]
    [InlineData(31)]
    [InlineData(33)]
    [InlineData(36)]
    public void A_slip_is_never_parted(int items)
    {
        var confirmation = ReadyMade.All.Single(r => r.Layout.Name == "Balance confirmation").Layout;
        using var document = PdfDocument.Open(
            Print(
                confirmation,
                [.. Enumerable.Range(1, items).Select(n => Row(n, n))],
                new Customer
                {
                    Key = "H014",
                    Name = "Inn at Kell",
                    Salutation = "Dear Ines",
                }
            )
        );
        var page = Assert.Single(document.GetPages(), p => Lines(p).Contains("Reply to Tarnbrook Linen Hire"));
        Assert.Contains("Date, name and signature", Lines(page));
        Assert.Equal(
            items,
            document.GetPages().SelectMany(p => p.GetWords()).Count(w => w.Text.StartsWith("T-", StringComparison.Ordinal))
        );
    }

    [Fact]
    public void Five_thousand_rows_stand_once_each_with_the_heading_on_every_page()
    {
        using var document = PdfDocument.Open(
            Print(
                With(
                    new ItemsPart
                    {
                        Columns = ItemsPart.UsualColumns,
                        CarryForward = true,
                        GroupBy = "kind",
                    }
                ),
                5_000
            )
        );
        var pages = document.GetPages().ToList();
        var numbers = pages
            .SelectMany(p => p.GetWords())
            .Select(w => w.Text)
            .Where(t => t.StartsWith("T-", StringComparison.Ordinal))
            .ToList();
        Assert.Equal(5_000, numbers.Distinct().Count());
        Assert.Equal(5_000, numbers.Count);
        Assert.All(pages.Take(pages.Count - 1), p => Assert.Contains("Number", p.GetWords().Select(w => w.Text)));
    }

    private static TextPart Text(string words) => new() { Text = $"<p>{words}</p>" };

    private static Layout With(ItemsPart items) =>
        Layout.BuiltIn with
        {
            Parts = [.. Layout.BuiltIn.Parts.Select(p => p is ItemsPart ? items : p)],
        };

    private static byte[] Png(int width, int height, bool noise = false)
    {
        using var bitmap = new SKBitmap(width, height);
        var chance = new Random(1);
        for (var x = 0; x < width; x++)
        {
            for (var y = 0; y < height; y++)
            {
                bitmap.SetPixel(x, y, noise ? new SKColor((uint)chance.Next() | 0xFF000000) : SKColors.Teal);
            }
        }

        using var data = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        return data.ToArray();
    }

    private static LedgerRow Row(int n, decimal amount) =>
        new()
        {
            Customer = "A",
            CustomerName = "A",
            Kind = ItemKind.Invoice,
            Number = $"T-{n:0000}",
            Date = new DateOnly(2026, 1, 1).AddDays(n),
            Due = new DateOnly(2026, 1, 31).AddDays(n),
            Currency = Currency.Of("GBP"),
            Original = amount,
            Open = amount,
            Source = new SourceRef("f", null, n),
        };

    private static byte[] Print(Layout layout, int items) =>
        Print(layout, [.. Enumerable.Range(1, items).Select(n => Row(n, n))], new Customer { Key = "H014", Name = "Inn at Kell" });

    private static byte[] Print(Layout layout, LedgerRow[] rows, Customer customer)
    {
        using var renderer = new DocumentRenderer();
        return Print(renderer, layout, rows, customer);
    }

    private static byte[] Print(DocumentRenderer renderer, Layout layout, LedgerRow[] rows, Customer customer)
    {
        Assert.Empty(LayoutReader.Read(layout).Errors);
        return renderer.Print(Document(layout, rows, customer), layout);
    }

    private static StatementDocument Document(Layout layout, LedgerRow[] rows, Customer customer)
    {
        Statement[] statements =
        [
            Statement.Of(
                "A",
                Currency.Of("GBP"),
                rows.Select(r => new OpenItem(r, r.Open)),
                new DateOnly(2026, 10, 31),
                AgeingRule.Default
            ),
        ];
        return StatementDocument.Of(
            customer,
            statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.Read(layout),
            ParcelSlots.Of(customer, statements, Tarnbrook, "Marta", new RoundIdentity("October"), null)
        );
    }

    private static List<string> Lines(UglyToad.PdfPig.Content.Page page) =>
        [
            .. page.GetWords()
                .GroupBy(w => Math.Round(w.Letters[0].StartBaseLine.Y))
                .OrderByDescending(g => g.Key)
                .Select(g => string.Join(' ', g.OrderBy(w => w.BoundingBox.Left).Select(w => w.Text))),
        ];
}
