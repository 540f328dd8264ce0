using System.Collections.Immutable;

namespace Rendal.Core.Intake;

/// <summary>
/// Puts the columns of several tables below each other in one order: where headings that stood above stand again, but in other places, the
/// rows below them are moved to the places that the first headings have.
/// </summary>
public static class MovedColumns
{
    private const int FewestSaid = 3;
    private const int FewestSame = 3;

    /// <summary>The rows, each value under the heading that it had; rows that were moved say so.</summary>
    /// <param name="rows">The rows of one sheet or file, from the first on.</param>
    public static IEnumerable<FileRow> Aligned(IEnumerable<FileRow> rows)
    {
        Dictionary<string, int>? places = null;
        var width = 0;
        int[]? moves = null;
        foreach (var row in rows)
        {
            if (places is null)
            {
                if (row.Number <= Recognition.RowsSearched && HeadingScore.Of(row) >= FewestSaid)
                {
                    (places, width) = (Places(row), row.Cells.Length);
                }
            }
            else if (row.Cells.FirstOrDefault(c => !c.IsEmpty) is { IsText: true } first && places.ContainsKey(first.Text))
            {
                moves = IsHeading(row, places) ? Moves(row, places, width) : moves;
            }

            yield return moves is null ? row : row with { Cells = Moved(row, moves), IsMoved = true };
        }
    }

    private static Dictionary<string, int> Places(FileRow headings)
    {
        var places = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < headings.Cells.Length; i++)
        {
            if (headings[i].IsText)
            {
                places.TryAdd(headings[i].Text, i);
            }
        }

        return places;
    }

    private static bool IsHeading(FileRow row, Dictionary<string, int> places)
    {
        var filled = row.Cells.Count(c => !c.IsEmpty);
        var same = row.Cells.Where(c => c.IsText && places.ContainsKey(c.Text)).Select(c => c.Text).Distinct().Count();
        return same >= FewestSame && same * 3 >= filled * 2;
    }

    /// <summary>Where each column of the row goes; null where all stand where they stood before.</summary>
    private static int[]? Moves(FileRow row, Dictionary<string, int> places, int width)
    {
        var moves = new int[row.Cells.Length];
        var taken = new HashSet<int>();
        for (var i = 0; i < moves.Length; i++)
        {
            moves[i] = row[i].IsText && places.TryGetValue(row[i].Text, out var place) && taken.Add(place) ? place : -1;
        }

        if (Enumerable.Range(0, moves.Length).All(i => moves[i] == i || row[i].IsEmpty))
        {
            return null;
        }

        // What has no heading above, or another, stands behind all that have.
        for (var (i, next) = (0, width); i < moves.Length; i++)
        {
            moves[i] = moves[i] < 0 ? next++ : moves[i];
        }

        return moves;
    }

    private static ImmutableArray<Cell> Moved(FileRow row, int[] moves)
    {
        var cells = new List<Cell>();
        for (var i = 0; i < row.Cells.Length; i++)
        {
            var to = i < moves.Length ? moves[i] : Math.Max(moves.DefaultIfEmpty().Max() + 1 + i - moves.Length, i);
            if (row[i].IsEmpty)
            {
                continue;
            }

            while (cells.Count <= to)
            {
                cells.Add(Cell.Empty);
            }

            cells[to] = row[i];
        }

        return [.. cells];
    }
}
