using System.Text.RegularExpressions;
using Rendal.Core.Wordings;

namespace Rendal.Files.Docx;

/// <summary>What stands between two pairs of braces in a letter.</summary>
/// <param name="Start">Where it begins in its paragraph, the braces included.</param>
/// <param name="Length">How long it is, the braces included.</param>
/// <param name="Words">The words between the braces, spaces put right.</param>
internal sealed partial record Mark(int Start, int Length, string Words)
{
    /// <summary>The words of all conditions, as they are written after <c>if</c>.</summary>
    public static IReadOnlyCollection<string> AllConditions { get; } = [.. TextConditions.Names.Select(n => n.Replace('-', ' '))];

    /// <summary>The words after <c>if</c> where it opens a condition; null where it does not.</summary>
    public string? If => Words.StartsWith("if ", StringComparison.OrdinalIgnoreCase) ? Words[3..].Trim() : null;

    /// <summary>Whether it ends a condition.</summary>
    public bool IsEnd => Words.Equals("end", StringComparison.OrdinalIgnoreCase);

    /// <summary>The slot's name or label as it was written, and what stands instead where it is empty.</summary>
    public (string Name, string OrElse) Slot =>
        OrElse().Match(Words) is { Success: true } m
            ? (m.Groups[1].Value.Trim(), m.Groups[2].Value.Trim(' ', '"', '“', '”', '„', '\'', '‘', '’', '«', '»'))
            : (Words, "");

    /// <summary>The slots and conditions in a paragraph, in their order.</summary>
    public static IReadOnlyList<Mark> In(string paragraph) =>
        [.. Braces().Matches(paragraph).Select(m => new Mark(m.Index, m.Length, Spaces().Replace(m.Groups[1].Value, " ").Trim()))];

    /// <summary>
    /// Whether a paragraph is nothing but the beginning or the end of a condition, which then holds for the paragraphs between.
    /// </summary>
    public static bool IsAlone(IReadOnlyList<Mark> marks, string paragraph) =>
        marks is [var only] && only.Length == paragraph.Trim().Length && (only.If is not null || only.IsEnd);

    /// <summary>Whether braces are opened that are never closed, or closed that were never opened.</summary>
    public static bool IsBroken(string paragraph) =>
        Braces().Replace(paragraph, "") is var rest
        && (rest.Contains("{{", StringComparison.Ordinal) || rest.Contains("}}", StringComparison.Ordinal));

    /// <summary>The condition of these words; null where there is none.</summary>
    public static TextWhen? Condition(string words) => TextConditions.Find(words.ToLowerInvariant().Replace(' ', '-'));

    [GeneratedRegex(@"\{\{([^{}]*)\}\}")]
    private static partial Regex Braces();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();

    [GeneratedRegex(@"^(.+?)\s+or else\s+(.*)$", RegexOptions.IgnoreCase)]
    private static partial Regex OrElse();
}
