using System.Globalization;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>
/// The columns of a workbook that are hidden. Whoever looks at the workbook does not see them, so that a person says whether they count.
/// </summary>
/// <param name="reading">How the file is read.</param>
internal sealed class HiddenColumns(Reading reading)
{
    private const int MostNamed = 5;

    private readonly ColumnReading[] columns = [.. reading.Columns.Where(c => c.IsHidden)];
    private readonly Dictionary<int, (int Numbers, decimal Sum)> sums = [];
    private int rows;

    /// <summary>
    /// Adds what a row has in the hidden columns to what they come to. A row that does not become a ledger row is not to be counted.
    /// </summary>
    public void Count(FileRow row)
    {
        if (columns.Length == 0)
        {
            return;
        }

        rows++;
        foreach (var column in columns)
        {
            if (row[column.Index].Number is { } number && row[column.Index].ShownAs is null)
            {
                var (numbers, sum) = sums.GetValueOrDefault(column.Index);
                sums[column.Index] = (numbers + 1, sum + number);
            }
        }
    }

    /// <summary>What there is to say of them; null where there are none.</summary>
    /// <param name="file">Where they stand.</param>
    /// <param name="leftOut">Whether a person has them left out.</param>
    public Finding? Finding(SourceRef file, bool leftOut)
    {
        if (columns.Length == 0)
        {
            return null;
        }

        var counts = columns.Any(c => c.Meaning != ColumnMeaning.Extra);
        var named = columns.Take(MostNamed).Select(Named).ToList();
        return new Finding(
            FindingCodes.ColumnsHidden,
            leftOut || !counts ? Severity.Note : Severity.Warning,
            file with
            {
                Row = reading.HeadingRow,
            },
            columns[0].Heading,
            null,
            $"{(columns.Length == 1 ? "One column is" : $"{columns.Length} columns are")} hidden in the workbook: "
                + $"{string.Join(", ", named)}{(columns.Length > MostNamed ? ", …" : "")}. "
                + $"{(columns.Length == 1 ? "It is" : "They are")} {(leftOut ? "left out" : "read like the others")}.",
            leftOut ? "" : "Look whether they count, or leave them out."
        );
    }

    /// <summary>Its heading, and what it comes to where it is numbers rather than codes or days.</summary>
    private string Named(ColumnReading column) =>
        sums.TryGetValue(column.Index, out var of) && of.Numbers * 2 > rows && of.Sum != decimal.Truncate(of.Sum)
        || (column.Meaning.IsAmount() && sums.ContainsKey(column.Index))
            ? $"“{column.Heading}”, which comes to {sums[column.Index].Sum.ToString("#,##0.00", CultureInfo.InvariantCulture)}"
            : $"“{column.Heading}”";
}
