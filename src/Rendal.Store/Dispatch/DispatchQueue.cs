using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Store.Layouts;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;

namespace Rendal.Store.Dispatch;

/// <summary>
/// The queue of released parcels over all books, shared by any number of workers. A worker is known by a number on which it holds an
/// advisory lock: when it dies, however suddenly, the lock is gone and what it had claimed can be told.
/// </summary>
public sealed class DispatchQueue(NpgsqlDataSource source)
{
    /// <summary>What stands in the log about a letter, where a server's words would stand.</summary>
    public const string ForThePost = "Made up for the post.";

    /// <summary>The key of the connections that those use who send (see <see cref="Connect"/>).</summary>
    public const string Source = "dispatch";

    /// <summary>The problem of a parcel whose making was cut off again.</summary>
    public const string MakingCutOff = "making its message was cut off twice, the second time when it was tried again";

    // A worker may be ended by something else in the moment in which it makes a message; twice at the same parcel is hardly a chance.
    private const int MostMakings = 2;

    // Any fixed number serves, as long as nothing else in this database locks under it.
    private const int LockSpace = 0x52454E44;

    private readonly AttemptRecord record = new(source);

    /// <summary>
    /// Connections for those who send. They look up few rows at a time in tables that grow while they are at it, so every statement is
    /// planned once and goes by keys; what PostgreSQL believes of the size of a table that was small a moment ago made it go through all
    /// of it, or fetch and sort all that waits for the sake of the next few. Nobody may leave anything set in their sessions.
    /// </summary>
    public static NpgsqlDataSource Connect(string database)
    {
        var settings = Database.Settings(database);
        (settings.MaxAutoPrepare, settings.NoResetOnClose) = (40, true);
        string[] keys =
        [
            "plan_cache_mode=force_generic_plan",
            "enable_seqscan=off",
            "enable_hashjoin=off",
            "enable_mergejoin=off",
            "enable_bitmapscan=off",
            "enable_sort=off",
        ];
        settings.Options = $"{settings.Options} {string.Join(" ", keys.Select(k => $"-c {k}"))}".Trim();
        return NpgsqlDataSource.Create(settings);
    }

