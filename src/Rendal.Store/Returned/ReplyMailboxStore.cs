using Npgsql;
using NpgsqlTypes;

namespace Rendal.Store.Returned;

/// <summary>The mailboxes of all books that what came back is fetched from.</summary>
public sealed class ReplyMailboxStore(NpgsqlDataSource source)
{
    private const string Columns =
        "book_id, sender_id, host, port, security, user_name, password, validity, last_uid, looked_at, taken, trouble, "
        + "(select time_zone from book b where b.id = book_id) time_zone";

    /// <summary>The mailbox of a sender; null where it has none.</summary>
    public Task<ReplyMailboxRecord?> FindAsync(long book, long sender, CancellationToken cancel) =>
        source.Sql($"select {Columns} from reply_mailbox where book_id = $1 and sender_id = $2", book, sender).FirstAsync(Read, cancel);

    /// <summary>
    /// Sets the mailbox of a sender. Without a password the one that was there stays, for the server that it was given for alone; another
    /// mailbox is looked through from its start.
    /// </summary>
    public Task PutAsync(ReplyMailboxRecord mailbox, CancellationToken cancel) =>
        source
            .Sql(
                """
                insert into reply_mailbox as m (book_id, sender_id, host, port, security, user_name, password)
                    values ($1, $2, $3, $4, $5, $6, $7)
                on conflict (book_id, sender_id) do update set port = $4, security = $5,
                    password = coalesce($7, case when (m.host, m.port, m.security) = ($3, $4, $5) then m.password end),
                    next_at = '-infinity', trouble = '',
                    validity = case when (m.host, m.user_name) = ($3, $6) then m.validity end,
                    host = $3, user_name = $6
                """,
                mailbox.Book,
                mailbox.Sender,
                mailbox.Host,
                mailbox.Port,
                mailbox.Security,
                mailbox.UserName,
                new NpgsqlParameter { Value = (object?)mailbox.ProtectedPassword ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Bytea }
            )
            .RunAsync(cancel);

    /// <summary>Fetches from the mailbox of a sender no longer. False where there was none.</summary>
    public async Task<bool> RemoveAsync(long book, long sender, CancellationToken cancel) =>
        await source.Sql("delete from reply_mailbox where book_id = $1 and sender_id = $2", book, sender).RunAsync(cancel) == 1;

    /// <summary>
    /// One mailbox that is due to be looked through, for this caller alone; it is due again after <paramref name="every"/>. Null where
    /// none is.
    /// </summary>
    public Task<ReplyMailboxRecord?> ClaimDueAsync(DateTimeOffset now, TimeSpan every, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                update reply_mailbox set next_at = $2 where (book_id, sender_id) in
                    (select book_id, sender_id from reply_mailbox where next_at <= $1 order by next_at limit 1 for update skip locked)
                returning {Columns}
                """,
                now.ToUniversalTime(),
                (now + every).ToUniversalTime()
            )
            .FirstAsync(Read, cancel);

    /// <summary>Notes that it was looked through. Where something was left it is due again at once.</summary>
    /// <param name="mailbox">The mailbox as it was before.</param>
    /// <param name="validity">What the server's numbers are worth.</param>
    /// <param name="last">The last number that was looked at.</param>
    /// <param name="taken">How many messages about parcels it brought.</param>
    /// <param name="left">How many new messages were left in it for the next look.</param>
    /// <param name="now">When.</param>
    public Task LookedAsync(
        ReplyMailboxRecord mailbox,
        long validity,
        long last,
        int taken,
        int left,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        source
            .Sql(
                "update reply_mailbox set validity = $5, last_uid = $6, taken = $7, looked_at = $8, trouble = '', next_at = "
                    + "case when $9 > 0 then $8 else next_at end where book_id = $1 and sender_id = $2 and host = $3 and user_name "
                    + "= $4",
                mailbox.Book,
                mailbox.Sender,
                mailbox.Host,
                mailbox.UserName,
                validity,
                last,
                taken,
                now.ToUniversalTime(),
                left
            )
            .RunAsync(cancel);

    /// <summary>Notes what kept it from being looked through.</summary>
    public Task FailedAsync(ReplyMailboxRecord mailbox, string trouble, CancellationToken cancel) =>
        source
            .Sql("update reply_mailbox set trouble = $3 where book_id = $1 and sender_id = $2", mailbox.Book, mailbox.Sender, trouble)
            .RunAsync(cancel);

    private static ReplyMailboxRecord Read(NpgsqlDataReader r) =>
        new(
            r.Int64("book_id"),
            r.Int64("sender_id"),
            r.String("host"),
            r.Int32("port"),
            r.String("security"),
            r.String("user_name"),
            r.IsNull("password") ? null : r.Value<byte[]>("password")
        )
        {
            Validity = r.Nullable<long>("validity"),
            LastUid = r.Int64("last_uid"),
            LookedAt = r.Nullable<DateTimeOffset>("looked_at"),
            Taken = r.Int32("taken"),
            Trouble = r.String("trouble"),
            TimeZone = r.String("time_zone"),
        };
}
