using Npgsql;

namespace Rendal.Store.People;

/// <summary>How fast sign-ins are let through for one subject.</summary>
/// <param name="Subject">What they are counted for: an account, an address, a browser.</param>
/// <param name="Free">How many are let through at once.</param>
/// <param name="Longest">The longest pause before the next, which grows from a second by doubling.</param>
public sealed record SignInPace(string Subject, int Free, TimeSpan Longest);

/// <summary>
/// Counts sign-ins before they are looked at, so that any number of them at the same time are as slow as one after another. An
/// account is counted by its name whether there is one or not: the answer tells nothing.
/// </summary>
public sealed class SignInCounts(NpgsqlDataSource source)
{
    // A subject that was left alone for so long begins anew.
    private static readonly TimeSpan Forgotten = TimeSpan.FromHours(1);

    /// <summary>
    /// Counts a sign-in for each subject; null where it may be looked at, else how long it is to wait. One that has to wait for a subject
    /// is not counted.
    /// </summary>
    public async Task<TimeSpan?> BeginAsync(IReadOnlyList<SignInPace> paces, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        TimeSpan? wait = null;
        foreach (var pace in paces.OrderBy(p => p.Subject, StringComparer.Ordinal))
        {
            // The row is locked from here on: of sign-ins at the same time each sees those before it.
            var (attempts, next, tried) = (
                await connection
                    .Sql(
                        """
                        insert into sign_in_count as c (subject, attempts, next_at, tried_at) values ($1, 0, 'epoch', $2)
                        on conflict (subject) do update set subject = c.subject returning attempts, next_at, tried_at
                        """,
                        pace.Subject,
                        now.ToUniversalTime()
                    )
                    .ListAsync(r => (r.GetInt32(0), r.GetFieldValue<DateTimeOffset>(1), r.GetFieldValue<DateTimeOffset>(2)), cancel)
            )[0];
            if (next > now)
            {
                wait = wait > next - now ? wait : next - now;
                continue;
            }

            var count = now - tried > Forgotten ? 1 : attempts + 1;
            var pause =
                count < pace.Free
                    ? TimeSpan.Zero
                    : TimeSpan.FromSeconds(Math.Min(pace.Longest.TotalSeconds, Math.Pow(2, Math.Min(count - pace.Free, 20))));
            // Without a pause there is no next moment: of two at once the second may have looked at the clock before the first.
            await connection
                .Sql(
                    "update sign_in_count set attempts = $2, next_at = case when $3 > $4 then $3 else 'epoch' end, tried_at = $4 "
                        + "where subject = $1",
                    pace.Subject,
                    count,
                    (now + pause).ToUniversalTime(),
                    now.ToUniversalTime()
                )
                .RunAsync(cancel);
        }

        if (wait is not null)
        {
            return wait;
        }

        await transaction.CommitAsync(cancel);
        return null;
    }

    /// <summary>
    /// Forgets what was counted after a sign-in that went well: of the subject all, of the others this one alone, for whoever signs in
    /// from an address may still be guessing at others. What was left alone long enough is forgotten with it.
    /// </summary>
    public Task ForgetAsync(string subject, IEnumerable<string> others, DateTimeOffset now, CancellationToken cancel) =>
        source
            .Sql(
                """
                with uncounted as (update sign_in_count set attempts = greatest(attempts - 1, 0), next_at = 'epoch'
                    where subject = any ($2) and subject <> $1)
                delete from sign_in_count where subject = $1 or (tried_at < $3 and subject <> all ($2))
                """,
                subject,
                others.ToArray(),
                (now - Forgotten).ToUniversalTime()
            )
            .RunAsync(cancel);
}
