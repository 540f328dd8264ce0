using System.Runtime.CompilerServices;
using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Rounds;

/// <summary>What becomes of the parcels of a round once they are released.</summary>
public sealed class RoundDispatch(NpgsqlDataSource source, long book)
{
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
                    "update parcel p set state = 'released', problem = '', next_attempt_at = $3 where p.book_id = $1 and p.id = $2 "
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
        await connection.Sql($"notify {RoundStore.ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
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
                    """
                    update parcel set next_attempt_at = $4,
                        state = case when not $3 then 'released' when message_index + 1 < message_count then 'to-be-retried'
                            else 'sent' end,
                        attempts = case when $3 and message_index + 1 < message_count then 0 else attempts end,
                        message_index = case when $3 then least(message_index + 1, message_count - 1) else message_index end
                    where book_id = $1 and id = $2 and state = 'unsure'
                    """,
                    book,
                    parcel,
                    went,
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
        await connection.Sql($"notify {RoundStore.ReleasedChannel}").RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
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
                + "p.position, m.message_index",
            book,
            id
        );
        await using var reader = await command.ExecuteReaderAsync(cancel);
        while (await reader.ReadAsync(cancel))
        {
            yield return (reader.GetString(0), reader.GetString(1), await reader.GetFieldValueAsync<byte[]>(2, cancel));
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
                    r.String("customer"),
                    r.String("name"),
                    r.Value<string[]>("lines"),
                    r.String("country"),
                    DispatchLog.Checked(r, "letter", r.Int64("id"))
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
                    select count(*) filter (where t.ended_at >= $3 and t.outcome = 'accepted'), min(t.started_at)
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
                    "select min(next_attempt_at) from parcel where book_id = $1 and round_id = $2 and state in ('released', 'to-be-retried')",
                    book,
                    id
                )
                .ListAsync(r => r.Nullable<DateTimeOffset>(0), cancel)
        )[0];

    /// <summary>The content that a parcel was released with; null while it was not.</summary>
    public Task<FrozenParcel?> FrozenAsync(long parcel, CancellationToken cancel) =>
        source
            .Sql(
                "select id, subject, body, card, letterhead, sent_as, change from parcel where book_id = $1 and id = $2 "
                    + "and card is not null",
                book,
                parcel
            )
            .FirstAsync(
                r => new FrozenParcel(
                    r.Int64("id"),
                    r.String("subject"),
                    r.String("body"),
                    StoreJson.Read<Core.Customers.Customer>(r.String("card")),
                    StoreJson.Read<Firm>(r.String("letterhead")),
                    StoreJson.Read<SentAs>(r.String("sent_as"))
                )
                {
                    Change = r.IsNull("change") ? null : StoreJson.Read<ParcelChange>(r.String("change")),
                },
                cancel
            );

    /// <summary>How many parcels of a round have each status, by its code; one that no parcel has is not in it.</summary>
    public async Task<Dictionary<string, long>> CountsAsync(long id, CancellationToken cancel) =>
        (
            await source
                .Sql("select status, count(*) from parcel where book_id = $1 and round_id = $2 group by 1", book, id)
                .ListAsync(r => (r.GetString(0), r.GetInt64(1)), cancel)
        ).ToDictionary(c => c.Item1, c => c.Item2);
}
