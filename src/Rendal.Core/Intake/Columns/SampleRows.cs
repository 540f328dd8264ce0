namespace Rendal.Core.Intake.Columns;

/// <summary>The first rows of a file below its headings, by which it is found out what its columns are.</summary>
/// <param name="Items">Rows that could be items.</param>
/// <param name="Lines">Those and the total lines between them, in the order of the file.</param>
/// <param name="Width">How many columns there are.</param>
internal sealed record SampleRows(IReadOnlyList<FileRow> Items, IReadOnlyList<(FileRow Row, bool IsTotal)> Lines, int Width)
{
    /// <summary>So many rows are looked at at most.</summary>
    public const int MostRows = 5_000;

    /// <summary>So many cells are looked at at most: of a wide file fewer rows.</summary>
    public const int MostCells = 200_000;

    private const int FewCells = 2;

    /// <summary>
    /// Takes the sample. Left out are blank rows, the headings where they stand again, and lines of a cell or two in a file whose rows
    /// have more, which name a group.
    /// </summary>
    public static SampleRows Of(LedgerTable table, FileRow headings)
    {
        var rows = new List<FileRow>();
        var cells = 0;
        var width = headings.Cells.Length;
        foreach (var row in table.Rows)
        {
            if (row.Number <= headings.Number || row.IsBlank || IsHeadingAgain(row, headings))
            {
                continue;
            }

            rows.Add(row);
            width = Math.Max(width, row.Cells.Length);
            cells += row.Cells.Length;
            if (rows.Count >= MostRows || cells >= MostCells)
            {
                break;
            }
        }

        var filled = rows.ConvertAll(r => r.Cells.Count(c => !c.IsEmpty));
        var usual = filled.Order().ElementAtOrDefault(filled.Count / 2);
        var items = new List<FileRow>();
        var lines = new List<(FileRow, bool)>();
        for (var i = 0; i < rows.Count; i++)
        {
            if (TotalLines.Is(rows[i], []) && filled[i] < usual)
            {
                lines.Add((rows[i], true));
            }
            else if (filled[i] > FewCells || usual <= FewCells + 1)
            {
                items.Add(rows[i]);
                lines.Add((rows[i], false));
            }
        }

        return new SampleRows(items, lines, Math.Min(width, Recognition.ColumnsToldApart));
    }

    private static bool IsHeadingAgain(FileRow row, FileRow headings)
    {
        var same = 0;
        var filled = 0;
        for (var i = 0; i < row.Cells.Length; i++)
        {
            if (!row.Cells[i].IsEmpty)
            {
                filled++;
                same += row.Cells[i].IsText && row.Cells[i].Text == headings[i].Text ? 1 : 0;
            }
        }

        return filled > 1 && same * 2 > filled;
    }
}
