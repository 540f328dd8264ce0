namespace Rendal.Core.Intake;

/// <summary>
/// The corrections of a book, laid over the rows of one file. Which of them the file still needs is known after its rows were gone
/// through.
/// </summary>
public sealed class AppliedCorrections
{
    private readonly Reading reading;
    private readonly Dictionary<string, List<(ColumnReading Column, Correction Correction)>> cells = new(StringComparer.Ordinal);
    private readonly Dictionary<(int Column, string Was), Correction> everywhere = [];
    private readonly int[] everywhereColumns;
    private readonly Dictionary<string, Correction> leftOut = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Correction> joined = new(StringComparer.Ordinal);

    /// <summary>Lays corrections over a file with these columns; those for columns that it does not have rest.</summary>
    public AppliedCorrections(Reading reading, IEnumerable<Correction> corrections)
    {
        this.reading = reading;
        foreach (var correction in corrections)
        {
            var column = reading.Columns.FirstOrDefault(c => c.Heading == correction.Column);
            switch (correction.Kind)
            {
                case CorrectionKind.Cell when column is not null:
                    (cells.TryGetValue(correction.Of, out var of) ? of : cells[correction.Of] = []).Add((column, correction));
                    break;
                case CorrectionKind.Everywhere when column is not null:
                    everywhere[(column.Index, correction.Was)] = correction;
                    break;
                case CorrectionKind.RowLeftOut:
                    leftOut[correction.Of] = correction;
                    break;
                case CorrectionKind.CustomersJoined:
                    joined[correction.Was] = correction;
                    break;
                default:
                    break;
            }
        }

        everywhereColumns = [.. everywhere.Keys.Select(k => k.Column).Distinct()];
    }

    /// <summary>The row as it holds, and why it is left out; null where it is not.</summary>
    /// <param name="row">The row as it stands in the file.</param>
    /// <param name="superseded">Is told each correction whose value the source has changed in the meantime, with the row and what it says
    /// now.</param>
    /// <param name="applied">Is told each correction that changes the row.</param>
    public (FileRow Row, string? LeftOut) Correct(
        FileRow row,
        Action<FileRow, Correction, string>? superseded = null,
        Action<Correction>? applied = null
    )
    {
        if (cells.Count == 0 && leftOut.Count == 0 && everywhereColumns.Length == 0)
        {
            return (row, null);
        }

        Cell[]? changed = null;
        foreach (var column in everywhereColumns)
        {
            if (everywhere.TryGetValue((column, row[column].Text), out var correction))
            {
                Put(ref changed, row, column, correction.Becomes);
                applied?.Invoke(correction);
            }
        }

        var key = cells.Count > 0 || leftOut.Count > 0 ? RowKey.Of(row, reading) : "";
        if (cells.TryGetValue(key, out var of))
        {
            foreach (var (column, correction) in of)
            {
                var now = row[column.Index].Text;
                if (now == correction.Was)
                {
                    Put(ref changed, row, column.Index, correction.Becomes);
                    applied?.Invoke(correction);
                }
                else if (now != correction.Becomes)
                {
                    superseded?.Invoke(row, correction, now);
                }
            }
        }

        return (changed is null ? row : row with { Cells = [.. changed] }, leftOut.TryGetValue(key, out var left) ? left.Reason : null);
    }

    /// <summary>
    /// The customer that a key stands for once joined ones are one; chains are followed to their end, and a loop ends where it began.
    /// </summary>
    /// <param name="key">The key.</param>
    /// <param name="applied">Is told each correction on the way.</param>
    public string CustomerOf(string key, Action<Correction>? applied = null)
    {
        var now = key;
        for (var steps = 0; steps < joined.Count && joined.TryGetValue(now, out var with); steps++)
        {
            applied?.Invoke(with);
            now = with.Becomes;
        }

        return now;
    }

    /// <summary>Whether a key was joined with another.</summary>
    public bool IsJoined(string key) => joined.ContainsKey(key);

    private static void Put(ref Cell[]? changed, FileRow row, int column, string value)
    {
        changed ??= [.. row.Cells, .. Enumerable.Repeat(Cell.Empty, Math.Max(0, column + 1 - row.Cells.Length))];
        changed[column] = Cell.Of(value);
    }
}
