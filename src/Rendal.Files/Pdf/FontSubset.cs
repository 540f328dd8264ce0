using System.Buffers.Binary;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// Reduces a TrueType font (OpenType specification 1.9, outlines in <c>glyf</c>) to the glyphs in use. Glyph numbers stay, so that text
/// set with the full font can be drawn with the reduced one.
/// </summary>
public static class FontSubset
{
    // What drawing and embedding need. Layout tables are left out: text is set with the full font.
    private static readonly string[] Kept = ["OS/2", "cvt ", "fpgm", "head", "hhea", "hmtx", "maxp", "prep"];

    private const ushort ArgumentsAreWords = 0x0001;
    private const ushort HasScale = 0x0008;
    private const ushort MoreComponents = 0x0020;
    private const ushort HasTwoScales = 0x0040;
    private const ushort HasMatrix = 0x0080;

    /// <summary>The font with the outlines of <paramref name="glyphs"/>, of the parts that they are composed of, and of glyph 0.</summary>
    /// <param name="font">The full font.</param>
    /// <param name="glyphs">The glyphs in use.</param>
    /// <param name="characters">
    /// The characters in use, as Unicode scalar values. Where one glyph stands for several characters (Greek mu and the micro sign), those
    /// in use are what is copied out of a document; a glyph that came of characters put together (é of e and an accent) is copied as the
    /// first character that it stands for.
    /// </param>
    /// <exception cref="InvalidDataException">The font has no TrueType outlines, or its tables are cut short.</exception>
    public static byte[] Reduce(ReadOnlySpan<byte> font, IEnumerable<ushort> glyphs, IReadOnlySet<int> characters)
    {
        var tables = Tables(font);
        if (
            !tables.TryGetValue("glyf", out var glyf)
            || !tables.TryGetValue("loca", out var loca)
            || !tables.TryGetValue("head", out var head)
        )
        {
            throw new InvalidDataException("The font has no TrueType outlines.");
        }

        var longOffsets = BinaryPrimitives.ReadInt16BigEndian(font[(head.Start + 50)..]) == 1;
        var count = loca.Length / (longOffsets ? 4 : 2) - 1;
        var offsets = new uint[count + 1];
        for (var i = 0; i <= count; i++)
        {
            offsets[i] = longOffsets
                ? BinaryPrimitives.ReadUInt32BigEndian(font[(loca.Start + (4 * i))..])
                : 2u * BinaryPrimitives.ReadUInt16BigEndian(font[(loca.Start + (2 * i))..]);
        }

        var outlines = font.Slice(glyf.Start, glyf.Length);
        var used = WithComponents(outlines, offsets, glyphs);
        var newGlyf = new MemoryStream();
        var newLoca = new byte[4 * (count + 1)];
        for (var i = 0; i <= count; i++)
        {
            BinaryPrimitives.WriteUInt32BigEndian(newLoca.AsSpan(4 * i), (uint)newGlyf.Length);
            if (i < count && used.Contains((ushort)i))
            {
                newGlyf.Write(outlines[(int)offsets[i]..(int)offsets[i + 1]]);
                newGlyf.SetLength((newGlyf.Length + 3) & ~3);
                newGlyf.Position = newGlyf.Length;
            }
        }

        var newTables = new SortedDictionary<string, byte[]>(StringComparer.Ordinal);
        foreach (var tag in Kept)
        {
            if (tables.TryGetValue(tag, out var table))
            {
                newTables[tag] = font.Slice(table.Start, table.Length).ToArray();
            }
        }

        newTables["glyf"] = newGlyf.ToArray();
        newTables["loca"] = newLoca;
        newTables["cmap"] = CharacterMap(InUse(CharacterMaps(font, tables), used, characters));
        newTables["name"] = PostScriptName(font, tables["name"].Start);
        newTables["post"] = [0, 3, 0, 0, .. new byte[28]];
        ClearUnusedMetrics(newTables["hmtx"], BinaryPrimitives.ReadUInt16BigEndian(newTables["hhea"].AsSpan(34)), used);
        BinaryPrimitives.WriteInt16BigEndian(newTables["head"].AsSpan(50), 1);
        BinaryPrimitives.WriteUInt32BigEndian(newTables["head"].AsSpan(8), 0);
        return Assemble(newTables);
    }

    /// <summary>The characters that a font has, as Unicode scalar values.</summary>
    /// <exception cref="InvalidDataException">The font does not say which glyph stands for which character.</exception>
    public static IEnumerable<int> Characters(ReadOnlySpan<byte> font) =>
        CharacterMaps(font, Tables(font)).Where(m => m.Glyph != 0).Select(m => m.Character);

    private static List<(int Character, ushort Glyph)> InUse(
        List<(int Character, ushort Glyph)> maps,
        HashSet<ushort> used,
        IReadOnlySet<int> characters
    )
    {
        var kept = maps.Where(m => used.Contains(m.Glyph) && characters.Contains(m.Character)).ToList();
        var named = kept.Select(m => m.Glyph).ToHashSet();
        kept.AddRange(maps.Where(m => used.Contains(m.Glyph) && named.Add(m.Glyph)));
        kept.Sort();
        return kept;
    }

