using Npgsql;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;

namespace Rendal.Store.Intake;

/// <summary>Writes what one file brought, within the transaction that keeps it.</summary>
/// <param name="connection">The connection of the transaction.</param>
/// <param name="book">The book.</param>
/// <param name="intake">The intake.</param>
internal sealed class IntakeContent(NpgsqlConnection connection, long book, long intake)
{
    /// <summary>Reads the file from its first row to its last, and writes its ledger rows meanwhile.</summary>
    /// <param name="reader">Its reader, not yet gone through.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The rows that could not be used, in the order of the file, and the business units, each once in ordinal order.</returns>
    public async Task<(IReadOnlyList<RowSetAside> SetAside, string[] Units)> RowsAsync(LedgerReader reader, CancellationToken cancel)
    {
        await connection.Sql("select make_ledger_rows($1)", intake).RunAsync(cancel);
        var setAside = new List<RowSetAside>();
        var units = new SortedSet<string>(StringComparer.Ordinal);
        await using (var copy = await BinaryCopy.BeginAsync(connection, RowCopy.Command(intake, reader), cancel))
        {
            var writer = new RowCopy(copy, reader);
            foreach (var read in reader.Rows())
            {
                if (read.Row is { } row)
                {
                    writer.Write(row);
                    if (row.Unit.Length > 0)
                    {
                        units.Add(row.Unit);
                    }
                }
                else
                {
                    setAside.Add(read.SetAside!);
                }
            }

            cancel.ThrowIfCancellationRequested();
            await copy.CompleteAsync(cancel);
        }

        return (setAside, [.. units]);
    }

    /// <summary>Writes down which rows are whose, and what they come to.</summary>
    public async Task CustomersAsync(IEnumerable<CustomerSeen> customers, CancellationToken cancel)
    {
        await using var copy = await BinaryCopy.BeginAsync(
            connection,
            "copy ledger_customer (book_id, intake_id, customer, rows, balances) from stdin (format binary)",
            cancel
        );
        foreach (var customer in customers.Where(c => c.RowCount > 0))
        {
            copy.Row(5);
            copy.Write(book);
            copy.Write(intake);
            copy.Write(customer.Key);
            copy.Write(customer.Rows());
            copy.WriteJson(
                StoreJson.Write(
                    customer.Balances.Select(b => new
                    {
                        Currency = b.Currency.Code,
                        b.Balance,
                        b.Items,
                    })
                )
            );
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>Writes down the rows that could not be used, with what they would come to as far as that can be read.</summary>
    public async Task SetAsideAsync(IReadOnlyList<RowSetAside> rows, CancellationToken cancel)
    {
        await using var copy = await BinaryCopy.BeginAsync(
            connection,
            "copy row_set_aside (book_id, intake_id, row, customer, currency, amount) from stdin (format binary)",
            cancel
        );
        foreach (var row in rows)
        {
            copy.Row(6);
            copy.Write(book);
            copy.Write(intake);
            copy.Write(row.Source.Row);
            copy.WriteOrNull(row.Customer);
            copy.WriteOrNull(row.Currency?.Code);
            copy.Write(row.Amount);
        }

        await copy.CompleteAsync(cancel);
    }

    /// <summary>Writes down which rows a correction made what they are.</summary>
    public Task CorrectedAsync(IReadOnlyList<CorrectedRow> rows, CancellationToken cancel) =>
        connection
            .Sql(
                "insert into row_correction (book_id, intake_id, row, correction_id) select $1, $2, * from unnest($3::int[], "
                    + "$4::bigint[]) on conflict do nothing",
                book,
                intake,
                rows.Select(r => r.Row).ToArray(),
                rows.Select(r => r.Correction.Id).ToArray()
            )
            .RunAsync(cancel);

    /// <summary>Writes down what was noticed, in this order.</summary>
    public Task FindingsAsync(IReadOnlyList<Finding> findings, CancellationToken cancel) =>
        connection
            .Sql(
                """
                insert into finding (book_id, intake_id, position, code, severity, row, column_heading, customer, message, remedy)
                select $1, $2, * from unnest($3::int[], $4::text[], $5::smallint[], $6::int[], $7::text[], $8::text[], $9::text[],
                    $10::text[])
                """,
                book,
                intake,
                Enumerable.Range(0, findings.Count).ToArray(),
                findings.Select(f => f.Code).ToArray(),
                findings.Select(f => (short)f.Severity).ToArray(),
                findings.Select(f => f.Source.Row).ToArray(),
                findings.Select(f => f.Column).ToArray(),
                findings.Select(f => f.Customer).ToArray(),
                findings.Select(f => f.Message).ToArray(),
                findings.Select(f => f.Remedy).ToArray()
            )
            .RunAsync(cancel);
}
