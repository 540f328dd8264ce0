using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>How to pay: the firm's lines, a link, and codes for banking apps, telephones and scanners.</summary>
internal sealed class PaymentParts(Sheets sheets, StatementDocument document, FontSet fonts, SKColor accent)
{
    private const float CaptionSize = 6.5f;
    private const float Between = 14;

    private (int Sheet, float Y)? end;

    /// <summary>Whether it is all that stands on the last of several pages.</summary>
    public bool StandsAlone => end == (sheets.Count, sheets.Y);

    private float TextSize => 9.5f * sheets.Scale;

    private float BarCodeHigh => HasBarCode ? BarPicture.Height + 18 : 0;

    private bool HasBarCode => document.BarCode is { } code && Core.Layouts.BarCode.Problem(code.Kind, code.Text) is null;

    /// <summary>The lines and the codes, which stay together.</summary>
    public void HowToPay()
    {
        var before = sheets.Count;
        Lay();
        end = sheets.Count > before ? (sheets.Count, sheets.Y) : null;
    }

    private void Lay()
    {
        var codes = PaymentCode.Of(document).Select(c => (Code: new QrPicture(c.Code), c.Caption)).ToList();
        var side = Sheets.Points(QrPicture.Side);
        var captions = codes.ConvertAll(c => Lines.Wrapped(fonts.Regular, CaptionSize, c.Caption, side));
        var codesHigh = codes.Count == 0 ? 0 : side + (captions.Max(c => c.Count) * 8);
        var lines = document
            .Firm.PaymentLines.SelectMany(l =>
                Lines.Wrapped(fonts.Regular, TextSize, l, sheets.Right - sheets.Left - (codes.Count * (side + Between)))
            )
            .ToList();
        if (lines.Count + codes.Count > 0)
        {
            sheets.Room(Math.Max((lines.Count + (document.PayLink is null ? 1 : 2)) * sheets.LineHeight, codesHigh) + 8 + BarCodeHigh);
            var under = sheets.Y + codesHigh;
            for (var i = 0; i < codes.Count; i++)
            {
                Code(codes[i].Code, captions[i], SKRect.Create(sheets.Right - ((i + 1) * side) - (i * Between), sheets.Y, side, side));
            }

            sheets.Text(fonts.Strong, TextSize, document.HowToPay, sheets.Left, sheets.Y + (8 * sheets.Scale), accent);
            sheets.Y += sheets.LineHeight + 2;
            foreach (var line in lines)
            {
                sheets.Text(fonts.Regular, TextSize, line, sheets.Left, sheets.Y + (8 * sheets.Scale), Palette.First);
                sheets.Y += sheets.LineHeight;
            }

            Link();
            sheets.Y = Math.Max(sheets.Y, under) + 6;
        }

        BarCode();
    }

    private void Code(QrPicture code, IReadOnlyList<string> caption, SKRect area)
    {
        sheets.Add(page => code.Draw(page, area));
        for (var l = 0; l < caption.Count; l++)
        {
            sheets.Text(
                fonts.Regular,
                CaptionSize,
                caption[l],
                area.MidX - (fonts.Regular.Set(caption[l]).Width * CaptionSize / 2),
                area.Bottom + 4 + (l * 8),
                Palette.Second
            );
        }
    }

    /// <summary>The link by the name of its site; the whole address, which may be long, is behind it.</summary>
    private void Link()
    {
        if (document.PayLink is not { } link)
        {
            return;
        }

        var site = new Uri(link).Host;
        var x = sheets.Left + (fonts.Regular.Set(document.PayWords.Online + " ").Width * TextSize);
        sheets.Text(fonts.Regular, TextSize, document.PayWords.Online, sheets.Left, sheets.Y + (8 * sheets.Scale), Palette.First);
        sheets.Text(fonts.Regular, TextSize, site, x, sheets.Y + (8 * sheets.Scale), accent);
        var area = SKRect.Create(x, sheets.Y, fonts.Regular.Set(site).Width * TextSize, sheets.LineHeight);
        sheets.Add(page => page.Link(area, link));
        sheets.Y += sheets.LineHeight;
    }

    private void BarCode()
    {
        if (!HasBarCode || document.BarCode is not { } code)
        {
            return;
        }

        var picture = new BarPicture(code, sheets.Right - sheets.Left);
        sheets.Room(BarPicture.Height + 16);
        var (left, top) = (sheets.Left, sheets.Y);
        sheets.Add(page => picture.Draw(page, left, top));
        sheets.Text(fonts.Regular, 8, code.Text, sheets.Left, sheets.Y + BarPicture.Height + 9, Palette.First);
        sheets.Y += BarPicture.Height + 18;
    }
}