    /// <summary>
    /// Which database this is: the same wherever its server listens and after each start of it, and another for every other database.
    /// </summary>
    public Task<string> DatabaseAsync(CancellationToken cancel) =>
        source
            .Sql("select system_identifier || '/' || d.oid from pg_control_system(), pg_database d where d.datname = current_database()")
            .OneAsync<string>(cancel);

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
            await new WorkerConnection(connection, 0).DisposeAsync();
            throw;
        }
    }

    /// <summary>
    /// Claims the next parcels whose time has come, and counts them against the allowance of their senders, which is held by all workers
    /// together. None where there are none: parcels of paused rounds and senders wait, and so do those whose sender's server is away, or
    /// whose allowance is used up for the moment or for the day. Fewer than there are, where there are allowances: what is held to one
    /// comes one at a time, so who wants more asks until nothing comes.
    /// </summary>
    /// <param name="worker">The worker.</param>
    /// <param name="most">The most that are claimed.</param>
    /// <param name="busy">Books that have their share of this worker already: nothing of them is claimed, so that others go on.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it.</param>
    /// <remarks>
    /// A worker that comes late to its turn makes up for it, up to two turns, so that the pace is kept on the whole. Two workers at the
    /// same turn: the second finds the sender's row changed, and gets nothing.
    /// </remarks>
    public Task<List<ClaimedParcel>> ClaimAsync(
        long worker,
        int most,
        IReadOnlyCollection<long> busy,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        source
            .Sql(
                $"""
                with next as (
                    select p.book_id, p.id, p.next_attempt_at, s.id as sender_id,
                        case when p.channel = 'mail' then s.a_minute end as a_minute,
                        case when p.channel = 'mail' then s.a_day end as a_day, ($2 at time zone b.time_zone)::date as day from parcel p
                    join round r on r.book_id = p.book_id and r.id = p.round_id
                    join sender s on s.book_id = r.book_id and s.id = r.sender_id
                    join book b on b.id = p.book_id
                    {SenderTurn.Day("$2")}
                    where p.state in ('released', 'to-be-retried') and p.next_attempt_at <= $2 and not r.paused and p.book_id <> all ($4)
                        and (p.channel <> 'mail' or ({SenderTurn.IsOpen("$2")}))
                    order by p.next_attempt_at, p.id limit $3 for update of p skip locked),
                placed as (select *, row_number() over (order by next_attempt_at, id) as place from next),
                taken as (select * from placed where place = 1 or (a_minute is null and a_day is null)),
                {SenderTurn.Of("taken", "$2")},
                claimed as (
                    update parcel p set state = 'sending', worker = $1, attempts = p.attempts + 1
                    from in_turn n where p.book_id = n.book_id and p.id = n.id and (n.a_day is null or exists (select from counted))
                    returning p.book_id, p.id, p.round_id, p.attempts, p.recipients, p.subject, p.body, p.card, p.layout_id,
                        p.layout_version, p.channel, p.on_paper, p.next_attempt_at, p.letterhead, p.sent_as, p.seal, p.change,
                        p.message_index, p.message_count)
                select c.book_id, c.id, c.round_id, c.attempts, c.recipients, c.subject, c.body, c.card, c.layout_id, c.layout_version,
                    m.bytes, c.channel, c.on_paper, t.addresses, b.time_zone, c.letterhead, c.sent_as, c.seal, c.change, c.message_index,
                    c.message_count, {string.Join(
                    ", ",
                    SenderStore.Columns.Split(", ").Select(column => "s." + column)
                )}
                from claimed c join round r on r.book_id = c.book_id and r.id = c.round_id join sender s on s.book_id = r.book_id
                    and s.id = r.sender_id join book b on b.id = c.book_id
                left join message m on m.book_id = c.book_id and m.parcel_id = c.id and m.message_index = c.message_index
                cross join lateral (
                    select coalesce(array_agg(a ->> 'address'), array[]::text[]) as addresses
                        from (select outcome, recipients from delivery_attempt where book_id = c.book_id and parcel_id = c.id
                            and message_index = c.message_index offset 0) t,
                            jsonb_array_elements(t.recipients) a
                    where c.attempts > 1 and t.outcome = 'accepted' and (a ->> 'accepted')::boolean) t
                order by c.next_attempt_at, c.id
                """,
                worker,
                now.ToUniversalTime(),
                most,
                busy.ToArray()
            )
            .ListAsync(
                r => new ClaimedParcel(
                    r.Int64("book_id"),
                    r.Int64("id"),
                    r.Int64("round_id"),
                    r.Int32("attempts"),
                    r.Value<string[]>("recipients"),
                    r.String("subject"),
                    r.String("body"),
                    StoreJson.Read<Customer>(r.String("card")),
                    r.IsNull("bytes") ? null : r.Value<byte[]>("bytes"),
                    SenderStore.Read(r, 21),
                    r.IsNull("layout_id") ? null : new LayoutRef(r.Int64("layout_id"), r.Int32("layout_version")),
                    EnumText.Parse<Channel>(r.String("channel")),
                    StoreJson.Read<Firm>(r.String("letterhead")),
                    StoreJson.Read<SentAs>(r.String("sent_as"))
                )
                {
                    Seal = r.IsNull("seal") ? null : r.Value<byte[]>("seal"),
                    OnPaper = r.Boolean("on_paper"),
                    Change = r.IsNull("change") ? null : StoreJson.Read<ParcelChange>(r.String("change")),
                    Taken = r.Value<string[]>("addresses"),
                    MessageIndex = r.Value<short>("message_index"),
                    Messages = r.Value<short>("message_count"),
                    TimeZone = r.String("time_zone"),
                },
                cancel
            );

    /// <summary>
    /// When the next turn of an allowance a minute comes, or a server that was away is asked again; null where nothing waits for that.
    /// </summary>
    public async Task<DateTimeOffset?> NextTurnAsync(DateTimeOffset now, CancellationToken cancel) =>
        (
            await source
                // Asked of the few senders that wait, one by one: joined, it would go through all parcels that wait.
                .Sql(
                    """
                    select min(greatest(s.next_at, s.unreachable_until)) from sender s
                    where s.paused = '' and greatest(s.next_at, s.unreachable_until) > $1
                        and exists (select from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id
                            where r.book_id = s.book_id and r.sender_id = s.id and not r.paused
                            and p.state in ('released', 'to-be-retried') and p.next_attempt_at <= $1 offset 0)
                    """,
                    now.ToUniversalTime()
                )
                .ListAsync(r => r.Nullable<DateTimeOffset>(0), cancel)
        )[0];

    /// <summary>
    /// Writes down that a try begins, and on the first one the message itself, before any byte goes out. What goes on paper is written
    /// down with it; where it goes beside the message, that is a try of its own, which has ended.
    /// </summary>
    /// <returns>The number of the try; null where its round has been paused since, or the parcel is no longer this worker's.</returns>
    public Task<long?> BeginAttemptAsync(
        ClaimedParcel parcel,
        long worker,
        OutgoingMessage? message,
        OutgoingLetter? letter,
        DateTimeOffset now
    ) => record.BeginAsync(new BegunAttempt(parcel, worker, message, letter, now.ToUniversalTime()));

    /// <summary>
    /// Writes down that the server is about to be given the end of the message. False where the parcel was taken from this worker in the
    /// meantime (it was thought dead): then the end must not be sent.
    /// </summary>
    public Task<bool> MarkEndingAsync(ClaimedParcel parcel, long worker, long attempt, DateTimeOffset now) =>
        record.MarkEndingAsync(new EndingAttempt(parcel, worker, attempt, now.ToUniversalTime()));

    /// <summary>Writes down how a try ended and what follows from it, in one transaction.</summary>
    public Task EndAttemptAsync(ClaimedParcel parcel, long worker, long attempt, Outcome outcome, NextStep next, DateTimeOffset now) =>
        record.EndAsync(new EndedAttempt(parcel, worker, attempt, outcome, next, now.ToUniversalTime()));

    /// <summary>
    /// Gives a claimed parcel back that no try was begun of, as if it had not been claimed; one that is no longer this worker's is left
    /// alone.
    /// </summary>
    public Task GiveBackAsync(ClaimedParcel parcel, long worker, CancellationToken cancel) =>
        source
            .Sql(
                "update parcel set state = case when attempts > 1 or message_index > 0 then 'to-be-retried' else 'released' end, "
                    + "worker = null, attempts = attempts - 1 where book_id = $1 and id = $2 and worker = $3",
                parcel.Book,
                parcel.Parcel,
                worker
            )
            .RunAsync(cancel);

    /// <summary>Pauses every round that has something to send or on its way, until a person lets it go on.</summary>
    /// <returns>How many were paused.</returns>
    public Task<int> PauseAllAsync(CancellationToken cancel) =>
        source
            .Sql(
                "update round r set paused = true where not paused and exists (select from parcel p where p.book_id = "
                    + "r.book_id and p.round_id = r.id and p.state in ('released', 'to-be-retried', 'sending'))"
            )
            .RunAsync(cancel);

    /// <summary>
    /// Lets nothing more go by the sender of a parcel until a person has seen to it; the reason that stands there already stays.
    /// </summary>
    public Task PauseSenderAsync(ClaimedParcel parcel, string reason, CancellationToken cancel) =>
        source
            .Sql("update sender set paused = $3 where book_id = $1 and id = $2 and paused = ''", parcel.Book, parcel.Sender.Id, reason)
            .RunAsync(cancel);

    /// <summary>Sets a claimed parcel aside for a person because it cannot be made into a message.</summary>
    public Task RefuseAsync(ClaimedParcel parcel, long worker, string problem, CancellationToken cancel) =>
        source
            .Sql(
                "update parcel set state = 'held', problem = $4, worker = null, makings = 0 where book_id = $1 and id = $2 "
                    + "and state = 'sending' and worker = $3",
                parcel.Book,
                parcel.Parcel,
                worker,
                problem
            )
            .RunAsync(cancel);

    /// <summary>
    /// Sees to what dead workers had claimed: a parcel whose message the server cannot have had whole is released again; one that the
    /// server was given whole without an answer is unsure; one whose making was cut off for the second time waits for a person.
    /// </summary>
    /// <param name="given">Tells of workers of this machine whether they came to give an end that was about to be given.</param>
    /// <param name="now">The time.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>How many parcels were seen to.</returns>
    public async Task<int> RecoverAsync(EndOfDataJournal given, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        var workers = await connection
            .Sql("select distinct worker from parcel where state = 'sending'")
            .ListAsync(r => r.GetInt64(0), cancel);
        var seenTo = 0;
        foreach (var worker in workers)
        {
            await using var transaction = await connection.BeginTransactionAsync(cancel);
            if (!await connection.Sql("select pg_try_advisory_xact_lock($1, $2)", LockSpace, (int)worker).OneAsync<bool>(cancel))
            {
                continue;
            }

            var noted = given.Of(worker);
            seenTo += await connection
                .Sql(
                    """
                    with open_try as (
                        select p.book_id, p.id, t.id as try_id, t.id is null and p.id = any ($6) as is_cut_off, t.id is null
                            and p.id = any ($6) and p.makings + 1 >= $4 as is_set_aside, t.end_of_data_at is not null
                            and ($3::bigint[] is null or t.id = any ($3)) as is_given from parcel p
                        left join delivery_attempt t on t.book_id = p.book_id and t.parcel_id = p.id and t.ended_at is null
                        where p.state = 'sending' and p.worker = $1 for update of p),
                    ended as (
                        update delivery_attempt t set ended_at = $2, outcome = case when o.is_given then 'unanswered' else 'stopped' end,
                            answer = case
                                when o.is_given
                                then 'The program stopped after the server had been given the message and before it answered.'
                                else 'The program stopped before the server had the whole message.' end
                        from open_try o where t.book_id = o.book_id and t.id = o.try_id)
                    update parcel p set worker = null, next_attempt_at = $2,
                        state = case when o.is_given then 'unsure' when o.is_set_aside then 'held' else 'released' end,
                        problem = case when o.is_set_aside then $5 else p.problem end,
                        makings = case when o.is_set_aside then 0 when o.is_cut_off then p.makings + 1 else p.makings end
                    from open_try o where p.book_id = o.book_id and p.id = o.id
                    """,
                    worker,
                    now.ToUniversalTime(),
                    new NpgsqlParameter<long[]?>
                    {
                        TypedValue = noted?.Ends.ToArray(),
                        NpgsqlDbType = NpgsqlDbType.Array | NpgsqlDbType.Bigint,
                    },
                    MostMakings,
                    MakingCutOff,
                    noted?.Making.ToArray() ?? []
                )
                .RunAsync(cancel);
            await transaction.CommitAsync(cancel);
            if (noted is not null)
            {
                given.Forget(worker);
            }
        }

        return seenTo;
    }

    /// <summary>Whether what keeps the database from writing may pass by itself: it is away, starts or stops, or has no room.</summary>
    public static bool MayPass(NpgsqlException e) =>
        e.IsTransient
        || e is not PostgresException { SqlState: var state }
        || state
            is PostgresErrorCodes.AdminShutdown
                or PostgresErrorCodes.CrashShutdown
                or PostgresErrorCodes.CannotConnectNow
                or PostgresErrorCodes.DiskFull;
}
