using Rendal.Core.Intake;

namespace Rendal.Web.Intake;

/// <summary>
/// What of a file's texts is shown. A page is looked at, so it gets the beginning of what is long; what is read, kept and put right is
/// always the whole, by its place in the file.
/// </summary>
internal static class ShownText
{
    private const int Longest = 600;

    // Of a row as wide as a file can be, a page still gets less than a megabyte.
    private const int LongestRow = 20_000;
    private const int Shortest = 20;

    /// <summary>A text, cut short where it is long.</summary>
    public static string Of(string text) => Cut(text, Longest);

    /// <summary>The texts of a row.</summary>
    public static IReadOnlyList<string> Of(FileRow row)
    {
        var longest = Math.Clamp(LongestRow / Math.Max(row.Cells.Length, 1), Shortest, Longest);
        return [.. row.Cells.Select(c => Cut(c.Shown, longest))];
    }

    private static string Cut(string text, int longest)
    {
        if (text.Length <= longest)
        {
            return text;
        }

        var end = longest - 1;
        return text[..(char.IsHighSurrogate(text[end - 1]) ? end - 1 : end)] + "…";
    }
}
