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
/// <param name="Way">How it leaves.</param>
public sealed record ClaimedParcel(long Book, long Parcel, long Round, int Tries, IReadOnlyList<string> Recipients, string Subject, string Body, Customer Card, byte[]? Message, Sender Sender, LayoutRef? Layout, Way Way)
{
    /// <summary>Whether it goes on paper, alone or beside the message.</summary>
    public bool OnPaper { get; init; }
}

/// <summary>A message ready to be stored before its first byte goes out.</summary>
/// <param name="MessageId">The Message-ID without angle brackets.</param>
/// <param name="Bytes">The message as it is sent.</param>
/// <param name="Sha256">The hash of the bytes.</param>
public sealed record OutgoingMessage(string MessageId, byte[] Bytes, byte[] Sha256);

/// <summary>What goes to a customer by post.</summary>
/// <param name="Name">The name of the document.</param>
/// <param name="Bytes">The document (PDF).</param>
/// <param name="Sha256">The hash of the bytes.</param>
public sealed record OutgoingPaper(string Name, byte[] Bytes, byte[] Sha256);

/// <summary>
/// The queue of released parcels over all books, shared by any number of workers. A worker is known by a number on
/// which it holds an advisory lock: when it dies, however suddenly, the lock is gone and what it had claimed can be told.
/// </summary>
public sealed class DispatchQueue(NpgsqlDataSource source)
{
    /// <summary>What stands in the log about paper, where a server's words would stand.</summary>
    public const string ForThePost = "Made up for the post.";

    /// <summary>The key of the connections that those use who send, of which each statement is planned once.</summary>
    public const string Source = "dispatch";

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

    /// <summary>
    /// Claims the next parcel whose time has come, and counts it against the allowance of its sender, which is held by all
    /// workers together. Null where there is none: parcels of paused rounds and senders wait, and so do those whose sender's
    /// server is away, or whose allowance is used up for the moment or for the day.
    /// </summary>
    /// <remarks>
    /// A worker that comes late to its turn makes up for it, up to two turns, so that the pace is kept on the whole. Two
    /// workers at the same turn: the second finds the sender's row changed, and gets nothing.
    /// </remarks>
    public Task<ClaimedParcel?> ClaimAsync(long worker, DateTimeOffset now, CancellationToken cancel) =>
        source.Sql(
            $"""
            with next as (
                select p.book_id, p.id, s.id as sender_id, case when p.way = 'mail' then s.a_minute end as a_minute, case when p.way = 'mail' then s.a_day end as a_day, ($2 at time zone b.time_zone)::date as day from parcel p
                join round r on r.book_id = p.book_id and r.id = p.round_id
                join sender s on s.book_id = r.book_id and s.id = r.sender_id
                join book b on b.id = p.book_id
                left join sender_day d on s.a_day is not null and d.book_id = s.book_id and d.sender_id = s.id and d.day = ($2 at time zone b.time_zone)::date
                where p.state in ('released', 'to-be-retried') and p.try_from <= $2 and not r.paused
                    and (p.way <> 'mail' or (s.paused = '' and s.away_until <= $2 and s.next_at <= $2 and (s.a_day is null or coalesce(d.messages, 0) < s.a_day)))
                order by p.try_from, p.id limit 1 for update of p skip locked),
            paced as (
                update sender s set next_at = greatest(s.next_at, $2 - 2 * interval '1 minute' / s.a_minute) + interval '1 minute' / s.a_minute
                from next where next.a_minute is not null and s.book_id = next.book_id and s.id = next.sender_id and s.next_at <= $2
                returning s.id),
            in_turn as (select * from next where a_minute is null or exists (select from paced)),
            counted as (
                insert into sender_day as d (book_id, sender_id, day, messages) select book_id, sender_id, day, 1 from in_turn where a_day is not null
                on conflict (book_id, sender_id, day) do update set messages = d.messages + 1 where d.messages < (select a_day from in_turn)
                returning d.sender_id),
            claimed as (
                update parcel p set state = 'sending', worker = $1, tries = p.tries + 1
                from in_turn n where p.book_id = n.book_id and p.id = n.id and (n.a_day is null or exists (select from counted))
                returning p.book_id, p.id, p.round_id, p.tries, p.recipients, p.subject, p.body, p.card, p.layout_id, p.layout_version, p.way, p.on_paper)
            select c.book_id, c.id, c.round_id, c.tries, c.recipients, c.subject, c.body, c.card, c.layout_id, c.layout_version, m.bytes, c.way, c.on_paper, {string.Join(", ", SenderStore.Columns.Split(", ").Select(column => "s." + column))}
            from claimed c join round r on r.book_id = c.book_id and r.id = c.round_id join sender s on s.book_id = r.book_id and s.id = r.sender_id
            left join message m on m.book_id = c.book_id and m.parcel_id = c.id
            """,
            worker, now.ToUniversalTime()).FirstAsync(
                r => new ClaimedParcel(
                    r.GetInt64(0), r.GetInt64(1), r.GetInt64(2), r.GetInt32(3), r.GetFieldValue<string[]>(4), r.GetString(5), r.GetString(6), StoreJson.Read<Customer>(r.GetString(7)), r.IsDBNull(10) ? null : r.GetFieldValue<byte[]>(10),
                    SenderStore.Read(r, 13), r.IsDBNull(8) ? null : new LayoutRef(r.GetInt64(8), r.GetInt32(9)), EnumText.Parse<Way>(r.GetString(11)))
                { OnPaper = r.GetBoolean(12) },
                cancel);

