using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>
/// Finds due dates that lie far from all others: a year that was typed wrongly. Its memory grows with the number of months that occur, not
/// of rows.
/// </summary>
internal sealed class FarDates
{
    /// <summary>So many months without a due date part those that belong together from others.</summary>
    private const int Gap = 24;

    /// <summary>Fewer rows than this say nothing about what is usual.</summary>
    private const int Fewest = 5;

    private const int MostNamed = 5;

    private readonly SortedDictionary<int, Month> months = [];

    /// <summary>
    /// Counts the due date of a row. Of a month with few rows the first five are kept, to be named where it lies far from all others.
    /// </summary>
    public void Count(DateOnly due, int row, string customer)
    {
        var number = (due.Year * 12) + due.Month - 1;
        if (!months.TryGetValue(number, out var month))
        {
            months.Add(number, month = new Month());
        }

        month.Count++;
        if (month.Rows.Count < MostNamed)
        {
            month.Rows.Add((due, row, customer));
        }
    }

    /// <summary>Those that lie two years and more from the nine tenths or more of the rows that belong together.</summary>
    /// <param name="source">The place of a row.</param>
    /// <param name="column">The heading of the column of due dates; null where there is none.</param>
    public IEnumerable<Finding> Findings(Func<int, SourceRef> source, string? column)
    {
        var groups = new List<List<KeyValuePair<int, Month>>>();
        foreach (var month in months)
        {
            if (groups.Count == 0 || month.Key - groups[^1][^1].Key > Gap)
            {
                groups.Add([]);
            }

            groups[^1].Add(month);
        }

        if (groups.Count < 2)
        {
            yield break;
        }

        var all = groups.Sum(Count);
        var usual = groups.MaxBy(Count)!;
        if (Count(usual) < Fewest || Count(usual) * 10 < all * 9)
        {
            yield break;
        }

        var (first, last) = (Name(usual[0].Key), Name(usual[^1].Key));
        foreach (var (due, row, customer) in groups.Where(g => g != usual).SelectMany(g => g).SelectMany(m => m.Value.Rows))
        {
            yield return new Finding(
                FindingCodes.DueDateFar,
                Severity.Warning,
                source(row),
                column,
                customer,
                $"The due date {due:yyyy-MM-dd} lies far from all others, which are of {(first == last ? first : $"{first} to {last}")}.",
                "Look whether the year is right."
            );
        }
    }

    private static int Count(List<KeyValuePair<int, Month>> group) => group.Sum(m => m.Value.Count);

    private static string Name(int month) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{new DateOnly(month / 12, (month % 12) + 1, 1):yyyy-MM}");

    private sealed class Month
    {
        /// <summary>How many due dates lie in it.</summary>
        public int Count { get; set; }

        /// <summary>The first five of them, with row and customer.</summary>
        public List<(DateOnly Due, int Row, string Customer)> Rows { get; } = [];
    }
}
