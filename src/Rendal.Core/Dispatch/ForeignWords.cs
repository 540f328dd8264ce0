using System.Text;

namespace Rendal.Core.Dispatch;

/// <summary>Words of mail servers and of messages that came back: anybody may write anything into them.</summary>
public static class ForeignWords
{
    /// <summary>
    /// The words as they can be read and kept: without control characters, of which PostgreSQL refuses NUL, and with U+FFFD for half a
    /// character; line breaks are blanks.
    /// </summary>
    public static string Printable(string words)
    {
        var printable = new StringBuilder(words.Length);
        foreach (var rune in words.ReplaceLineEndings(" ").EnumerateRunes())
        {
            if (!Rune.IsControl(rune))
            {
                printable.Append(rune);
            }
            else if (rune.Value == '\t')
            {
                printable.Append(' ');
            }
        }

        return printable.ToString();
    }
}
