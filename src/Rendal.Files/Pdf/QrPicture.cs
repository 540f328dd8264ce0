using System.Collections;
using QRCoder;
using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>A code that is scanned to pay, as a QR code (ISO/IEC 18004, error correction M).</summary>
internal sealed class QrPicture
{
    /// <summary>The side of the code with its white edge, in millimetres.</summary>
    public const decimal Side = 28;

    private readonly List<BitArray> rows;

    /// <summary>The QR code of a code, to be drawn on a page.</summary>
    public QrPicture(PaymentCode code)
    {
        using var squares = Squares(code);
        rows = squares.ModuleMatrix;
    }

    /// <summary>The squares of a code, with its white edge.</summary>
    public static QRCodeData Squares(PaymentCode code) =>
        QRCodeGenerator.GenerateQrCode(
            code.Transfer is { } transfer ? SepaCode.Text(transfer) : code.Link,
            QRCodeGenerator.ECCLevel.M,
            forceUtf8: true
        );

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
