using System.Runtime.InteropServices;
using HarfBuzzSharp;
using SkiaSharp;
using Buffer = HarfBuzzSharp.Buffer;

namespace Rendal.Files.Pdf;

/// <summary>
/// A typeface that text is set in. Text is shaped with the full face; what is drawn with is reduced to the glyphs met
/// so far, and reduced anew when a text brings glyphs that were not met before. Not to be shared between threads.
/// </summary>
internal sealed class Face : IDisposable
{
    private const string AlwaysKept = " !\"#$%&'()*+,-./0123456789:;<=>?@ABCDEFGHIJKLMNOPQRSTUVWXYZ[]_abcdefghijklmnopqrstuvwxyz£€·–—’−";

    // Ligatures would be copied out of the document as one odd character.
    private static readonly Feature[] Features = [new(Tag.Parse("liga"), 0), new(Tag.Parse("kern"), 1)];

    private readonly byte[] bytes;
    private readonly HarfBuzzSharp.Font shaper;
    private readonly HarfBuzzSharp.Face shaperFace;
    private readonly Blob blob;
    private readonly HashSet<ushort> glyphs = [];
    private readonly HashSet<int> characters = [];
    private readonly float unitsPerEm;
    private readonly Dictionary<string, SetText> recent = new(StringComparer.Ordinal);
    private GCHandle pin;
    private SKTypeface? reduced;

    public Face(string resource, bool forText)
    {
        using var stream = typeof(Face).Assembly.GetManifestResourceStream(resource)!;
        bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        pin = GCHandle.Alloc(bytes, GCHandleType.Pinned);
        blob = new Blob(pin.AddrOfPinnedObject(), bytes.Length, MemoryMode.ReadOnly);
        shaperFace = new HarfBuzzSharp.Face(blob, 0);
        shaper = new HarfBuzzSharp.Font(shaperFace);
        unitsPerEm = shaperFace.UnitsPerEm;
        shaper.SetScale((int)unitsPerEm, (int)unitsPerEm);
        shaper.SetFunctionsOpenType();
        if (forText)
        {
            Set(AlwaysKept);
        }
    }

    /// <summary>The face to draw with; it has every glyph of the texts set so far.</summary>
    public SKTypeface Reduced
    {
        get
        {
            if (reduced is null)
            {
                using var data = SKData.CreateCopy(FaceReduction.Reduce(bytes, glyphs, characters));
                reduced = SKTypeface.FromData(data) ?? throw new InvalidOperationException("The reduced face cannot be drawn with.");
            }

            return reduced;
        }
    }

    /// <summary>Sets a text on one line at size 1.</summary>
    public SetText Set(string text)
    {
        if (recent.TryGetValue(text, out var known))
        {
            return known;
        }

        using var buffer = new Buffer();
        buffer.AddUtf16(text);
        buffer.GuessSegmentProperties();
        shaper.Shape(buffer, Features);
        var infos = buffer.GetGlyphInfoSpan();
        var positions = buffer.GetGlyphPositionSpan();
        var numbers = new ushort[infos.Length];
        var points = new SKPoint[infos.Length];
        var x = 0f;
        for (var i = 0; i < infos.Length; i++)
        {
            numbers[i] = (ushort)infos[i].Codepoint;
            points[i] = new SKPoint((x + positions[i].XOffset) / unitsPerEm, -positions[i].YOffset / unitsPerEm);
            x += positions[i].XAdvance;
            glyphs.Add(numbers[i]);
        }

        foreach (var character in text.EnumerateRunes())
        {
            // A new glyph comes only with a new character.
            if (characters.Add(character.Value))
            {
                reduced?.Dispose();
                reduced = null;
            }
        }

        var set = new SetText(numbers, points, x / unitsPerEm);
        if (recent.Count > 4_000)
        {
            recent.Clear();
        }

        recent.Add(text, set);
        return set;
    }

    public void Dispose()
    {
        reduced?.Dispose();
        shaper.Dispose();
        shaperFace.Dispose();
        blob.Dispose();
        pin.Free();
    }
}

/// <summary>A text set on one line at size 1: its glyphs, where they stand, and how wide it is.</summary>
internal sealed record SetText(ushort[] Glyphs, SKPoint[] Points, float Width);
