using Rendal.Core.Layouts;
using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>A bar code as it is drawn: with narrow bars of 0.33 mm, or narrower where the sheet asks for it.</summary>
internal sealed class BarPicture
{
    /// <summary>How high the bars are, in points: 12 mm.</summary>
    public const float Height = 34;

    // ISO/IEC 15417 and 16388: ten modules stay white before and after the bars.
    private const int Quiet = 10;

    private readonly IReadOnlyList<float> widths;
    private readonly float module;

    /// <summary>Fits a code into so much room, in points.</summary>
    public BarPicture(BarCode code, float within)
    {
        widths = code.Widths();
        module = Math.Min(Sheets.Points(0.33m), within / (widths.Sum() + (2 * Quiet)));
    }

    /// <summary>Draws it, the first bar at the left edge; the margin of the sheet is white enough before it.</summary>
    public void Draw(Page page, float left, float top)
    {
        page.Fill(SKRect.Create(left - (Quiet * module), top, (widths.Sum() + (2 * Quiet)) * module, Height), SKColors.White);
        var x = left;
        for (var i = 0; i < widths.Count; i++)
        {
            if (i % 2 == 0)
            {
                page.Fill(SKRect.Create(x, top, widths[i] * module, Height), SKColors.Black);
            }

            x += widths[i] * module;
        }
    }
}
