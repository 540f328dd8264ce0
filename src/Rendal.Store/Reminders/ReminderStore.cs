using Npgsql;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;

namespace Rendal.Store.Reminders;

/// <summary>How far the reminders about the items of one book have come.</summary>
public sealed class ReminderStore(NpgsqlDataSource source, long book)
{
    // The highest level, and of that the last day, are one number: there may be millions of reminders of some thousand items.
    private const int Days = 1_000_000;

    private static readonly DateOnly FirstDay = new(1900, 1, 1);

    /// <summary>
    /// The highest level that was sent for each item, with the day in the book's zone. One that is on its way counts, so that nothing goes
    /// twice meanwhile; one that was refused or came back does not, nor one that was stopped before anybody had it.
    /// </summary>
    /// <param name="exceptRound">The round that does not count, as its parcels have the levels that come after what was before it; null
    /// where all count.</param>
    /// <param name="exceptParcel">The parcel that does not count, as it is sent once more; null for none.</param>
    /// <param name="customer">The customer whose items are wanted; null for all.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Dictionary<string, Reminded>> AllAsync(
        long? exceptRound,
        long? exceptParcel,
        string? customer,
        CancellationToken cancel
    ) =>
        (
            await source
                .Sql(
                    $"""
                    with sent as materialized (
                        select p.id, (coalesce(max(t.ended_at),
                            r.released_at) at time zone b.time_zone)::date - date '{FirstDay:yyyy-MM-dd}' as day
                        from parcel p
                            join round r on r.book_id = p.book_id and r.id = p.round_id
                            join book b on b.id = p.book_id
                            left join delivery_attempt t on t.book_id = p.book_id and t.parcel_id = p.id
                                and t.outcome in ('accepted', 'printed')
                        where p.book_id = $1 and p.reminder_level is not null and p.round_id is distinct from $2
                            and p.id is distinct from $3 and p.state not in ('refused', 'returned')
                            and ($4::text is null or p.customer = $4
                                or exists (select from jsonb_array_elements(p.accounts) a where a ->> 'key' = $4))
                        group by p.id, p.state, r.released_at, b.time_zone having p.state not in ('prepared', 'held') or count(t.id) > 0
                    )
                    select i.item, max(i.level * {Days} + s.day) from item_reminded i join sent s on s.id = i.parcel_id
                    where i.book_id = $1 and ($4::text is null or i.item collate "C" like $5) group by i.item
                    """,
                    book,
                    Commands.Whole(exceptRound),
                    Commands.Whole(exceptParcel),
                    new NpgsqlParameter<string?> { TypedValue = customer, NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Text },
                    customer is null ? "" : Pattern.BeginningWith(ItemKey.BeginningOf(customer))
                )
                .ListAsync(r => (Item: r.GetString(0), Highest: r.GetInt32(1)), cancel)
        ).ToDictionary(i => i.Item, i => new Reminded(i.Highest / Days, FirstDay.AddDays(i.Highest % Days)), StringComparer.Ordinal);

    /// <summary>
    /// What stands for the reminders that are on their way, were refused, or came back: another where it is about others. How far
    /// reminders have come depends on it and on the changes of the book.
    /// </summary>
    public Task<string> UnsettledAsync(CancellationToken cancel) =>
        source
            .Sql(
                """
                select coalesce(string_agg(concat(state, ' ', n, ' ', ids), ', ' order by state), '') from (
                    select state, count(*) n, sum(id) ids from parcel
                    where book_id = $1 and reminder_level is not null
                        and state in ('released', 'sending', 'to-be-retried', 'unsure', 'refused', 'returned') group by state) s
                """,
                book
            )
            .OneAsync<string>(cancel);
}
