using System.Globalization;
using System.Text;

namespace Rendal.Files.Pdf;

/// <summary>
/// Says in a document which language it is in (ISO 32000-1, 14.9.2), for programs that read it aloud. The drawing library cannot, so it is
/// added as an incremental update (7.5.6): the catalogue again, with the language in it.
/// </summary>
internal static class SpokenLanguage
{
    /// <summary>The document with its language.</summary>
    /// <param name="pdf">A document with a cross-reference table, as the drawing library writes it.</param>
    /// <param name="language">The language, as <c>de</c>.</param>
    public static byte[] Say(byte[] pdf, string language)
    {
        var text = Encoding.Latin1.GetString(pdf);
        var table = NumberAfter(text, "startxref\n", text.Length);
        var trailer = text.LastIndexOf("trailer\n", StringComparison.Ordinal) + "trailer\n".Length;
        var end = text.LastIndexOf("startxref", StringComparison.Ordinal);
        var root = NumberAfter(text, "/Root ", end);

        // Each line of the table has 20 bytes, after “xref” and the line with the first number and the count.
        var lines = text.IndexOf('\n', table + "xref\n".Length) + 1;
        var catalogue = int.Parse(text.AsSpan(lines + (20 * root), 10), CultureInfo.InvariantCulture);
        var was = text[catalogue..(text.IndexOf("endobj", catalogue, StringComparison.Ordinal) + "endobj\n".Length)];
        var added = was.Replace("/Type /Catalog\n", $"/Type /Catalog\n/Lang ({language})\n", StringComparison.Ordinal);
        var update = new StringBuilder("\n").Append(added);
        var newTable = pdf.Length + update.Length;
        update
            .Append(CultureInfo.InvariantCulture, $"xref\n{root} 1\n{pdf.Length + 1:D10} 00000 n \ntrailer\n")
            .Append(text[trailer..end].TrimEnd().TrimEnd('>'))
            .Append(CultureInfo.InvariantCulture, $"\n/Prev {table}>>\nstartxref\n{newTable}\n%%EOF\n");
        return [.. pdf, .. Encoding.Latin1.GetBytes(update.ToString())];
    }

    private static int NumberAfter(string text, string words, int before)
    {
        var at = text.LastIndexOf(words, before - 1, StringComparison.Ordinal) + words.Length;
        var end = at;
        while (char.IsAsciiDigit(text[end]))
        {
            end++;
        }

        return int.Parse(text.AsSpan(at, end - at), CultureInfo.InvariantCulture);
    }
}
