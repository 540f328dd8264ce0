using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Store.Intake;

/// <summary>One taking-in of a file.</summary>
/// <param name="Id">Its number.</param>
/// <param name="FileId">The stored file.</param>
/// <param name="FileName">The file's name.</param>
/// <param name="State"><c>looked-at</c>, <c>kept</c> or <c>undone</c>.</param>
/// <param name="Change">What the person decided about its reading.</param>
/// <param name="MadeAt">When it was uploaded.</param>
/// <param name="KeptAt">When its rows became the ledger.</param>
/// <param name="RowsRead">Rows read when it was kept.</param>
/// <param name="RowsKept">Rows that became ledger rows.</param>
/// <param name="HasOutstanding">Whether its file gave what is outstanding; else full amounts that are still to be settled.</param>
public sealed record IntakeRecord(long Id, long FileId, string FileName, string State, ReadingChange Change, DateTimeOffset MadeAt, DateTimeOffset? KeptAt, int RowsRead, int RowsKept, bool HasOutstanding)
{
    /// <summary>How payments among its rows are set against invoices.</summary>
    public SettlementRule Settlement => HasOutstanding ? SettlementRule.None : SettlementRule.Oldest;
}

/// <summary>The intakes of one book. The ledger is what the last kept one brought; earlier ones stay as they were.</summary>
public sealed class IntakeStore(NpgsqlDataSource source, long book)
{
    private const string Select = """
        select i.id, i.file_id, f.name, i.state, i.change, i.made_at, i.kept_at, i.rows_read, i.rows_kept, i.outstanding
        from intake i join stored_file f on f.book_id = i.book_id and f.id = i.file_id
        """;

    /// <summary>Notes that a file was uploaded to be looked at.</summary>
    public Task<long> BeginAsync(long file, long person, CancellationToken cancel) =>
        source.Sql("insert into intake (book_id, file_id, made_by) values ($1, $2, $3) returning id", book, file, person).OneAsync<long>(cancel);

