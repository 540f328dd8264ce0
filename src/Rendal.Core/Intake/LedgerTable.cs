namespace Rendal.Core.Intake;

/// <summary>One row of a file.</summary>
/// <param name="Number">From 1, as a spreadsheet shows it.</param>
/// <param name="Cells">The cells from the first column on; rows may be of different length.</param>
public readonly record struct FileRow(int Number, IReadOnlyList<Cell> Cells)
{
    /// <summary>The cell of a column; empty where the row is shorter.</summary>
    public Cell this[int column] => column < Cells.Count ? Cells[column] : Cell.Empty;
}

/// <summary>A file, or one sheet of a workbook, as rows that can be gone through as often as needed.</summary>
/// <param name="File">The file's name without folders.</param>
/// <param name="Sheet">The sheet's name; null for a text file.</param>
/// <param name="Rows">Goes through the rows from the start each time it is enumerated, holding only one at a time.</param>
public sealed record LedgerTable(string File, string? Sheet, IEnumerable<FileRow> Rows);
