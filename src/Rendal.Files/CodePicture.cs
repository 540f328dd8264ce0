using QRCoder;
using Rendal.Core.Layouts;
using Rendal.Files.Pdf;

namespace Rendal.Files;

/// <summary>The picture of a code that is scanned to pay: a QR code (ISO/IEC 18004, error correction M) as PNG.</summary>
public static class CodePicture
{
    /// <summary>
    /// More than the bytes of any: the largest code of a transfer has 77 squares a side, that of a link of 500 letters 93.
    /// </summary>
    public const int Largest = 6_000;

    // The smallest codes have 33 squares a side, and are shown 168 points wide: none is enlarged, and most have more for fine screens.
    private const int PointsOfASquare = 8;

    /// <summary>Draws a code black on white, with its white edge. The same code gives the same bytes.</summary>
    public static byte[] Png(PaymentCode code)
    {
        using var squares = QrPicture.Squares(code);
        using var png = new PngByteQRCode(squares);
        return png.GetGraphic(PointsOfASquare);
    }
}