    private static Dictionary<string, (int Start, int Length)> Tables(ReadOnlySpan<byte> font)
    {
        var count = BinaryPrimitives.ReadUInt16BigEndian(font[4..]);
        var tables = new Dictionary<string, (int, int)>(count, StringComparer.Ordinal);
        for (var i = 0; i < count; i++)
        {
            var entry = font.Slice(12 + (16 * i), 16);
            tables[Encoding.ASCII.GetString(entry[..4])] = (
                (int)BinaryPrimitives.ReadUInt32BigEndian(entry[8..]),
                (int)BinaryPrimitives.ReadUInt32BigEndian(entry[12..])
            );
        }

        return tables;
    }

    private static HashSet<ushort> WithComponents(ReadOnlySpan<byte> outlines, uint[] offsets, IEnumerable<ushort> glyphs)
    {
        var used = new HashSet<ushort>();
        var waiting = new Stack<ushort>(glyphs);
        waiting.Push(0);
        while (waiting.TryPop(out var glyph))
        {
            if (glyph >= offsets.Length - 1 || !used.Add(glyph) || offsets[glyph] == offsets[glyph + 1])
            {
                continue;
            }

            var outline = outlines[(int)offsets[glyph]..(int)offsets[glyph + 1]];
            if (BinaryPrimitives.ReadInt16BigEndian(outline) >= 0)
            {
                continue;
            }

            ushort flags;
            var at = 10;
            do
            {
                flags = BinaryPrimitives.ReadUInt16BigEndian(outline[at..]);
                waiting.Push(BinaryPrimitives.ReadUInt16BigEndian(outline[(at + 2)..]));
                at +=
                    4
                    + ((flags & ArgumentsAreWords) != 0 ? 4 : 2)
                    + (
                        (flags & HasScale) != 0 ? 2
                        : (flags & HasTwoScales) != 0 ? 4
                        : (flags & HasMatrix) != 0 ? 8
                        : 0
                    );
            } while ((flags & MoreComponents) != 0);
        }

        return used;
    }

    /// <summary>The characters of the font with their glyphs, from its Unicode subtable of format 12 or 4.</summary>
    private static List<(int Character, ushort Glyph)> CharacterMaps(
        ReadOnlySpan<byte> font,
        Dictionary<string, (int Start, int Length)> tables
    )
    {
        var cmap = font[tables["cmap"].Start..];
        ReadOnlySpan<byte> basic = default;
        for (var i = 0; i < BinaryPrimitives.ReadUInt16BigEndian(cmap[2..]); i++)
        {
            var subtable = cmap[(int)BinaryPrimitives.ReadUInt32BigEndian(cmap[(8 + (8 * i))..])..];
            switch (BinaryPrimitives.ReadUInt16BigEndian(subtable))
            {
                case 12:
                    return Format12(subtable);
                case 4:
                    basic = subtable;
                    break;
            }
        }

        return basic.IsEmpty
            ? throw new InvalidDataException("The font does not say which glyph stands for which character.")
            : Format4(basic);
    }

    private static List<(int Character, ushort Glyph)> Format12(ReadOnlySpan<byte> subtable)
    {
        var maps = new List<(int, ushort)>();
        var groups = (int)BinaryPrimitives.ReadUInt32BigEndian(subtable[12..]);
        for (var g = 0; g < groups; g++)
        {
            var group = subtable.Slice(16 + (12 * g), 12);
            var first = (int)BinaryPrimitives.ReadUInt32BigEndian(group);
            var last = (int)BinaryPrimitives.ReadUInt32BigEndian(group[4..]);
            var glyph = BinaryPrimitives.ReadUInt32BigEndian(group[8..]);
            for (var c = first; c <= last; c++)
            {
                maps.Add((c, (ushort)(glyph + c - first)));
            }
        }

        return maps;
    }

    private static List<(int Character, ushort Glyph)> Format4(ReadOnlySpan<byte> subtable)
    {
        var maps = new List<(int, ushort)>();
        var twice = BinaryPrimitives.ReadUInt16BigEndian(subtable[6..]);
        for (var s = 0; s < twice; s += 2)
        {
            var last = BinaryPrimitives.ReadUInt16BigEndian(subtable[(14 + s)..]);
            var first = BinaryPrimitives.ReadUInt16BigEndian(subtable[(16 + twice + s)..]);
            var delta = BinaryPrimitives.ReadUInt16BigEndian(subtable[(16 + (2 * twice) + s)..]);
            var rangeAt = 16 + (3 * twice) + s;
            var range = BinaryPrimitives.ReadUInt16BigEndian(subtable[rangeAt..]);
            for (var c = (int)first; c <= last && c != 0xFFFF; c++)
            {
                var glyph =
                    range == 0
                        ? (ushort)(c + delta)
                        : BinaryPrimitives.ReadUInt16BigEndian(subtable[(rangeAt + range + (2 * (c - first)))..]);
                if (glyph != 0)
                {
                    maps.Add((c, range == 0 ? glyph : (ushort)(glyph + delta)));
                }
            }
        }

        return maps;
    }

