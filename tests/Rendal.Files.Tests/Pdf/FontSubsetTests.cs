using Rendal.Files.Pdf;
using SkiaSharp;

namespace Rendal.Files.Tests.Pdf;

public class FontSubsetTests
{
    [Fact]
    public void A_reduced_face_keeps_the_outlines_in_use_under_their_numbers()
    {
        var bytes = Font();
        using var full = SKTypeface.FromData(SKData.CreateCopy(bytes));
        // Ä is composed of A and dots, which have to come along.
        var glyphs = new SKFont(full).GetGlyphs("ÄbŁ");
        var reduced = FontSubset.Reduce(bytes, glyphs, new HashSet<int> { 'Ä', 'b', 'Ł' });
        Assert.True(reduced.Length < bytes.Length / 4);
        using var small = SKTypeface.FromData(SKData.CreateCopy(reduced));
        using var fullFont = new SKFont(full, 1000);
        using var smallFont = new SKFont(small, 1000);
        foreach (var glyph in glyphs)
        {
            Assert.Equal(fullFont.GetGlyphPath(glyph).ToSvgPathData(), smallFont.GetGlyphPath(glyph).ToSvgPathData());
        }

        Assert.True(smallFont.GetGlyphPath(fullFont.GetGlyph('Q')).IsEmpty);
        Assert.Equal(full.GlyphCount, small.GlyphCount);
    }

    [Fact]
    public void What_is_no_truetype_face_is_refused() =>
        Assert.Throws<InvalidDataException>(() => FontSubset.Reduce(new byte[12], [1], new HashSet<int>()));

    private static byte[] Font()
    {
        using var stream = typeof(DocumentRenderer).Assembly.GetManifestResourceStream("SourceSans3-Regular.ttf")!;
        var bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        return bytes;
    }
}
