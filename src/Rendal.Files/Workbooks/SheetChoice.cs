using Rendal.Core.Budgets;
using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>Finds the sheet with the ledger in it, and takes its rows.</summary>
internal static class SheetChoice
{
    /// <summary>
    /// The sheet that a person named; else the visible one with the most known headings, the first where several have as many or none has
    /// any. A hidden sheet is only ever taken when it is named or there is no other.
    /// </summary>
    public static LedgerTable Take(string name, Workbook book, FileOpening opening, Action<int> at)
    {
        if (book.HasOneSheet)
        {
            var only = book.Sheets().First();
            var index = Choose(name, [(only.Seen, 0, 1)], opening.Sheet, out var because);
            var rows = RowSpool.Of(ReadAhead.Of(MovedColumns.Aligned(Counted(name, only))), at);
            return rows.Count == 0 ? throw Nothing(name) : Table(name, book, [only.Seen], index, because, rows, only.HiddenColumns);
        }

        var sheets = new List<(SheetSeen Seen, int Headings, int Rows)>();
        foreach (var sheet in book.Sheets())
        {
            var first = sheet.Rows.Take(Recognition.RowsSearched).ToList();
            sheets.Add(
                (
                    sheet.Seen,
                    first.Where(r => r.Number <= Recognition.RowsSearched).Select(HeadingScore.Of).DefaultIfEmpty().Max(),
                    first.Count
                )
            );
        }

        var chosen = Choose(name, sheets, opening.Sheet, out var reason);
        foreach (var (position, sheet) in book.Sheets().Index())
        {
            // The rows of a sheet can be gone through only while the workbook stands at it.
            if (position == chosen)
            {
                return Table(
                    name,
                    book,
                    [.. sheets.Select(s => s.Seen)],
                    chosen,
                    reason,
                    RowSpool.Of(ReadAhead.Of(MovedColumns.Aligned(Counted(name, sheet))), at),
                    sheet.HiddenColumns
                );
            }
        }

        throw new InvalidOperationException("A workbook has fewer sheets than it had a moment ago.");
    }

    private static LedgerTable Table(
        string name,
        Workbook book,
        IReadOnlyList<SheetSeen> sheets,
        int chosen,
        string reason,
        RowSpool rows,
        IReadOnlyCollection<int> hiddenColumns
    ) =>
        new(name, sheets[chosen].Name, rows)
        {
            Traits = new FileTraits
            {
                Sheets = sheets,
                SheetReason = reason,
                Dates1904 = book.Dates1904,
                HiddenColumns = [.. hiddenColumns],
            },
        };

    /// <summary>The rows of a sheet, as long as they are within a sheet's budget.</summary>
    private static IEnumerable<FileRow> Counted(string name, Sheet sheet)
    {
        var budget = TimedBudget.Begin($"{name}, sheet “{sheet.Seen.Name}”,", Limits.Sheet, CancellationToken.None);
        foreach (var row in sheet.Rows)
        {
            budget.AtMost(Cost.Rows, row.Number);
            budget.Spend(Cost.Cells, row.Cells.Length);
            budget.Spend(Cost.Characters, row.Cells.Sum(c => (long)c.Length));
            budget.Continue();
            yield return row;
        }
    }

    private static FileRefused Nothing(string name) => new($"{name} is a workbook with nothing in it.");

    private static int Choose(string name, List<(SheetSeen Seen, int Headings, int Rows)> sheets, string? wanted, out string reason)
    {
        if (wanted is not null)
        {
            reason = "set by you";
            var named = sheets.FindIndex(s => s.Seen.Name == wanted);
            named = named >= 0 ? named : sheets.FindIndex(s => string.Equals(s.Seen.Name, wanted, StringComparison.OrdinalIgnoreCase));
            return named >= 0
                ? named
                : throw new FileRefused(
                    $"{name} has no sheet “{wanted}”; there {(sheets.Count == 1 ? "is" : "are")} "
                        + $"{string.Join(", ", sheets.Select(s => $"“{s.Seen.Name}”"))}."
                );
        }

        if (sheets.TrueForAll(s => s.Rows == 0))
        {
            throw Nothing(name);
        }

        var open = sheets.Exists(s => !s.Seen.IsHidden && s.Rows > 0)
            ? sheets.FindAll(s => !s.Seen.IsHidden && s.Rows > 0)
            : sheets.FindAll(s => s.Rows > 0);
        var best = open.MaxBy(s => s.Headings);
        reason =
            sheets.Count == 1 ? "the only sheet"
            : open.Count == 1 ? "the only one with anything in it"
            : best.Headings > 0 ? "has the most known headings"
            : "the first one";
        return sheets.IndexOf(best);
    }
}