    private static byte[] CharacterMap(List<(int Character, ushort Glyph)> maps)
    {
        const int header = 12 + 16;
        var cmap = new byte[header + (12 * maps.Count)];
        BinaryPrimitives.WriteUInt16BigEndian(cmap.AsSpan(2), 1);
        BinaryPrimitives.WriteUInt16BigEndian(cmap.AsSpan(4), 3);
        BinaryPrimitives.WriteUInt16BigEndian(cmap.AsSpan(6), 10);
        BinaryPrimitives.WriteUInt32BigEndian(cmap.AsSpan(8), 12);
        BinaryPrimitives.WriteUInt16BigEndian(cmap.AsSpan(12), 12);
        BinaryPrimitives.WriteUInt32BigEndian(cmap.AsSpan(16), (uint)(16 + (12 * maps.Count)));
        BinaryPrimitives.WriteUInt32BigEndian(cmap.AsSpan(24), (uint)maps.Count);
        for (var i = 0; i < maps.Count; i++)
        {
            var group = cmap.AsSpan(header + (12 * i));
            BinaryPrimitives.WriteUInt32BigEndian(group, (uint)maps[i].Character);
            BinaryPrimitives.WriteUInt32BigEndian(group[4..], (uint)maps[i].Character);
            BinaryPrimitives.WriteUInt32BigEndian(group[8..], maps[i].Glyph);
        }

        return cmap;
    }

    /// <summary>A name table with the one name that embedding asks for.</summary>
    private static byte[] PostScriptName(ReadOnlySpan<byte> font, int start)
    {
        var name = font[start..];
        var strings = BinaryPrimitives.ReadUInt16BigEndian(name[4..]);
        for (var i = 0; i < BinaryPrimitives.ReadUInt16BigEndian(name[2..]); i++)
        {
            var record = name.Slice(6 + (12 * i), 12);
            if (BinaryPrimitives.ReadUInt16BigEndian(record[6..]) != 6)
            {
                continue;
            }

            var length = BinaryPrimitives.ReadUInt16BigEndian(record[8..]);
            var text = name.Slice(strings + BinaryPrimitives.ReadUInt16BigEndian(record[10..]), length);
            var table = new byte[18 + length];
            BinaryPrimitives.WriteUInt16BigEndian(table.AsSpan(2), 1);
            BinaryPrimitives.WriteUInt16BigEndian(table.AsSpan(4), 18);
            record[..10].CopyTo(table.AsSpan(6));
            text.CopyTo(table.AsSpan(18));
            return table;
        }

        throw new InvalidDataException("The font has no PostScript name.");
    }

    /// <summary>The widths of glyphs that are not there are made zero, so that the table packs small.</summary>
    private static void ClearUnusedMetrics(byte[] hmtx, int longMetrics, HashSet<ushort> used)
    {
        for (var i = 0; i < longMetrics; i++)
        {
            if (!used.Contains((ushort)i))
            {
                hmtx.AsSpan(4 * i, 4).Clear();
            }
        }
    }

    private static byte[] Assemble(SortedDictionary<string, byte[]> tables)
    {
        var start = 12 + (16 * tables.Count);
        var font = new byte[start + tables.Values.Sum(t => (t.Length + 3) & ~3)];
        BinaryPrimitives.WriteUInt32BigEndian(font, 0x00010000);
        BinaryPrimitives.WriteUInt16BigEndian(font.AsSpan(4), (ushort)tables.Count);
        var power = (int)Math.Floor(Math.Log2(tables.Count));
        BinaryPrimitives.WriteUInt16BigEndian(font.AsSpan(6), (ushort)(16 << power));
        BinaryPrimitives.WriteUInt16BigEndian(font.AsSpan(8), (ushort)power);
        BinaryPrimitives.WriteUInt16BigEndian(font.AsSpan(10), (ushort)((16 * tables.Count) - (16 << power)));
        var entry = 12;
        foreach (var (tag, table) in tables)
        {
            table.CopyTo(font, start);
            Encoding.ASCII.GetBytes(tag, font.AsSpan(entry));
            BinaryPrimitives.WriteUInt32BigEndian(font.AsSpan(entry + 4), CheckSum(font.AsSpan(start, (table.Length + 3) & ~3)));
            BinaryPrimitives.WriteUInt32BigEndian(font.AsSpan(entry + 8), (uint)start);
            BinaryPrimitives.WriteUInt32BigEndian(font.AsSpan(entry + 12), (uint)table.Length);
            start += (table.Length + 3) & ~3;
            entry += 16;
        }

        return font;
    }

    private static uint CheckSum(ReadOnlySpan<byte> table)
    {
        var sum = 0u;
        for (var i = 0; i < table.Length; i += 4)
        {
            sum = unchecked(sum + BinaryPrimitives.ReadUInt32BigEndian(table[i..]));
        }

        return sum;
    }
}
