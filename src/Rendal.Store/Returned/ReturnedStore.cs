using System.Security.Cryptography;
using Npgsql;
using Rendal.Core.Dispatch;

namespace Rendal.Store.Returned;

/// <summary>What became of a message that was taken in.</summary>
/// <param name="IsKnown">Whether it was taken in before; nothing was done then.</param>
/// <param name="Parcel">The parcel that it is about; null where it fits none.</param>
/// <param name="Customer">The customer's key; empty where it fits none.</param>
/// <param name="CustomerName">The customer's name; empty where it fits none.</param>
/// <param name="Concern">What it means for that parcel; null where it fits none.</param>
public sealed record ReturnedTaken(bool IsKnown, long? Parcel, string Customer, string CustomerName, ReturnedConcern? Concern);

/// <summary>A message that came back, as it stands in a customer's history.</summary>
/// <param name="Id">Its number.</param>
/// <param name="WrittenAt">When it was written.</param>
/// <param name="Kind">The code of its <see cref="ReturnKind"/>; of one that was unclear, what a person decided.</param>
/// <param name="Recipients">The recipients that it speaks of.</param>
/// <param name="Reason">Why, on one line.</param>
/// <param name="Round">The round of the parcel.</param>
/// <param name="RoundName">Its name.</param>
public sealed record ReturnedLine(
    long Id,
    DateTimeOffset WrittenAt,
    string Kind,
    IReadOnlyList<string> Recipients,
    string Reason,
    long Round,
    string RoundName
);

/// <summary>A message that may be a report and waits for a person, with the parcel that it may be about.</summary>
/// <param name="Id">Its number.</param>
/// <param name="WrittenAt">When it was written.</param>
/// <param name="Customer">The customer's key.</param>
/// <param name="Name">The customer's name.</param>
/// <param name="Round">The round of the parcel.</param>
/// <param name="RoundName">Its name.</param>
/// <param name="Recipients">The addresses that it speaks of.</param>
/// <param name="Reason">Its first words.</param>
public sealed record UnclearReturned(
    long Id,
    DateTimeOffset WrittenAt,
    string Customer,
    string Name,
    long Round,
    string RoundName,
    IReadOnlyList<string> Recipients,
    string Reason
);

/// <summary>Why an address counts as bad.</summary>
/// <param name="Address">The address, in small letters.</param>
/// <param name="Since">When the report of it was written, or the mail server refused it.</param>
/// <param name="Reason">The server's words.</param>
/// <param name="IsRefused">Whether a mail server refused it when it was named; else mail to it came back.</param>
public sealed record ReturnedAddress(string Address, DateTimeOffset Since, string Reason, bool IsRefused);

