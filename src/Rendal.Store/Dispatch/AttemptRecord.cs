using Npgsql;
using Rendal.Core.Dispatch;

namespace Rendal.Store.Dispatch;

/// <summary>
/// Writes down each step of the attempts, in any number of them at once: what comes at about the same time is one transaction,
/// which goes to the disk once for all of them. Each is told only when it is there.
/// </summary>
internal sealed class AttemptRecord
{
    private const int MostTogether = 64;

    // Nobody minds these for a try that begins or has ended; while the end is marked a connection to the server waits.
    private static readonly TimeSpan BeginsWait = TimeSpan.FromMilliseconds(3);
    private static readonly TimeSpan EndsWait = TimeSpan.FromMilliseconds(4);

    private readonly NpgsqlDataSource source;
    private readonly WriteBatcher<BegunAttempt, long?> begins;
    private readonly WriteBatcher<EndingAttempt, bool> endings;
    private readonly WriteBatcher<EndedAttempt, bool> ends;

    /// <summary>Writes to a database; its batches begin with the first step.</summary>
    public AttemptRecord(NpgsqlDataSource source)
    {
        this.source = source;
        begins = new(BeginAsync, MostTogether, BeginsWait);
        endings = new(MarkEndingAsync, MostTogether, TimeSpan.Zero);
        ends = new(EndAsync, MostTogether, EndsWait);
    }

    /// <summary>See <see cref="DispatchQueue.BeginAttemptAsync"/>.</summary>
    public Task<long?> BeginAsync(BegunAttempt begun) => begins.AskAsync(begun);

    /// <summary>See <see cref="DispatchQueue.MarkEndingAsync"/>.</summary>
    public Task<bool> MarkEndingAsync(EndingAttempt ending) => endings.AskAsync(ending);

    /// <summary>See <see cref="DispatchQueue.EndAttemptAsync"/>.</summary>
    public Task EndAsync(EndedAttempt ended) => ends.AskAsync(ended);

    // While one worker makes a message, its parcel may be stopped, changed, released and claimed again, by itself even.
    private const string IsStillThat =
        "join parcel p on p.book_id = a.book_id and p.id = a.parcel_id and p.worker = a.worker and p.seal is not distinct from a.seal";

    private async Task<IReadOnlyList<long?>> BeginAsync(IReadOnlyList<BegunAttempt> begun)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var batch = new NpgsqlBatch(connection);

        // Who stops the rest of a round waits for this, or this finds the parcel stopped.
        batch.Sql(
            """
            select from parcel p join unnest($1::bigint[], $2::bigint[], $3::bigint[]) a (book_id, parcel_id,
                worker) on p.book_id = a.book_id and p.id = a.parcel_id and p.worker = a.worker
            order by p.id for no key update of p
            """,
            Each(begun, b => b.Parcel.Book),
            Each(begun, b => b.Parcel.Parcel),
            Each(begun, b => b.Worker)
        );
        AddMessages(batch, [.. begun.Where(b => b.Message is not null)]);
        AddLetters(batch, [.. begun.Where(b => b.Letter is not null)]);

        // By the worker alone, here and below: a parcel that has one is being sent, and so it is found by its key in any plan.
        batch.Sql(
            $"""
            insert into delivery_attempt (book_id, parcel_id, worker, started_at, message_index)
            select a.book_id, a.parcel_id, a.worker, a.at, p.message_index
            from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bytea[], $5::timestamptz[]) a (book_id, parcel_id, worker, seal, at)
            {IsStillThat}
            where not (select r.paused from round r where r.book_id = p.book_id and r.id = p.round_id)
            returning book_id, parcel_id, id
            """,
            Each(begun, b => b.Parcel.Book),
            Each(begun, b => b.Parcel.Parcel),
            Each(begun, b => b.Worker),
            Each(begun, SealOf),
            Each(begun, b => b.At)
        );
        var attempts = new Dictionary<(long, long), long>();
        await using var reader = await batch.ExecuteReaderAsync();
        await reader.NextResultAsync();
        while (await reader.ReadAsync())
        {
            attempts.Add((reader.GetInt64(0), reader.GetInt64(1)), reader.GetInt64(2));
        }

