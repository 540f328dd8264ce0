using System.Collections;
using QRCoder;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>A text as a QR code (ISO/IEC 18004, error correction M).</summary>
internal sealed class QrPicture
{
    /// <summary>The side of the code with its white edge, in millimetres.</summary>
    public const decimal Side = 28;

    private readonly List<BitArray> rows;

    /// <summary>A QR code of a text (ISO/IEC 18004).</summary>
    public QrPicture(string text)
    {
        using var code = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M, forceUtf8: true);
        rows = code.ModuleMatrix;
    }

    /// <summary>Draws it black on white; dark squares that follow each other in a row are drawn as one.</summary>
    public void Draw(Page page, SKRect area)
    {
        page.Fill(area, SKColors.White);
        var module = area.Width / rows.Count;
        for (var r = 0; r < rows.Count; r++)
        {
            for (var c = 0; c < rows.Count; )
            {
                var start = c;
                while (c < rows.Count && rows[r][c])
                {
                    c++;
                }

                if (c > start)
                {
                    page.Fill(
                        SKRect.Create(area.Left + (start * module), area.Top + (r * module), (c - start) * module, module),
                        SKColors.Black
                    );
                }
                else
                {
                    c++;
                }
            }
        }
    }
}