/// <summary>What came back to one book.</summary>
public sealed class ReturnedStore(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Takes a message in, once however often it comes. It is about the parcel whose Message-ID it names; a report that names none is
    /// about the last one that was sent to a recipient whom it names. A failure makes that parcel returned, and the addresses count as bad
    /// that it names and the message was sent to.
    /// </summary>
    /// <param name="mail">What it tells.</param>
    /// <param name="bytes">It as it came.</param>
    /// <param name="person">Who takes it in; null where it was fetched without anybody.</param>
    /// <param name="now">When.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<ReturnedTaken> TakeAsync(
        ReturnedMessage mail,
        byte[] bytes,
        long? person,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var about = await AboutAsync(connection, mail, cancel);
        var concern = about?.Concern
            ?? new ReturnedConcern(
                mail.IsReport ? ReturnKind.Other : mail.Kind,
                [.. mail.Recipients.Select(r => r.Address)],
                "",
                mail.Reason
            );
        var added = await connection
            .Sql(
                """
                insert into returned_mail (book_id, parcel_id, kind, recipients, status, reason, subject, written_at, taken_by, taken_at,
                    bytes, sha256)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (book_id, sha256) do nothing returning id
                """,
                book,
                new NpgsqlParameter { Value = (object?)about?.Parcel ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint },
                concern.Kind.Code(),
                concern.Addresses.ToArray(),
                concern.Status,
                concern.Reason,
                mail.Subject,
                mail.Date.ToUniversalTime(),
                new NpgsqlParameter { Value = (object?)person ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint },
                now.ToUniversalTime(),
                bytes,
                SHA256.HashData(bytes)
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (added is [var id] && about is not null && concern.Kind == ReturnKind.Failed)
        {
            await FailedAsync(connection, about.Parcel, id, concern.Addresses, mail.Date, concern.Reason, cancel);
        }

        await transaction.CommitAsync(cancel);
        return new ReturnedTaken(added.Count == 0, about?.Parcel, about?.Customer ?? "", about?.Name ?? "", about?.Concern);
    }

    /// <summary>Whether a message that came back is about a parcel of this book, as taking it in would find it. Nothing is kept.</summary>
    public async Task<bool> IsAboutAParcelAsync(ReturnedMessage mail, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        return await AboutAsync(connection, mail, cancel) is not null;
    }

    /// <summary>The messages that wait for a person to say whether they are reports, the oldest first.</summary>
    public Task<List<UnclearReturned>> UnclearAsync(CancellationToken cancel) =>
        source
            .Sql(
                """
                select m.id, m.written_at, p.customer, p.name, r.id round_id, r.name round_name, m.recipients, m.reason
                from returned_mail m
                join parcel p on p.book_id = m.book_id and p.id = m.parcel_id join round r on r.book_id = p.book_id and r.id = p.round_id
                where m.book_id = $1 and m.kind = 'unclear' and not exists (select from returned_decision d where d.book_id = m.book_id
                    and d.returned_id = m.id)
                order by m.id limit 100
                """,
                book
            )
            .ListAsync(
                r => new UnclearReturned(
                    r.Int64("id"),
                    r.Value<DateTimeOffset>("written_at"),
                    r.String("customer"),
                    r.String("name"),
                    r.Int64("round_id"),
                    r.String("round_name"),
                    r.Value<string[]>("recipients"),
                    r.String("reason")
                ),
                cancel
            );

    /// <summary>
    /// Says of a message that was unclear what it is. As a failure it makes its parcel returned, and of the addresses that it speaks of
    /// those count as bad that the parcel went to, or the only one that it went to. False where nothing is to be decided.
    /// </summary>
    public async Task<bool> DecideAsync(long id, bool isFailure, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var decided = await connection
            .Sql(
                """
                with decision as (
                    insert into returned_decision (book_id, returned_id, is_failure, decided_by, decided_at)
                    select book_id, id, $3, $4, $5 from returned_mail where book_id = $1 and id = $2 and kind = 'unclear'
                        and parcel_id is not null on conflict do nothing returning returned_id
                )
                select m.parcel_id, m.recipients, p.recipients sent_to, m.written_at, m.reason from decision d
                join returned_mail m on m.book_id = $1 and m.id = d.returned_id join parcel p on p.book_id = m.book_id
                    and p.id = m.parcel_id
                """,
                book,
                id,
                isFailure,
                person,
                now.ToUniversalTime()
            )
            .ListAsync(
                r =>
                    (
                        Parcel: r.Int64("parcel_id"),
                        Named: r.Value<string[]>("recipients"),
                        SentTo: r.Value<string[]>("sent_to"),
                        WrittenAt: r.Value<DateTimeOffset>("written_at"),
                        Reason: r.String("reason")
                    ),
                cancel
            );
        if (decided is [var about] && isFailure)
        {
            string[] named = [.. about.SentTo.Where(r => about.Named.Contains(r, StringComparer.OrdinalIgnoreCase))];
            await FailedAsync(
                connection,
                about.Parcel,
                id,
                named.Length > 0 ? named
                    : about.SentTo.Length == 1 ? about.SentTo
                    : [],
                about.WrittenAt,
                about.Reason,
                cancel
            );
        }

        await transaction.CommitAsync(cancel);
        return decided.Count > 0;
    }

    /// <summary>A message as it came; null where there is none of this number.</summary>
    public async Task<byte[]?> MessageAsync(long id, CancellationToken cancel) =>
        (
            await source
                .Sql("select bytes from returned_mail where book_id = $1 and id = $2", book, id)
                .ListAsync(r => r.GetFieldValue<byte[]>(0), cancel)
        ).SingleOrDefault();

    /// <summary>
    /// The addresses that mail came back from, and that nobody has said are good again, by address without regard to case.
    /// </summary>
    public async Task<Dictionary<string, ReturnedAddress>> AddressesAsync(CancellationToken cancel) =>
        (
            await source
                .Sql("select address, since, reason, returned_id is null is_refused from address_returned where book_id = $1", book)
                .ListAsync(
                    r => new ReturnedAddress(
                        r.String("address"),
                        r.Value<DateTimeOffset>("since"),
                        r.String("reason"),
                        r.Boolean("is_refused")
                    ),
                    cancel
                )
        ).ToDictionary(a => a.Address, StringComparer.OrdinalIgnoreCase);

    /// <summary>Lets an address count as good again. False where it did.</summary>
    public async Task<bool> GoodAgainAsync(string address, long person, CancellationToken cancel) =>
        await source.ByAsync(
            person,
            connection =>
                connection.Sql("delete from address_returned where book_id = $1 and address = lower($2)", book, address).RunAsync(cancel),
            cancel
        ) == 1;

    /// <summary>What came back of a customer's parcels, the newest first, at most two dozen.</summary>
    public Task<List<ReturnedLine>> OfAsync(string customer, CancellationToken cancel) =>
        source
            .Sql(
                """
                select m.id, m.written_at, case d.is_failure when true then 'failed' when false then 'other' else m.kind end kind,
                    m.recipients, m.reason, r.id round_id, r.name round_name
                from returned_mail m
                join parcel p on p.book_id = m.book_id and p.id = m.parcel_id join round r on r.book_id = p.book_id and r.id = p.round_id
                left join returned_decision d on d.book_id = m.book_id and d.returned_id = m.id
                where m.book_id = $1 and p.customer = $2 order by m.written_at desc, m.id desc limit 24
                """,
                book,
                customer
            )
            .ListAsync(
                r => new ReturnedLine(
                    r.Int64("id"),
                    r.Value<DateTimeOffset>("written_at"),
                    r.String("kind"),
                    r.Value<string[]>("recipients"),
                    r.String("reason"),
                    r.Int64("round_id"),
                    r.String("round_name")
                ),
                cancel
            );

    private async Task FailedAsync(
        NpgsqlConnection connection,
        long parcel,
        long id,
        IReadOnlyList<string> addresses,
        DateTimeOffset since,
        string reason,
        CancellationToken cancel
    )
    {
        await connection
            .Sql("update parcel set state = 'returned' where book_id = $1 and id = $2 and state in ('sent', 'unsure')", book, parcel)
            .RunAsync(cancel);
        await connection
            .Sql(
                """
                insert into address_returned (book_id, address, returned_id, since, reason) select distinct $1, lower(a), $3, $4, $5
                    from unnest($2::text[]) a
                on conflict (book_id, address) do update set returned_id = excluded.returned_id, since = excluded.since,
                    reason = excluded.reason
                """,
                book,
                addresses.ToArray(),
                id,
                since.ToUniversalTime(),
                reason
            )
            .RunAsync(cancel);
    }

    /// <summary>The message that one that came back is about. Null where it is about none of this book's.</summary>
    private async Task<About?> AboutAsync(NpgsqlConnection connection, ReturnedMessage mail, CancellationToken cancel)
    {
        const string Select =
            "select p.id, p.customer, p.name, m.recipients, m.sender_address from message m join parcel p on p.book_id = "
            + "m.book_id and p.id = m.parcel_id where m.book_id = $1";
        About Read(NpgsqlDataReader r) =>
            new(
                r.Int64("id"),
                r.String("customer"),
                r.String("name"),
                mail.Concerning(r.Value<string[]>("recipients"), r.String("sender_address"))
            );
        var byId = await connection
            .Sql(
                $"{Select} and m.message_id = any ($2) order by array_position($2, m.message_id) limit 1",
                book,
                mail.MessageIds.ToArray()
            )
            .ListAsync(Read, cancel);
        if (byId.Count > 0 || mail.Kind == ReturnKind.Other || (mail.Kind == ReturnKind.AutomaticReply && mail.MessageIds.Count > 0))
        {
            return byId.FirstOrDefault();
        }

        var byAddress = await connection
            .Sql(
                $"{Select} and small_letters(m.recipients) && small_letters($2) order by m.made_at desc limit 1",
                book,
                mail.Recipients.Select(r => r.Address).ToArray()
            )
            .ListAsync(Read, cancel);

        // A report that names another message is about that one, unless a server on the way gave ours another name.
        return byAddress is [var last]
            ? mail is { IsReport: true, MessageIds.Count: > 0 }
                ? last with
                {
                    Concern = last.Concern with { Kind = ReturnKind.Unclear },
                }
                : last
            : null;
    }

    private sealed record About(long Parcel, string Customer, string Name, ReturnedConcern Concern);
}
