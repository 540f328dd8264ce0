using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;

namespace Rendal.Store.Rounds;

/// <summary>The rounds of one book with their parcels.</summary>
public sealed class RoundStore(NpgsqlDataSource source, long book)
{
    /// <summary>The channel on which workers hear that something was released.</summary>
    public const string ReleasedChannel = "rendal_released";

    /// <summary>The problem of a parcel that was taken over into another round.</summary>
    public const string GoesElsewhere = "it goes with another round";

    // A rehearsal is told with the round that it is of.
    private const string IsOne = "rehearses is null";

    private const string Columns =
        "id, name, intake_id, choice, wording_id, sender_id, made_at, prepared_at, released_at, paused, by_hand, rules, "
        + "picked_layout, repeat_of, revision, prepared_at_change, fell_out, to_be_prepared, awaiting, enclosing, "
        + "(select p.name from person p where p.id = coalesce((select o.made_by from round o where o.book_id = round.book_id "
        + "and o.id = round.rehearses), round.made_by)) as made_by_name, (select p.signature from person p where p.id = round.made_by) "
        + "as made_by_signature";

    /// <summary>A part of the rounds, the newest first.</summary>
    /// <param name="before">The round that comes before them, which is newer; null for the newest of all.</param>
    /// <param name="kind">What they are about; null for all.</param>
    /// <param name="most">How many are given at most.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<RoundRecord>> ListAsync(long? before, RoundKind? kind, int most, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from round where book_id = $1 and id < $2 and {IsOne} and ($4 = '' or $4 = case when choice ->> "
                    + "'reminderLevels' is null then choice ->> 'about' else 'reminders' end) order by id desc limit $3",
                book,
                before ?? long.MaxValue,
                most,
                kind is { } of ? EnumText.Of(of) : ""
            )
            .ListAsync(Read, cancel);

    /// <summary>The rounds of these numbers, the newest first; one that is not there is left away.</summary>
    public Task<List<RoundRecord>> FindAsync(long[] ids, CancellationToken cancel) =>
        source
            .Sql($"select {Columns} from round where book_id = $1 and id = any ($2) order by id desc", book, ids)
            .ListAsync(Read, cancel);

    /// <summary>A round; null where there is none of this number.</summary>
    public Task<RoundRecord?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql($"select {Columns} from round where book_id = $1 and id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>The numbers and names of the rounds of which something was released, the newest first.</summary>
    public Task<List<(long Id, string Name)>> ReleasedAsync(CancellationToken cancel) =>
        source
            .Sql($"select id, name from round where book_id = $1 and released_at is not null and {IsOne} order by id desc", book)
            .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel);

    /// <summary>The round that was made last; null before the first.</summary>
    public Task<RoundRecord?> LatestAsync(CancellationToken cancel) =>
        source.Sql($"select {Columns} from round where book_id = $1 and {IsOne} order by id desc limit 1", book).FirstAsync(Read, cancel);

    /// <summary>Makes a round that is to be prepared, and gives its number.</summary>
    /// <param name="intake">The ledger that it is made from.</param>
    /// <param name="settings">What is chosen in it.</param>
    /// <param name="rules">What the book has settled for its statements.</param>
    /// <param name="person">Who makes it.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<long> MakeAsync(long intake, RoundSettings settings, StatementRules rules, long person, CancellationToken cancel) =>
        source
            .Sql(
                "insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout, enclosing) "
                    + "values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) returning id",
                book,
                settings.Name,
                intake,
                Commands.Json(settings.Choice),
                Commands.Whole(settings.Wording),
                settings.Sender,
                person,
                Commands.Json(rules),
                Commands.Whole(settings.Layout),
                Commands.Json(settings.Enclosing)
            )
            .OneAsync<long>(cancel);

    /// <summary>
    /// Puts newly prepared parcels, what is left out and the proof in place of the earlier ones, in one transaction. A parcel keeps its
    /// number. Null where something of the round was released in the meantime, false where it is of another revision than the one that
    /// they were made up at, or was made up at a later change.
    /// </summary>
    public async Task<bool?> PutPreparedAsync(
        long id,
        PreparedState at,
        IReadOnlyList<ParcelRecord> parcels,
        IReadOnlyList<string> fellOut,
        ChosenRound chosen,
        RoundBasis basis,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var now = await connection
            .Sql("select released_at is null, revision, prepared_at_change from round where book_id = $1 and id = $2 for update", book, id)
            .FirstAsync(
                r => new
                {
                    IsOpen = r.GetBoolean(0),
                    Revision = r.GetInt64(1),
                    Change = r.GetInt64(2),
                },
                cancel
            );
        if (now is not { IsOpen: true })
        {
            return null;
        }

        if (now.Revision != at.Revision || now.Change > at.Change)
        {
            return false;
        }

        // Who says that they have seen what was prepared at a moment has seen it, though it was made up once more and came out the same.
        var isOther = await ParcelTable.PutAsync(connection, book, id, parcels, cancel);
        await connection
            .Sql(
                "update round set to_be_prepared = false, awaiting = '{}', prepared_at = case when $8 then $3 else "
                    + "coalesce(prepared_at, $3) end, by_hand = $4, rules = $5, prepared_at_change = $6, fell_out = $7 where "
                    + "book_id = $1 and id = $2",
                book,
                id,
                at.At.ToUniversalTime(),
                Commands.Json(basis.Hand),
                Commands.Json(basis.Rules),
                at.Change,
                fellOut.ToArray(),
                isOther
            )
            .RunAsync(cancel);
        await AccountSumStore.PutAsync(connection, book, id, chosen, basis, now.Change < at.Change, cancel);
        foreach (var table in new[] { "left_out", "round_proof" })
        {
            await connection.Sql($"delete from {table} where book_id = $1 and round_id = $2", book, id).RunAsync(cancel);
        }

        await LeftOutTable.AddAsync(connection, book, id, chosen.LeftOut, 0, ParcelTable.Spacing, cancel);
        var proof = chosen.Proof;
        await connection
            .Sql(
                "insert into round_proof (book_id, round_id, currency, ledger, parcels, left_out) select $1, $2, * from "
                    + "unnest($3::text[], $4::numeric[], $5::numeric[], $6::numeric[])",
                book,
                id,
                proof.Select(p => p.Currency.Code).ToArray(),
                proof.Select(p => p.Ledger).ToArray(),
                proof.Select(p => p.Statements).ToArray(),
                proof.Select(p => p.LeftOut).ToArray()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>All parcels of a round in their order.</summary>
    public Task<List<ParcelRecord>> ParcelsAsync(long id, CancellationToken cancel) =>
        source
            .Sql($"select {ParcelTable.Columns} from parcel p where p.book_id = $1 and p.round_id = $2 order by p.position", book, id)
            .ListAsync(ParcelTable.Read, cancel);

    /// <summary>The parcels of a round that are ready to be released, in their order.</summary>
    public Task<List<ReadyParcel>> ReadyAsync(long id, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select p.id, p.customer, array(select a ->> 'key' from jsonb_array_elements(p.accounts) a) accounts, p.reminder_level,
                    p.seal, p.changed
                from parcel p where p.book_id = $1 and p.round_id = $2 and {ParcelTable.IsReady} order by p.position
                """,
                book,
                id
            )
            .ListAsync(
                r => new ReadyParcel(
                    r.GetInt64(0),
                    r.GetString(1),
                    r.GetFieldValue<string[]>(2),
                    r.Nullable<short>(3),
                    ParcelTable.SealIn(r, "seal"),
                    [.. r.GetFieldValue<string[]>(5).Select(EnumText.Parse<SealPart>)]
                ),
                cancel
            );

    /// <summary>One parcel with its round's number; null where there is none of this number.</summary>
    public async Task<(long Round, ParcelRecord Parcel)?> ParcelAsync(long parcel, CancellationToken cancel)
    {
        var found = await source
            .Sql($"select {ParcelTable.Columns}, p.round_id from parcel p where p.book_id = $1 and p.id = $2", book, parcel)
            .ListAsync(r => (r.Int64("round_id"), ParcelTable.Read(r)), cancel);
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>
    /// What of the parcels of a round was seen and what they are now, by customer. One that was never sealed is not among them.
    /// </summary>
    /// <param name="id">The round.</param>
    /// <param name="customers">The customers; null for all.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Dictionary<string, SealMark>> MarksAsync(
        long id,
        IReadOnlyCollection<string>? customers,
        CancellationToken cancel
    ) =>
        (
            await source
                .Sql(
                    "select customer, seal, seen_seal, changed = '{}' is_seen from parcel where book_id = $1 and round_id = $2 and "
                        + "seal is not null and ($3::text[] is null or customer = any ($3))",
                    book,
                    id,
                    new NpgsqlParameter<string[]?>
                    {
                        TypedValue = customers is null ? null : [.. customers],
                        NpgsqlDbType = NpgsqlDbType.Array | NpgsqlDbType.Text,
                    }
                )
                .ListAsync(
                    r =>
                        (
                            Customer: r.String("customer"),
                            Now: ParcelTable.SealIn(r, "seal")!,
                            Seen: ParcelTable.SealIn(r, "seen_seal"),
                            IsSeen: r.Boolean("is_seen")
                        ),
                    cancel
                )
        ).ToDictionary(m => m.Customer, m => new SealMark(m.IsSeen ? m.Now : m.Seen, m.Now), StringComparer.Ordinal);

    /// <summary>
    /// Somebody has looked at a parcel, or says so of all of a round, as they were prepared at that moment. Nothing where they were
    /// prepared anew since.
    /// </summary>
    /// <param name="id">The round.</param>
    /// <param name="preparedAt">When what they looked at was prepared.</param>
    /// <param name="parcel">The parcel; null for all, and for what fell out of the round.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task LookedAtAsync(long id, DateTimeOffset preparedAt, long? parcel, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (
            await connection
                .Sql(
                    "update round set fell_out = case when $4::bigint is null then '{}' else fell_out end where book_id = $1 "
                        + "and id = $2 and prepared_at = $3 and released_at is null",
                    book,
                    id,
                    preparedAt.ToUniversalTime(),
                    Commands.Whole(parcel)
                )
                .RunAsync(cancel) == 1
        )
        {
            await connection
                .Sql(
                    "update parcel set seen_seal = null, changed = '{}' where book_id = $1 and round_id = $2 and ($3::bigint "
                        + "is null or id = $3) and changed <> '{}'",
                    book,
                    id,
                    Commands.Whole(parcel)
                )
                .RunAsync(cancel);
            await transaction.CommitAsync(cancel);
        }
    }

    /// <summary>The proof of a round, one for each currency, as it was reckoned when the round was last prepared.</summary>
    public Task<List<Proof>> ProofAsync(long id, CancellationToken cancel) =>
        source
            .Sql(
                "select currency, ledger, parcels, left_out from round_proof where book_id = $1 and round_id = $2 order by currency",
                book,
                id
            )
            .ListAsync(
                r => new Proof(Currency.Of(r.String("currency")), r.Decimal("ledger"), r.Decimal("parcels"), r.Decimal("left_out")),
                cancel
            );

    /// <summary>
    /// The last day on which each customer was sent something, or its head office a statement of its account, by key, in the book's zone.
    /// Who was sent nothing since a moment, or only what came back, is not among them.
    /// </summary>
    /// <param name="since">The moment, as the first of a day by <see cref="Books.Book.StartOf"/>.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Dictionary<string, DateOnly>> LastWrittenAsync(DateTimeOffset since, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    """
                    select w.customer, (max(t.ended_at) at time zone b.time_zone)::date
                    from delivery_attempt t
                        join book b on b.id = t.book_id
                        join parcel p on p.book_id = t.book_id and p.id = t.parcel_id
                        join round r on r.book_id = p.book_id and r.id = p.round_id and r.rehearses is null
                        cross join lateral (select p.customer union select a ->> 'key' from jsonb_array_elements(p.accounts) a) w
                    where t.book_id = $1 and t.ended_at >= $2
                        and t.outcome in ('accepted', 'printed', 'exported') and (t.outcome <> 'exported' or p.state = 'sent')
                        and (t.outcome <> 'accepted' or p.state <> 'returned')
                            group by w.customer, b.time_zone
                    """,
                    book,
                    since.ToUniversalTime()
                )
                .ListAsync(r => (r.GetString(0), r.GetFieldValue<DateOnly>(1)), cancel)
        ).ToDictionary(c => c.Item1, c => c.Item2, StringComparer.Ordinal);

    private static RoundRecord Read(NpgsqlDataReader r) =>
        new(
            r.Int64("id"),
            r.String("name"),
            r.Int64("intake_id"),
            StoreJson.Read<Choice>(r.String("choice")),
            r.Nullable<long>("wording_id"),
            r.Int64("sender_id"),
            r.Value<DateTimeOffset>("made_at"),
            r.Nullable<DateTimeOffset>("prepared_at"),
            r.Nullable<DateTimeOffset>("released_at"),
            r.Boolean("paused"),
            StoreJson.Read<ByHand>(r.String("by_hand")),
            StoreJson.Read<StatementRules>(r.String("rules"))
        )
        {
            MadeBy = r.String("made_by_name"),
            MadeBySignature = r.String("made_by_signature"),
            PickedLayout = r.Nullable<long>("picked_layout"),
            RepeatOf = r.Nullable<long>("repeat_of"),
            Revision = r.Int64("revision"),
            PreparedAtChange = r.Int64("prepared_at_change"),
            FellOut = r.Value<string[]>("fell_out"),
            ToBePrepared = r.Boolean("to_be_prepared"),
            Awaiting = r.Value<string[]>("awaiting"),
            Enclosing = StoreJson.Read<Enclosing>(r.String("enclosing")),
        };
}
