using Rendal.Core.Layouts;

namespace Rendal.Core.Intake;

/// <summary>Finds the column of a ledger file that a field of an item was read from.</summary>
public static class OriginColumn
{
    private static readonly Dictionary<string, ColumnMeaning[]> Meanings = new(StringComparer.Ordinal)
    {
        ["number"] = [ColumnMeaning.Number],
        ["kind"] = [ColumnMeaning.Kind],
        ["dated"] = [ColumnMeaning.Date],
        ["due"] = [ColumnMeaning.DueDate],
        ["days-over"] = [ColumnMeaning.DueDate],
        ["original"] = [ColumnMeaning.Amount, ColumnMeaning.Debit, ColumnMeaning.Credit, ColumnMeaning.Outstanding],
        ["open"] = [ColumnMeaning.Outstanding, ColumnMeaning.Amount, ColumnMeaning.Debit, ColumnMeaning.Credit],
        ["reference"] = [ColumnMeaning.Reference],
        ["unit"] = [ColumnMeaning.Unit],
    };

    /// <summary>
    /// The column; of several that can say the same, such as debit and credit, the first that is filled in the row. Null where the file
    /// has none, so that the value was reckoned: a due date from the terms.
    /// </summary>
    /// <param name="reading">How the file is read.</param>
    /// <param name="row">The row.</param>
    /// <param name="field">The field, by its name in <see cref="ItemFields"/>.</param>
    public static ColumnReading? Of(Reading reading, FileRow row, string field)
    {
        if (!Meanings.TryGetValue(field, out var meanings))
        {
            var heading = field.StartsWith(ItemFields.Extra, StringComparison.Ordinal) ? field[ItemFields.Extra.Length..] : field;
            return reading.Columns.FirstOrDefault(c => c.Meaning == ColumnMeaning.Extra && c.Heading == heading);
        }

        var columns = meanings.Select(reading.Of).OfType<ColumnReading>().ToList();
        return columns.Find(c => !row[c.Index].IsEmpty) ?? columns.FirstOrDefault();
    }
}
