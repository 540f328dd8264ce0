using System.Globalization;
using System.Text;

namespace Rendal.Core.People;

/// <summary>
/// The name that a person signs in with, as it is compared: two that a person could take for each other are one. <c>The Boss</c>, <c>the
/// boss</c>, <c>The&#x200B;Boss</c> and <c>Тhе Воss</c> with Cyrillic letters are the same name.
/// </summary>
public static class PersonName
{
    /// <summary>The most characters of a name.</summary>
    public const int Longest = 100;

    // Letters that look like another, in the scripts in which a name can be written that looks Latin (after UTS #39, "confusables").
    private static readonly (string Look, char Like)[] Table =
    [
        ("аɑα@", 'a'),
        ("ьв", 'b'),
        ("сϲ", 'c'),
        ("ԁ", 'd'),
        ("еєҽ", 'e'),
        ("ɡց", 'g'),
        ("һհн", 'h'),
        ("іιıӏɩ1|!", 'i'),
        ("јϳ", 'j'),
        ("кκ", 'k'),
        ("м", 'm'),
        ("пոη", 'n'),
        ("оοօө0", 'o'),
        ("рρ", 'p'),
        ("ԛզ", 'q'),
        ("г", 'r'),
        ("ѕ5$", 's'),
        ("тτ", 't'),
        ("սυʋ", 'u'),
        ("νѵ", 'v'),
        ("ԝѡω", 'w'),
        ("хχ", 'x'),
        ("уγ", 'y'),
    ];

    private static readonly Dictionary<char, char> Alike = Pairs();

    /// <summary>
    /// The name folded: NFKC, without case, white space, punctuation and invisible characters, with look-alike letters made one.
    /// </summary>
    public static string Fold(string name)
    {
        var folded = new StringBuilder(name.Length);
        foreach (
            var rune in name.Normalize(NormalizationForm.FormKC).ToLowerInvariant().Normalize(NormalizationForm.FormKD).EnumerateRunes()
        )
        {
            switch (Rune.GetUnicodeCategory(rune))
            {
                case UnicodeCategory.NonSpacingMark
                or UnicodeCategory.EnclosingMark
                or UnicodeCategory.SpacingCombiningMark
                or UnicodeCategory.Format
                or UnicodeCategory.Control:
                case UnicodeCategory.SpaceSeparator or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator:
                case UnicodeCategory.DashPunctuation
                or UnicodeCategory.ConnectorPunctuation
                or UnicodeCategory.OtherPunctuation when !rune.IsBmp || !Alike.ContainsKey((char)rune.Value):
                    break;
                default:
                    folded.Append(rune.IsBmp && Alike.TryGetValue((char)rune.Value, out var like) ? like.ToString() : rune.ToString());
                    break;
            }
        }

        return folded.ToString();
    }

    /// <summary>What keeps a name from being one; null for nothing.</summary>
    public static string? Problem(string name) =>
        string.IsNullOrWhiteSpace(name) ? "Say the name to sign in with."
        : name.Trim().Length > Longest || name.Any(char.IsControl)
            ? $"A name to sign in with has at most {Longest} characters, on one line."
        : Fold(name).Length == 0 ? "A name to sign in with has letters."
        : null;

    private static Dictionary<char, char> Pairs()
    {
        var pairs = new Dictionary<char, char> { ['i'] = 'l' };
        foreach (var (look, like) in Table)
        {
            foreach (var letter in look)
            {
                pairs[letter] = like == 'i' ? 'l' : like;
            }
        }

        return pairs;
    }
}
