using CsCheck;
using Rendal.Core.Tests;
using Rendal.Files.Enclosures;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;

namespace Rendal.Files.Tests.Enclosures;

/// <summary>PDFs that somebody gave in.</summary>
public sealed class PdfPagesTests
{
    [Fact]
    public void The_text_of_a_page_is_read_line_by_line_from_the_top()
    {
        using var pages = PdfPages.Open("a.pdf", Pdf("Invoice TL-1001\nHarbour View", "terms"));
        Assert.Equal((2, "Invoice TL-1001\nHarbour View", "terms"), (pages.Count, pages.Text(1), pages.Text(2)));
    }

    [Fact]
    public void A_part_has_its_pages_and_no_others_and_joined_ones_are_all_of_them_the_same_each_time()
    {
        using var pages = PdfPages.Open("a.pdf", Pdf("one", "two", "three"));
        var part = pages.Part("a.pdf", 2, 3);
        Assert.Equal(["two", "three"], Texts(part));
        Assert.DoesNotContain("one", System.Text.Encoding.Latin1.GetString(part), StringComparison.Ordinal);

        var joined = PdfPages.Join([("a.pdf", part), ("b.pdf", Pdf("four"))]);
        Assert.Equal(["two", "three", "four"], Texts(joined));
        Assert.Equal(joined, PdfPages.Join([("a.pdf", part), ("b.pdf", Pdf("four"))]));
    }

    [Fact]
    public void What_is_no_pdf_or_cut_short_is_refused_in_words()
    {
        var whole = Pdf("one");
        Assert.Contains("a.pdf is damaged", Refused(whole[..(whole.Length / 3)]), StringComparison.Ordinal);
        Assert.Contains("a.pdf is damaged", Refused("%PDF-1.7 and nothing else"u8.ToArray()), StringComparison.Ordinal);
    }

    [Fact]
    public void A_pdf_under_a_password_is_refused_in_words()
    {
        var locked = File.ReadAllBytes(Path.Combine(Repository.Root, "tests/Rendal.Files.Tests/Enclosures/locked.pdf"));
        Assert.Equal("a.pdf is under a password; save it without one and give it in again.", Refused(locked));
    }

    [Fact]
    public void A_page_that_unpacks_to_more_than_any_has_is_refused_before_it_is_unpacked()
    {
        using var packed = new MemoryStream();
        using (var zip = new System.IO.Compression.ZLibStream(packed, System.IO.Compression.CompressionLevel.Optimal, leaveOpen: true))
        {
            var blanks = new byte[1 << 20];
            Array.Fill(blanks, (byte)' ');
            for (var i = 0; i < 60; i++)
            {
                zip.Write(blanks);
            }
        }

        var bomb = Objects(
            "<</Type/Catalog/Pages 2 0 R>>",
            "<</Type/Pages/Count 1/Kids[3 0 R]>>",
            "<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents 4 0 R/Resources<<>>>>",
            $"<</Filter/FlateDecode/Length {packed.Length}>>stream\n{Latin1(packed.ToArray())}\nendstream"
        );
        using var pages = PdfPages.Open("bomb.pdf", bomb);
        Assert.Equal(
            "bomb.pdf has more than 50,000,000 bytes, which is the most that is worked through. Print it to PDF anew, or give it in in "
                + "several files.",
            Assert.Throws<FileRefused>(() => pages.Text(1)).Message
        );
    }

