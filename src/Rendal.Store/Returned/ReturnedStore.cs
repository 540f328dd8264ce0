using System.Security.Cryptography;
using Npgsql;

namespace Rendal.Store.Returned;

/// <summary>A message that came back, to be stored.</summary>
/// <param name="Kind"><c>failed</c>, <c>delayed</c>, <c>automatic-reply</c> or <c>other</c>.</param>
/// <param name="MessageIds">The Message-IDs that it may be about, the likeliest first.</param>
/// <param name="Recipients">The recipients that it speaks of.</param>
/// <param name="Status">The status code of RFC 3463; empty where none is given.</param>
/// <param name="Reason">Why, on one line.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="WrittenAt">When it was written.</param>
/// <param name="Bytes">The message as it came.</param>
public sealed record ReturnedIn(string Kind, IReadOnlyList<string> MessageIds, IReadOnlyList<string> Recipients, string Status, string Reason, string Subject, DateTimeOffset WrittenAt, byte[] Bytes);

/// <summary>What became of a message that was taken in.</summary>
/// <param name="IsKnown">Whether it was taken in before; nothing was done then.</param>
/// <param name="Parcel">The parcel that it is about; null where it fits none.</param>
/// <param name="Customer">The customer's key; empty where it fits none.</param>
/// <param name="CustomerName">The customer's name; empty where it fits none.</param>
/// <param name="Addresses">The addresses that count as returned from now on.</param>
public sealed record ReturnedTaken(bool IsKnown, long? Parcel, string Customer, string CustomerName, IReadOnlyList<string> Addresses);

/// <summary>A message that came back, as it stands in a customer's history.</summary>
/// <param name="WrittenAt">When it was written.</param>
/// <param name="Kind"><c>failed</c>, <c>delayed</c>, <c>automatic-reply</c> or <c>other</c>.</param>
/// <param name="Recipients">The recipients that it speaks of.</param>
/// <param name="Reason">Why, on one line.</param>
/// <param name="Round">The round of the parcel.</param>
/// <param name="RoundName">Its name.</param>
public sealed record ReturnedLine(DateTimeOffset WrittenAt, string Kind, IReadOnlyList<string> Recipients, string Reason, long Round, string RoundName);

/// <summary>Why mail to an address counts as returned.</summary>
/// <param name="Address">The address, in small letters.</param>
/// <param name="Since">When the report of it was written.</param>
/// <param name="Reason">The server's words.</param>
public sealed record ReturnedAddress(string Address, DateTimeOffset Since, string Reason);

