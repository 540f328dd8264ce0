using System.Text;
using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>
/// Prints statements as PDF. One press serves one thread and is kept for a whole round, because the faces are reduced
/// to the glyphs in use only when new ones come up.
/// </summary>
public sealed class Press : IDisposable
{
    private readonly OtherScripts others = new();
    private readonly Face regular;
    private readonly Face strong;
    private readonly Face heading;
    private byte[]? logoBytes;
    private SKImage? logo;

    /// <summary>Makes a press ready.</summary>
    public Press() =>
        (regular, strong, heading) = (new("SourceSans3-Regular.ttf", others, forText: true), new("SourceSans3-SemiBold.ttf", others, forText: true), new("SourceSerif4-SemiBold.ttf", others, forText: false));

    /// <summary>What keeps a layout from being printed by, its logo looked into as well; null for nothing.</summary>
    public static string? Problem(LayoutTemplate template) =>
        template.Errors.Count > 0 ? template.Errors[0] : template.Layout.First<LetterheadPart>()?.Logo is { } logo ? Picture.Problem(logo) : null;

    /// <summary>The first character of a paper that no face has, so that it would be an empty box; null where all can be printed.</summary>
    public static string? Unprintable(StatementPaper paper)
    {
        foreach (var text in paper.Words)
        {
            if (!Ascii.IsValid(text) && text.EnumerateRunes().FirstOrDefault(r => !OtherScripts.CanPrint(r)) is { Value: > 0 } lacking)
            {
                return lacking.ToString();
            }
        }

        return null;
    }

    /// <summary>Prints one customer's statement. The text can be selected and searched word by word; the document is marked PDF/A-2b.</summary>
    /// <param name="paper">What stands on it.</param>
    /// <param name="layout">How it looks.</param>
    /// <exception cref="InvalidDataException">The logo is no picture that can be drawn; <see cref="Picture.Problem"/> says so beforehand.</exception>
    public byte[] Print(StatementPaper paper, Layout layout)
    {
        var pages = new StatementPages(paper, layout, new Faces(regular, strong, heading), LogoOf(layout));
        var metadata = new SKDocumentPdfMetadata
        {
            Title = $"{paper.Title} – {paper.AddressLines[0]}",
            Author = paper.Firm.Name,
            Creator = "Rendal",
            PdfA = true,
            RasterDpi = 300,
            EncodingQuality = 101,
        };
        using var stream = new MemoryStream();
        using (var document = SKDocument.CreatePdf(stream, metadata))
        {
            pages.Draw(document);
            document.Close();
        }

        return SpokenLanguage.Say(stream.ToArray(), paper.Language);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        regular.Dispose();
        strong.Dispose();
        heading.Dispose();
        others.Dispose();
        logo?.Dispose();
    }

    /// <summary>The logo of a layout, unpacked once as long as it stays the same.</summary>
    private SKImage? LogoOf(Layout layout)
    {
        var bytes = layout.First<LetterheadPart>()?.Logo;
        if (bytes != logoBytes)
        {
            logo?.Dispose();
            (logo, logoBytes) = (bytes is null ? null : SKImage.FromEncodedData(bytes) ?? throw new InvalidDataException("The logo is no picture that can be drawn."), bytes);
        }

        return logo;
    }
}
