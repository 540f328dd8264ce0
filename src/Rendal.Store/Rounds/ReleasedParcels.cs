using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Dispatch;

namespace Rendal.Store.Rounds;

/// <summary>
/// Lets parcels of a round go within the transaction that releases it, batch after batch: however many there are, two batches are in
/// memory.
/// </summary>
/// <remarks>
/// What belongs to a row of the batch is looked for by its key, row by row: the server knows too little of a round or a book that is new,
/// and would go through all of it for each batch. One that somebody changes in this moment is not at its place any more, and is not
/// released.
/// </remarks>
internal static class ReleasedParcels
{
    /// <summary>
    /// Writes what they are frozen with; while one batch is written the next is made. False where one of them is no longer ready, or is
    /// not sealed as it was: then nothing may be committed, and no more are made.
    /// </summary>
    public static async Task<bool> PutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        IEnumerable<IReadOnlyList<FrozenParcel>> parcels,
        DateTimeOffset from,
        Channel channel,
        CancellationToken cancel
    )
    {
        await connection
            .Sql(
                "create temporary table frozen (id bigint, subject text, body text, card jsonb, change jsonb, seal bytea, words text, "
                    + "numbers text[], accounts text[], items text[], "
                    + "levels int[]) on commit drop"
            )
            .RunAsync(cancel);

        // What stays for a moment is not worth packing.
        await connection.Sql("alter table frozen alter body set storage external").RunAsync(cancel);
        using var batches = parcels.GetEnumerator();
        var coming = NextAsync();
        try
        {
            while (await coming is { } batch)
            {
                coming = NextAsync();
                if (!await PutAsync(connection, book, round, batch, from, channel, cancel))
                {
                    return false;
                }
            }

            return true;
        }
        finally
        {
            // What is being made is in the hands of another thread, and what it came to is told already or does not matter any more.
            await ((Task)coming).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }

        Task<IReadOnlyList<FrozenParcel>?> NextAsync() =>
            Task.Run(() => batches.MoveNext() ? batches.Current : null, CancellationToken.None);
    }

    private static async Task<bool> PutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        IReadOnlyList<FrozenParcel> parcels,
        DateTimeOffset from,
        Channel channel,
        CancellationToken cancel
    )
    {
        // They stand on every parcel, and are told to the server once.
        var (letterhead, sentAs) = (OneOf(parcels, p => p.Letterhead), OneOf(parcels, p => p.SentAs));
        await connection.Sql("truncate frozen").RunAsync(cancel);
        await CopyAsync(connection, parcels, cancel);
        var released = await connection
            .Sql(
                $$"""
                with ready as materialized (
                    select f.*, at.place from frozen f cross join lateral (
                        select p.ctid as place from parcel p
                        where p.book_id = $1 and p.id = f.id and p.round_id + 0 = $2 and p.seal is not distinct from f.seal
                            and {{ParcelTable.IsReady}}
                            and not exists (select from round_decision d where d.book_id = $1 and d.round_id = $2
                                and d.customer = p.customer and d.decision in ('held', 'removed'))
                        offset 0) at)
                update parcel p set state = 'released', subject = f.subject, body = f.body, card = f.card, letterhead = $5,
                    sent_as = $6, change = f.change, next_attempt_at = $3, channel = case when p.recipients = '{}' then 'post' else $4 end
                from ready f where p.ctid = f.place
                """,
                book,
                round,
                from.ToUniversalTime(),
                channel.ToString().ToLowerInvariant(),
                letterhead,
                sentAs
            )
            .RunAsync(cancel);
        if (released != parcels.Count)
        {
            return false;
        }

        // Their words are known since they were prepared, but for what an earlier version prepared.
        if (await FindableAsync(connection, book, cancel) < parcels.Count)
        {
            await Addressees.AddAsync(connection, book, "frozen", "f.words", cancel);
            await FindableAsync(connection, book, cancel);
        }

        await connection
            .Sql(
                """
                insert into item_reminded (book_id, parcel_id, item, level) select $1, f.id, i.item, i.level from frozen f
                    cross join lateral unnest(f.items, f.levels) as i (item, level)
                on conflict (book_id, item, parcel_id) do update set level = excluded.level
                """,
                book
            )
            .RunAsync(cancel);
        return true;
    }

    /// <summary>What all parcels that are released together have alike, as JSON.</summary>
    private static NpgsqlParameter OneOf(IReadOnlyList<FrozenParcel> parcels, Func<FrozenParcel, object> of) =>
        parcels
            .Select(of)
            .Distinct(ReferenceEqualityComparer.Instance)
            .Select(value => StoreJson.Write<object>(value!))
            .Distinct(StringComparer.Ordinal)
            .ToList()
            is [var one]
            ? new NpgsqlParameter { Value = one, NpgsqlDbType = NpgsqlDbType.Jsonb }
            : throw new ArgumentException("What is released together has one letterhead and one sender.", nameof(parcels));

    /// <summary>Writes by what the log finds the parcels of the batch, and tells of how many the words are known.</summary>
    private static Task<int> FindableAsync(NpgsqlConnection connection, long book, CancellationToken cancel) =>
        connection
            .Sql(
                """
                insert into parcel_search (book_id, parcel_id, addressee_id, numbers, accounts)
                select $1, f.id, w.id, f.numbers, f.accounts from frozen f
                    cross join lateral (select a.id from addressee a where a.book_id = $1 and md5(a.words) = md5(f.words) offset 0) w
                on conflict (book_id, parcel_id) do update set addressee_id = excluded.addressee_id, numbers = excluded.numbers,
                    accounts = excluded.accounts
                """,
                book
            )
            .RunAsync(cancel);

    private static async Task CopyAsync(NpgsqlConnection connection, IReadOnlyList<FrozenParcel> parcels, CancellationToken cancel)
    {
        await using var copy = await BinaryCopy.BeginAsync(connection, "copy frozen from stdin (format binary)", cancel);
        foreach (var parcel in parcels)
        {
            copy.Row(11);
            copy.Write(parcel.Id);
            copy.Write(parcel.Subject);
            copy.Write(parcel.Body);
            copy.WriteJson(StoreJson.Write(parcel.Card));
            if (parcel.Change is { } change)
            {
                copy.WriteJson(StoreJson.Write(change));
            }
            else
            {
                copy.WriteNull();
            }

            copy.WriteOrNull(parcel.Seal?.ToBytes());
            copy.Write($"{parcel.Card.Key}\n{parcel.Card.Name}");
            copy.Write(parcel.Numbers);
            copy.Write([.. parcel.Accounts.Append(parcel.Card.Key).Distinct(StringComparer.Ordinal)]);
            copy.Write([.. parcel.Reminded.Select(r => r.Item)]);
            copy.Write([.. parcel.Reminded.Select(r => r.Level)]);
        }

        await copy.CompleteAsync(cancel);
    }
}
