using CsCheck;
using Rendal.Files.Post;
using SkiaSharp;
using UglyToad.PdfPig;

namespace Rendal.Files.Tests.Post;

public class PostBundleTests
{
    private static readonly SKTypeface Font = SKTypeface.FromStream(
        typeof(PostBundle).Assembly.GetManifestResourceStream("SourceSans3-Regular.ttf")
    );

    [Fact]
    public void Letters_go_in_the_order_of_country_and_postcode_the_own_country_first()
    {
        PostPiece[] pieces =
        [
            Piece("C", "Germany", "24937 Flensburg"),
            Piece("A", "", "Kelby KB2 4RT"),
            Piece("D", "France", "62200 Boulogne"),
            Piece("B", "", "Kelby KB1 2LH"),
            Piece("E", "Germany", "01067 Dresden"),
        ];
        Assert.Equal(["B", "A", "D", "E", "C"], PostPiece.InOrder(pieces).Select(p => p.Customer));
    }

    [Fact]
    public void A_country_is_one_however_it_is_written_and_the_firms_own_comes_first_by_name_too()
    {
        PostPiece[] pieces =
        [
            Piece("A", "Germany", "24937 Flensburg"),
            Piece("B", "", "Kelby KB2 4RT"),
            Piece("C", "Deutschland", "01067 Dresden"),
            Piece("D", "DE", "10115 Berlin"),
            Piece("E", "United Kingdom", "Kelby KB1 2LH"),
            Piece("F", "France", "62200 Boulogne"),
        ];
        Assert.Equal(["E", "B", "F", "C", "D", "A"], PostPiece.InOrder(pieces, "GB").Select(p => p.Customer));
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Every_letter_is_there_whole_and_once_and_on_both_sides_begins_on_an_odd_page(bool bothSides) =>
        Gen.Int[1, 4]
            .Array[1, 12]
            .Sample(
                counts =>
                {
                    var pieces = counts.Select((pages, i) => Piece($"K{i:00}", "", $"Kelby KB{i % 7} 1AA", pages)).ToList();
                    var pages = Bundle(pieces, bothSides);
                    var expected = PostPiece
                        .InOrder(pieces)
                        .SelectMany(p =>
                            Enumerable
                                .Range(1, counts[int.Parse(p.Customer[1..], System.Globalization.CultureInfo.InvariantCulture)])
                                .Select(n => $"letter {p.Customer} page {n}")
                        );
                    Assert.Equal(expected, pages.Where(p => p.StartsWith("letter", StringComparison.Ordinal)));
                    if (bothSides)
                    {
                        Assert.All(pages.Index().Where(p => p.Item.EndsWith("page 1", StringComparison.Ordinal)), p =>
                            Assert.Equal(0, p.Index % 2)
                        );
                        Assert.Equal(0, pages.Count % 2);
                    }
                    else
                    {
                        Assert.DoesNotContain("", pages);
                    }
                },
                iter: 8
            );

    [Fact]
    public void The_list_names_every_letter_with_its_pages_and_sheets_over_as_many_pages_as_it_needs()
    {
        var pieces = Enumerable
            .Range(1, 130)
            .Select(i => Piece($"K{i:000}", i % 2 == 0 ? "" : "Germany", $"Kelby KB{i % 9} 1AA", i % 3 + 1))
            .ToList();
        var list = Bundle(pieces, true)
            .TakeWhile(p => !p.StartsWith("letter", StringComparison.Ordinal))
            .Where(p => p.Length > 0)
            .ToList();
        Assert.True(list.Count > 1);
        Assert.Contains("130 letters, 260 pages on 173 sheets, without this list", list[0]);
        Assert.All(list, (page, i) => Assert.Contains($"List, page {i + 1} of {list.Count}", page));
        Assert.All(list, page => Assert.Contains("Sheets", page));
        var words = list.SelectMany(p => p.Split(' ')).ToList();
        Assert.Equal(pieces.Select(p => p.Customer).Order(), words.Where(w => w.Length == 4 && w[0] == 'K' && w[1] != 'B').Order());
    }

    [Fact]
    public void Nothing_for_the_post_makes_no_bundle() =>
        Assert.Throws<ArgumentException>(() => PostBundle.Write(Stream.Null, "October", [], false));

    private static List<string> Bundle(IEnumerable<PostPiece> pieces, bool bothSides)
    {
        using var stream = new MemoryStream();
        PostBundle.Write(stream, "October", pieces, bothSides);
        using var document = PdfDocument.Open(stream.ToArray());
        return [.. document.GetPages().Select(p => string.Join(' ', p.GetWords()))];
    }

    private static PostPiece Piece(string customer, string country, string town, int pages = 1)
    {
        using var stream = new MemoryStream();
        using (var document = SKDocument.CreatePdf(stream))
        using (var font = new SKFont(Font, 12))
        using (var paint = new SKPaint())
        {
            for (var page = 1; page <= pages; page++)
            {
                document.BeginPage(595, 842).DrawText($"letter {customer} page {page}", 50, 50, SKTextAlign.Left, font, paint);
                document.EndPage();
            }

            document.Close();
        }

        return new PostPiece(customer, "The Inn", ["1 Mill Lane", town], country, stream.ToArray());
    }
}
