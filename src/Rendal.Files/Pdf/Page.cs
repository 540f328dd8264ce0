using SkiaSharp;

namespace Rendal.Files.Pdf;

/// <summary>One sheet while it is drawn on. Measures are points of 1/72 inch from the upper left corner.</summary>
internal sealed class Page(SKCanvas canvas)
{
    /// <summary>Writes text from a place on, on a baseline; nothing where it is empty.</summary>
    public void Text(Font font, float size, string text, float x, float baseline, SKColor ink)
    {
        if (text.Length > 0)
        {
            Draw(size, font.Set(text), x, baseline, ink);
        }
    }

    /// <summary>Writes text that ends at a place.</summary>
    public void TextRight(Font font, float size, string text, float right, float baseline, SKColor ink)
    {
        if (text.Length > 0)
        {
            var set = font.Set(text);
            Draw(size, set, right - (set.Width * size), baseline, ink);
        }
    }

    /// <summary>Draws a level line of a width.</summary>
    public void Line(float x, float y, float right, float width, SKColor ink)
    {
        using var paint = new SKPaint
        {
            Color = ink,
            StrokeWidth = width,
            IsStroke = true,
        };
        canvas.DrawLine(x, y, right, y, paint);
    }

    /// <summary>Draws a level line of dashes.</summary>
    public void Dashes(float x, float y, float right, SKColor ink)
    {
        using var dashes = SKPathEffect.CreateDash([4, 3], 0);
        using var paint = new SKPaint
        {
            Color = ink,
            StrokeWidth = 0.6f,
            IsStroke = true,
            PathEffect = dashes,
        };
        canvas.DrawLine(x, y, right, y, paint);
    }

    /// <summary>Fills an area.</summary>
    public void Fill(SKRect area, SKColor ground)
    {
        using var paint = new SKPaint { Color = ground };
        canvas.DrawRect(area, paint);
    }

    /// <summary>Draws a picture into an area, which has its proportions.</summary>
    public void Picture(SKImage picture, SKRect area) =>
        canvas.DrawImage(picture, area, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));

    /// <summary>Makes an area lead to an address.</summary>
    public void Link(SKRect area, string address) => canvas.DrawUrlAnnotation(area, address);

    private void Draw(float size, SetText set, float x, float baseline, SKColor ink)
    {
        using var builder = new SKTextBlobBuilder();
        foreach (var run in set.Runs.Where(r => r.Glyphs.Length > 0))
        {
            var font = run.File.Font(size);
            var points = new SKPoint[run.Points.Length];
            for (var i = 0; i < points.Length; i++)
            {
                points[i] = new SKPoint(run.Points[i].X * size, run.Points[i].Y * size);
            }

            if (run.Text is null)
            {
                builder.AddPositionedRun(run.Glyphs, font, points);
                continue;
            }

            var piece = builder.AllocatePositionedTextRun(font, run.Glyphs.Length, run.Text.Length);
            run.Glyphs.CopyTo(piece.Glyphs);
            points.CopyTo(piece.Positions);
            run.Text.CopyTo(piece.Text);
            run.Clusters.CopyTo(piece.Clusters);
        }

        using var blob = builder.Build();
        using var paint = new SKPaint { Color = ink, IsAntialias = true };
        canvas.DrawText(blob, x, baseline, paint);
    }
}
