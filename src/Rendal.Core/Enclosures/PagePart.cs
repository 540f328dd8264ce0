namespace Rendal.Core.Enclosures;

/// <summary>Some pages of a file that follow each other and belong to one document.</summary>
/// <param name="From">The first page, from 1.</param>
/// <param name="To">The last page.</param>
/// <param name="Recognised">Which document they are a copy of.</param>
public sealed record PagePart(int From, int To, Recognised Recognised)
{
    /// <summary>
    /// Parts a file of several documents by the numbers on its pages. A page without a number belongs to the one before. What is written
    /// like a number of the ledger and is not in it begins a part of its own, so that the pages of an invoice that was settled do not
    /// end up with the one before.
    /// </summary>
    /// <param name="pages">The text of each page.</param>
    /// <param name="recognition">What knows the numbers.</param>
    /// <returns>The parts, in their order; all pages are in one of them. One part where there is but one document.</returns>
    public static IReadOnlyList<PagePart> Of(IReadOnlyList<string> pages, CopyRecognition recognition)
    {
        var parts = new List<(int From, int To)>();
        IReadOnlyList<string> before = [];
        for (var page = 1; page <= pages.Count; page++)
        {
            var (sure, doubtful) = recognition.OnPages(pages[page - 1]);
            IReadOnlyList<string> keys = sure.Count > 0 ? sure : doubtful;
            if (parts.Count > 0 && (keys.Count == 0 || keys.SequenceEqual(before)))
            {
                parts[^1] = (parts[^1].From, page);
            }
            else
            {
                parts.Add((page, page));
                before = keys;
            }
        }

        return
        [
            .. parts.Select(p => new PagePart(p.From, p.To, recognition.Of("", string.Join("\n\n", pages.Take(p.To).Skip(p.From - 1))))),
        ];
    }
}
