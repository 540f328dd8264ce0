using Rendal.Core.Ledger;

namespace Rendal.Store.Intake;

/// <summary>Writes the rows of an intake by COPY into the table that was made for them.</summary>
internal sealed class RowCopy(BinaryCopy copy, long book, long intake)
{
    private const short Columns = 17;

    public static string Command(long intake) =>
        $"""
        copy ledger_row_{intake} (book_id, intake_id, row, customer, customer_name, kind, number, date, due, currency, original, open, reference, held, unit, email, extra)
        from stdin (format binary)
        """;

    public void Write(LedgerRow row)
    {
        copy.Row(Columns);
        copy.Write(book);
        copy.Write(intake);
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
        copy.Write(row.Reference);
        copy.Write(row.Held);
        copy.Write(row.Unit);
        copy.Write(row.Email);
        copy.Write(row.Extra.InOrder);
    }
}
