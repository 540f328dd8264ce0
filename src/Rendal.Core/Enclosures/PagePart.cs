namespace Rendal.Core.Enclosures;

/// <summary>Some pages of a file that follow each other and belong to one document.</summary>
/// <param name="From">The first page, from 1.</param>
/// <param name="To">The last page.</param>
/// <param name="Recognised">Which document they are a copy of.</param>
public sealed record PagePart(int From, int To, Recognised Recognised)
{
    /// <summary>
    /// Whether one of its later pages may as well be of another document, so that a person has to look at it.
    /// </summary>
    public bool IsUnclear { get; private init; }

    /// <summary>
    /// Parts a file of several documents by the numbers on its pages. A page without a number belongs to the one before. What is written
    /// like a number of the ledger and is not in it begins a part of its own, so that the pages of an invoice that was settled do not end
    /// up with the one before. Where numbers are digits alone, such a page may as well show a postal code: it stays with the one before,
    /// and a person is asked about that.
    /// </summary>
    /// <param name="pages">The text of each page.</param>
    /// <param name="recognition">What knows the numbers.</param>
    /// <returns>The parts, in their order; all pages are in one of them. One part where there is but one document.</returns>
    public static IReadOnlyList<PagePart> Of(IReadOnlyList<string> pages, CopyRecognition recognition)
    {
        var parts = new List<(int From, int To, int Unclear)>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        IReadOnlyList<string> before = [];
        for (var page = 1; page <= pages.Count; page++)
        {
            var text = pages[page - 1];
            var (sure, doubtful) = recognition.OnPages(text);
            IReadOnlyList<string> keys = sure.Count > 0 ? sure : doubtful;
            if (parts.Count > 0 && (keys.Count == 0 || keys.SequenceEqual(before)))
            {
                var (from, _, unclear) = parts[^1];
                var isUnclear = unclear == 0 && keys.Count == 0 && recognition.LookAlikes(text).Any(key => !seen.Contains(key));
                parts[^1] = (from, page, isUnclear ? page : unclear);
            }
            else
            {
                parts.Add((page, page, 0));
                seen.Clear();
                before = keys;
            }

            seen.UnionWith(recognition.LookAlikes(text));
        }

        return
        [
            .. parts.Select(p =>
            {
                var recognised = recognition.Of("", string.Join("\n\n", pages.Take(p.To).Skip(p.From - 1)));
                return p.Unclear > 0 && recognised.Number.Length > 0
                    ? new PagePart(p.From, p.To, Asked(recognised.Number, p.Unclear)) { IsUnclear = true }
                    : new PagePart(p.From, p.To, recognised);
            }),
        ];
    }

    private static Recognised Asked(string number, int page) =>
        Recognised.Question([number], FormattableString.Invariant($"page {page} may be of another document"));
}
