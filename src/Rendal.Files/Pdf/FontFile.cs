using System.Collections.Concurrent;
using System.Runtime.InteropServices;
using System.Text;
using HarfBuzzSharp;
using SkiaSharp;
using Buffer = HarfBuzzSharp.Buffer;

namespace Rendal.Files.Pdf;

/// <summary>
/// One file of glyphs. Text is shaped with all of it; what is drawn with is reduced to the glyphs met so far, and reduced anew when a text
/// brings glyphs that were not met before. Not to be shared between threads.
/// </summary>
internal sealed class FontFile : IDisposable
{
    // Ligatures would be copied out of the document as one odd character.
    private static readonly Feature[] Features = [new(Tag.Parse("liga"), 0), new(Tag.Parse("kern"), 1)];
    private static readonly ConcurrentDictionary<string, byte[]> Read = new(StringComparer.Ordinal);

    private readonly byte[] bytes;
    private readonly HarfBuzzSharp.Font shaper;
    private readonly HarfBuzzSharp.Face shapedFont;
    private readonly Blob blob;
    private readonly Buffer buffer = new();
    private readonly HashSet<ushort> glyphs = [];
    private readonly HashSet<int> characters = [];
    private readonly float unitsPerEm;
    private readonly Dictionary<float, SKFont> fonts = [];
    private SKTypeface? reduced;

    /// <summary>Reads a font that is built in, by the name of its resource.</summary>
    public FontFile(string resource)
    {
        bytes = Bytes(resource);
        blob = new Blob(Marshal.UnsafeAddrOfPinnedArrayElement(bytes, 0), bytes.Length, MemoryMode.ReadOnly);
        shapedFont = new HarfBuzzSharp.Face(blob, 0);
        shaper = new HarfBuzzSharp.Font(shapedFont);
        unitsPerEm = shapedFont.UnitsPerEm;
        shaper.SetScale((int)unitsPerEm, (int)unitsPerEm);
        shaper.SetFunctionsOpenType();
    }

    private SKTypeface Reduced
    {
        get
        {
            if (reduced is null)
            {
                using var data = SKData.CreateCopy(FontSubset.Reduce(bytes, glyphs, characters));
                reduced = SKTypeface.FromData(data) ?? throw new InvalidOperationException("The reduced font cannot be drawn with.");
            }

            return reduced;
        }
    }

    /// <summary>What to draw with in one size; it has every glyph of the texts set so far, and holds until the next text is set.</summary>
    public SKFont Font(float size)
    {
        if (!fonts.TryGetValue(size, out var font))
        {
            fonts[size] = font = new SKFont(Reduced, size)
            {
                LinearMetrics = true,
                Hinting = SKFontHinting.None,
                Subpixel = true,
            };
        }

        return font;
    }

    /// <summary>The bytes of a file that ships along; read once, at a place in memory that stays.</summary>
    public static byte[] Bytes(string resource) => Read.GetOrAdd(resource, static name =>
        {
            using var stream = typeof(FontFile).Assembly.GetManifestResourceStream(name)!;
            var bytes = GC.AllocateUninitializedArray<byte>((int)stream.Length, pinned: true);
            stream.ReadExactly(bytes);
            return bytes;
        });

    /// <summary>Whether the file has a glyph for a character.</summary>
    public bool Has(Rune character) => shaper.TryGetNominalGlyph((uint)character.Value, out _);

    /// <summary>Sets a text of one direction at size 1.</summary>
    /// <param name="text">The text.</param>
    /// <param name="isRightToLeft">Its direction.</param>
    /// <param name="x">Where it begins.</param>
    /// <param name="copied">Whether the text itself is kept with the glyphs, so that it is copied as it was written whatever glyphs came
    /// of it.</param>
    /// <param name="end">Where it ends.</param>
    public SetRun Set(string text, bool isRightToLeft, float x, bool copied, out float end)
    {
        buffer.ClearContents();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        buffer.Direction = isRightToLeft ? Direction.RightToLeft : Direction.LeftToRight;
        shaper.Shape(buffer, Features);
        var infos = buffer.GetGlyphInfoSpan();
        var positions = buffer.GetGlyphPositionSpan();
        var numbers = new ushort[infos.Length];
        var points = new SKPoint[infos.Length];
        var clusters = copied ? new uint[infos.Length] : null;
        var isNew = false;
        var bytesBefore = copied ? BytesBefore(text) : [];
        for (var i = 0; i < infos.Length; i++)
        {
            numbers[i] = (ushort)infos[i].Codepoint;
            points[i] = new SKPoint(x + (positions[i].XOffset / unitsPerEm), -positions[i].YOffset / unitsPerEm);
            x += positions[i].XAdvance / unitsPerEm;
            isNew |= glyphs.Add(numbers[i]);
            if (clusters is not null)
            {
                clusters[i] = bytesBefore[infos[i].Cluster];
            }
        }

        foreach (var character in text.EnumerateRunes())
        {
            isNew |= characters.Add(character.Value);
        }

        if (isNew)
        {
            Forget();
        }

        end = x;
        return new SetRun(this, numbers, points, copied ? Encoding.UTF8.GetBytes(text) : null, clusters);
    }

    /// <summary>For each character how many bytes of UTF-8 stand before it.</summary>
    private static uint[] BytesBefore(string text)
    {
        var before = new uint[text.Length];
        var at = 0u;
        for (var i = 0; i < text.Length; i++)
        {
            before[i] = at;
            if (char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
            {
                before[++i] = at;
                at += 4;
            }
            else
            {
                // A half of a character that stands alone is written as U+FFFD.
                at +=
                    text[i] < 0x80 ? 1u
                    : text[i] < 0x800 ? 2u
                    : 3u;
            }
        }

        return before;
    }

    public void Dispose()
    {
        Forget();
        buffer.Dispose();
        shaper.Dispose();
        shapedFont.Dispose();
        blob.Dispose();
    }

    private void Forget()
    {
        foreach (var font in fonts.Values)
        {
            font.Dispose();
        }

        fonts.Clear();
        reduced?.Dispose();
        reduced = null;
    }
}
