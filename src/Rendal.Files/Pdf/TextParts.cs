using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>Texts, the slip to tear off, and the signature.</summary>
internal sealed class TextParts(Sheets sheets, FontSet fonts, SKColor accent)
{
    /// <summary>A text with the space after it.</summary>
    public void Text(IReadOnlyList<TextParagraph> text)
    {
        foreach (var paragraph in text)
        {
            Paragraph(paragraph);
        }

        sheets.Y += 6 * sheets.Scale;
    }

    private void Paragraph(TextParagraph paragraph)
    {
        var size = 9.5f * sheets.Scale;
        var indent = paragraph.Mark.Length > 0 ? 14 * sheets.Scale : 0;
        var mark = paragraph.Mark;
        foreach (var line in Lines.Of(paragraph, fonts.Regular, fonts.Strong, size, sheets.Right - sheets.Left - indent))
        {
            sheets.Room(sheets.LineHeight);
            if (mark.Length > 0)
            {
                sheets.Text(fonts.Regular, size, mark, sheets.Left, sheets.Y + (8 * sheets.Scale), Palette.First);
                mark = "";
            }

            var x = sheets.Left + indent;
            foreach (var (text, isStrong, link) in line)
            {
                var font = isStrong ? fonts.Strong : fonts.Regular;
                sheets.Text(font, size, text, x, sheets.Y + (8 * sheets.Scale), link is null ? Palette.First : accent);
                var wide = font.Set(text).Width * size;
                if (link is not null)
                {
                    var area = SKRect.Create(x, sheets.Y, wide, sheets.LineHeight);
                    sheets.Add(page => page.Link(area, link));
                }

                x += wide;
            }

            sheets.Y += sheets.LineHeight;
        }

        sheets.Y += paragraph.Mark.Length > 0 ? 1 : 5 * sheets.Scale;
    }

    /// <summary>The line to cut along, and what is under it in one piece; only a slip that is longer than a page goes over.</summary>
    public void Slip(IReadOnlyList<TextParagraph> text)
    {
        var high = text.Sum(p =>
            (
                Lines
                    .Of(
                        p,
                        fonts.Regular,
                        fonts.Strong,
                        9.5f * sheets.Scale,
                        sheets.Right - sheets.Left - (p.Mark.Length > 0 ? 14 * sheets.Scale : 0)
                    )
                    .Count * sheets.LineHeight
            ) + (5 * sheets.Scale)
        );
        var page = sheets.Count;
        sheets.Room(high + 26);
        sheets.Y += sheets.Count > page ? 0 : 14;
        var cut = sheets.Y;
        sheets.Add(p => p.Dashes(sheets.Left, cut, sheets.Right, Palette.Second));
        sheets.Y += 12;
        foreach (var paragraph in text)
        {
            Paragraph(paragraph);
        }
    }

    /// <summary>A picture of a signature, or as much room to sign by hand.</summary>
    public void Signature(SignaturePart part, SKImage? picture)
    {
        var high = Sheets.Points(part.Height);
        sheets.Room(high + 6);
        if (picture is not null)
        {
            var fit = Math.Min(high, (sheets.Right - sheets.Left) * picture.Height / picture.Width);
            var area = SKRect.Create(sheets.Left, sheets.Y, fit * picture.Width / picture.Height, fit);
            sheets.Add(page => page.Picture(picture, area));
        }

        sheets.Y += high + 6;
    }
}
