using System.Text;
using Rendal.Core.Budgets;
using Rendal.Core.Layouts;
using Rendal.Files.Docx;
using Rendal.Files.Post;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>
/// Prints statements as PDF. One renderer serves one thread and is kept for a whole round, because the fonts are reduced to the glyphs in
/// use only when new ones come up.
/// </summary>
public sealed class DocumentRenderer : IDisposable
{
    // Pictures kept from one document to the next; more are let go before one is begun, never while it is drawn.
    private const int MostPictures = 4;

    private readonly OtherScripts others = new();
    private readonly Dictionary<string, Font> fonts = new(StringComparer.Ordinal);
    private readonly Dictionary<byte[], SKImage> pictures = new(ReferenceEqualityComparer.Instance);

    /// <summary>What keeps a layout from being printed by, its pictures and its letter looked into as well; null for nothing.</summary>
    public static string? Problem(LayoutTemplate template) =>
        template.Errors.Count > 0 ? template.Errors[0]
        : template.Layout.Letter is { } letter
            ? DocxInspection.At(letter.Bytes).Problems is [var problem, ..] ? problem
                : (template.Layout.Forms.Contains(DocumentForm.Pdf) && WordProcessor.Program is null ? WordProcessor.Missing : null)
        : template.Layout.First<LetterheadPart>()?.Logo is { } logo && Picture.Problem(logo, "logo") is { } bad ? bad
        : template.Layout.First<SignaturePart>()?.Picture is { } signature ? Picture.Problem(signature, "picture of the signature")
        : null;

    /// <summary>
    /// The first character of a document that no font has, so that it would be an empty box; null where all can be printed.
    /// </summary>
    public static string? Unprintable(StatementDocument document)
    {
        foreach (var text in document.Words)
        {
            if (!Ascii.IsValid(text) && text.EnumerateRunes().FirstOrDefault(r => !OtherScripts.CanPrint(r)) is { Value: > 0 } lacking)
            {
                return lacking.ToString();
            }
        }

        return null;
    }

    /// <summary>
    /// Prints one customer's statement. The text can be selected and searched word by word; the document is marked PDF/A-2b.
    /// </summary>
    /// <param name="document">What stands on it.</param>
    /// <param name="layout">How it looks.</param>
    /// <param name="cancel">Whoever asked for it has gone.</param>
    /// <exception cref="InvalidDataException">A picture of the layout cannot be drawn; <see cref="Picture.Problem"/> says so
    /// beforehand.</exception>
    /// <exception cref="OverBudget">It takes more pages or time than <see cref="Limits.Document"/> says. The renderer can be used
    /// on.</exception>
    public byte[] Print(StatementDocument document, Layout layout, CancellationToken cancel = default) =>
        Printed(
            $"{document.Title} – {document.AddressLines[0]}",
            document.Firm.Name,
            document.Language,
            Set(document, layout, TimedBudget.Begin("The document", Limits.Document, cancel)).Draw
        );

    /// <summary>
    /// Where on the pages of a statement stands what was taken from somewhere, in the order in which it is set; nothing for a letter of a
    /// word processor, whose pages another program sets.
    /// </summary>
    /// <param name="document">What stands on it.</param>
    /// <param name="layout">How it looks.</param>
    /// <param name="cancel">Whoever asked for it has gone.</param>
    /// <returns>The places, and how large each page is in points.</returns>
    /// <exception cref="OverBudget">It takes more pages or time than <see cref="Limits.Document"/> says.</exception>
    public (IReadOnlyList<PlacedOrigin> Places, SKSize Page) Places(
        StatementDocument document,
        Layout layout,
        CancellationToken cancel = default
    )
    {
        if (layout.Letter is not null)
        {
            return ([], new SKSize(1, 1));
        }

        var places = new List<PlacedOrigin>();
        var pages = Set(document, layout, TimedBudget.Begin("The document", Limits.Document, cancel), places);
        return (places, pages.Size);
    }

    /// <summary>Prints the list of what is in a bundle for the post, in English as the interface is.</summary>
    /// <param name="list">What stands on it.</param>
    public byte[] Print(PostList list) =>
        Printed(list.Title, "", "en", new PostListPages(list, FacesOf(Layout.BuiltIn), new Budget("The list", Limits.Document)).Draw);

    /// <summary>One page with nothing on it, as large as given in points.</summary>
    public static byte[] Empty(float width, float height) => Printed("", "", "en", document =>
        {
            using var canvas = document.BeginPage(width, height);
            document.EndPage();
        });

    /// <inheritdoc/>
    public void Dispose()
    {
        fonts.Values.ToList().ForEach(font => font.Dispose());
        pictures.Values.ToList().ForEach(picture => picture.Dispose());
        others.Dispose();
    }

    private static byte[] Printed(string title, string author, string language, Action<SKDocument> draw)
    {
        var metadata = new SKDocumentPdfMetadata
        {
            Title = title,
            Author = author,
            Creator = "Rendal",
            PdfA = true,
            RasterDpi = 300,
            EncodingQuality = 101,
        };
        using var stream = new MemoryStream();
        using (var document = SKDocument.CreatePdf(stream, metadata))
        {
            draw(document);
            document.Close();
        }

        return SpokenLanguage.Say(DocumentIdentifier.FromContent(stream.ToArray()), language);
    }

    private StatementPages Set(StatementDocument document, Layout layout, Budget budget, List<PlacedOrigin>? places = null)
    {
        if (pictures.Count > MostPictures)
        {
            pictures.Values.ToList().ForEach(picture => picture.Dispose());
            pictures.Clear();
        }

        return new StatementPages(
            document,
            layout,
            FacesOf(layout),
            PictureOf(layout.First<LetterheadPart>()?.Logo),
            PictureOf(layout.First<SignaturePart>()?.Picture),
            budget,
            places
        );
    }

    private FontSet FacesOf(Layout layout)
    {
        const string sans = "SourceSans3-Regular.ttf",
            strongSans = "SourceSans3-SemiBold.ttf",
            serif = "SourceSerif4-Regular.ttf",
            strongSerif = "SourceSerif4-SemiBold.ttf";
        return layout.Faces switch
        {
            FontFamily.Sans => new FontSet(FaceOf(sans, true), FaceOf(strongSans, true), FaceOf(strongSans, true)),
            FontFamily.Serif => new FontSet(FaceOf(serif, true), FaceOf(strongSerif, true), FaceOf(strongSerif, true)),
            _ => new FontSet(FaceOf(sans, true), FaceOf(strongSans, true), FaceOf(strongSerif, false)),
        };
    }

    private Font FaceOf(string resource, bool forText)
    {
        if (!fonts.TryGetValue(resource, out var font))
        {
            fonts.Add(resource, font = new Font(resource, others, forText));
        }

        return font;
    }

    /// <summary>A picture of a layout, unpacked once as long as few others are met. It stays until the document is drawn.</summary>
    private SKImage? PictureOf(byte[]? bytes)
    {
        if (bytes is null)
        {
            return null;
        }

        if (!pictures.TryGetValue(bytes, out var picture))
        {
            pictures.Add(
                bytes,
                picture = SKImage.FromEncodedData(bytes) ?? throw new InvalidDataException("A picture of the layout cannot be drawn.")
            );
        }

        return picture;
    }
}
