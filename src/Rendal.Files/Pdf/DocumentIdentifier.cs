using System.Security.Cryptography;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// The identifier of a PDF (ISO 32000-1, 14.4). The library takes it from the time and from chance; in its place is put one that follows
/// from what is in the file, so that the same document is the same bytes whenever it is made: what was looked at can be compared with what
/// went.
/// </summary>
internal static class DocumentIdentifier
{
    private const int Bytes = 16;
    private const int LengthOfUuid = 36;

    private static ReadOnlySpan<byte> InMetadata => "<xmpMM:DocumentID>uuid:"u8;

    private static ReadOnlySpan<byte> InTrailer => "/ID ["u8;

    private static ReadOnlySpan<byte> EndOfTrailer => "]>>\nstartxref"u8;

    /// <summary>The same document with an identifier that follows from its content.</summary>
    /// <param name="pdf">It as the library wrote it: with metadata, and with the identifier at the end of its trailer.</param>
    /// <exception cref="InvalidDataException">It has no identifier.</exception>
    public static byte[] FromContent(byte[] pdf)
    {
        var metadata = pdf.AsSpan().IndexOf(InMetadata);
        var (trailer, end) = (pdf.AsSpan().LastIndexOf(InTrailer), pdf.AsSpan().LastIndexOf(EndOfTrailer));
        if (metadata < 0 || trailer < 0 || end < trailer)
        {
            throw new InvalidDataException("A PDF was written without an identifier.");
        }

        var drawn = pdf.AsSpan(metadata + InMetadata.Length, LengthOfUuid).ToArray();
        var places = Places(pdf, drawn);
        var settled = pdf.AsSpan(0, trailer).ToArray();
        places.ForEach(place => settled.AsSpan(place, LengthOfUuid).Clear());

        // A UUID of version 8 (RFC 9562, 5.8).
        var hash = SHA256.HashData(settled).AsSpan(0, Bytes);
        hash[6] = (byte)((hash[6] & 0x0F) | 0x80);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        var uuid = Encoding.ASCII.GetBytes(new Guid(hash, bigEndian: true).ToString());
        places.ForEach(place => uuid.CopyTo(settled, place));

        // The library writes two strings, each in the form that is the shorter for its bytes. Nothing counts bytes from behind them.
        var digits = Convert.ToHexString(hash);
        return [.. settled, .. InTrailer, .. Encoding.ASCII.GetBytes($"<{digits}> <{digits}>"), .. pdf.AsSpan(end)];
    }

    private static List<int> Places(byte[] pdf, byte[] text)
    {
        var places = new List<int>();
        for (int from = 0, found; (found = pdf.AsSpan(from).IndexOf(text)) >= 0; from = places[^1] + text.Length)
        {
            places.Add(from + found);
        }

        return places;
    }
}
