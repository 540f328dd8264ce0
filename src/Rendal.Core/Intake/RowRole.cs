using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>What a row of a file is there for.</summary>
public enum RowRole
{
    /// <summary>Something that is owed or paid.</summary>
    Item,

    /// <summary>A line above the headings: a title, the date of the list.</summary>
    Above,

    /// <summary>The headings, or the headings again at the top of a new page.</summary>
    Heading,

    /// <summary>Nothing stands in it.</summary>
    Blank,

    /// <summary>A total or subtotal.</summary>
    Total,

    /// <summary>A line that names the customer of the rows below it.</summary>
    Group,
}

/// <summary>Tells the rows of one file apart.</summary>
/// <param name="reading">How the file is read.</param>
public sealed class RowRoles(Reading reading)
{
    private readonly ColumnReading? code = reading.Of(ColumnMeaning.CustomerCode);
    private readonly ColumnReading? name = reading.Of(ColumnMeaning.CustomerName);
    private readonly ColumnReading? number = reading.Of(ColumnMeaning.Number);
    private readonly ColumnReading[] values = [.. reading.Columns.Where(c => c.Meaning.IsAmount() || c.Meaning.IsDate())];
    private readonly ColumnReading[] dates = [.. reading.Columns.Where(c => c.Meaning.IsDate())];
    private readonly ColumnReading[] headed = [.. reading.Columns.Where(c => c.Meaning != ColumnMeaning.Extra)];

    /// <summary>
    /// What a row of the file is there for: a heading, an item, a total, a line that names a customer, or nothing to the rules. The same
    /// for the same row however often it is asked.
    /// </summary>
    public RowRole Of(FileRow row)
    {
        if (row.Number <= reading.HeadingRow)
        {
            return row.Number == reading.HeadingRow ? RowRole.Heading : RowRole.Above;
        }

        if (row.IsBlank)
        {
            return RowRole.Blank;
        }

        if (TotalLines.Is(row, dates))
        {
            return RowRole.Total;
        }

        if (IsHeadingAgain(row))
        {
            return RowRole.Heading;
        }

        return reading.CarriesDown && IsGroup(row) ? RowRole.Group : RowRole.Item;
    }

    /// <summary>
    /// Whether a row could be one that names the customer of the rows below it: it has no amount, no date and no number, and names a
    /// customer; or, where the file has no column for that, it has text in one or two cells and nothing else.
    /// </summary>
    public bool IsGroup(FileRow row)
    {
        if (code is null && name is null)
        {
            // The line stands wherever the report puts it, be it under the numbers or the dates.
            return row.Cells.Count(c => !c.IsEmpty) <= 2
                && row.Cells.All(c => c.Number is null && c.Date is null)
                && !values.Any(c => IsValue(row[c.Index].Text));
        }

        foreach (var column in values)
        {
            if (!row[column.Index].IsEmpty)
            {
                return false;
            }
        }

        return !IsFilled(row, number) && (IsFilled(row, code) || IsFilled(row, name));
    }

    private bool IsHeadingAgain(FileRow row) =>
        reading.HeadingRow > 0
        && headed.Length > 1
        && row[headed[0].Index].Text == headed[0].Written
        && headed.All(c =>
            row[c.Index] is { Number: null, Date: null } cell && (cell.Text == c.Written || (cell.IsEmpty && c.Written.Length == 0))
        );

    private static bool IsValue(string text) => WrittenAmount.TryTake(text, out _) || WrittenDate.TryTake(text, out _);

    private static bool IsFilled(FileRow row, ColumnReading? column) => column is not null && !row[column.Index].IsEmpty;
}
