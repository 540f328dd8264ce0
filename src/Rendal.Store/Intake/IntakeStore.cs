using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Store.Customers;
using Rendal.Store.Readings;
using Rendal.Store.Rounds;

namespace Rendal.Store.Intake;

/// <summary>The intakes of one book. The ledger is what the last kept one brought; earlier ones stay as they were.</summary>
public sealed class IntakeStore(NpgsqlDataSource source, long book)
{
    private const int Spared = 24;

    private const string Select = """
        select i.id, i.file_id, f.name, i.state, i.change, i.made_at, i.kept_at, i.rows_read, i.rows_kept, i.outstanding, i.kind, i.sheet,
            i.rows_left_out, i.carries_down
        from intake i join stored_file f on f.book_id = i.book_id and f.id = i.file_id
        """;

    /// <summary>Notes that a file was uploaded to be looked at.</summary>
    public Task<long> BeginAsync(long file, IntakeKind kind, ReadingChange change, long person, CancellationToken cancel) =>
        source
            .Sql(
                "insert into intake (book_id, file_id, kind, change, made_by) values ($1, $2, $3, $4, $5) returning id",
                book,
                file,
                kind.Name(),
                Commands.Json(change),
                person
            )
            .OneAsync<long>(cancel);

    /// <summary>An intake; null where there is none of this number in the book.</summary>
    public Task<IntakeRecord?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql($"{Select} where i.book_id = $1 and i.id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>The intake whose rows are the ledger now; null before the first was kept.</summary>
    public Task<IntakeRecord?> CurrentAsync(CancellationToken cancel) =>
        source
            .Sql(
                $"{Select} where i.book_id = $1 and i.kind = 'ledger' and i.state = 'kept' order by i.kept_at desc, i.id desc limit 1",
                book
            )
            .FirstAsync(Read, cancel);

    /// <summary>All intakes, the newest first.</summary>
    public Task<List<IntakeRecord>> ListAsync(CancellationToken cancel) =>
        source.Sql($"{Select} where i.book_id = $1 order by i.id desc limit 200", book).ListAsync(Read, cancel);

    /// <summary>Remembers whether customers are carried down in it.</summary>
    public Task CarryDownAsync(long id, bool carriesDown, CancellationToken cancel) =>
        source
            .Sql("update intake set carries_down = $3 where book_id = $1 and id = $2 and carries_down <> $3", book, id, carriesDown)
            .RunAsync(cancel);

    /// <summary>Remembers what the person decided about the reading.</summary>
    public Task ChangeAsync(long id, ReadingChange change, CancellationToken cancel) =>
        source
            .Sql("update intake set change = $3 where book_id = $1 and id = $2 and state = 'looked-at'", book, id, Commands.Json(change))
            .RunAsync(cancel);

    /// <summary>
    /// Keeps an intake in one transaction: its rows, what was set aside, its findings, and customers that were not known yet. The rows are
    /// gone through once and streamed by binary COPY. False where it was kept or undone before, or where it should take the place of
    /// another and cannot any more.
    /// </summary>
    /// <param name="id">The intake.</param>
    /// <param name="reader">Its reader, not yet gone through.</param>
    /// <param name="reachable">The customers whose cards have an address; the others without one on their rows become findings.</param>
    /// <param name="remembered">The reading, to be found again by the headings of the next file.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it and leaves nothing behind.</param>
    /// <param name="insteadOf">What is put right by it: the rounds of that ledger of which nothing was released are made from it from now
    /// on. Null where it is the next one, and rounds stay with what they were made from.</param>
    public async Task<bool> KeepAsync(
        long id,
        LedgerReader reader,
        IReadOnlySet<string> reachable,
        SavedReading remembered,
        DateTimeOffset now,
        CancellationToken cancel,
        PutRightIntake? insteadOf = null
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await ActsWhoTookInAsync(connection, id, cancel);
        if (
            await connection
                .Sql(
                    "update intake set state = 'kept', kept_at = $3 where book_id = $1 and id = $2 and state = 'looked-at'",
                    book,
                    id,
                    now.ToUniversalTime()
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        var content = new IntakeContent(connection, book, id);
        var (setAside, units) = await content.RowsAsync(reader, cancel);
        var cards = await CardTable.ReadToAddAsync(connection, book, cancel);
        if (insteadOf is not null && !await TakePlaceAsync(connection, id, insteadOf, cancel))
        {
            return false;
        }

        var placed = connection.Sql("select place_ledger_rows($1)", id).RunAsync(cancel);

        // While the rows are given their index, which takes the server a while.
        var customers = reader.Customers.Values.OrderBy(c => c.Key, StringComparer.Ordinal).ToList();
        var told = CardsFromRows.Told(customers, cards);
        await placed;
        await content.CustomersAsync(customers, cancel);
        await content.CorrectedAsync(reader.Corrected, cancel);
        reader.NoteMissingAddresses(reachable);
        await content.SetAsideAsync(setAside, cancel);
        await content.FindingsAsync(reader.Findings.Listed(), cancel);
        await CardTable.WriteAsync(connection, book, told, cards, cancel);
        await connection
            .Sql(
                "update intake set rows_read = $3, rows_kept = $4, outstanding = $5, rows_left_out = $6, sheet = $7, "
                    + "extra_headings = $8, units = $9 where book_id = $1 and id = $2",
                book,
                id,
                reader.RowsRead,
                reader.RowsKept,
                reader.HasOutstanding,
                reader.RowsLeftOut,
                reader.Sheet,
                reader.ExtraHeadings.ToArray(),
                units
            )
            .RunAsync(cancel);
        await ReadingStore.RememberAsync(
            connection,
            book,
            IntakeKind.Ledger,
            remembered,
            await FileNameAsync(connection, id, cancel),
            now,
            cancel
        );
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Has the open rounds of a ledger made from another, where it still is the ledger of the book: no other is kept until the transaction
    /// ends, which has the lock of its cards. False where it is not, or the round in which it was seen is not open any more. They are
    /// behind everything of the book, so that what becomes of them is marked as changed.
    /// </summary>
    private async Task<bool> TakePlaceAsync(NpgsqlConnection connection, long id, PutRightIntake insteadOf, CancellationToken cancel)
    {
        var newest = await connection
            .Sql(
                "select id from intake where book_id = $1 and kind = 'ledger' and state = 'kept' and id <> $2 order by kept_at desc, "
                    + "id desc limit 1",
                book,
                id
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (newest is not [var now] || now != insteadOf.Intake)
        {
            return false;
        }

        var rounds = await connection
            .Sql(
                """
                update round set intake_id = $2, to_be_prepared = true, prepared_at_change = 0 where book_id = $1 and id in (
                    select id from round where book_id = $1 and intake_id = $3 and released_at is null order by id for update)
                returning id, (select made_by from intake where book_id = $1 and id = $2)
                """,
                book,
                id,
                insteadOf.Intake
            )
            .ListAsync(r => (Id: r.GetInt64(0), By: r.GetInt64(1)), cancel);
        foreach (var round in rounds)
        {
            await RoundChanges.RaiseAsync(connection, book, round.Id, round.By, "ledger", [""], null, cancel);
        }

        return rounds.Exists(r => r.Id == insteadOf.Round);
    }

    /// <summary>
    /// Undoes the last kept intake, so that the ledger is again what it was before. False where <paramref name="id"/> is not the last kept
    /// one.
    /// </summary>
    public async Task<bool> UndoAsync(long id, CancellationToken cancel) =>
        await source
            .Sql(
                """
                update intake set state = 'undone'
                where book_id = $1 and id = $2 and kind = 'ledger' and state = 'kept'
                  and id = (select id from intake where book_id = $1 and kind = 'ledger' and state = 'kept'
                      order by kept_at desc, id desc limit 1)
                """,
                book,
                id
            )
            .RunAsync(cancel) == 1;

    /// <summary>Takes an intake that was looked at and not kept out of the list; one that was kept stays.</summary>
    public Task ForgetAsync(long id, CancellationToken cancel) =>
        source.Sql("delete from intake where book_id = $1 and id = $2 and state = 'looked-at'", book, id).RunAsync(cancel);

    /// <summary>
    /// Keeps a customer list in one transaction: the cards after it, and what they were before it. False where it was kept or undone
    /// before.
    /// </summary>
    /// <param name="id">The intake.</param>
    /// <param name="list">The list as read.</param>
    /// <param name="sheet">The sheet; null for a text file.</param>
    /// <param name="emptyClears">Whether empty fields clear filled ones.</param>
    /// <param name="corrections">What was put right on cards.</param>
    /// <param name="remembered">The reading, to be found again by the headings of the next list.</param>
    /// <param name="now">The time.</param>
    public async Task<bool> KeepCustomersAsync(
        long id,
        CustomerList list,
        string? sheet,
        bool emptyClears,
        IReadOnlyList<Correction> corrections,
        SavedReading remembered,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await ActsWhoTookInAsync(connection, id, cancel);
        if (
            await connection
                .Sql(
                    "update intake set state = 'kept', kept_at = $3, sheet = $4, rows_read = $5, rows_kept = $6 where book_id "
                        + "= $1 and id = $2 and state = 'looked-at'",
                    book,
                    id,
                    now.ToUniversalTime(),
                    sheet,
                    list.RowsRead,
                    list.Customers.Count
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        var cards = await CardTable.ReadToAddAsync(connection, book, cancel);
        var ofCards = corrections.Where(c => c.Kind == CorrectionKind.Card).ToLookup(c => c.Of, StringComparer.Ordinal);
        var changes = list
            .Customers.Where(listed => cards.ContainsKey(listed.Key) || list.Reading.Has(CardField.Name))
            .Select(listed =>
                (
                    Before: cards.GetValueOrDefault(listed.Key),
                    After: CardMerge.Merge(cards.GetValueOrDefault(listed.Key), listed, list.Reading, emptyClears, ofCards[listed.Key])
                )
            )
            .ToList();
        await connection
            .Sql(
                "insert into card_before (book_id, intake_id, key, card) select $1, $2, * from unnest($3::text[], $4::jsonb[])",
                book,
                id,
                changes.Select(c => c.After.Key).ToArray(),
                changes.Select(c => c.Before is null ? null : StoreJson.Write(c.Before)).ToArray()
            )
            .RunAsync(cancel);
        await CardTable.WriteAsync(connection, book, [.. changes.Select(c => c.After)], cards, cancel);
        await new IntakeContent(connection, book, id).FindingsAsync(list.Findings.Listed(), cancel);
        await ReadingStore.RememberAsync(
            connection,
            book,
            IntakeKind.Customers,
            remembered,
            await FileNameAsync(connection, id, cancel),
            now,
            cancel
        );
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Undoes the customer list that was kept last: each card is again what it was before it, with what people have put right since. False
    /// where <paramref name="id"/> is not the last one.
    /// </summary>
    public async Task<bool> UndoCustomersAsync(long id, IReadOnlyList<Correction> corrections, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (
            await connection
                .Sql(
                    """
                    update intake set state = 'undone' where book_id = $1 and id = $2 and kind = 'customers' and state = 'kept'
                      and id = (select id from intake where book_id = $1 and kind = 'customers' and state = 'kept'
                          order by kept_at desc, id desc limit 1)
                    """,
                    book,
                    id
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        var before = await connection
            .Sql("select card from card_before where book_id = $1 and intake_id = $2 and card is not null", book, id)
            .ListAsync(r => StoreJson.Read<Customer>(r.GetString(0)), cancel);
        await connection
            .Sql(
                "delete from customer c using card_before b where b.book_id = $1 and b.intake_id = $2 and b.card is null and "
                    + "c.book_id = b.book_id and c.key = b.key",
                book,
                id
            )
            .RunAsync(cancel);
        var ofCards = corrections.Where(c => c.Kind == CorrectionKind.Card).ToLookup(c => c.Of, StringComparer.Ordinal);
        await CardTable.WriteAsync(connection, book, before.Select(card => CardMerge.PutRight(card, ofCards[card.Key])), cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>The findings of a kept intake, most serious first.</summary>
    public Task<List<Finding>> FindingsAsync(long id, CancellationToken cancel) =>
        source
            .Sql(
                """
                select n.code, n.severity, f.name, n.row, n.column_heading, n.customer, n.message, n.remedy, i.sheet
                from finding n join intake i on i.book_id = n.book_id and i.id = n.intake_id join stored_file f on f.book_id = i.book_id
                    and f.id = i.file_id
                where n.book_id = $1 and n.intake_id = $2 order by n.position
                """,
                book,
                id
            )
            .ListAsync(
                r => new Finding(
                    r.String("code"),
                    (Severity)r.Int16("severity"),
                    new SourceRef(r.String("name"), r.Text("sheet"), r.Int32("row")),
                    r.Text("column_heading"),
                    r.Text("customer"),
                    r.String("message"),
                    r.String("remedy")
                ),
                cancel
            );

    /// <summary>What an intake does to cards is done by who took it in.</summary>
    private Task ActsWhoTookInAsync(NpgsqlConnection connection, long id, CancellationToken cancel) =>
        connection
            .Sql("select set_config('rendal.person', made_by::text, true) from intake where book_id = $1 and id = $2", book, id)
            .RunAsync(cancel);

    /// <summary>
    /// Lets go of the rows of ledgers that nothing is made from any more, so that they do not grow without end: of those that no round was
    /// made from and that were undone, or came before the last two dozen. Their files stay, and what each customer owed then.
    /// </summary>
    /// <param name="keptBefore">Those that were kept since then keep their rows: somebody may be about to make a round from them.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Of how many; 0 where somebody is reading rows in this moment, so that it is done the next time.</returns>
    public Task<int> LetGoOfSpareRowsAsync(DateTimeOffset keptBefore, CancellationToken cancel) =>
        source.Sql("select drop_spare_ledger_rows($1, $2, $3)", book, Spared, keptBefore.ToUniversalTime()).OneAsync<int>(cancel);

    private Task<string> FileNameAsync(NpgsqlConnection connection, long id, CancellationToken cancel) =>
        connection
            .Sql(
                "select f.name from intake i join stored_file f on f.book_id = i.book_id and f.id = i.file_id where i.book_id "
                    + "= $1 and i.id = $2",
                book,
                id
            )
            .OneAsync<string>(cancel);

    private static IntakeRecord Read(NpgsqlDataReader r) =>
        new(
            r.Int64("id"),
            r.Int64("file_id"),
            r.String("name"),
            r.String("state"),
            StoreJson.Read<ReadingChange>(r.String("change")),
            r.Value<DateTimeOffset>("made_at"),
            r.Nullable<DateTimeOffset>("kept_at"),
            r.Int32("rows_read"),
            r.Int32("rows_kept"),
            r.Boolean("outstanding"),
            r.String("kind") == IntakeKind.Ledger.Name() ? IntakeKind.Ledger : IntakeKind.Customers,
            r.Text("sheet"),
            r.Int32("rows_left_out"),
            r.Boolean("carries_down")
        );
}