    [Theory]
    [InlineData(60, "/X Do /X Do", "6", "")]
    [InlineData(60, "/#58 Do /X %\n Do", "6", "")]
    [InlineData(2, "/X Do /X Do", "5", "")]
    [InlineData(5_000, "/X Do", "6", "")]
    [InlineData(3, "/X Do", "6", "Invoice TL-1001")]
    public void Forms_that_draw_each_other_are_read_as_long_as_that_has_an_end(int levels, string content, string first, string text)
    {
        // The first form draws the next one or itself, and that one the next.
        var forms = Enumerable
            .Range(0, levels)
            .Select(i =>
                $"<</Type/XObject/Subtype/Form/BBox[0 0 595 842]/Resources<</XObject<</X {(i == 0 ? first : $"{i + 6}")} 0 R>>>>"
                + $"/Length {content.Length}>>stream\n{content}\nendstream"
            );
        const string Words = "BT /F 11 Tf 1 0 0 1 60 700 Tm (Invoice TL-1001) Tj ET";
        var pdf = Objects([
            "<</Type/Catalog/Pages 2 0 R>>",
            "<</Type/Pages/Count 1/Kids[3 0 R]/Resources<</XObject<</X 5 0 R>>>>>>",
            "<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents[4 0 R]>>",
            "<</Length 5>>stream\n/X Do\nendstream",
            .. forms,
            "<</Type/XObject/Subtype/Form/BBox[0 0 595 842]/Resources<</Font<</F<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>>>>>"
                + $"/Length {Words.Length}>>stream\n{Words}\nendstream",
        ]);
        using var pages = PdfPages.Open("forms.pdf", pdf);
        Assert.Equal(text, pages.Text(1));
    }

    [Theory]
    [InlineData(9_999)]
    [InlineData(200_000)]
    public void Pages_below_each_other_as_if_without_an_end_are_read_or_refused(int levels)
    {
        var nodes = Enumerable.Range(3, levels).Select(i => $"<</Type/Pages/Count 1/Kids[{i} 0 R]>>");
        var pdf = Objects([
            "<</Type/Catalog/Pages 2 0 R>>",
            .. nodes,
            $"<</Type/Page/Parent {levels + 1} 0 R/MediaBox[0 0 595 842]/Resources<<>>>>",
        ]);
        try
        {
            using var pages = PdfPages.Open("deep.pdf", pdf);
            Assert.Equal("", pages.Text(1));
        }
        catch (FileRefused e)
        {
            Assert.Contains("deep.pdf", e.Message, StringComparison.Ordinal);
        }
    }

    [Theory]
    [InlineData("Kids", false)]
    [InlineData("K#69ds", false)]
    [InlineData("Kids", true)]
    [InlineData("#4bids", true)]
    public void However_they_are_written_or_packed_too_many_pages_below_each_other_are_refused(string kids, bool packed)
    {
        const int Levels = 150_000;
        var nodes = Enumerable.Range(3, Levels).Select(i => $"<</Type/Pages/Count 1/{kids}[{i} 0 R]>>");
        var last = $"<</Type/Page/Parent {Levels + 1} 0 R/MediaBox[0 0 595 842]/Resources<<>>>>";
        string[] all = ["<</Type/Catalog/Pages 2 0 R>>", .. nodes, last];
        var refused = Assert.Throws<FileRefused>(() => PdfPages.Open("deep.pdf", packed ? InAnObjectStream(all) : Objects(all)));
        Assert.Equal("deep.pdf is damaged or cut short; print it to PDF anew and give that in.", refused.Message);
    }

    [Fact]
    public void A_long_file_whose_pages_are_packed_is_read_and_parted_however_often_it_is_unpacked_for_that()
    {
        const int Nodes = 3_000;
        var below = Enumerable.Range(3, Nodes).Select(n => $"<</Type/Pages/Parent 2 0 R/Count 1/Kids[{n + Nodes} 0 R]>>");
        var leaves = Enumerable.Range(3, Nodes).Select(n => $"<</Type/Page/Parent {n} 0 R/MediaBox[0 0 9 9]/Resources<<>>>>");
        var kids = string.Join(' ', Enumerable.Range(3, Nodes).Select(n => $"{n} 0 R"));
        using var pages = PdfPages.Open(
            "long.pdf",
            InAnObjectStream(["<</Type/Catalog/Pages 2 0 R>>", $"<</Type/Pages/Count {Nodes}/Kids[{kids}]>>", .. below, .. leaves])
        );
        Assert.Equal(Nodes, pages.Count);
        foreach (var number in Enumerable.Range(1, 60).Select(n => n * Nodes / 60))
        {
            Assert.Equal("", pages.Text(number));
            using var part = PdfPages.Open("part.pdf", pages.Part("long.pdf", number, number));
            Assert.Equal(1, part.Count);
        }
    }

