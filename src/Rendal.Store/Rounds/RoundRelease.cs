using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Store.Dispatch;

namespace Rendal.Store.Rounds;

/// <summary>Releases rounds, makes them wait, and stops them.</summary>
public sealed class RoundRelease(NpgsqlDataSource source, long book)
{
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

        await RoundChanges.RaiseAsync(connection, book, id, person, "release", [""], null, cancel);
        if (!await ReleasedParcels.PutAsync(connection, book, id, parcels, from, channel, cancel))
        {
            return false;
        }

        await connection.Sql($"notify {RoundStore.ReleasedChannel}").RunAsync(cancel);
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
                    and p.message_index = 0 and (p.state in ('released', 'to-be-retried')
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

    /// <summary>
    /// Makes what is left of a released round wait, or go on. A message that is being handed over is handed over to its end.
    /// </summary>
    public async Task PauseAsync(long id, bool paused, CancellationToken cancel)
    {
        await source.Sql("update round set paused = $3 where book_id = $1 and id = $2", book, id, paused).RunAsync(cancel);
        await source.Sql($"notify {RoundStore.ReleasedChannel}").RunAsync(cancel);
    }

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
                    RoundStore.GoesElsewhere
                )
                .RunAsync(cancel) == 0
        )
        {
            return false;
        }

        await connection
            .Sql(
                "update parcel set subject = null, body = null, card = null, letterhead = null, sent_as = null, "
                    + "change = null, next_attempt_at = null, attempts = 0, channel = 'mail' where book_id = $1 "
                    + "and round_id = $2 and card is not null",
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

        await RoundChanges.RaiseAsync(connection, book, id, person, "stop", [""], null, cancel);
        return true;
    }
}
