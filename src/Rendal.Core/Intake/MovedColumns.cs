using System.Collections.Immutable;
using System.Runtime.InteropServices;

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
        Moves? moves = null;
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
                moves = IsHeading(row, places) ? Moves.Of(row, places, width) : moves;
            }

            yield return moves is null ? row : row with { Cells = moves.Apply(row), IsMoved = true };
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

    /// <summary>Where the columns of the rows go.</summary>
    /// <param name="to">By their places in the file.</param>
    /// <param name="beyond">Where what stands behind the headings goes.</param>
    private sealed class Moves(int[] to, int beyond)
    {
        /// <summary>Those of the rows below some headings; null where all stand where they stood before.</summary>
        public static Moves? Of(FileRow headings, Dictionary<string, int> places, int width)
        {
            var to = new int[headings.Cells.Length];
            var taken = new HashSet<int>();
            for (var i = 0; i < to.Length; i++)
            {
                to[i] = headings[i].IsText && places.TryGetValue(headings[i].Text, out var place) && taken.Add(place) ? place : -1;
            }

            if (Enumerable.Range(0, to.Length).All(i => to[i] == i || headings[i].IsEmpty))
            {
                return null;
            }

            // What has no heading above, or another, stands behind all that have.
            var next = width;
            for (var i = 0; i < to.Length; i++)
            {
                to[i] = to[i] < 0 ? next++ : to[i];
            }

            return new Moves(to, Math.Max(next, to.Length));
        }

        /// <summary>The cells of a row at the places that the first headings have.</summary>
        public ImmutableArray<Cell> Apply(FileRow row)
        {
            var cells = new Cell[row.Cells.Select((cell, i) => cell.IsEmpty ? 0 : Place(i) + 1).DefaultIfEmpty().Max()];
            for (var i = 0; i < row.Cells.Length; i++)
            {
                if (!row[i].IsEmpty)
                {
                    cells[Place(i)] = row[i];
                }
            }

            return ImmutableCollectionsMarshal.AsImmutableArray(cells);
        }

        private int Place(int column) => column < to.Length ? to[column] : beyond + column - to.Length;
    }
}