    [Fact]
    public void What_is_packed_as_objects_are_today_is_read()
    {
        string[] all =
        [
            "<</Type/Catalog/Pages 2 0 R>>",
            "<</Type/Pages/Count 1/Kids[3 0 R]>>",
            "<</Type/Page/Parent 2 0 R/MediaBox[0 0 1 1]>>",
        ];
        using var pages = PdfPages.Open("packed.pdf", InAnObjectStream(all));
        Assert.Equal(1, pages.Count);
    }

    [Fact]
    public void A_page_that_has_more_unpacked_than_any_has_is_refused_before_it_is_drawn()
    {
        var pdf = Objects(
            "<</Type/Catalog/Pages 2 0 R>>",
            "<</Type/Pages/Count 1/Kids[3 0 R]>>",
            "<</Type/Page/Parent 2 0 R/MediaBox[0 0 595 842]/Contents[4 0 R 4 0 R 4 0 R]/Resources<<>>>>",
            $"<</Length {20_000_000}>>stream\n{new string(' ', 20_000_000)}\nendstream"
        );
        using var pages = PdfPages.Open("raw.pdf", pdf);
        Assert.StartsWith(
            "raw.pdf has more than 50,000,000 bytes",
            Assert.Throws<FileRefused>(() => pages.Text(1)).Message,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_page_that_lies_too_deep_to_be_looked_at_before_is_not_drawn()
    {
        const int Levels = 100;
        const string DrawsItself = "/X Do /X Do";
        var nodes = Enumerable.Range(3, Levels).Select(i => $"<</Type/Pages/Count 1/Kids[{i} 0 R]>>");
        var form = $"{Levels + 4} 0 R";
        var pdf = Objects([
            "<</Type/Catalog/Pages 2 0 R>>",
            .. nodes,
            $"<</Type/Page/MediaBox[0 0 595 842]/Contents {Levels + 3} 0 R/Resources<</XObject<</X {form}>>>>>>",
            "<</Length 5>>stream\n/X Do\nendstream",
            $"<</Type/XObject/Subtype/Form/BBox[0 0 1 1]/Resources<</XObject<</X {Levels + 5} 0 R>>>>"
                + $"/Length {DrawsItself.Length}>>stream\n{DrawsItself}\nendstream",
            $"<</Type/XObject/Subtype/Form/BBox[0 0 1 1]/Resources<</XObject<</X {form}>>>>"
                + $"/Length {DrawsItself.Length}>>stream\n{DrawsItself}\nendstream",
        ]);
        using var pages = PdfPages.Open("deep.pdf", pdf);
        Assert.Equal("", pages.Text(1));
    }

    [Fact]
    public void Whatever_of_a_pdf_is_changed_it_is_read_or_refused()
    {
        var whole = Pdf("Invoice TL-1001", "page two");
        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte, Gen.Int[1, 40])
            .List[1, 6]
            .Sample(
                changes =>
                {
                    var bytes = whole.ToArray();
                    foreach (var (at, value, length) in changes)
                    {
                        bytes.AsSpan(at, Math.Min(length, bytes.Length - at)).Fill(value);
                    }

                    try
                    {
                        using var pages = PdfPages.Open("a.pdf", bytes);
                        for (var page = 1; page <= Math.Min(pages.Count, 5); page++)
                        {
                            pages.Text(page);
                        }

                        pages.Part("a.pdf", 1, 1);
                    }
                    catch (FileRefused e)
                    {
                        Assert.StartsWith("a.pdf ", e.Message, StringComparison.Ordinal);
                    }
                },
                iter: 400
            );
    }

    private static string Refused(byte[] bytes) =>
        Assert
            .Throws<FileRefused>(() =>
            {
                using var pages = PdfPages.Open("a.pdf", bytes);
                pages.Part("a.pdf", 1, pages.Count);
            })
            .Message;

    private static IEnumerable<string> Texts(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return [.. document.GetPages().Select(p => p.Text)];
    }

    private static byte[] Pdf(params string[] pages)
    {
        using var builder = new PdfDocumentBuilder();
        var font = builder.AddStandard14Font(Standard14Font.Helvetica);
        foreach (var text in pages)
        {
            var page = builder.AddPage(PageSize.A4);
            foreach (var (line, at) in text.Split('\n').Select((line, at) => (line, at)))
            {
                page.AddText(line, 11, new PdfPoint(60, 780 - (20 * at)), font);
            }
        }

        return builder.Build();
    }

    /// <summary>A PDF of objects, numbered from 1, of which the first is the catalogue.</summary>
    private static byte[] Objects(params IReadOnlyList<string> objects)
    {
        var file = new System.Text.StringBuilder("%PDF-1.4\n");
        var places = new List<int>();
        foreach (var (i, content) in objects.Index())
        {
            places.Add(file.Length);
            file.Append(System.Globalization.CultureInfo.InvariantCulture, $"{i + 1} 0 obj{content}\nendobj\n");
        }

        var table = string.Concat(places.Select(at => FormattableString.Invariant($"{at:0000000000} 00000 n \n")));
        return System.Text.Encoding.Latin1.GetBytes(
            FormattableString.Invariant(
                $"{file}xref\n0 {objects.Count + 1}\n0000000000 65535 f \n{table}trailer<</Size {objects.Count + 1}/Root 1 0 R>>"
            ) + FormattableString.Invariant($"\nstartxref\n{file.Length}\n%%EOF")
        );
    }

    /// <summary>The same with all objects packed into one stream (ISO 32000-1, 7.5.7), found by a stream of references.</summary>
    private static byte[] InAnObjectStream(IReadOnlyList<string> objects)
    {
        var places = new System.Text.StringBuilder();
        var content = new System.Text.StringBuilder();
        foreach (var (i, text) in objects.Index())
        {
            places.Append(System.Globalization.CultureInfo.InvariantCulture, $"{i + 1} {content.Length} ");
            content.Append(text).Append('\n');
        }

        using var packed = new MemoryStream();
        using (var zip = new System.IO.Compression.ZLibStream(packed, System.IO.Compression.CompressionLevel.Optimal, leaveOpen: true))
        {
            zip.Write(System.Text.Encoding.Latin1.GetBytes($"{places}{content}"));
        }

        var (stream, references) = (objects.Count + 1, objects.Count + 2);
        var file = new System.Text.StringBuilder("%PDF-1.5\n");
        var streamAt = file.Length;
        file.Append(
            FormattableString.Invariant(
                $"{stream} 0 obj<</Type/ObjStm/N {objects.Count}/First {places.Length}/Filter/FlateDecode/Length {packed.Length}>>stream\n"
            ) + $"{Latin1(packed.ToArray())}\nendstream\nendobj\n"
        );
        var referencesAt = file.Length;
        var entries = string.Concat([
            Entry(0, 0, 0),
            .. objects.Select((_, i) => Entry(2, stream, i)),
            Entry(1, streamAt, 0),
            Entry(1, referencesAt, 0),
        ]);
        file.Append(
            FormattableString.Invariant(
                $"{references} 0 obj<</Type/XRef/Size {references + 1}/W[1 4 4]/Root 1 0 R/Length {entries.Length}>>stream\n"
            )
                + $"{entries}\nendstream\nendobj\n"
                + FormattableString.Invariant($"startxref\n{referencesAt}\n%%EOF")
        );
        return System.Text.Encoding.Latin1.GetBytes(file.ToString());

        static string Entry(byte kind, int first, int second)
        {
            var bytes = new byte[9];
            bytes[0] = kind;
            System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(1), first);
            System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(5), second);
            return Latin1(bytes);
        }
    }

    private static string Latin1(byte[] bytes) => System.Text.Encoding.Latin1.GetString(bytes);
}
