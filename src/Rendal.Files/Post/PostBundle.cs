using Rendal.Files.Pdf;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Writer;

namespace Rendal.Files.Post;

/// <summary>All letters of a round in one PDF that can be printed as it is, with a list of what is in it on top.</summary>
public static class PostBundle
{
    /// <summary>Writes it.</summary>
    /// <param name="output">Where it goes.</param>
    /// <param name="title">What it is called on the list: the round's name.</param>
    /// <param name="pieces">The letters, in any order; they are put in that of <see cref="PostPiece.InOrder"/>.</param>
    /// <param name="bothSides">Whether paper is printed on both sides: each letter, and the list, then begins on an odd page, with an
    /// empty page before it where needed.</param>
    /// <param name="ownCountry">The firm's own country, whose letters come first; empty where it is not known.</param>
    /// <exception cref="ArgumentException">There is no letter.</exception>
    public static void Write(Stream output, string title, IEnumerable<PostPiece> pieces, bool bothSides, string ownCountry = "")
    {
        var ordered = PostPiece.InOrder(pieces, ownCountry);
        if (ordered.Count == 0)
        {
            throw new ArgumentException("There is no letter for the post.", nameof(pieces));
        }

        using var bundle = new PdfDocumentBuilder(output);
        var lines = new List<PostListLine>();
        var counts = ordered.Select(piece => Pages(piece.Pdf)).ToList();
        foreach (var (piece, pages) in ordered.Zip(counts))
        {
            lines.Add(new PostListLine(piece, pages, bothSides ? (pages + 1) / 2 : pages));
        }

        using var renderer = new DocumentRenderer();
        Add(bundle, renderer.Print(new PostList(title, lines)), bothSides);
        ordered.ToList().ForEach(piece => Add(bundle, piece.Pdf, bothSides));
    }

    private static int Pages(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return document.NumberOfPages;
    }

    private static void Add(PdfDocumentBuilder bundle, byte[] pdf, bool bothSides)
    {
        using var document = PdfDocument.Open(pdf);
        for (var number = 1; number <= document.NumberOfPages; number++)
        {
            bundle.AddPage(document, number);
        }

        if (bothSides && document.NumberOfPages % 2 == 1)
        {
            var last = document.GetPage(document.NumberOfPages);
            using var empty = PdfDocument.Open(DocumentRenderer.Empty((float)last.Width, (float)last.Height));
            bundle.AddPage(empty, 1);
        }
    }
}
