using System.Collections.Frozen;
using System.Text;

namespace Rendal.Core.Enclosures;

/// <summary>
/// The document numbers of a ledger, to be found in names of files and on pages. It also sees what is written like one of them and is
/// none, such as the number of an invoice that was settled: what is a copy of that must not be taken for a copy of another one.
/// </summary>
public sealed class DocumentNumbers
{
    // What may stand between the parts of a number: "TL - 10234".
    private const int WidestGap = 3;
    private const int ShortestTail = 4;

    private readonly FrozenDictionary<string, LedgerDocument[]> byKey;
    private readonly FrozenDictionary<string, string> byTail;
    private readonly FrozenSet<string> shapes;
    private readonly FrozenSet<string> codes;
    private readonly int mostRuns;

    /// <summary>Makes the documents ready to be found.</summary>
    public DocumentNumbers(IEnumerable<LedgerDocument> documents)
    {
        byKey = documents
            .Select(d => (Key: DocumentNumber.Key(d.Number), Document: d))
            .Where(d => d.Key.Length > 0)
            .GroupBy(d => d.Key, d => d.Document, StringComparer.Ordinal)
            .ToFrozenDictionary(g => g.Key, g => g.ToArray(), StringComparer.Ordinal);
        byTail = byKey
            .Keys.Select(key => (Key: key, Tail: key[(key.LastIndexOf(' ') + 1)..]))
            .Where(k => k.Tail.Length >= ShortestTail && k.Tail.Length < k.Key.Length && char.IsAsciiDigit(k.Tail[0]))
            .GroupBy(k => k.Tail, k => k.Key, StringComparer.Ordinal)
            .Where(g => g.Count() == 1)
            .ToFrozenDictionary(g => g.Key, g => g.Single(), StringComparer.Ordinal);
        shapes = byKey.Keys.Select(Shape).ToFrozenSet(StringComparer.Ordinal);
        codes = byKey
            .Values.SelectMany(d => d)
            .Select(d => DocumentNumber.Key(d.Customer))
            .Where(code => code.Length > 0 && !byKey.ContainsKey(code))
            .ToFrozenSet(StringComparer.Ordinal);
        mostRuns = byKey.Keys.Select(key => key.Count(c => c == ' ') + 1).DefaultIfEmpty(0).Max();
    }

    /// <summary>How many different numbers there are.</summary>
    public int Count => byKey.Count;

    /// <summary>The documents that have a number, by its <see cref="DocumentNumber.Key"/>; none where the ledger has it not.</summary>
    public IReadOnlyList<LedgerDocument> Of(string key) => byKey.GetValueOrDefault(key) ?? [];

    /// <summary>A number as the ledger writes it, by its key; the key itself where the ledger has it not.</summary>
    public string Written(string key) => Of(key) is [var document, ..] ? document.Number : key;

    /// <summary>
    /// The numbers in the name of a file, in their order. The last digits alone are enough where one number of the ledger ends in them:
    /// <c>10234.pdf</c> for <c>TL-10234</c>.
    /// </summary>
    /// <param name="name">The name, searched as <see cref="DocumentNumber.Folded"/> has it.</param>
    public IReadOnlyList<FoundNumber> InName(string name) => Find(DocumentNumber.Folded(name), isName: true);

    /// <summary>
    /// The numbers on a page, in their order. What stands in an amount is none: <c>10234</c> is not in <c>10234.00</c>.
    /// </summary>
    /// <param name="text">The text of the page, its lines parted by <c>\n</c>.</param>
    public IReadOnlyList<FoundNumber> OnPage(string text) => Find(DocumentNumber.Folded(text), isName: false);

    private List<FoundNumber> Find(string text, bool isName)
    {
        var found = new List<FoundNumber>();
        var runs = DocumentNumber.RunsOf(text);
        var key = new StringBuilder();
        for (var first = 0; first < runs.Count; first++)
        {
            key.Clear();
            FoundNumber? longest = null;
            for (var last = first; last < runs.Count && last < first + mostRuns && IsNear(text, runs, first, last); last++)
            {
                key.Append(last == first ? "" : " ").Append(text, runs[last].Start, runs[last].Length);
                longest = At(text, runs, first, last, key.ToString(), isName) ?? longest;
            }

            // A number that lies within one found before is a part of that.
            if (longest is not null && (found.Count == 0 || longest.Start >= found[^1].End))
            {
                found.Add(longest);
            }
        }

        return found;
    }

    private static bool IsNear(string text, List<DocumentNumber.Run> runs, int first, int last) =>
        last == first
        || (
            runs[last].Start - runs[last - 1].End <= WidestGap
            && text.AsSpan(runs[last - 1].End, runs[last].Start - runs[last - 1].End).IndexOfAny('\n', '\t') < 0
        );

    private FoundNumber? At(string text, List<DocumentNumber.Run> runs, int first, int last, string key, bool isName)
    {
        var (start, end) = (runs[first].Start, runs[last].End);
        var isKnown = byKey.TryGetValue(key, out var documents);
        if (!isKnown && isName && first == last && byTail.TryGetValue(key, out var whole))
        {
            return new FoundNumber(whole, start, end, byKey[whole]) { IsPart = true };
        }

        if (!isKnown && (codes.Contains(key) || !shapes.Contains(Shape(key))))
        {
            return null;
        }

        var before = first > 0 && runs[first].IsDigits && runs[first - 1].IsDigits ? Between(text, runs[first - 1].End, start) : "";
        var after =
            last + 1 < runs.Count && runs[last].IsDigits && runs[last + 1].IsDigits ? Between(text, end, runs[last + 1].Start) : "";
        return !isName && (before is "." or "," || after is "." or ",")
            ? null
            : new FoundNumber(key, start, end, documents ?? []) { IsPart = before is "-" or "/" or "." || after is "-" or "/" or "." };
    }

    private static string Between(string text, int from, int to) => to - from == 1 ? text[from].ToString() : "";

    /// <summary>A key with its digits alike: <c>TL 10234</c> is written like <c>TL 99999</c>.</summary>
    private static string Shape(string key) => string.Concat(key.Select(c => char.IsAsciiDigit(c) ? '9' : c));
}
