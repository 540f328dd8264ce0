using System.Globalization;

namespace Rendal.Files.Enclosures;

/// <summary>
/// Counts the nodes of the tree of pages in bytes of a PDF (ISO 32000-1, 7.7.3.2), wherever they belong: the reader goes down that tree on
/// the stack, and a process whose stack is full ends.
/// </summary>
internal static class PageNodes
{
    /// <summary>The most that are gone down. A file with thousands of pages has some hundreds.</summary>
    public const int Most = 10_000;

    /// <summary>How many stand in bytes, in whatever way their name is written: <c>/Kids</c>, <c>/#4Bids</c> (7.3.5).</summary>
    public static int In(ReadOnlySpan<byte> bytes)
    {
        var count = 0;
        for (var at = bytes.IndexOf((byte)'/'); at >= 0; at = bytes.IndexOf((byte)'/'))
        {
            bytes = bytes[(at + 1)..];
            count += BeginsWithKids(bytes) ? 1 : 0;
        }

        return count;
    }

    private static bool BeginsWithKids(ReadOnlySpan<byte> name)
    {
        foreach (var letter in "Kids"u8)
        {
            var (read, length) =
                name is [(byte)'#', _, _, ..]
                && byte.TryParse(name[1..3], NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var escaped)
                    ? (escaped, 3)
                    : (name.IsEmpty ? (byte)0 : name[0], 1);
            if (read != letter)
            {
                return false;
            }

            name = name[length..];
        }

        return true;
    }
}
