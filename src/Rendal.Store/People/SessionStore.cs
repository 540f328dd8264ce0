using Npgsql;

namespace Rendal.Store.People;

/// <summary>A session of a person.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Browser">What the browser says that it is.</param>
/// <param name="BeganAt">When they signed in.</param>
/// <param name="UsedAt">When it was used last, to the minute.</param>
public sealed record Session(long Id, string Browser, DateTimeOffset BeganAt, DateTimeOffset UsedAt);

/// <summary>Who is signed in. A session is known by a key that only the browser has; here is its hash.</summary>
public sealed class SessionStore(NpgsqlDataSource source)
{
    /// <summary>Notes that a person has signed in at a browser.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="keyHash">The SHA-256 of its key.</param>
    /// <param name="browser">What the browser says that it is.</param>
    /// <param name="now">The time.</param>
    /// <param name="until">When it ends if it is not used.</param>
    public Task BeginAsync(
        long person,
        byte[] keyHash,
        string browser,
        DateTimeOffset now,
        DateTimeOffset until,
        CancellationToken cancel
    ) =>
        source
            .Sql(
                "insert into session (person_id, key_hash, browser, began_at, used_at, good_until) values ($1, $2, $3, $4, $4, $5)",
                person,
                keyHash,
                browser,
                now.ToUniversalTime(),
                until.ToUniversalTime()
            )
            .RunAsync(cancel);

    /// <summary>Whether a session goes on; that it is used is noted once a minute, and puts its end off.</summary>
    /// <param name="keyHash">The SHA-256 of its key.</param>
    /// <param name="now">The time.</param>
    /// <param name="until">When it ends if it is not used again.</param>
    public async Task<bool> UseAsync(byte[] keyHash, DateTimeOffset now, DateTimeOffset until, CancellationToken cancel)
    {
        var at = now.ToUniversalTime();
        var used = await source
            .Sql("select used_at from session where key_hash = $1 and ended_at is null and good_until > $2", keyHash, at)
            .ListAsync(r => r.GetFieldValue<DateTimeOffset>(0), cancel);
        if (used is not [var last])
        {
            return false;
        }

        if (at - last >= TimeSpan.FromMinutes(1))
        {
            await source
                .Sql(
                    "update session set used_at = $2, good_until = $3 where key_hash = $1 and ended_at is null",
                    keyHash,
                    at,
                    until.ToUniversalTime()
                )
                .RunAsync(cancel);
        }

        return true;
    }

    /// <summary>Whether a session goes on, asked by what goes on without being used: a stream of progress.</summary>
    public Task<bool> GoesOnAsync(byte[] keyHash, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                "select exists (select from session where key_hash = $1 and ended_at is null and good_until > $2)",
                keyHash,
                now.ToUniversalTime()
            )
            .OneAsync<bool>(cancel);

    /// <summary>The sessions of a person that go on, the one used last first.</summary>
    public Task<List<Session>> ListAsync(long person, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                "select id, browser, began_at, used_at from session where person_id = $1 and ended_at is null and good_until "
                    + "> $2 order by used_at desc, id desc",
                person,
                now.ToUniversalTime()
            )
            .ListAsync(
                r => new Session(
                    r.Int64("id"),
                    r.String("browser"),
                    r.Value<DateTimeOffset>("began_at"),
                    r.Value<DateTimeOffset>("used_at")
                ),
                cancel
            );

    /// <summary>The number of a session; null where it does not go on.</summary>
    public async Task<long?> NumberAsync(byte[] keyHash, CancellationToken cancel) =>
        await source.Sql("select id from session where key_hash = $1 and ended_at is null", keyHash).ListAsync(r => r.GetInt64(0), cancel)
            is [var id]
            ? id
            : null;

    /// <summary>Ends a session from now on. Nothing happens where it does not go on any more.</summary>
    public Task EndAsync(byte[] keyHash, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql("update session set ended_at = $2 where key_hash = $1 and ended_at is null", keyHash, now.ToUniversalTime())
            .RunAsync(cancel);

    /// <summary>Ends all sessions of a person but one, as after a change of the password.</summary>
    /// <param name="person">Whose.</param>
    /// <param name="but">The hash of the key of the one that goes on.</param>
    /// <param name="now">The time.</param>
    /// <returns>How many were ended.</returns>
    public Task<int> EndAllAsync(long person, byte[] but, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                "update session set ended_at = $3 where person_id = $1 and ended_at is null and key_hash <> $2",
                person,
                but,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
}
