namespace Rendal.Core.Intake;

/// <summary>By what a row of a file is known again in the next one.</summary>
public static class RowKey
{
    private const char Parting = '\u001F';

    private static readonly ColumnMeaning[] Parts =
    [
        ColumnMeaning.CustomerCode,
        ColumnMeaning.CustomerName,
        ColumnMeaning.Kind,
        ColumnMeaning.Number,
    ];

    /// <summary>
    /// The row's customer, kind and number as they are written, before any correction; without a number, its dates and amounts as well.
    /// Two rows that are alike in all of that have the same key.
    /// </summary>
    public static string Of(FileRow row, Reading reading)
    {
        var parts = Parts.Select(m => Text(row, reading.Of(m)));
        var number = reading.Of(ColumnMeaning.Number);
        return number is not null && !row[number.Index].IsEmpty
            ? string.Join(Parting, parts)
            : string.Join(
                Parting,
                parts.Concat(reading.Columns.Where(c => c.Meaning.IsDate() || c.Meaning.IsAmount()).Select(c => Text(row, c)))
            );
    }

    /// <summary>The key as people read it: its filled parts with commas between.</summary>
    public static string Words(string key) => string.Join(", ", key.Split(Parting, StringSplitOptions.RemoveEmptyEntries));

    private static string Text(FileRow row, ColumnReading? column) => column is null ? "" : row[column.Index].Text;
}
