using System.Collections.Concurrent;
using System.Collections.Frozen;
using System.Text;
using System.Text.RegularExpressions;
using Rendal.Core.Money;

namespace Rendal.Core.Intake.Columns;

/// <summary>
/// Tells what the words of a heading speak of: known words, words that are put together of known ones (<c>Belegdatum</c>), abbreviations
/// (<c>Btr.</c>, <c>amt</c>, <c>outst</c>) and small misspellings, in the languages of <c>words.txt</c>.
/// </summary>
internal sealed partial class ConceptWords
{
    private const int LongestWord = 40;
    private const int MostKnown = 20_000;

    private static readonly Lazy<ConceptWords> Loaded = new(() => new ConceptWords());
    private static readonly string[] Links = ["", "s", "n", "en", "e", "es", "er"];

    private const string Silent = "silent";

    private readonly HashSet<string> silent = new(StringComparer.Ordinal);
    private readonly FrozenDictionary<string, (string Language, HeadingConcept Concept)[]> words;
    private readonly ILookup<char, string> byFirst;
    private readonly ConcurrentDictionary<string, IReadOnlyList<WordSense>> known = new(StringComparer.Ordinal);

    private ConceptWords()
    {
        var list = new List<(string Word, string Language, HeadingConcept Concept)>();
        var language = "";
        using var stream = typeof(ConceptWords).Assembly.GetManifestResourceStream("heading-words.txt")
            ?? throw new InvalidOperationException("The words of headings are not built in.");
        using var reader = new StreamReader(stream);
        while (reader.ReadLine() is { } line)
        {
            if (line.StartsWith('['))
            {
                language = line.Trim('[', ']');
            }
            else if (line.Length > 0 && !line.StartsWith('#'))
            {
                var colon = line.IndexOf(':', StringComparison.Ordinal);
                if (line[..colon] == Silent)
                {
                    silent.UnionWith(line[(colon + 1)..].Split(' ', StringSplitOptions.RemoveEmptyEntries));
                    continue;
                }

                var concept = Enum.Parse<HeadingConcept>(line[..colon], ignoreCase: true);
                list.AddRange(
                    line[(colon + 1)..].Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(w => (Fold(w), language, concept))
                );
            }
        }

        words = list.GroupBy(w => w.Word, StringComparer.Ordinal)
            .ToFrozenDictionary(g => g.Key, g => g.Select(w => (w.Language, w.Concept)).Distinct().ToArray(), StringComparer.Ordinal);
        byFirst = words.Keys.ToLookup(w => w[0]);
    }

    /// <summary>The words of the trade that are built in, in all languages that are known.</summary>
    public static ConceptWords BuiltIn => Loaded.Value;

    /// <summary>
    /// What each word of a heading may speak of; nothing for a word that is not understood. <c>#</c>, <c>n°</c> and <c>№</c> are numbers.
    /// </summary>
    public IReadOnlyList<IReadOnlyList<WordSense>> Of(string heading)
    {
        var text = Initials()
            .Replace(heading, "$1$2")
            .Replace("A/C", " account ", StringComparison.OrdinalIgnoreCase)
            .Replace("O/S", " outstanding ", StringComparison.OrdinalIgnoreCase)
            .Replace("#", " no ", StringComparison.Ordinal)
            .Replace("№", " no ", StringComparison.Ordinal)
            .Replace("°", " ", StringComparison.Ordinal)
            .Replace("º", " ", StringComparison.Ordinal);
        return
        [
            .. Fold(HeadingWords.Plain(Parted(text)))
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Where(w => w.Length <= LongestWord && !silent.Contains(w))
                .Select(Senses),
        ];
    }

    /// <summary>InvoiceDate and invoice_date are two words each.</summary>
    private static string Parted(string text)
    {
        var parted = new StringBuilder(text.Length + 4);
        for (var i = 0; i < text.Length; i++)
        {
            if (i > 0 && char.IsUpper(text[i]) && char.IsLower(text[i - 1]))
            {
                parted.Append(' ');
            }

            parted.Append(text[i]);
        }

        return parted.ToString();
    }

    private IReadOnlyList<WordSense> Senses(string word)
    {
        if (known.TryGetValue(word, out var senses))
        {
            return senses;
        }

        var found = Find(word);
        if (known.Count < MostKnown)
        {
            known.TryAdd(word, found);
        }

        return found;
    }

    private List<WordSense> Find(string word)
    {
        if (words.TryGetValue(word, out var exact))
        {
            return [.. exact.Select(e => new WordSense(e.Language, e.Concept, 1, 0))];
        }

        if (word.Length == 3 && Currency.TryParse(word.ToUpperInvariant(), out _))
        {
            return [];
        }

        if (Compound(word) is { Count: > 0 } parts)
        {
            return parts;
        }

        if (
            word.Length >= 3
            && Like(word, w => w.Length > word.Length && w.StartsWith(word, StringComparison.Ordinal), 0.7) is { Count: > 0 } cut
        )
        {
            return cut;
        }

        if (
            word.Length is >= 2 and <= 5
            && Like(word, w => w.Length > word.Length + 1 && IsSkeleton(word, w), 0.5) is { Count: > 0 } skeleton
        )
        {
            return skeleton;
        }

        return word.Length >= 6 ? Like(word, w => w.Length >= 6 && IsMisspelt(word, w), 0.7) : [];
    }

