using Npgsql;

namespace Rendal.Store.Senders;

/// <summary>The senders of one book.</summary>
public sealed class SenderStore(NpgsqlDataSource source, long book)
{
    /// <summary>The columns of a sender, in the order in which they are read.</summary>
    internal const string Columns =
        "id, name, address, host, port, security, user_name, password, reply_to, copy_to_self, a_minute, a_day, "
        + "largest_bytes, paused, unreachable_times, unreachable_since, unreachable_words, unreachable_until, pauses, person_id, signature";

    /// <summary>
    /// The senders under which a person may send: their own first, then those of the book, each in the order in which they were made.
    /// </summary>
    public Task<List<Sender>> ListAsync(long person, CancellationToken cancel) =>
        source
            .Sql(
                $"select {Columns} from sender where book_id = $1 and (person_id is null or person_id = $2) order by person_id "
                    + "is null, id",
                book,
                person
            )
            .ListAsync(r => Read(r), cancel);

    /// <summary>A sender; null where there is none of this number.</summary>
    public Task<Sender?> FindAsync(long id, CancellationToken cancel) =>
        source.Sql($"select {Columns} from sender where book_id = $1 and id = $2", book, id).FirstAsync(r => Read(r), cancel);

    /// <summary>
    /// Adds a sender, and gives its number. Its password is kept as it was encrypted; null for a server that asks for none.
    /// </summary>
    public Task<long> AddAsync(Sender sender, long person, CancellationToken cancel) =>
        source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        """
                        insert into sender (book_id, name, address, host, port, security, user_name, password, reply_to, copy_to_self,
                            a_minute, a_day, largest_bytes, pauses, person_id, signature)
                        values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16) returning id
                        """,
                        [book, .. Values(sender)]
                    )
                    .OneAsync<long>(cancel),
            cancel
        );

    /// <summary>
    /// Changes a sender and lets it send again at once. Without a password the one that was there stays, for the server that it was given
    /// for alone.
    /// </summary>
    /// <param name="sender">The sender.</param>
    /// <param name="person">Who changes it.</param>
    /// <param name="today">The day of the book, of which the messages begun so far are counted where there is an allowance.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<bool> UpdateAsync(Sender sender, long person, DateOnly today, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var changed = await connection
            .Sql(
                """
                update sender set name = $2, address = $3, host = $4, port = $5, security = $6, user_name = $7,
                    password = coalesce($8, case when (host, port, security) = ($4, $5, $6) then password end),
                    reply_to = $9, copy_to_self = $10, a_minute = $11, a_day = $12, largest_bytes = $13, pauses = $14, person_id = $15,
                    signature = $16,
                    paused = '', next_at = '-infinity', unreachable_times = 0, unreachable_since = null, unreachable_words = '',
                        unreachable_until = '-infinity'
                where book_id = $1 and id = $17
                """,
                [book, .. Values(sender), sender.Id]
            )
            .RunAsync(cancel);
        if (sender.ADay is not null)
        {
            await connection
                .Sql(
                    """
                    insert into sender_day (book_id, sender_id, day, messages)
                    select $1, $2, $3, count(*) from delivery_attempt t
                    join parcel p on p.book_id = t.book_id and p.id = t.parcel_id join round r on r.book_id = p.book_id
                        and r.id = p.round_id and r.sender_id = $2
                    join book b on b.id = t.book_id
                    where t.book_id = $1 and t.started_at >= $3::timestamp at time zone b.time_zone
                    on conflict (book_id, sender_id, day) do update set messages = greatest(sender_day.messages, excluded.messages)
                    """,
                    book,
                    sender.Id,
                    today
                )
                .RunAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
        return changed == 1;
    }

    /// <summary>How many messages were begun on a day, by sender; one that has no allowance a day is not among them.</summary>
    public async Task<Dictionary<long, int>> BegunAsync(DateOnly day, CancellationToken cancel) =>
        (
            await source
                .Sql("select sender_id, messages from sender_day where book_id = $1 and day = $2", book, day)
                .ListAsync(r => (Sender: r.GetInt64(0), Messages: r.GetInt32(1)), cancel)
        ).ToDictionary(d => d.Sender, d => d.Messages);

    /// <summary>Reads <see cref="Columns"/> from a column on.</summary>
    internal static Sender Read(NpgsqlDataReader r, int at = 0) =>
        new(
            r.GetInt64(at),
            r.GetString(at + 1),
            r.GetString(at + 2),
            r.GetString(at + 3),
            r.GetInt32(at + 4),
            r.GetString(at + 5),
            r.GetString(at + 6),
            r.IsDBNull(at + 7) ? null : r.GetFieldValue<byte[]>(at + 7)
        )
        {
            ReplyTo = r.GetString(at + 8),
            CopyToSelf = r.GetBoolean(at + 9),
            AMinute = r.Nullable<int>(at + 10),
            ADay = r.Nullable<int>(at + 11),
            LargestBytes = r.Nullable<int>(at + 12),
            Paused = r.GetString(at + 13),
            Unreachable = r.GetInt32(at + 14) is > 0 and var times
                ? new ServerUnreachable(
                    times,
                    r.GetFieldValue<DateTimeOffset>(at + 15),
                    r.GetString(at + 16),
                    r.GetFieldValue<DateTimeOffset>(at + 17)
                )
                : null,
            Pauses = [.. r.GetFieldValue<int[]>(at + 18).Select(minutes => TimeSpan.FromMinutes(minutes))],
            Person = r.Nullable<long>(at + 19),
            Signature = r.GetString(at + 20),
        };

    private static object?[] Values(Sender sender) =>
        [
            sender.Name,
            sender.Address,
            sender.Host,
            sender.Port,
            sender.Security,
            sender.UserName,
            new NpgsqlParameter
            {
                Value = (object?)sender.ProtectedPassword ?? DBNull.Value,
                NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bytea,
            },
            sender.ReplyTo,
            sender.CopyToSelf,
            Whole(sender.AMinute),
            Whole(sender.ADay),
            Whole(sender.LargestBytes),
            sender.Pauses.Select(p => (int)p.TotalMinutes).ToArray(),
            new NpgsqlParameter { Value = (object?)sender.Person ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint },
            sender.Signature,
        ];

    private static NpgsqlParameter Whole(int? value) =>
        new() { Value = (object?)value ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Integer };
}
