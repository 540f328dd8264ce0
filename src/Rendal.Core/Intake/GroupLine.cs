using System.Text.RegularExpressions;

namespace Rendal.Core.Intake;

/// <summary>Reads the line of a grouped report that names the customer of the rows below it.</summary>
public static partial class GroupLine
{
    /// <summary>
    /// Code and name of a line in a file without columns for them. <c>Customer: H014 Inn at Kell</c>, <c>H014 – Inn at Kell</c> and the
    /// two cells <c>H014</c>, <c>Inn at Kell</c> give H014 and Inn at Kell; a line without anything like a code, such as <c>Inn at
    /// Kell</c>, gives a name alone. A code is a first word with a figure in it.
    /// </summary>
    public static (string Code, string Name) Read(FileRow row)
    {
        var texts = row.Cells.Where(c => !c.IsEmpty).Select(c => WithoutLabel(c.Text)).Where(t => t.Length > 0).ToList();
        if (texts.Count == 0)
        {
            return ("", "");
        }

        if (texts.Count > 1)
        {
            return (texts[0], texts[1]);
        }

        var parts = CodeAndName().Match(texts[0]);
        return parts.Success ? (parts.Groups[1].Value, parts.Groups[2].Value) : ("", texts[0]);
    }

    private static string WithoutLabel(string text)
    {
        var colon = text.IndexOf(':', StringComparison.Ordinal);
        return colon > 0
            && (
                HeadingWords.IsCodeOrName(text[..colon])
                || HeadingWords.Of(text[..colon])?.Meaning is ColumnMeaning.CustomerCode or ColumnMeaning.CustomerName
            )
                ? text[(colon + 1)..].Trim()
            : HeadingWords.IsCodeOrName(text) ? ""
            : text;
    }

    [GeneratedRegex(@"^(\S*[0-9]\S*?)[\s:–-]+(\S.*)$")]
    private static partial Regex CodeAndName();
}