    private List<WordSense> Like(string word, Func<string, bool> isLike, double weight) =>
        [
            .. byFirst[word[0]]
                .Where(isLike)
                .SelectMany(w => words[w])
                .Distinct()
                .Select(e => new WordSense(e.Language, e.Concept, weight, 0)),
        ];

    /// <summary>The senses of the parts of a word that is put together of two, each part with its place.</summary>
    private List<WordSense> Compound(string word)
    {
        for (var at = word.Length - 2; at >= 3; at--)
        {
            var left = word[..at];
            var right = word[at..];
            var first = Links
                .Where(l => left.Length > l.Length + 2 && left.EndsWith(l, StringComparison.Ordinal))
                .Select(l => left[..^l.Length])
                .FirstOrDefault(words.ContainsKey);
            if (first is null)
            {
                continue;
            }

            var second =
                words.TryGetValue(right, out var whole) ? whole
                : right.Length >= 3
                    ? [.. byFirst[right[0]].Where(w => w.StartsWith(right, StringComparison.Ordinal)).SelectMany(w => words[w]).Distinct()]
                : [];
            var together = words[first]
                .Select(e => e.Language)
                .Intersect(second.Select(e => e.Language))
                .ToHashSet(StringComparer.Ordinal);
            if (together.Count > 0)
            {
                return
                [
                    .. words[first].Where(e => together.Contains(e.Language)).Select(e => new WordSense(e.Language, e.Concept, 0.9, 0)),
                    .. second.Where(e => together.Contains(e.Language)).Select(e => new WordSense(e.Language, e.Concept, 0.9, 1)),
                ];
            }
        }

        // Of a word whose first part is not known, the last part says what it is: Personenkonto is an account.
        for (var at = 3; at <= word.Length - 4; at++)
        {
            if (words.TryGetValue(word[at..], out var last))
            {
                return [.. last.Select(e => new WordSense(e.Language, e.Concept, 0.6, 0))];
            }
        }

        return [];
    }

    /// <summary>
    /// Whether a word is an abbreviation that leaves vowels out, and at most one other letter (none of two letters): <c>amt</c> of amount,
    /// <c>dt</c> of date.
    /// </summary>
    private static bool IsSkeleton(string cut, string word)
    {
        if (cut.Skip(1).Any(IsVowel))
        {
            return false;
        }

        var at = 0;
        var skipped = 0;
        foreach (var c in word)
        {
            if (at == cut.Length)
            {
                break;
            }

            if (c == cut[at])
            {
                at++;
            }
            else
            {
                skipped += IsVowel(c) ? 0 : 1;
            }
        }

        return at == cut.Length && skipped <= (cut.Length > 2 ? 1 : 0);
    }

    private static bool IsVowel(char c) => "aeiou".Contains(c, StringComparison.Ordinal);

    /// <summary>Whether two words differ by one letter that is another, is missing, is too many, or has changed places.</summary>
    private static bool IsMisspelt(string a, string b)
    {
        if (Math.Abs(a.Length - b.Length) > 1)
        {
            return false;
        }

        var from = 0;
        while (from < Math.Min(a.Length, b.Length) && a[from] == b[from])
        {
            from++;
        }

        var end = 0;
        while (end < Math.Min(a.Length, b.Length) - from && a[^(end + 1)] == b[^(end + 1)])
        {
            end++;
        }

        var (left, right) = (a[from..^end], b[from..^end]);
        return Math.Max(left.Length, right.Length) <= 1
            || (left.Length == 2 && right.Length == 2 && left[0] == right[1] && left[1] == right[0]);
    }

    // C.P. is one word.
    [GeneratedRegex(@"(?<!\p{L})(\p{L})\.\s?(\p{L})\.(?!\p{L})")]
    private static partial Regex Initials();

    private static string Fold(string plain) =>
        plain
            .Replace("ß", "ss", StringComparison.Ordinal)
            .Replace("ł", "l", StringComparison.Ordinal)
            .Replace("ø", "o", StringComparison.Ordinal)
            .Replace("æ", "ae", StringComparison.Ordinal)
            .Replace("œ", "oe", StringComparison.Ordinal)
            .Replace("đ", "d", StringComparison.Ordinal);
}

/// <summary>What a word, or a part of one, may speak of.</summary>
/// <param name="Language">The language in which it does.</param>
/// <param name="Concept">What.</param>
/// <param name="Weight">How much that counts, up to 1 for a word as it stands in the list.</param>
/// <param name="Part">The part of the word, from 0.</param>
internal readonly record struct WordSense(string Language, HeadingConcept Concept, double Weight, int Part);