    /// <summary>When the next turn of an allowance a minute comes, or a server that was away is asked again; null where nothing waits for that.</summary>
    public async Task<DateTimeOffset?> NextTurnAsync(DateTimeOffset now, CancellationToken cancel) =>
        (await source.Sql(
            """
            select min(greatest(s.next_at, s.away_until)) from sender s
            where s.paused = '' and greatest(s.next_at, s.away_until) > $1
                and exists (select from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id where r.book_id = s.book_id and r.sender_id = s.id and not r.paused and p.state in ('released', 'to-be-retried') and p.try_from <= $1)
            """,
            now.ToUniversalTime()).ListAsync(r => r.Nullable<DateTimeOffset>(0), cancel))[0];

    /// <summary>The recipients for whom a server took the message of a parcel at earlier tries.</summary>
    public async Task<HashSet<string>> TakenAsync(ClaimedParcel parcel, CancellationToken cancel) =>
        (await source.Sql(
            "select a ->> 'address' from dispatch_try t, jsonb_array_elements(t.recipients) a where t.book_id = $1 and t.parcel_id = $2 and t.ending = 'accepted' and (a ->> 'accepted')::boolean",
            parcel.Book, parcel.Parcel).ListAsync(r => r.GetString(0), cancel)).ToHashSet(StringComparer.OrdinalIgnoreCase);

    /// <summary>
    /// Writes down that a try begins, and on the first one the message itself, before any byte goes out. What goes on paper
    /// is written down with it; where it goes beside the message, that is a try of its own, which has ended.
    /// </summary>
    /// <returns>The number of the try; null where the parcel is no longer this worker's.</returns>
    public async Task<long?> BeginTryAsync(ClaimedParcel parcel, long worker, OutgoingMessage? message, OutgoingPaper? paper, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (message is not null)
        {
            await connection.Sql(
                "insert into message (book_id, parcel_id, message_id, subject, sender_address, recipients, bytes, sha256, made_at) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
                parcel.Book, parcel.Parcel, message.MessageId, parcel.Subject, parcel.Sender.Address, parcel.Recipients.ToArray(), message.Bytes, message.Sha256, now.ToUniversalTime()).RunAsync(cancel);
        }

        if (paper is not null)
        {
            // A worker that died after it had written the paper down leaves it to the next, as it is.
            await connection.Sql(
                "insert into paper (book_id, parcel_id, name, lines, country, bytes, sha256, made_at) values ($1, $2, $3, $4, $5, $6, $7, $8) on conflict do nothing",
                parcel.Book, parcel.Parcel, paper.Name, parcel.Card.PostalLines.ToArray(), parcel.Card.Country, paper.Bytes, paper.Sha256, now.ToUniversalTime()).RunAsync(cancel);
            if (message is not null)
            {
                await connection.Sql(
                    "insert into dispatch_try (book_id, parcel_id, worker, started_at, ended_at, ending, answer) values ($1, $2, $3, $4, $4, 'printed', $5)",
                    parcel.Book, parcel.Parcel, worker, now.ToUniversalTime(), ForThePost).RunAsync(cancel);
            }
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
            parcel.Book, parcel.Parcel, worker, next.State.Code(), (now + (next.After ?? TimeSpan.Zero)).ToUniversalTime(), next.CountsAsTry ? 0 : 1).RunAsync(cancel);
        if (next.Sender == SenderStep.Stops)
        {
            await connection.Sql("update sender set paused = $3 where book_id = $1 and id = $2", parcel.Book, parcel.Sender.Id, $"The mail server refused the sign-in: {outcome.Answer}").RunAsync(cancel);
        }
        else if (next.Sender == SenderStep.Waits)
        {
            await WaitAsync(connection, parcel, outcome.Answer, now, cancel);
        }
        else if (parcel.Sender.Away is not null)
        {
            await connection.Sql("update sender set away_times = 0, away_since = null, away_words = '', away_until = '-infinity' where book_id = $1 and id = $2 and away_times > 0", parcel.Book, parcel.Sender.Id).RunAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
    }

    /// <summary>Lets a sender wait whose server could not be reached. Several workers that find this out at once count as one.</summary>
    private static async Task WaitAsync(NpgsqlConnection connection, ClaimedParcel parcel, string words, DateTimeOffset now, CancellationToken cancel)
    {
        var times = (parcel.Sender.Away?.Times ?? 0) + 1;
        await connection.Sql(
            "update sender set away_times = $3, away_since = coalesce(away_since, $4), away_words = $5, away_until = $6 where book_id = $1 and id = $2 and away_times = $3 - 1",
            parcel.Book, parcel.Sender.Id, times, now.ToUniversalTime(), words, (now + NextStep.Waiting(times)).ToUniversalTime()).RunAsync(cancel);
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
        Ending.Unreachable => "unreachable",
        Ending.Exported => "exported",
        Ending.Printed => "printed",
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
