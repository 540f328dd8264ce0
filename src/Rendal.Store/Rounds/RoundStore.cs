using System.Runtime.CompilerServices;
using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Rounds;

/// <summary>The rounds of one book with their parcels.</summary>
public sealed class RoundStore(NpgsqlDataSource source, long book)
{
    /// <summary>The channel on which workers hear that something was released.</summary>
    public const string ReleasedChannel = "rendal_released";

    /// <summary>The problem of a parcel that was taken over into another round.</summary>
    public const string GoesElsewhere = "it goes with another round";

    private const string Columns =
        "id, name, intake_id, choice, wording_id, sender_id, made_at, prepared_at, released_at, paused, by_hand, rules, "
        + "picked_layout, repeat_of, revision, prepared_at_change, fell_out, to_be_prepared, awaiting";

    /// <summary>A part of the rounds, the newest first.</summary>
    /// <param name="before">The round that comes before them, which is newer; null for the newest of all.</param>
    /// <param name="most">How many are given at most.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<RoundRecord>> ListAsync(long? before, int most, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from round where book_id = $1 and id < $2 order by id desc limit $3",
                book,
                before ?? long.MaxValue,
                most
            )
            .ListAsync(Read, cancel);

    /// <summary>Some rounds, the newest first.</summary>
    public Task<List<RoundRecord>> FindAsync(long[] ids, CancellationToken cancel) =>
        source
            .Sql($"select {Columns} from round where book_id = $1 and id = any ($2) order by id desc", book, ids)
            .ListAsync(Read, cancel);

    /// <summary>The numbers and names of the rounds of which something was released, the newest first.</summary>
    public Task<List<(long Id, string Name)>> ReleasedAsync(CancellationToken cancel) =>
        source
            .Sql("select id, name from round where book_id = $1 and released_at is not null order by id desc", book)
            .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel);

    /// <summary>The round that was made last; null before the first.</summary>
    public Task<RoundRecord?> LatestAsync(CancellationToken cancel) =>
        source.Sql($"select {Columns} from round where book_id = $1 order by id desc limit 1", book).FirstAsync(Read, cancel);

    /// <summary>A round; null where there is none of this number.</summary>
    public Task<RoundRecord?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql($"select {Columns} from round where book_id = $1 and id = $2", book, id).FirstAsync(Read, cancel);

    /// <summary>Makes a round that is to be prepared, and gives its number.</summary>
    public Task<long> MakeAsync(
        string name,
        long intake,
        Choice choice,
        StatementRules rules,
        long wording,
        long sender,
        long person,
        CancellationToken cancel
    ) =>
        source
            .Sql(
                "insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules) values ($1, $2, "
                    + "$3, $4, $5, $6, $7, $8) returning id",
                book,
                name,
                intake,
                Commands.Json(choice),
                wording,
                sender,
                person,
                Commands.Json(rules)
            )
            .OneAsync<long>(cancel);

    /// <summary>
    /// Makes a round that sends a parcel once more: to its customer alone, put in by hand, from the same rows and by the same choices,
    /// decisions about items, wording, layout and sender. Null where there is no such parcel, or it has not gone out or come to its end.
    /// </summary>
    public async Task<long?> MakeRepeatAsync(long parcel, Choice choice, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var made = await connection
            .Sql(
                """
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout, repeat_of)
                select r.book_id, r.name || ', once more', r.intake_id, $3, r.wording_id, r.sender_id, $4, r.rules, r.picked_layout, p.id
                from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id
                where p.book_id = $1 and p.id = $2 and (p.state in ('sent', 'refused', 'returned', 'exported', 'printed')
                    or (p.state in ('prepared', 'held') and r.released_at is not null))
                returning id
                """,
                book,
                parcel,
                Commands.Json(choice),
                person
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (made.Count == 0)
        {
            return null;
        }

        await connection
            .Sql(
                "insert into round_decision (book_id, round_id, customer, decision, reason, decided_by) select $1, $3, "
                    + "customer, 'put-in', 'sent once more on purpose', $4 from parcel where book_id = $1 and id = $2",
                book,
                parcel,
                made[0],
                person
            )
            .RunAsync(cancel);
        await ItemsAsDecidedAsync(
            connection,
            await connection.Sql("select round_id from parcel where book_id = $1 and id = $2", book, parcel).OneAsync<long>(cancel),
            made[0],
            cancel
        );
        await connection
            .Sql(
                "update parcel set state = 'held', problem = $3 where book_id = $1 and id = $2 and state in ('prepared', 'held')",
                book,
                parcel,
                GoesElsewhere
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return made[0];
    }

    /// <summary>
    /// Makes a round of those parcels of a released one that were not let go: stopped, held, or waiting for a person. They are
    /// prepared anew from the ledger as it is now, and do not go with the round that they were in. What was decided about their customers
    /// and items holds in the new one: who is held stays held. Null where there are none.
    /// </summary>
    /// <param name="id">The round that they are in.</param>
    /// <param name="name">What the new one is called.</param>
    /// <param name="intake">The ledger.</param>
    /// <param name="choice">The choice of the round; the customers are put into it.</param>
    /// <param name="person">Who makes it.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<long?> MakeRestAsync(long id, string name, long intake, Choice choice, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var left = await connection
            .Sql(
                $"""
                update parcel p set state = 'held', problem = $3 from round r
                where p.book_id = $1 and p.round_id = $2 and {ParcelTable.IsLeft} and r.book_id = p.book_id and r.id = p.round_id
                    and r.released_at is not null
                returning p.customer, p.accounts
                """,
                book,
                id,
                GoesElsewhere
            )
            .ListAsync(r => (Customer: r.GetString(0), Accounts: StoreJson.Read<List<ParcelAccount>>(r.GetString(1))), cancel);
        if (left.Count == 0)
        {
            return null;
        }

        var customers = left.SelectMany(l => l.Accounts.Select(a => a.Key).Append(l.Customer)).ToHashSet(StringComparer.Ordinal);
        var made = await connection
            .Sql(
                """
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout)
                select book_id, $3, $4, $5, wording_id, sender_id, $6, rules, picked_layout from round where book_id = $1 and id = $2
                    returning id
                """,
                book,
                id,
                name,
                intake,
                Commands.Json(choice with { Customers = customers }),
                person
            )
            .OneAsync<long>(cancel);
        await connection
            .Sql(
                """
                insert into round_decision (book_id, round_id, customer, decision, reason, decided_by, decided_at)
                select book_id, $3, customer, decision, reason, decided_by, decided_at from round_decision where book_id = $1
                    and round_id = $2 and customer = any ($4)
                """,
                book,
                id,
                made,
                customers.ToArray()
            )
            .RunAsync(cancel);
        await ItemsAsDecidedAsync(connection, id, made, cancel);
        await transaction.CommitAsync(cancel);
        return made;
    }

    /// <summary>
    /// Lets a parcel go again whose message could not be made, as it was released. False where it is not one of those, or goes with
    /// another round now.
    /// </summary>
    public async Task<bool> RetryAsync(long parcel, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (
            await connection
                .Sql(
                    "update parcel p set state = 'released', problem = '', try_from = $3 where p.book_id = $1 and p.id = $2 "
                        + $"and {ParcelTable.CanBeRetried}",
                    book,
                    parcel,
                    now.ToUniversalTime()
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        await DispatchLog.NoteAsync(connection, book, parcel, "Decided to try again.", person, now, cancel);
        await connection.Sql($"notify {ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

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

    /// <summary>One parcel with its round's number; null where there is none of this number.</summary>
    public async Task<(long Round, ParcelRecord Parcel)?> ParcelAsync(long parcel, CancellationToken cancel)
    {
        var found = await source
            .Sql($"select {ParcelTable.Columns}, p.round_id from parcel p where p.book_id = $1 and p.id = $2", book, parcel)
            .ListAsync(r => (r.GetInt64(19), ParcelTable.Read(r)), cancel);
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
                    "select customer, seal, seen_seal, changed = '{}' from parcel where book_id = $1 and round_id = $2 and "
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
                            Customer: r.GetString(0),
                            Now: ParcelTable.SealAt(r, 1)!,
                            Seen: ParcelTable.SealAt(r, 2),
                            IsSeen: r.GetBoolean(3)
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
                    Whole(parcel)
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
                    Whole(parcel)
                )
                .RunAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        static NpgsqlParameter<long?> Whole(long? value) => new() { TypedValue = value, NpgsqlDbType = NpgsqlDbType.Bigint };
    }

    /// <summary>The proof of a round, one line per currency.</summary>
    public Task<List<Proof>> ProofAsync(long id, CancellationToken cancel) =>
        source
            .Sql(
                "select currency, ledger, parcels, left_out from round_proof where book_id = $1 and round_id = $2 order by currency",
                book,
                id
            )
            .ListAsync(r => new Proof(Currency.Of(r.GetString(0)), r.GetDecimal(1), r.GetDecimal(2), r.GetDecimal(3)), cancel);

    /// <summary>
    /// Releases parcels with their frozen content, all or none, and keeps what was decided by hand with the round when it is the
    /// first time. False where one of them is no longer ready, so that the person looks again.
    /// </summary>
    /// <param name="id">The round.</param>
    /// <param name="revision">The revision that whoever releases them saw; of another one nothing is released.</param>
    /// <param name="parcels">The parcels, batch by batch. They are gone through once and not kept; the next is asked for while one is
    /// written.</param>
    /// <param name="hand">What was decided by hand.</param>
    /// <param name="rules">What the book has settled for its statements.</param>
    /// <param name="person">Who releases them.</param>
    /// <param name="now">The moment.</param>
    /// <param name="from">From when on they may leave: the same, or later.</param>
    /// <param name="channel">How they leave; those without recipients go by post alone.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<bool> ReleaseAsync(
        long id,
        long revision,
        IEnumerable<IReadOnlyList<FrozenParcel>> parcels,
        ByHand hand,
        StatementRules rules,
        long person,
        DateTimeOffset now,
        DateTimeOffset from,
        Channel channel,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (
            await connection
                .Sql(
                    """
                    update round set by_hand = case when released_at is null then $5 else by_hand end,
                        rules = case when released_at is null then $6 else rules end, released_at = coalesce(released_at, $3),
                        released_by = coalesce(released_by, $4), ends_for = $4, fell_out = '{}'
                    where book_id = $1 and id = $2 and revision = $7
                    """,
                    book,
                    id,
                    now.ToUniversalTime(),
                    person,
                    Commands.Json(hand),
                    Commands.Json(rules),
                    revision
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        await RoundChanges.RaiseAsync(connection, book, id, person, "release", "", null, cancel);
        if (!await ReleasedParcels.PutAsync(connection, book, id, parcels, from, channel, cancel))
        {
            return false;
        }

        await connection.Sql($"notify {ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Stops the rest: what was released and has not gone is not released any more, and can be released again. What a worker has begun to
    /// send goes; what it only makes the message of does not. Where nothing of the round was ever offered to a server or made up for file
    /// or post, nor goes with another round, the release is taken back as a whole: the round can be changed again, and who released it is
    /// told unless they stopped it themselves.
    /// </summary>
    /// <returns>How many parcels were stopped, and whether the round can be changed again.</returns>
    public async Task<(int Parcels, bool IsTakenBack)> StopAsync(long id, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        await connection.Sql("select id from round where book_id = $1 and id = $2 for update", book, id).RunAsync(cancel);

        // A try begins with a change to its parcel: with these locked, those that have begun are seen below and no more can begin.
        await connection
            .Sql(
                "select id from parcel where book_id = $1 and round_id = $2 and state in ('released', 'to-be-retried', "
                    + "'sending') order by id for update",
                book,
                id
            )
            .RunAsync(cancel);
        var stopped = await connection
            .Sql(
                """
                update parcel p set state = 'prepared', worker = null, makings = 0 where p.book_id = $1 and p.round_id = $2
                    and (p.state in ('released', 'to-be-retried')
                    or (p.state = 'sending' and not exists (select from delivery_attempt t where t.book_id = p.book_id
                        and t.parcel_id = p.id
                        and t.ended_at is null)))
                """,
                book,
                id
            )
            .RunAsync(cancel);
        var isTakenBack = stopped > 0 && await TakeBackAsync(connection, id, person, cancel);
        if (isTakenBack)
        {
            await RoundEnds.StoppedAsync(connection, book, id, stopped, person, now, cancel);
        }

        await transaction.CommitAsync(cancel);
        return (stopped, isTakenBack);
    }

    /// <summary>Counts what was exported as sent, as the person says who sent it from another mail program.</summary>
    /// <returns>How many parcels that were.</returns>
    public async Task<int> ExportedWentAsync(long id, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var went = await connection
            .Sql("update parcel set state = 'sent' where book_id = $1 and round_id = $2 and state = 'exported' returning id", book, id)
            .ListAsync(r => r.GetInt64(0), cancel);
        await connection
            .Sql(
                "insert into dispatch_note (book_id, parcel_id, person_id, written_at, text) select $1, p, $3, $4, 'Sent from "
                    + "another mail program.' from unnest($2::bigint[]) p",
                book,
                went.ToArray(),
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return went.Count;
    }

    /// <summary>The messages of a round that were made up for one's own mail program, in the order of its parcels.</summary>
    public async IAsyncEnumerable<(string Customer, string Name, byte[] Bytes)> ExportedAsync(
        long id,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        await using var command = source.Sql(
            "select p.customer, p.name, m.bytes from parcel p join message m on m.book_id = p.book_id and m.parcel_id = p.id "
                + "where p.book_id = $1 and p.round_id = $2 and p.channel = 'file' and p.state in ('exported', 'sent') order by "
                + "p.position",
            book,
            id
        );
        await using var reader = await command.ExecuteReaderAsync(cancel);
        while (await reader.ReadAsync(cancel))
        {
            yield return (reader.GetString(0), reader.GetString(1), reader.GetFieldValue<byte[]>(2));
        }
    }

    /// <summary>What of a round was made up for the post, in the order of its parcels.</summary>
    /// <exception cref="InvalidDataException">Stored bytes do not have the hash that was written with them.</exception>
    public Task<List<PostedLetter>> LettersAsync(long id, CancellationToken cancel) =>
        source
            .Sql(
                "select p.customer, p.name, a.lines, a.country, a.bytes, a.sha256, p.id from letter a join parcel p on "
                    + "p.book_id = a.book_id and p.id = a.parcel_id where p.book_id = $1 and p.round_id = $2 order by p.position",
                book,
                id
            )
            .ListAsync(
                r => new PostedLetter(
                    r.GetString(0),
                    r.GetString(1),
                    r.GetFieldValue<string[]>(2),
                    r.GetString(3),
                    DispatchLog.Checked(r, 4, "letter", r.GetInt64(6))
                ),
                cancel
            );

    /// <summary>How many letters of a round were made up for the post.</summary>
    public async Task<int> LetterCountAsync(long id, CancellationToken cancel) =>
        (int)
            await source
                .Sql(
                    "select count(*) from letter a join parcel p on p.book_id = a.book_id and p.id = a.parcel_id where "
                        + "p.book_id = $1 and p.round_id = $2",
                    book,
                    id
                )
                .OneAsync<long>(cancel);

    /// <summary>
    /// How many of a round's messages the server takes a minute, by the last ten seconds, or by as long as it sends where that is less.
    /// </summary>
    public async Task<int> PaceAsync(long id, DateTimeOffset now, CancellationToken cancel)
    {
        var since = now - TimeSpan.FromSeconds(10);
        var (taken, first) = (
            await source
                .Sql(
                    """
                    select count(*) filter (where t.ended_at >= $3 and t.ending = 'accepted'), min(t.started_at)
                    from delivery_attempt t join parcel p on p.book_id = t.book_id and p.id = t.parcel_id where t.book_id = $1
                        and t.started_at >= $3 - interval '10 minutes' and p.round_id = $2
                    """,
                    book,
                    id,
                    since.ToUniversalTime()
                )
                .ListAsync(r => (r.GetInt64(0), r.Nullable<DateTimeOffset>(1)), cancel)
        )[0];
        return Pace.AMinute((int)taken, now - (first > since ? first.Value : since));
    }

    /// <summary>When the next of a round's waiting parcels may leave; null where none waits.</summary>
    public async Task<DateTimeOffset?> NextLeavesAsync(long id, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    "select min(try_from) from parcel where book_id = $1 and round_id = $2 and state in ('released', 'to-be-retried')",
                    book,
                    id
                )
                .ListAsync(r => r.Nullable<DateTimeOffset>(0), cancel)
        )[0];

    /// <summary>
    /// Makes what is left of a released round wait, or go on. A message that is being handed over is handed over to its end.
    /// </summary>
    public async Task PauseAsync(long id, bool paused, CancellationToken cancel)
    {
        await source.Sql("update round set paused = $3 where book_id = $1 and id = $2", book, id, paused).RunAsync(cancel);
        await source.Sql($"notify {ReleasedChannel}").RunAsync(cancel);
    }

    /// <summary>
    /// A person's decision about an unsure parcel: that it went, or that it is to be sent again. False where the parcel is not unsure.
    /// </summary>
    public async Task<bool> DecideUnsureAsync(long parcel, bool went, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (
            await connection
                .Sql(
                    "update parcel set state = $3, try_from = $4 where book_id = $1 and id = $2 and state = 'unsure'",
                    book,
                    parcel,
                    went ? "sent" : "released",
                    now.ToUniversalTime()
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        await DispatchLog.NoteAsync(
            connection,
            book,
            parcel,
            went ? "Decided that it went." : "Decided to send it again.",
            person,
            now,
            cancel
        );
        await connection.Sql($"notify {ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>The content that a parcel was released with; null while it was not.</summary>
    public Task<FrozenParcel?> FrozenAsync(long parcel, CancellationToken cancel) =>
        source
            .Sql(
                "select id, subject, body, card, letterhead, sent_as from parcel where book_id = $1 and id = $2 and card is not null",
                book,
                parcel
            )
            .FirstAsync(
                r => new FrozenParcel(
                    r.GetInt64(0),
                    r.GetString(1),
                    r.GetString(2),
                    StoreJson.Read<Core.Customers.Customer>(r.GetString(3)),
                    StoreJson.Read<Firm>(r.GetString(4)),
                    StoreJson.Read<SentAs>(r.GetString(5))
                ),
                cancel
            );

    /// <summary>How many parcels of a round have each status, by its code; one that no parcel has is not in it.</summary>
    public async Task<Dictionary<string, long>> CountsAsync(long id, CancellationToken cancel) =>
        (
            await source
                .Sql("select status, count(*) from parcel where book_id = $1 and round_id = $2 group by 1", book, id)
                .ListAsync(r => (r.GetString(0), r.GetInt64(1)), cancel)
        ).ToDictionary(c => c.Item1, c => c.Item2);

    /// <summary>
    /// The last day on which each customer was sent something, or its head office a statement of its account, by key, in the book's zone.
    /// Who was sent nothing since a moment is not among them.
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
                        cross join lateral (select p.customer union select a ->> 'key' from jsonb_array_elements(p.accounts) a) w
                    where t.book_id = $1 and t.ended_at >= $2
                        and t.ending in ('accepted', 'printed', 'exported') and (t.ending <> 'exported' or p.state = 'sent')
                            group by w.customer, b.time_zone
                    """,
                    book,
                    since.ToUniversalTime()
                )
                .ListAsync(r => (r.GetString(0), r.GetFieldValue<DateOnly>(1)), cancel)
        ).ToDictionary(c => c.Item1, c => c.Item2, StringComparer.Ordinal);

    /// <summary>Has what was decided about items in one round hold in another.</summary>
    private Task ItemsAsDecidedAsync(NpgsqlConnection connection, long round, long other, CancellationToken cancel) =>
        connection
            .Sql(
                """
                insert into round_item_decision (book_id, round_id, item, is_in, reason, decided_by, decided_at)
                select book_id, $3, item, is_in, reason, decided_by, decided_at from round_item_decision where book_id = $1
                    and round_id = $2
                """,
                book,
                round,
                other
            )
            .RunAsync(cancel);

    /// <summary>
    /// Takes the release of a round back of which nothing has left, and that goes with no other one. False where something has.
    /// </summary>
    private async Task<bool> TakeBackAsync(NpgsqlConnection connection, long id, long person, CancellationToken cancel)
    {
        if (
            await connection
                .Sql(
                    """
                    update round r set released_at = null, released_by = null, paused = false, to_be_prepared = true
                    where r.book_id = $1 and r.id = $2 and r.released_at is not null and not exists (
                        select from parcel p where p.book_id = r.book_id and p.round_id = r.id and (
                            p.state not in ('prepared', 'held') or p.problem = $3
                            or exists (select from delivery_attempt t where t.book_id = p.book_id and t.parcel_id = p.id)
                            or exists (select from message m where m.book_id = p.book_id and m.parcel_id = p.id)
                            or exists (select from letter a where a.book_id = p.book_id and a.parcel_id = p.id)))
                    """,
                    book,
                    id,
                    GoesElsewhere
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        await connection
            .Sql(
                "update parcel set subject = null, body = null, card = null, letterhead = null, sent_as = null, try_from = "
                    + "null, tries = 0, channel = 'mail' where book_id = $1 and round_id = $2 and card is not null",
                book,
                id
            )
            .RunAsync(cancel);
        foreach (var table in new[] { "item_reminded", "parcel_search" })
        {
            await connection
                .Sql(
                    $"delete from {table} where book_id = $1 and parcel_id in (select id from parcel where book_id = $1 and "
                        + "round_id = $2)",
                    book,
                    id
                )
                .RunAsync(cancel);
        }

        await RoundChanges.RaiseAsync(connection, book, id, person, "stop", "", null, cancel);
        return true;
    }

    private static RoundRecord Read(NpgsqlDataReader r) =>
        new(
            r.GetInt64(0),
            r.GetString(1),
            r.GetInt64(2),
            StoreJson.Read<Choice>(r.GetString(3)),
            r.GetInt64(4),
            r.GetInt64(5),
            r.GetFieldValue<DateTimeOffset>(6),
            r.Nullable<DateTimeOffset>(7),
            r.Nullable<DateTimeOffset>(8),
            r.GetBoolean(9),
            StoreJson.Read<ByHand>(r.GetString(10)),
            StoreJson.Read<StatementRules>(r.GetString(11))
        )
        {
            PickedLayout = r.Nullable<long>(12),
            RepeatOf = r.Nullable<long>(13),
            Revision = r.GetInt64(14),
            PreparedAtChange = r.GetInt64(15),
            FellOut = r.GetFieldValue<string[]>(16),
            ToBePrepared = r.GetBoolean(17),
            Awaiting = r.GetFieldValue<string[]>(18),
        };
}
