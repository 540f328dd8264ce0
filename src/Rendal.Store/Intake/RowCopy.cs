using System.Buffers;
using System.Text.Json;
using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Ledger;

namespace Rendal.Store.Intake;

/// <summary>Writes ledger rows into a binary COPY. It writes without awaiting: a million rows have seventeen million values, and the stream below is flushed only now and then.</summary>
internal sealed class RowCopy(NpgsqlBinaryImporter copy, long book, long intake)
{
    public const string Command =
        """
        copy ledger_row (book_id, intake_id, row, customer, customer_name, kind, number, date, due, currency, original, open, reference, held, unit, email, extra)
        from stdin (format binary)
        """;

    private readonly ArrayBufferWriter<byte> json = new(512);

    public void Write(LedgerRow row)
    {
        copy.StartRow();
        copy.Write(book, NpgsqlDbType.Bigint);
        copy.Write(intake, NpgsqlDbType.Bigint);
        copy.Write(row.Source.Row, NpgsqlDbType.Integer);
        copy.Write(row.Customer, NpgsqlDbType.Text);
        copy.Write(row.CustomerName, NpgsqlDbType.Text);
        copy.Write((short)row.Kind, NpgsqlDbType.Smallint);
        copy.Write(row.Number, NpgsqlDbType.Text);
        if (row.Date is { } date)
        {
            copy.Write(date, NpgsqlDbType.Date);
        }
        else
        {
            copy.WriteNull();
        }

        copy.Write(row.Due, NpgsqlDbType.Date);
        copy.Write(row.Currency.Code, NpgsqlDbType.Char);
        copy.Write(row.Original, NpgsqlDbType.Numeric);
        copy.Write(row.Open, NpgsqlDbType.Numeric);
        copy.Write(row.Reference, NpgsqlDbType.Text);
        copy.Write(row.Held, NpgsqlDbType.Text);
        copy.Write(row.Unit, NpgsqlDbType.Text);
        copy.Write(row.Email, NpgsqlDbType.Text);
        copy.Write(Json(row.Extra), NpgsqlDbType.Jsonb);
    }

    private ReadOnlyMemory<byte> Json(IReadOnlyDictionary<string, string> columns)
    {
        json.ResetWrittenCount();
        using var writer = new Utf8JsonWriter(json);
        writer.WriteStartObject();
        foreach (var (heading, value) in columns)
        {
            writer.WriteString(heading, value);
        }

        writer.WriteEndObject();
        writer.Flush();
        return json.WrittenMemory;
    }
}