        // To the end, where it is told whether all of it was written.
        await reader.NextResultAsync();
        return [.. begun.Select(b => attempts.TryGetValue((b.Parcel.Book, b.Parcel.Parcel), out var id) ? id : (long?)null)];
    }

    private static void AddMessages(NpgsqlBatch batch, IReadOnlyList<BegunAttempt> first)
    {
        if (first.Count > 0)
        {
            batch.Sql(
                $"""
                insert into message (book_id, parcel_id, message_index, message_id, subject, sender_address, recipients, bytes, sha256,
                    made_at)
                select a.book_id, a.parcel_id, p.message_index, a.message_id, a.subject, a.sender_address, p.recipients, a.bytes, a.sha256,
                    a.made_at
                from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bytea[], $5::text[], $6::text[], $7::bytea[], $8::bytea[],
                    $9::timestamptz[], $10::text[]) a (book_id, parcel_id, worker, seal, message_id, sender_address, bytes, sha256,
                    made_at, subject) {IsStillThat}
                """,
                Each(first, b => b.Parcel.Book),
                Each(first, b => b.Parcel.Parcel),
                Each(first, b => b.Worker),
                Each(first, SealOf),
                Each(first, b => b.Message!.MessageId),
                Each(first, b => b.Parcel.Sender.Address),
                Each(first, b => b.Message!.Bytes),
                Each(first, b => b.Message!.Sha256),
                Each(first, b => b.At),
                Each(first, b => b.Message!.Subject)
            );
        }
    }

    private static void AddLetters(NpgsqlBatch batch, IReadOnlyList<BegunAttempt> onPaper)
    {
        if (onPaper.Count > 0)
        {
            // A worker that died after it had written the paper down leaves it to the next, as it is.
            batch.Sql(
                $"""
                insert into letter (book_id, parcel_id, name, lines, country, bytes, sha256, made_at)
                select a.book_id, a.parcel_id, a.name, array(select jsonb_array_elements_text(a.lines)), a.country, a.bytes, a.sha256,
                    a.made_at
                from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bytea[], $5::text[], $6::text[]::jsonb[], $7::text[],
                    $8::bytea[], $9::bytea[], $10::timestamptz[]) a (book_id, parcel_id, worker, seal, name, lines, country, bytes, sha256,
                    made_at) {IsStillThat}
                on conflict do nothing
                """,
                Each(onPaper, b => b.Parcel.Book),
                Each(onPaper, b => b.Parcel.Parcel),
                Each(onPaper, b => b.Worker),
                Each(onPaper, SealOf),
                Each(onPaper, b => b.Letter!.Name),
                Each(onPaper, b => StoreJson.Write(b.Parcel.Card.PostalLines)),
                Each(onPaper, b => b.Parcel.Card.Country),
                Each(onPaper, b => b.Letter!.Bytes),
                Each(onPaper, b => b.Letter!.Sha256),
                Each(onPaper, b => b.At)
            );
        }

        if (onPaper.Where(b => b.Message is not null).ToList() is { Count: > 0 } beside)
        {
            batch.Sql(
                $"""
                insert into delivery_attempt (book_id, parcel_id, worker, started_at, ended_at, outcome, answer)
                select a.book_id, a.parcel_id, a.worker, a.at, a.at, 'printed', $6
                    from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bytea[], $5::timestamptz[]) a (book_id, parcel_id, worker,
                    seal, at) {IsStillThat}
                """,
                Each(beside, b => b.Parcel.Book),
                Each(beside, b => b.Parcel.Parcel),
                Each(beside, b => b.Worker),
                Each(beside, SealOf),
                Each(beside, b => b.At),
                DispatchQueue.ForThePost
            );
        }
    }

    private async Task<IReadOnlyList<bool>> MarkEndingAsync(IReadOnlyList<EndingAttempt> endings)
    {
        var marked = (
            await source
                .Sql(
                    """
                    update delivery_attempt t set end_of_data_at = a.at from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::bigint[],
                        $5::timestamptz[]) a (book_id, parcel_id, worker, id, at)
                    join parcel p on p.book_id = a.book_id and p.id = a.parcel_id and p.worker = a.worker
                    where t.book_id = a.book_id and t.id = a.id and t.parcel_id = p.id and t.ended_at is null
                    returning t.book_id, t.id
                    """,
                    Each(endings, e => e.Parcel.Book),
                    Each(endings, e => e.Parcel.Parcel),
                    Each(endings, e => e.Worker),
                    Each(endings, e => e.Try),
                    Each(endings, e => e.At)
                )
                .ListAsync(r => (r.GetInt64(0), r.GetInt64(1)), CancellationToken.None)
        ).ToHashSet();
        return [.. endings.Select(e => marked.Contains((e.Parcel.Book, e.Try)))];
    }

    private async Task<IReadOnlyList<bool>> EndAsync(IReadOnlyList<EndedAttempt> ended)
    {
        await using var connection = await source.OpenConnectionAsync();
        await using var batch = new NpgsqlBatch(connection);
        batch.Sql(
            """
            update delivery_attempt t set ended_at = a.at, outcome = a.outcome, answer = a.answer, recipients = a.recipients,
                gave_up = a.gave_up
            from unnest($1::bigint[], $2::bigint[], $3::timestamptz[], $4::text[], $5::text[], $6::text[]::jsonb[],
                $7::boolean[]) a (book_id, id, at, outcome, answer, recipients, gave_up)
            where t.book_id = a.book_id and t.id = a.id and t.ended_at is null
            """,
            Each(ended, e => e.Parcel.Book),
            Each(ended, e => e.Try),
            Each(ended, e => e.At),
            Each(ended, e => EnumText.Of(e.Outcome.Kind)),
            Each(ended, e => e.Outcome.Answer),
            Each(ended, e => StoreJson.Write(e.Outcome.Recipients)),
            Each(ended, e => e.Outcome.IsToBeTriedAgain && e.Next.State != ParcelState.ToBeRetried)
        );
        batch.Sql(
            """
            update parcel p set worker = null, makings = 0, next_attempt_at = a.next_attempt_at,
                state = case when a.has_left and p.message_index + 1 < p.message_count then 'to-be-retried' else a.state end,
                attempts = case when a.has_left and p.message_index + 1 < p.message_count then 0 else p.attempts - a.uncounted end,
                message_index = case when a.has_left then least(p.message_index + 1, p.message_count - 1) else p.message_index end
            from unnest($1::bigint[], $2::bigint[], $3::bigint[], $4::text[], $5::timestamptz[], $6::int[], $7::boolean[]) a (book_id, id,
                worker, state, next_attempt_at, uncounted, has_left)
            where p.book_id = a.book_id and p.id = a.id and p.worker = a.worker
            """,
            Each(ended, e => e.Parcel.Book),
            Each(ended, e => e.Parcel.Parcel),
            Each(ended, e => e.Worker),
            Each(ended, e => e.Next.State.Code()),
            Each(ended, e => e.At + (e.Next.After ?? TimeSpan.Zero)),
            Each(ended, e => e.Next.CountsAsTry ? 0 : 1),
            Each(ended, e => e.Next.State is ParcelState.Sent or ParcelState.Exported)
        );
        foreach (var one in ended)
        {
            AddSenderStep(batch, one);
            AddBadAddresses(batch, one);
        }

        await batch.ExecuteNonQueryAsync();
        return [.. ended.Select(_ => true)];
    }

    /// <summary>
    /// What follows for the sender. Several workers that find out at once that its server could not be reached count as one.
    /// </summary>
    private static void AddSenderStep(NpgsqlBatch batch, EndedAttempt ended)
    {
        var (parcel, sender) = (ended.Parcel, ended.Parcel.Sender);
        if (ended.Next.Sender == SenderStep.Stops)
        {
            batch.Sql(
                "update sender set paused = $3 where book_id = $1 and id = $2",
                parcel.Book,
                sender.Id,
                $"The mail server refused the sign-in: {ended.Outcome.Answer}"
            );
        }
        else if (ended.Next.Sender == SenderStep.Waits)
        {
            var times = (sender.Unreachable?.Times ?? 0) + 1;
            batch.Sql(
                "update sender set unreachable_times = $3, unreachable_since = coalesce(unreachable_since, $4), unreachable_words = $5, unreachable_until = $6 "
                    + "where book_id = $1 and id = $2 and unreachable_times = $3 - 1",
                parcel.Book,
                sender.Id,
                times,
                ended.At,
                ended.Outcome.Answer,
                ended.At + NextStep.Waiting(times)
            );
        }
        else if (sender.Unreachable is not null)
        {
            batch.Sql(
                "update sender set unreachable_times = 0, unreachable_since = null, unreachable_words = '', unreachable_until = '-infinity' where book_id "
                    + "= $1 and id = $2 and unreachable_times > 0",
                parcel.Book,
                sender.Id
            );
        }
    }

    private static void AddBadAddresses(NpgsqlBatch batch, EndedAttempt ended)
    {
        if (
            ended.Outcome.Recipients.Where(r => r.IsAddressBad).DistinctBy(r => r.Address, StringComparer.OrdinalIgnoreCase).ToList() is
            { Count: > 0 } bad
        )
        {
            batch.Sql(
                """
                insert into address_returned (book_id, address, since, reason) select $1, lower(a.address), $4, a.reason
                    from unnest($2::text[], $3::text[]) a (address, reason)
                on conflict (book_id, address) do update set returned_id = null, since = excluded.since, reason = excluded.reason
                """,
                ended.Parcel.Book,
                Each(bad, r => r.Address),
                Each(bad, r => r.Answer),
                ended.At
            );
        }
    }

    private static byte[]? SealOf(BegunAttempt begun) => begun.Parcel.Seal;

    private static TValue[] Each<T, TValue>(IReadOnlyList<T> all, Func<T, TValue> value) => [.. all.Select(value)];
}

/// <summary>A try that begins; times are in UTC.</summary>
internal sealed record BegunAttempt(
    ClaimedParcel Parcel,
    long Worker,
    OutgoingMessage? Message,
    OutgoingLetter? Letter,
    DateTimeOffset At
);

/// <summary>A try of which the server is about to be given the end.</summary>
internal sealed record EndingAttempt(ClaimedParcel Parcel, long Worker, long Try, DateTimeOffset At);

/// <summary>A try that has ended.</summary>
internal sealed record EndedAttempt(ClaimedParcel Parcel, long Worker, long Try, Outcome Outcome, NextStep Next, DateTimeOffset At);
