using Rendal.Core.Money;

namespace Rendal.Core.Intake.Columns;

/// <summary>Finds the row of headings: nothing in it is typed like what stands below, and its words are those of headings.</summary>
internal static class HeadingSearch
{
    private const int RowsBelow = 25;
    private const int FewestCells = 2;

    // So much more two lines have to say than one of them alone.
    private const double LeastGain = 1;

    // What says more than this is plain enough: a word that stands whole in the lists is not better than two that are understood.
    private const double Plain = 4;

    /// <summary>
    /// The headings. Where they stand in two lines, the lower one with what stands above each cell put in front. A row of number 0 without
    /// text where the file begins with its items; null where nothing looks like a table.
    /// </summary>
    public static FileRow? Find(LedgerTable table)
    {
        var first = table.Rows.TakeWhile(row => row.Number <= Recognition.RowsSearched + RowsBelow).Where(r => !r.IsBlank).ToList();
        var typed = first.ConvertAll(r => r.Cells.Select(IsTyped).ToArray());
        var best = -1;
        var most = 0.0;
        for (var i = 0; i < first.Count && first[i].Number <= Recognition.RowsSearched; i++)
        {
            if (Score(first, typed, i) is var score && score > most)
            {
                (best, most) = (i, score);
            }
        }

        if (best < 0)
        {
            return WithoutHeadings(first, typed);
        }

        // Two lines of headings: the row below is one too, or the one above says what the cells of this one are of.
        return best + 1 < first.Count && IsText(first, typed, best + 1) && Joined(first[best], first[best + 1]) is { } below ? below
            : best > 0 && (IsText(first, typed, best - 1) || IsAside(first[best - 1])) && Joined(first[best - 1], first[best]) is { } above
                ? above
            : first[best];
    }

    /// <summary>A row of number 0 without text, for a file that has no headings.</summary>
    public static FileRow None(LedgerTable table) => None([.. table.Rows.Take(RowsBelow)]);

    /// <summary>How much a row looks like one of headings; 0 where it is none.</summary>
    private static double Score(List<FileRow> rows, List<bool[]> typed, int at)
    {
        var row = rows[at];
        var filled = row.Cells.Count(c => !c.IsEmpty);
        var phrases = HeadingScore.OfLedger(row);
        var own = typed[at].Count(t => t);
        if (filled < FewestCells || (own * 3 > filled && phrases < 2))
        {
            return 0;
        }

        var contrast = 0;
        for (var column = 0; column < row.Cells.Length; column++)
        {
            if (!row[column].IsEmpty && !typed[at][column])
            {
                contrast += IsTypedBelow(rows, typed, at, column) ? 1 : 0;
            }
        }

        var evidence = new HeadingEvidence([.. row.Cells.Select(c => c.IsText ? c.Text : "")], TaughtHeadings.None);
        var words = evidence.Meanings().Count;
        return phrases >= 2 || contrast >= 2 || (contrast >= 1 && words >= 2) || words >= 3
            ? (1.5 * phrases) + words + (1.5 * contrast)
            : 0;
    }

    private static bool IsTypedBelow(List<FileRow> rows, List<bool[]> typed, int at, int column)
    {
        var filled = 0;
        var are = 0;
        for (var i = at + 1; i < rows.Count && i <= at + RowsBelow; i++)
        {
            if (!rows[i][column].IsEmpty)
            {
                filled++;
                are += typed[i][column] ? 1 : 0;
            }
        }

        return filled > 0 && are * 5 >= filled * 3;
    }

    private static bool IsText(List<FileRow> rows, List<bool[]> typed, int at) =>
        rows[at].Cells.Count(c => !c.IsEmpty) >= FewestCells && !typed[at].Any(t => t) && rows[at].Cells.All(c => c.IsText || c.IsEmpty);

    /// <summary>Whether a row has text in one cell and that is not the first, as no title has.</summary>
    private static bool IsAside(FileRow row) =>
        row.Cells.Count(c => !c.IsEmpty) == 1 && row[0].IsEmpty && row.Cells.All(c => c.IsText || c.IsEmpty);

    /// <summary>Two lines of headings as one; null where they say no more together than one of them.</summary>
    private static FileRow? Joined(FileRow upper, FileRow lower)
    {
        if (lower.Number != upper.Number + 1)
        {
            return null;
        }

        // A cell of the upper line may span those to its right that have none above them, or stand for its own alone.
        var best = new[] { Together(upper, lower, spans: false), Together(upper, lower, spans: true) }.MaxBy(Said);
        return Said(best) >= Math.Max(Said(upper), Said(lower)) + LeastGain ? best : null;
    }

    private static FileRow Together(FileRow upper, FileRow lower, bool spans)
    {
        var cells = new List<Cell>();
        var above = "";
        for (var i = 0; i < Math.Max(upper.Cells.Length, lower.Cells.Length); i++)
        {
            above =
                upper[i].IsEmpty && spans ? above
                : upper[i].IsEmpty ? ""
                : upper[i].Text;
            cells.Add(
                lower[i].IsEmpty ? upper[i]
                : above.Length == 0 ? lower[i]
                : Cell.Of($"{above} {lower[i].Text}")
            );
        }

        return lower with
        {
            Cells = [.. cells],
        };
    }

    /// <summary>How much the headings of a row say in all; what several of them say counts once.</summary>
    private static double Said(FileRow row)
    {
        var evidence = new HeadingEvidence([.. row.Cells.Select(c => c.Text)], TaughtHeadings.None);
        var columns = Enumerable.Range(0, Math.Min(row.Cells.Length, Recognition.ColumnsToldApart)).ToList();
        return columns
                .Where(i => !evidence.IsForeign(i))
                .Select(i => Enum.GetValues<ColumnMeaning>().Select(m => (Meaning: m, Score: evidence.For(i, m))).MaxBy(m => m.Score))
                .Where(m => m.Score > 0)
                .GroupBy(m => m.Meaning)
                .Sum(g => Math.Min(g.Max(m => m.Score), Plain)) + (2 * columns.Count(evidence.IsForeign));
    }

    private static FileRow? WithoutHeadings(List<FileRow> rows, List<bool[]> typed)
    {
        var items = 0;
        for (var i = 0; i < rows.Count; i++)
        {
            items += rows[i].Cells.Count(c => !c.IsEmpty) >= 3 && typed[i].Count(t => t) >= 2 ? 1 : 0;
        }

        return items >= 2 && items * 2 > rows.Count ? None(rows) : null;
    }

    private static FileRow None(List<FileRow> rows) =>
        new(0, [.. Enumerable.Repeat(Cell.Empty, rows.Select(r => r.Cells.Length).DefaultIfEmpty().Max())]);

    private static bool IsTyped(Cell cell) =>
        !cell.IsEmpty
        && (
            cell.Number is not null
            || cell.Date is not null
            || (
                cell.IsText
                && cell.Length <= 40
                && (
                    WrittenAmount.TryTake(cell.Text, out _)
                    || WrittenDate.TryTake(cell.Text, out _)
                    || cell.Text.Contains('@', StringComparison.Ordinal)
                )
            )
        );
}