    /// <summary>An intake; null where there is none of this number in the book.</summary>
    public Task<IntakeRecord?> FindAsync(long id, CancellationToken cancel) => source.Sql($"{Select} where i.book_id = $1 and i.id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>The intake whose rows are the ledger now; null before the first was kept.</summary>
    public Task<IntakeRecord?> CurrentAsync(CancellationToken cancel) =>
        source.Sql($"{Select} where i.book_id = $1 and i.state = 'kept' order by i.kept_at desc, i.id desc limit 1", book).FirstAsync(Read, cancel);

    /// <summary>All intakes, the newest first.</summary>
    public Task<List<IntakeRecord>> ListAsync(CancellationToken cancel) => source.Sql($"{Select} where i.book_id = $1 order by i.id desc limit 200", book).ListAsync(Read, cancel);

    /// <summary>Remembers what the person decided about the reading.</summary>
    public Task ChangeAsync(long id, ReadingChange change, CancellationToken cancel) =>
        source.Sql("update intake set change = $3 where book_id = $1 and id = $2 and state = 'looked-at'", book, id, Commands.Json(change)).RunAsync(cancel);

    /// <summary>
    /// Keeps an intake in one transaction: its rows, what was set aside, its findings, and customers that were not known
    /// yet. The rows are gone through once and streamed by binary COPY. False where it was kept or undone before.
    /// </summary>
    /// <param name="id">The intake.</param>
    /// <param name="reader">Its reader, not yet gone through.</param>
    /// <param name="reachable">The customers whose cards have an address; the others without one on their rows become findings.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it and leaves nothing behind.</param>
    public async Task<bool> KeepAsync(long id, LedgerReader reader, IReadOnlySet<string> reachable, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (await connection.Sql("update intake set state = 'kept', kept_at = $3 where book_id = $1 and id = $2 and state = 'looked-at'", book, id, now.ToUniversalTime()).RunAsync(cancel) == 0)
        {
            return false;
        }

        var setAside = await CopyRowsAsync(connection, id, reader, cancel);
        reader.NoteMissingAddresses(reachable);
        await CopySetAsideAsync(connection, id, setAside, cancel);
        await CopyFindingsAsync(connection, id, reader.Findings.Listed(), cancel);
        await AddCustomersAsync(connection, reader.Customers.Values, cancel);
        await connection.Sql("update intake set rows_read = $3, rows_kept = $4, outstanding = $5 where book_id = $1 and id = $2", book, id, reader.RowsRead, reader.RowsKept, reader.HasOutstanding).RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>Undoes the last kept intake, so that the ledger is again what it was before. False where <paramref name="id"/> is not the last kept one.</summary>
    public async Task<bool> UndoAsync(long id, CancellationToken cancel) =>
        await source.Sql(
            """
            update intake set state = 'undone'
            where book_id = $1 and id = $2 and state = 'kept'
              and id = (select id from intake where book_id = $1 and state = 'kept' order by kept_at desc, id desc limit 1)
            """,
            book, id).RunAsync(cancel) == 1;

    /// <summary>The findings of a kept intake, most serious first.</summary>
    public Task<List<Finding>> FindingsAsync(long id, CancellationToken cancel) =>
        source.Sql(
            """
            select n.code, n.severity, f.name, n.row, n.column_heading, n.customer, n.message, n.remedy
            from finding n join intake i on i.book_id = n.book_id and i.id = n.intake_id join stored_file f on f.book_id = i.book_id and f.id = i.file_id
            where n.book_id = $1 and n.intake_id = $2 order by n.position
            """,
            book, id).ListAsync(r => new Finding(r.GetString(0), (Severity)r.GetInt16(1), new SourceRef(r.GetString(2), null, r.GetInt32(3)), r.Text(4), r.Text(5), r.GetString(6), r.GetString(7)), cancel);

    private async Task<List<RowSetAside>> CopyRowsAsync(NpgsqlConnection connection, long id, LedgerReader reader, CancellationToken cancel)
    {
        var setAside = new List<RowSetAside>();
        await using var copy = await connection.BeginBinaryImportAsync(
            """
            copy ledger_row (book_id, intake_id, row, customer, customer_name, kind, number, date, due, currency, original, open, reference, held, unit, email, extra)
            from stdin (format binary)
            """, cancel);
        foreach (var read in reader.Rows())
        {
            if (read.Row is not { } row)
            {
                setAside.Add(read.SetAside!);
                continue;
            }

            await copy.StartRowAsync(cancel);
            await copy.WriteAsync(book, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(id, NpgsqlDbType.Bigint, cancel);
            await copy.WriteAsync(row.Source.Row, NpgsqlDbType.Integer, cancel);
            await copy.WriteAsync(row.Customer, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(row.CustomerName, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync((short)row.Kind, NpgsqlDbType.Smallint, cancel);
            await copy.WriteAsync(row.Number, NpgsqlDbType.Text, cancel);
            if (row.Date is { } date)
            {
                await copy.WriteAsync(date, NpgsqlDbType.Date, cancel);
            }
            else
            {
                await copy.WriteNullAsync(cancel);
            }

            await copy.WriteAsync(row.Due, NpgsqlDbType.Date, cancel);
            await copy.WriteAsync(row.Currency.Code, NpgsqlDbType.Char, cancel);
            await copy.WriteAsync(row.Original, NpgsqlDbType.Numeric, cancel);
            await copy.WriteAsync(row.Open, NpgsqlDbType.Numeric, cancel);
            await copy.WriteAsync(row.Reference, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(row.Held, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(row.Unit, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(row.Email, NpgsqlDbType.Text, cancel);
            await copy.WriteAsync(row.Extra.Count == 0 ? "{}" : StoreJson.Write(row.Extra), NpgsqlDbType.Jsonb, cancel);
        }

        await copy.CompleteAsync(cancel);
        return setAside;
    }

    private async Task CopySetAsideAsync(NpgsqlConnection connection, long id, List<RowSetAside> rows, CancellationToken cancel) =>
        await connection.Sql(
            "insert into row_set_aside (book_id, intake_id, row, customer, currency, amount) select $1, $2, * from unnest($3::int[], $4::text[], $5::text[], $6::numeric[])",
            book, id, rows.Select(r => r.Source.Row).ToArray(), rows.Select(r => r.Customer).ToArray(), rows.Select(r => r.Currency?.Code).ToArray(), rows.Select(r => r.Amount).ToArray()).RunAsync(cancel);

    private async Task CopyFindingsAsync(NpgsqlConnection connection, long id, IReadOnlyList<Finding> findings, CancellationToken cancel) =>
        await connection.Sql(
            """
            insert into finding (book_id, intake_id, position, code, severity, row, column_heading, customer, message, remedy)
            select $1, $2, * from unnest($3::int[], $4::text[], $5::smallint[], $6::int[], $7::text[], $8::text[], $9::text[], $10::text[])
            """,
            book, id, Enumerable.Range(0, findings.Count).ToArray(), findings.Select(f => f.Code).ToArray(), findings.Select(f => (short)f.Severity).ToArray(), findings.Select(f => f.Source.Row).ToArray(),
            findings.Select(f => f.Column).ToArray(), findings.Select(f => f.Customer).ToArray(), findings.Select(f => f.Message).ToArray(), findings.Select(f => f.Remedy).ToArray()).RunAsync(cancel);

    /// <summary>Customers that are on no list yet are made from what the rows say; cards that exist are left as they are.</summary>
    private async Task AddCustomersAsync(NpgsqlConnection connection, IEnumerable<CustomerSeen> seen, CancellationToken cancel)
    {
        var list = seen.ToList();
        await connection.Sql(
            """
            insert into customer (book_id, key, name, email, from_ledger)
            select $1, s.key, s.name, s.email, true from unnest($2::text[], $3::text[], $4::text[]) as s (key, name, email)
            on conflict (book_id, key) do update set
                name = case when customer.from_ledger then excluded.name else customer.name end,
                email = case when customer.email = '' then excluded.email else customer.email end
            """,
            book, list.Select(s => s.Key).ToArray(), list.Select(s => s.Name.Length > 0 ? s.Name : s.Key).ToArray(), list.Select(s => string.Join("; ", s.Addresses)).ToArray()).RunAsync(cancel);
    }

    private static IntakeRecord Read(NpgsqlDataReader r) => new(
        r.GetInt64(0), r.GetInt64(1), r.GetString(2), r.GetString(3), StoreJson.Read<ReadingChange>(r.GetString(4)), r.GetFieldValue<DateTimeOffset>(5), r.Nullable<DateTimeOffset>(6), r.GetInt32(7), r.GetInt32(8), r.GetBoolean(9));
}
