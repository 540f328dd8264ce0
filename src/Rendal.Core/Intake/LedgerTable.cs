using System.Collections.Immutable;

namespace Rendal.Core.Intake;

/// <summary>One row of a file.</summary>
/// <param name="Number">From 1, as a spreadsheet shows it.</param>
/// <param name="Cells">The cells from the first column on; rows may be of different length.</param>
/// <param name="IsHidden">Whether the workbook hides it, by hand or by a filter.</param>
/// <param name="IsMoved">Whether its cells stood in other columns, under the same headings.</param>
public readonly record struct FileRow(int Number, ImmutableArray<Cell> Cells, bool IsHidden = false, bool IsMoved = false)
{
    /// <summary>The cell of a column; empty where the row is shorter.</summary>
    public Cell this[int column] => column < Cells.Length ? Cells[column] : Cell.Empty;

    /// <summary>Whether no cell holds anything; white space is nothing.</summary>
    public bool IsBlank
    {
        get
        {
            for (var i = 0; i < Cells.Length; i++)
            {
                if (!Cells[i].IsEmpty)
                {
                    return false;
                }
            }

            return true;
        }
    }
}

/// <summary>A file, or one sheet of a workbook, as rows that can be gone through as often as needed.</summary>
/// <param name="File">The file's name without folders.</param>
/// <param name="Sheet">The sheet's name; null for a text file.</param>
/// <param name="Rows">Goes through the rows from the start each time it is enumerated, holding only one at a time.</param>
public sealed record LedgerTable(string File, string? Sheet, IEnumerable<FileRow> Rows)
{
    /// <summary>How the file was opened, and why so.</summary>
    public FileTraits Traits { get; init; } = FileTraits.None;

    /// <summary>The same table, telling the number of each row as it is come by; <paramref name="at"/> may throw to stop it.</summary>
    public LedgerTable Watched(Action<int> at) => this with { Rows = Watch(Rows, at) };

    private static IEnumerable<FileRow> Watch(IEnumerable<FileRow> rows, Action<int> at)
    {
        foreach (var row in rows)
        {
            at(row.Number);
            yield return row;
        }
    }
}
