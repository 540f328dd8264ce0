using Npgsql;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Store.Layouts;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;

namespace Rendal.Store.Dispatch;

/// <summary>A parcel that a worker has claimed.</summary>
/// <param name="Book">The book.</param>
/// <param name="Parcel">The parcel.</param>
/// <param name="Round">Its round.</param>
/// <param name="Tries">How many tries there have been, this one included.</param>
/// <param name="Recipients">The addresses.</param>
/// <param name="Subject">The subject as frozen.</param>
/// <param name="Body">The body as frozen.</param>
/// <param name="Card">The customer's card as frozen.</param>
/// <param name="Message">The message as it was made for an earlier try; null on the first one.</param>
/// <param name="Sender">The sender.</param>
/// <param name="Layout">The layout that it was made up with; null for the one that is there before any was made.</param>
public sealed record ClaimedParcel(long Book, long Parcel, long Round, int Tries, IReadOnlyList<string> Recipients, string Subject, string Body, Customer Card, byte[]? Message, Sender Sender, LayoutRef? Layout);

/// <summary>A message ready to be stored before its first byte goes out.</summary>
/// <param name="MessageId">The Message-ID without angle brackets.</param>
/// <param name="Bytes">The message as it is sent.</param>
/// <param name="Sha256">The hash of the bytes.</param>
public sealed record OutgoingMessage(string MessageId, byte[] Bytes, byte[] Sha256);

/// <summary>
/// The queue of released parcels over all books, shared by any number of workers. A worker is known by a number on
/// which it holds an advisory lock: when it dies, however suddenly, the lock is gone and what it had claimed can be told.
/// </summary>
public sealed class DispatchQueue(NpgsqlDataSource source)
{
    // Any fixed number serves, as long as nothing else in this database locks under it.
    private const int LockSpace = 0x52454E44;

    /// <summary>Opens a connection that makes its holder a worker for as long as it stays open, and that hears of releases.</summary>
    public async Task<WorkerConnection> RegisterAsync(CancellationToken cancel)
    {
        var connection = await source.OpenConnectionAsync(cancel);
        try
        {
            var number = await connection.Sql("select nextval('worker_number')").OneAsync<long>(cancel);
            await connection.Sql("select pg_advisory_lock($1, $2)", LockSpace, (int)number).RunAsync(cancel);
            await connection.Sql($"listen {RoundStore.ReleasedChannel}").RunAsync(cancel);
            return new WorkerConnection(connection, number);
        }
        catch
        {
            await connection.DisposeAsync();
            throw;
        }
    }

    /// <summary>Claims the next parcel whose time has come; null where there is none. Parcels of paused rounds and senders wait.</summary>
    public Task<ClaimedParcel?> ClaimAsync(long worker, DateTimeOffset now, CancellationToken cancel) =>
        source.Sql(
            """
            with next as (
                select p.book_id, p.id from parcel p
                join round r on r.book_id = p.book_id and r.id = p.round_id
                join sender s on s.book_id = r.book_id and s.id = r.sender_id
                where p.state in ('released', 'to-be-retried') and p.try_from <= $2 and not r.paused and s.paused = ''
                order by p.try_from, p.id limit 1 for update of p skip locked),
            claimed as (
                update parcel p set state = 'sending', worker = $1, tries = p.tries + 1
                from next where p.book_id = next.book_id and p.id = next.id
                returning p.book_id, p.id, p.round_id, p.tries, p.recipients, p.subject, p.body, p.card, p.layout_id, p.layout_version)
            select c.book_id, c.id, c.round_id, c.tries, c.recipients, c.subject, c.body, c.card, m.bytes,
                s.id, s.name, s.address, s.host, s.port, s.security, s.user_name, s.password, s.paused, c.layout_id, c.layout_version
            from claimed c join round r on r.book_id = c.book_id and r.id = c.round_id join sender s on s.book_id = r.book_id and s.id = r.sender_id
            left join message m on m.book_id = c.book_id and m.parcel_id = c.id
            """,
            worker, now.ToUniversalTime()).FirstAsync(
                r => new ClaimedParcel(
                    r.GetInt64(0), r.GetInt64(1), r.GetInt64(2), r.GetInt32(3), r.GetFieldValue<string[]>(4), r.GetString(5), r.GetString(6), StoreJson.Read<Customer>(r.GetString(7)), r.IsDBNull(8) ? null : r.GetFieldValue<byte[]>(8),
                    new Sender(r.GetInt64(9), r.GetString(10), r.GetString(11), r.GetString(12), r.GetInt32(13), r.GetString(14), r.GetString(15), r.IsDBNull(16) ? null : r.GetFieldValue<byte[]>(16), r.GetString(17)),
                    r.IsDBNull(18) ? null : new LayoutRef(r.GetInt64(18), r.GetInt32(19))),
                cancel);

    /// <summary>
    /// Writes down that a try begins, and on the first one the message itself, before any byte goes out.
    /// </summary>
    /// <returns>The number of the try; null where the parcel is no longer this worker's.</returns>
    public async Task<long?> BeginTryAsync(ClaimedParcel parcel, long worker, OutgoingMessage? message, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (message is not null)
        {
            await connection.Sql(
                "insert into message (book_id, parcel_id, message_id, subject, sender_address, recipients, bytes, sha256, made_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
                parcel.Book, parcel.Parcel, message.MessageId, parcel.Subject, parcel.Sender.Address, parcel.Recipients.ToArray(), message.Bytes, message.Sha256, now.ToUniversalTime()).RunAsync(cancel);
        }

        var tries = await connection.Sql(
            """
            insert into dispatch_try (book_id, parcel_id, worker, started_at)
            select book_id, id, worker, $4 from parcel where book_id = $1 and id = $2 and state = 'sending' and worker = $3 returning id
            """,
            parcel.Book, parcel.Parcel, worker, now.ToUniversalTime()).ListAsync(r => r.GetInt64(0), cancel);
        await transaction.CommitAsync(cancel);
        return tries.Count == 0 ? null : tries[0];
    }

