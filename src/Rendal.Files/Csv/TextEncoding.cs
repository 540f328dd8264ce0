using System.Text;

namespace Rendal.Files.Csv;

/// <summary>Finds out in which encoding a text file is written.</summary>
public static class TextEncoding
{
    private static readonly Encoding StrictUtf8 = new UTF8Encoding(false, throwOnInvalidBytes: true);

    /// <summary>The encodings that a person may choose, by IANA name.</summary>
    public static IReadOnlyList<string> Names { get; } = ["utf-8", "windows-1252", "utf-16", "utf-16BE"];

    /// <summary>The encoding of an IANA name; null for one that is none of <see cref="Names"/>.</summary>
    public static Encoding? Named(string name) =>
        name.ToLowerInvariant() switch
        {
            "utf-8" => Encoding.UTF8,
            "windows-1252" => CodePagesEncodingProvider.Instance.GetEncoding(1252),
            "utf-16" => Encoding.Unicode,
            "utf-16be" => Encoding.BigEndianUnicode,
            _ => null,
        };

    /// <summary>
    /// The encoding of a stream, which is read from its start to where the question is settled: by its byte order mark; UTF-16 by zero
    /// bytes at every other place; UTF-8 if all of it is valid; else Windows-1252. With the reason in plain words.
    /// </summary>
    public static (Encoding Encoding, string Reason) Of(Stream stream)
    {
        var buffer = new byte[64 * 1024];
        var count = stream.ReadAtLeast(buffer, buffer.Length, throwOnEndOfStream: false);
        var start = buffer.AsSpan(0, count);
        if (start.StartsWith(Encoding.UTF8.Preamble))
        {
            return (Encoding.UTF8, "by its mark");
        }

        if (start.StartsWith(Encoding.Unicode.Preamble) || MostlyZeroAt(start, 1))
        {
            return (Encoding.Unicode, "by its mark or zero bytes");
        }

        if (start.StartsWith(Encoding.BigEndianUnicode.Preamble) || MostlyZeroAt(start, 0))
        {
            return (Encoding.BigEndianUnicode, "by its mark or zero bytes");
        }

        var decoder = StrictUtf8.GetDecoder();
        var chars = new char[buffer.Length + 1];
        try
        {
            while (count > 0)
            {
                decoder.GetChars(buffer.AsSpan(0, count), chars, flush: false);
                count = stream.Read(buffer);
            }

            decoder.GetChars([], chars, flush: true);
            return (Encoding.UTF8, "valid throughout");
        }
        catch (DecoderFallbackException)
        {
            return (Named("windows-1252")!, "not valid UTF-8");
        }
    }

    private static bool MostlyZeroAt(ReadOnlySpan<byte> bytes, int offset)
    {
        var zeros = 0;
        var pairs = Math.Min(bytes.Length, 2000) / 2;
        for (var i = 0; i < pairs; i++)
        {
            zeros += bytes[(2 * i) + offset] == 0 && bytes[(2 * i) + 1 - offset] != 0 ? 1 : 0;
        }

        return pairs >= 2 && zeros * 10 >= pairs * 7;
    }
}
