using Npgsql;
using Rendal.Core.Enclosures;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Store.Ledger;

/// <summary>The ledger rows of one book. They never change once an intake was kept.</summary>
public sealed class LedgerStore(NpgsqlDataSource source, long book)
{
    /// <summary>The most values of a column that are listed to choose among.</summary>
    public const int MostValues = 500;

    private const string Columns =
        "r.row, r.customer, r.customer_name, r.kind, r.number, r.date, r.due, r.currency, r.original, r.open, r.reference, "
        + "r.held, r.unit, r.email, r.extra";

    /// <summary>All rows of an intake, in the order of the file.</summary>
    public Task<IReadOnlyList<LedgerRow>> RowsAsync(long intake, CancellationToken cancel) =>
        RecentRows.OfAsync(source, book, intake, async () =>
        {
            var origin = await OriginAsync(intake, cancel);
            var rows = await source
                .Sql($"select {Columns} from ledger_row r where r.book_id = $1 and r.intake_id = $2", book, intake)
                .ListAsync(r => Read(r, origin), cancel);

            // They lie in this order, and the server would sort them all the same, on disk.
            rows.Sort((a, b) => a.Source.Row.CompareTo(b.Source.Row));
            return rows;
        });

    /// <summary>The invoices and credit notes of an intake that have a number, each once.</summary>
    public Task<List<LedgerDocument>> DocumentsAsync(long intake, CancellationToken cancel) =>
        source
            .Sql(
                "select distinct on (number, customer) number, customer, customer_name from ledger_row where book_id = $1 and "
                    + "intake_id = $2 and kind = any ($3) and number <> '' order by number, customer",
                book,
                intake,
                new[] { (short)ItemKind.Invoice, (short)ItemKind.CreditNote }
            )
            .ListAsync(r => new LedgerDocument(r.GetString(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>The rows of some customers in an intake, in the order of the file.</summary>
    /// <remarks>
    /// Each is looked up by its key; <c>offset 0</c> leaves the server no choice. By what it knows of a table that was filled a moment
    /// ago, to go through all of it seems as good, and that takes a hundred times as long.
    /// </remarks>
    public async Task<List<LedgerRow>> RowsAsync(long intake, IEnumerable<string> customers, CancellationToken cancel)
    {
        var origin = await OriginAsync(intake, cancel);
        return await source
            .Sql(
                $"""
                select {Columns} from unnest($3) of (customer)
                cross join lateral (select c.rows from ledger_customer c where c.book_id = $1 and c.intake_id = $2
                    and c.customer = of.customer offset 0) c
                cross join lateral unnest(c.rows) as at (row)
                cross join lateral (select * from ledger_row r where r.book_id = $1 and r.intake_id = $2 and r.row = at.row offset 0) r
                order by r.row
                """,
                book,
                intake,
                customers.Distinct(StringComparer.Ordinal).ToArray()
            )
            .ListAsync(r => Read(r, origin), cancel);
    }

    /// <summary>The customer with the most rows in an intake, and one with the fewest, each with its number of rows.</summary>
    public async Task<List<(string Customer, int Rows)>> SamplesAsync(long intake, CancellationToken cancel)
    {
        const string of = "select customer, cardinality(rows) rows from ledger_customer where book_id = $1 and intake_id = $2";
        return await source
            .Sql(
                $"""
                (select 0 place, * from ({of}) c order by rows desc, customer limit 1)
                union all (select 1, * from ({of}) c order by rows, customer limit 1)
                order by place
                """,
                book,
                intake
            )
            .ListAsync(r => (r.GetString(1), r.GetInt32(2)), cancel);
    }

    /// <summary>
    /// How many rows an intake kept, whose they are, and the newest date on them: what tells whether a file is the next ledger.
    /// </summary>
    public async Task<LedgerOutline> OutlineAsync(long intake, CancellationToken cancel)
    {
        var customers = await source
            .Sql("select customer from ledger_customer where book_id = $1 and intake_id = $2", book, intake)
            .ListAsync(r => r.GetString(0), cancel);
        return (
            await source
                .Sql("select count(*)::int, max(date) from ledger_row where book_id = $1 and intake_id = $2", book, intake)
                .FirstAsync(
                    r => new LedgerOutline(r.GetInt32(0), customers.ToHashSet(StringComparer.Ordinal), r.Nullable<DateOnly>(1)),
                    cancel
                )
        )!;
    }

    /// <summary>The business units that rows of an intake belong to, by name; empty where the file has none.</summary>
    public async Task<IReadOnlyList<string>> UnitsAsync(long intake, CancellationToken cancel) =>
        await source
            .Sql("select units from intake where book_id = $1 and id = $2", book, intake)
            .FirstAsync(r => r.GetFieldValue<string[]>(0), cancel)
        ?? [];

    /// <summary>The headings of the columns without a meaning for the rules, in the order of the file.</summary>
    public async Task<string[]> ExtraHeadingsAsync(long intake, CancellationToken cancel) =>
        (await OriginAsync(intake, cancel)).ExtraHeadings;

    /// <summary>
    /// The values in such a column, the empty one among them where a row has none; the first <see cref="MostValues"/> in their order.
    /// Empty where there is no such column.
    /// </summary>
    public Task<List<string>> ValuesAsync(long intake, string heading, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select distinct coalesce(r.extra[array_position(i.extra_headings, $3)], '') value
                from ledger_row r join intake i on i.book_id = r.book_id and i.id = r.intake_id
                where r.book_id = $1 and r.intake_id = $2 and $3 = any (i.extra_headings) order by value limit {MostValues}
                """,
                book,
                intake,
                heading
            )
            .ListAsync(r => r.GetString(0), cancel);

    /// <summary>
    /// The rows of an intake that could not be used; of one customer, or of all where <paramref name="customer"/> is null.
    /// </summary>
    public Task<List<RowSetAside>> SetAsideAsync(long intake, string? customer, CancellationToken cancel) =>
        source
            .Sql(
                """
                select a.row, a.customer, a.currency, a.amount, f.name, i.sheet
                from row_set_aside a join intake i on i.book_id = a.book_id and i.id = a.intake_id
                    join stored_file f on f.book_id = i.book_id and f.id = i.file_id
                where a.book_id = $1 and a.intake_id = $2 and ($3::text is null or a.customer = $3) order by a.row
                """,
                book,
                intake,
                new NpgsqlParameter<string?> { TypedValue = customer, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Text }
            )
            .ListAsync(
                r => new RowSetAside(
                    r.Text("customer"),
                    r.Text("currency") is { } code ? Currency.Of(code) : null,
                    r.Decimal("amount"),
                    new SourceRef(r.String("name"), r.Text("sheet"), r.Int32("row"))
                ),
                cancel
            );

    /// <summary>What all rows of an intake have in common; an intake that is not there has no rows either.</summary>
    private async Task<Origin> OriginAsync(long intake, CancellationToken cancel) =>
        await source
            .Sql(
                "select f.name, i.sheet, i.extra_headings from intake i join stored_file f on f.book_id = i.book_id and f.id "
                    + "= i.file_id where i.book_id = $1 and i.id = $2",
                book,
                intake
            )
            .FirstAsync(r => new Origin(r.GetString(0), r.Text(1), r.GetFieldValue<string[]>(2)), cancel)
        ?? new Origin("", null, []);

    private static LedgerRow Read(NpgsqlDataReader r, Origin origin) =>
        new()
        {
            Customer = r.String("customer"),
            CustomerName = r.String("customer_name"),
            Kind = (ItemKind)r.Int16("kind"),
            Number = r.String("number"),
            Date = r.Nullable<DateOnly>("date"),
            Due = r.Value<DateOnly>("due"),
            Currency = Currency.Of(r.String("currency")),
            Original = r.Decimal("original"),
            Open = r.Decimal("open"),
            Reference = r.String("reference"),
            Held = r.String("held"),
            Unit = r.String("unit"),
            Email = r.String("email"),
            Extra = new ExtraColumns(origin.ExtraHeadings, r.Value<string[]>("extra")),
            Source = new SourceRef(origin.File, origin.Sheet, r.Int32("row")),
        };

    private sealed record Origin(string File, string? Sheet, string[] ExtraHeadings);
}