    /// <summary>
    /// Writes down that the server is about to be given the end of the message. False where the parcel was taken from
    /// this worker in the meantime (it was thought dead): then the end must not be sent.
    /// </summary>
    public async Task<bool> MarkEndingAsync(ClaimedParcel parcel, long worker, long dispatchTry, DateTimeOffset now, CancellationToken cancel) =>
        await source.Sql(
            """
            update dispatch_try t set ending_at = $5 from parcel p
            where t.book_id = $1 and t.id = $4 and t.ended_at is null and p.book_id = t.book_id and p.id = t.parcel_id and p.id = $2 and p.state = 'sending' and p.worker = $3
            """,
            parcel.Book, parcel.Parcel, worker, dispatchTry, now.ToUniversalTime()).RunAsync(cancel) == 1;

    /// <summary>Writes down how a try ended and what follows from it, in one transaction.</summary>
    public async Task EndTryAsync(ClaimedParcel parcel, long worker, long dispatchTry, Outcome outcome, NextStep next, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Sql(
            "update dispatch_try set ended_at = $3, ending = $4, answer = $5, recipients = $6 where book_id = $1 and id = $2 and ended_at is null",
            parcel.Book, dispatchTry, now.ToUniversalTime(), EndingCode(outcome.Ending), outcome.Answer, Commands.Json(outcome.Recipients)).RunAsync(cancel);
        await connection.Sql(
            "update parcel set state = $4, worker = null, try_from = $5, tries = tries - $6 where book_id = $1 and id = $2 and state = 'sending' and worker = $3",
            parcel.Book, parcel.Parcel, worker, next.State.Code(), (now + (next.After ?? TimeSpan.Zero)).ToUniversalTime(), next.PausesSender ? 1 : 0).RunAsync(cancel);
        if (next.PausesSender)
        {
            await connection.Sql("update sender set paused = $3 where book_id = $1 and id = $2", parcel.Book, parcel.Sender.Id, $"The mail server refused the sign-in: {outcome.Answer}").RunAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
    }

    /// <summary>Gives a claimed parcel up because it cannot be made into a message at all.</summary>
    public Task RefuseAsync(ClaimedParcel parcel, long worker, string problem, CancellationToken cancel) =>
        source.Sql("update parcel set state = 'held', problem = $4, worker = null where book_id = $1 and id = $2 and state = 'sending' and worker = $3", parcel.Book, parcel.Parcel, worker, problem).RunAsync(cancel);

    /// <summary>
    /// Sees to what dead workers had claimed: a parcel whose message the server cannot have had whole is released
    /// again; one that the server was given whole without an answer is unsure.
    /// </summary>
    /// <returns>How many parcels were seen to.</returns>
    public async Task<int> RecoverAsync(DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        var workers = await connection.Sql("select distinct worker from parcel where state = 'sending'").ListAsync(r => r.GetInt64(0), cancel);
        var seenTo = 0;
        foreach (var worker in workers)
        {
            await using var transaction = await connection.BeginTransactionAsync(cancel);
            if (!await connection.Sql("select pg_try_advisory_xact_lock($1, $2)", LockSpace, (int)worker).OneAsync<bool>(cancel))
            {
                continue;
            }

            seenTo += await connection.Sql(
                """
                with open_try as (
                    select p.book_id, p.id, t.id as try_id, t.ending_at from parcel p
                    left join dispatch_try t on t.book_id = p.book_id and t.parcel_id = p.id and t.ended_at is null
                    where p.state = 'sending' and p.worker = $1 for update of p),
                ended as (
                    update dispatch_try t set ended_at = $2, ending = case when t.ending_at is null then 'stopped' else 'unanswered' end,
                        answer = case when t.ending_at is null then 'The program stopped before the server had the whole message.' else 'The program stopped after the server had been given the message and before it answered.' end
                    from open_try o where t.book_id = o.book_id and t.id = o.try_id)
                update parcel p set worker = null, try_from = $2, state = case when o.ending_at is null then 'released' else 'unsure' end
                from open_try o where p.book_id = o.book_id and p.id = o.id
                """,
                worker, now.ToUniversalTime()).RunAsync(cancel);
            await transaction.CommitAsync(cancel);
        }

        return seenTo;
    }

    internal static string EndingCode(Ending ending) => ending switch
    {
        Ending.Accepted => "accepted",
        Ending.TryLater => "try-later",
        Ending.Refused => "refused",
        Ending.Unanswered => "unanswered",
        Ending.SignInRefused => "sign-in-refused",
        _ => throw new ArgumentOutOfRangeException(nameof(ending), ending, null),
    };
}

/// <summary>The connection by which a worker is known to be alive.</summary>
public sealed class WorkerConnection : IAsyncDisposable
{
    private readonly NpgsqlConnection connection;

    internal WorkerConnection(NpgsqlConnection connection, long number) => (this.connection, Number) = (connection, number);

    /// <summary>The worker's number.</summary>
    public long Number { get; }

    /// <summary>Waits until something is released, or the time is up.</summary>
    /// <exception cref="NpgsqlException">The connection is gone: whoever held it is no longer this worker.</exception>
    public async Task WaitAsync(TimeSpan atMost, CancellationToken cancel) => await connection.WaitAsync(atMost, cancel);

    /// <inheritdoc/>
    public ValueTask DisposeAsync() => connection.DisposeAsync();
}
