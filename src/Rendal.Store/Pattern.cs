namespace Rendal.Store;

/// <summary>Patterns for searching.</summary>
internal static class Pattern
{
    /// <summary>A pattern for ILIKE that finds a text anywhere, its own wildcards taken literally.</summary>
    public static string Holding(string text) => $"%{Literally(text)}%";

    /// <summary>A pattern for LIKE that finds what begins with a text.</summary>
    public static string BeginningWith(string text) => $"{Literally(text)}%";

    private static string Literally(string text) =>
        text.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal);
}
