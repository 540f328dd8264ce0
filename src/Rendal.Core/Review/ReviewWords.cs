using System.Collections.Frozen;
using Rendal.Core.Texts;
using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>The words of a language that a review looks for.</summary>
internal sealed class ReviewWords
{
    private static readonly FrozenDictionary<string, ReviewWords> ByLanguage = Language
        .All.Select(l => (l.Code, Words: new ReviewWords(TextFile.Read(l.Code, "review.txt"))))
        .ToFrozenDictionary(w => w.Code, w => w.Words, StringComparer.Ordinal);

    private ReviewWords(TextFile text)
    {
        Openings = Words(text["Openings"]);
        WantsName = Words(text["Openings that want a name"]);
        MayStandTwice = Words(text["Words that may stand twice"]).ToFrozenSet(StringComparer.OrdinalIgnoreCase);
        Enclosed = Words(text["Words for enclosed"]);
        Copies = Words(text["Words for copies"]).ToFrozenSet(StringComparer.OrdinalIgnoreCase);
        text.End();
    }

    /// <summary>How letters open in any language, the longest first: <c>Sehr geehrte</c>.</summary>
    public static IReadOnlyList<string> AllOpenings { get; } =
    [
        .. ByLanguage
            .Values.SelectMany(w => w.Openings.Concat(w.WantsName))
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .OrderByDescending(o => o.Length),
    ];

    /// <summary>Those of any language that want a name after them: <c>Dear</c>.</summary>
    public static IReadOnlySet<string> AllThatWantName { get; } =
        ByLanguage.Values.SelectMany(w => w.WantsName).ToFrozenSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>How letters open that need no name: <c>Hello</c>.</summary>
    public IReadOnlyList<string> Openings { get; }

    /// <summary>How letters open that want a name.</summary>
    public IReadOnlyList<string> WantsName { get; }

    /// <summary>Words that may follow themselves: <c>that</c>.</summary>
    public IReadOnlySet<string> MayStandTwice { get; }

    /// <summary>Words and beginnings of words that say that something is enclosed: <c>attach</c>.</summary>
    public IReadOnlyList<string> Enclosed { get; }

    /// <summary>Words for copies.</summary>
    public IReadOnlySet<string> Copies { get; }

    /// <summary>Those of a language; of English for one that is not known.</summary>
    public static ReviewWords Of(string language) =>
        ByLanguage[Language.TryParse(language, out var known) ? known.Code : Language.English.Code];

    private static List<string> Words(string line) => [.. line.Split(", ", StringSplitOptions.RemoveEmptyEntries)];
}
