using Rendal.Core.Intake;
using Rendal.Core.Ledger;

namespace Rendal.Store.Intake;

/// <summary>
/// Writes the rows of an intake by COPY into the table that was made for them. What is the same in all of them is not sent, as the table
/// has it by default: the book, the intake, and nothing for a column that the file does not have.
/// </summary>
internal sealed class RowCopy(BinaryCopy copy, LedgerReader reader)
{
    private const string Always = "row, customer, customer_name, kind, number, date, due, currency, original, open";
    private const int AlwaysWritten = 10;

    private static readonly (string Column, ColumnMeaning Meaning, Func<LedgerRow, string> Of)[] Texts =
    [
        ("reference", ColumnMeaning.Reference, row => row.Reference),
        ("held", ColumnMeaning.Held, row => row.Held),
        ("unit", ColumnMeaning.Unit, row => row.Unit),
        ("email", ColumnMeaning.Email, row => row.Email),
    ];

    private readonly Func<LedgerRow, string>[] texts = [.. Texts.Where(t => reader.Has(t.Meaning)).Select(t => t.Of)];
    private readonly bool hasExtra = HasExtra(reader);

    /// <summary>The COPY that takes the rows of an intake.</summary>
    public static string Command(long intake, LedgerReader reader)
    {
        var columns = Texts.Where(t => reader.Has(t.Meaning)).Select(t => t.Column).Prepend(Always);
        columns = HasExtra(reader) ? columns.Append("extra") : columns;
        return $"copy ledger_row_{intake} ({string.Join(", ", columns)}) from stdin (format binary)";
    }

    /// <summary>Writes a row.</summary>
    public void Write(LedgerRow row)
    {
        copy.Row((short)(AlwaysWritten + texts.Length + (hasExtra ? 1 : 0)));
        copy.Write(row.Source.Row);
        copy.Write(row.Customer);
        copy.Write(row.CustomerName);
        copy.Write((short)row.Kind);
        copy.Write(row.Number);
        copy.Write(row.Date);
        copy.Write(row.Due);
        copy.Write(row.Currency.Code);
        copy.Write(row.Original);
        copy.Write(row.Open);
        foreach (var text in texts)
        {
            copy.Write(text(row));
        }

        if (hasExtra)
        {
            copy.Write(row.Extra.InOrder);
        }
    }

    private static bool HasExtra(LedgerReader reader) => reader.ExtraHeadings.Count > 0;
}