/// <summary>What came back to one book.</summary>
public sealed class ReturnedStore(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Takes a message in, once however often it comes. It is about the parcel whose Message-ID it names, else about the last
    /// one that was sent to a recipient whom it names. A failure makes that parcel returned, and the addresses that are
    /// among its recipients count as returned.
    /// </summary>
    /// <param name="mail">The message.</param>
    /// <param name="person">Who takes it in; null where it was fetched without anybody.</param>
    /// <param name="now">When.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<ReturnedTaken> TakeAsync(ReturnedIn mail, long? person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var found = await AboutAsync(connection, mail, cancel);
        var about = found.Count > 0 ? found[0] : default;
        var added = await connection.Sql(
            """
            insert into returned_mail (book_id, parcel_id, kind, recipients, status, reason, subject, written_at, taken_by, taken_at, bytes, sha256)
            values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (book_id, sha256) do nothing returning id
            """,
            book, new NpgsqlParameter { Value = found.Count > 0 ? about.Parcel : DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint }, mail.Kind, mail.Recipients.ToArray(), mail.Status, mail.Reason, mail.Subject,
            mail.WrittenAt.ToUniversalTime(), new NpgsqlParameter { Value = (object?)person ?? DBNull.Value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint }, now.ToUniversalTime(), mail.Bytes, SHA256.HashData(mail.Bytes)).ListAsync(r => r.GetInt64(0), cancel);
        string[] addresses = [];
        if (added is [var id] && mail.Kind == "failed" && found.Count > 0)
        {
            var named = about.Recipients.Where(r => mail.Recipients.Contains(r, StringComparer.OrdinalIgnoreCase)).Select(Small).Distinct().ToArray();
            addresses = named.Length > 0 ? named : about.Recipients.Length == 1 ? [Small(about.Recipients[0])] : [];
            await connection.Sql("update parcel set state = 'returned' where book_id = $1 and id = $2 and state in ('sent', 'unsure')", book, about.Parcel).RunAsync(cancel);
            await connection.Sql(
                "insert into address_returned (book_id, address, returned_id) select $1, a, $3 from unnest($2::text[]) a on conflict (book_id, address) do update set returned_id = excluded.returned_id",
                book, addresses, id).RunAsync(cancel);
        }

        await transaction.CommitAsync(cancel);
        return new ReturnedTaken(added.Count == 0, found.Count > 0 ? about.Parcel : null, about.Customer ?? "", about.Name ?? "", addresses);
    }

    /// <summary>Whether a message is about a parcel.</summary>
    public async Task<bool> IsAboutAParcelAsync(ReturnedIn mail, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        return (await AboutAsync(connection, mail, cancel)).Count > 0;
    }

    /// <summary>The addresses that count as returned.</summary>
    public async Task<Dictionary<string, ReturnedAddress>> AddressesAsync(CancellationToken cancel) =>
        (await source.Sql("select a.address, m.written_at, m.reason from address_returned a join returned_mail m on m.book_id = a.book_id and m.id = a.returned_id where a.book_id = $1", book)
            .ListAsync(r => new ReturnedAddress(r.GetString(0), r.GetFieldValue<DateTimeOffset>(1), r.GetString(2)), cancel)).ToDictionary(a => a.Address, StringComparer.OrdinalIgnoreCase);

    /// <summary>Lets an address count as good again. False where it did.</summary>
    public async Task<bool> GoodAgainAsync(string address, CancellationToken cancel) =>
        await source.Sql("delete from address_returned where book_id = $1 and address = $2", book, Small(address)).RunAsync(cancel) == 1;

    /// <summary>What came back of a customer's parcels, the newest first, at most two dozen.</summary>
    public Task<List<ReturnedLine>> OfAsync(string customer, CancellationToken cancel) =>
        source.Sql(
            """
            select m.written_at, m.kind, m.recipients, m.reason, r.id, r.name from returned_mail m
            join parcel p on p.book_id = m.book_id and p.id = m.parcel_id join round r on r.book_id = p.book_id and r.id = p.round_id
            where m.book_id = $1 and p.customer = $2 order by m.written_at desc, m.id desc limit 24
            """,
            book, customer).ListAsync(r => new ReturnedLine(r.GetFieldValue<DateTimeOffset>(0), r.GetString(1), r.GetFieldValue<string[]>(2), r.GetString(3), r.GetInt64(4), r.GetString(5)), cancel);

    private Task<List<(long Parcel, string Customer, string Name, string[] Recipients)>> AboutAsync(NpgsqlConnection connection, ReturnedIn mail, CancellationToken cancel) =>
        connection.Sql(
            """
            select p.id, p.customer, p.name, p.recipients from message m join parcel p on p.book_id = m.book_id and p.id = m.parcel_id
            where m.book_id = $1 and (m.message_id = any ($2) or exists (select from unnest(p.recipients) r where lower(r) = any ($3)))
            order by array_position($2, m.message_id) nulls last, m.made_at desc limit 1
            """,
            book, mail.MessageIds.ToArray(), mail.Recipients.Select(Small).ToArray()).ListAsync(r => (r.GetInt64(0), r.GetString(1), r.GetString(2), r.GetFieldValue<string[]>(3)), cancel);

    private static string Small(string address) => address.ToLowerInvariant();
}
