using Npgsql;
using Rendal.Core.Reminders;

namespace Rendal.Store.Reminders;

/// <summary>How far the reminders about the items of one book have come.</summary>
public sealed class ReminderStore(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// The highest level that was sent for each item, with the day in the book's zone. One that is on its way counts, so that nothing goes twice
    /// meanwhile; one that was refused or came back does not.
    /// </summary>
    /// <param name="exceptRound">The round that does not count, as its parcels have the levels that come after what was before it; null where all count.</param>
    /// <param name="exceptParcel">The parcel that does not count, as it is sent once more; null for none.</param>
    public async Task<Dictionary<string, Reminded>> AllAsync(long? exceptRound, long? exceptParcel, CancellationToken cancel) =>
        (await source.Sql(
            """
            select distinct on (i.item) i.item, i.level, (coalesce(t.ended_at, r.released_at) at time zone b.time_zone)::date as sent_on
            from item_reminded i
                join parcel p on p.book_id = i.book_id and p.id = i.parcel_id
                join round r on r.book_id = p.book_id and r.id = p.round_id
                join book b on b.id = i.book_id
                left join lateral (select max(ended_at) as ended_at from dispatch_try where book_id = p.book_id and parcel_id = p.id and ending in ('accepted', 'printed')) t on true
            where i.book_id = $1 and p.round_id is distinct from $2 and p.id is distinct from $3 and p.state not in ('refused', 'returned')
            order by i.item, i.level desc, sent_on desc
            """,
            book, Number(exceptRound), Number(exceptParcel)).ListAsync(r => (r.GetString(0), new Reminded(r.GetInt16(1), r.GetFieldValue<DateOnly>(2))), cancel)).ToDictionary(i => i.Item1, i => i.Item2, StringComparer.Ordinal);

    private static NpgsqlParameter<long?> Number(long? value) => new() { TypedValue = value, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Bigint };

    /// <summary>Writes what the released reminders count as, within the transaction that releases them.</summary>
    internal static Task AddAsync(NpgsqlConnection connection, long book, IReadOnlyList<(long Parcel, ItemReminded Item)> reminded, CancellationToken cancel) =>
        connection.Sql(
            "insert into item_reminded (book_id, parcel_id, item, level) select $1, * from unnest($2::bigint[], $3::text[], $4::smallint[]) on conflict (book_id, item, parcel_id) do update set level = excluded.level",
            book, reminded.Select(r => r.Parcel).ToArray(), reminded.Select(r => r.Item.Item).ToArray(), reminded.Select(r => (short)r.Item.Level).ToArray()).RunAsync(cancel);
}
