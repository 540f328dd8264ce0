using System.Collections.Immutable;
using ExcelDataReader;
using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>
/// Cells of one sheet that span rows. A file has their value in the first row only; it holds for each row that has anything
/// of its own. Used once, from the top of the sheet down.
/// </summary>
internal sealed class MergedCells
{
    private readonly ILookup<int, CellRange>? known;
    private readonly Dictionary<int, (Cell Cell, int Rows)> reaching = [];
    private readonly List<(int Column, Cell Cell, int Rows)> begun = [];

    /// <summary>None are known yet; they are told by <see cref="Begin"/>.</summary>
    public MergedCells() { }

    private MergedCells(ILookup<int, CellRange> known) => this.known = known;

    /// <summary>Those of a sheet that names them all.</summary>
    /// <param name="ranges">The ranges, counted from 0; null for none.</param>
    public static MergedCells Of(CellRange[]? ranges) => new((ranges ?? []).Where(r => r.ToRow > r.FromRow).ToLookup(r => r.FromRow + 1));

    /// <summary>Tells of a cell in the row that comes next to <see cref="Fill"/>.</summary>
    /// <param name="column">Its column, from 0.</param>
    /// <param name="cell">It.</param>
    /// <param name="rows">How many rows below it spans.</param>
    public void Begin(int column, Cell cell, int rows) => begun.Add((column, cell, rows));

    /// <summary>A row with the values that reach into it. One with nothing of its own stays as it is.</summary>
    /// <param name="number">Its number, from 1.</param>
    /// <param name="cells">Its own cells.</param>
    /// <param name="times">How many rows below each other are alike.</param>
    public ImmutableArray<Cell> Fill(int number, ImmutableArray<Cell> cells, int times = 1)
    {
        var filled = reaching.Count == 0 || cells.Length == 0 ? cells : With(cells);
        foreach (var (column, (cell, rows)) in reaching.ToList())
        {
            if (rows > times)
            {
                reaching[column] = (cell, rows - times);
            }
            else
            {
                reaching.Remove(column);
            }
        }

        foreach (var range in known?[number] ?? [])
        {
            if (range.FromColumn < cells.Length && !cells[range.FromColumn].IsEmpty)
            {
                Begin(range.FromColumn, cells[range.FromColumn], range.ToRow - range.FromRow);
            }
        }

        foreach (var (column, cell, rows) in begun)
        {
            reaching[column] = (cell.Below(), rows);
        }

        begun.Clear();
        return filled;
    }

    private ImmutableArray<Cell> With(ImmutableArray<Cell> cells)
    {
        var row = cells.ToList();
        foreach (var (column, (cell, _)) in reaching)
        {
            while (row.Count <= column)
            {
                row.Add(Cell.Empty);
            }

            row[column] = row[column].IsEmpty ? cell : row[column];
        }

        return [.. row];
    }
}
