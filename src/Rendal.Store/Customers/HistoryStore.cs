using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Parcels;

namespace Rendal.Store.Customers;

/// <summary>A statement that was let go to a customer, or to its head office with the customer's account on it.</summary>
/// <param name="Customer">Who got it: the customer, or the head office.</param>
/// <param name="Round">The round's number.</param>
/// <param name="RoundName">The round's name.</param>
/// <param name="AsOf">The date for which it held.</param>
/// <param name="ReleasedAt">When the round was released.</param>
/// <param name="State">Where the parcel stands.</param>
/// <param name="Sums">What was claimed, one per currency.</param>
/// <param name="ReminderLevel">The level of the reminder that it went with; null for a statement.</param>
public sealed record ClaimRecord(
    string Customer,
    long Round,
    string RoundName,
    DateOnly AsOf,
    DateTimeOffset ReleasedAt,
    ParcelState State,
    IReadOnlyList<ParcelSum> Sums,
    int? ReminderLevel
);

/// <summary>What a customer owed when a ledger was kept.</summary>
/// <param name="Intake">The intake.</param>
/// <param name="File">Its file.</param>
/// <param name="KeptAt">When it was kept.</param>
/// <param name="Currency">The currency.</param>
/// <param name="Balance">The signed sum of the customer's rows.</param>
/// <param name="Items">How many rows that were.</param>
public sealed record BalanceRecord(long Intake, string File, DateTimeOffset KeptAt, string Currency, decimal Balance, int Items);

/// <summary>What was with a customer of one book over time.</summary>
public sealed class HistoryStore(NpgsqlDataSource source, long book)
{
    private const int Most = 24;

    /// <summary>
    /// The statements of a customer that were let go, to itself or to its head office, the newest first, at most two dozen.
    /// </summary>
    public Task<List<ClaimRecord>> ClaimsAsync(string customer, CancellationToken cancel) =>
        // By the index of accounts, then by the key: behind a large release, before its rows are in the statistics, the server would join
        // all parcels of the book.
        source
            .Sql(
                $"""
                with found as materialized (select book_id, parcel_id from parcel_search where accounts @> array[$2])
                select p.customer, r.id, r.name, (r.choice ->> 'asOf')::date as_of, r.released_at, p.state, p.sums, p.reminder_level
                from found s
                    cross join lateral (
                        select p.round_id, p.customer, p.state, p.sums, p.reminder_level from parcel p where p.book_id = s.book_id
                            and p.id = s.parcel_id offset 0) p
                    join round r on r.book_id = s.book_id and r.id = p.round_id
                where s.book_id = $1 order by r.released_at desc, r.id desc limit {Most}
                """,
                book,
                customer
            )
            .ListAsync(
                r => new ClaimRecord(
                    r.String("customer"),
                    r.Int64("id"),
                    r.String("name"),
                    r.Value<DateOnly>("as_of"),
                    r.Value<DateTimeOffset>("released_at"),
                    ParcelStates.Parse(r.String("state")),
                    StoreJson.Read<List<ParcelSum>>(r.String("sums")),
                    r.Nullable<short>("reminder_level")
                ),
                cancel
            );

    /// <summary>
    /// What a customer owed at each kept ledger, the newest first, of the last two dozen ledgers; one line per currency.
    /// </summary>
    public Task<List<BalanceRecord>> BalancesAsync(string customer, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select i.id, f.name, i.kept_at, b.currency, b.balance, b.items
                from (select id, file_id, kept_at from intake where book_id = $1 and kind = 'ledger' and state = 'kept'
                    order by kept_at desc, id desc limit {Most}) i
                    join stored_file f on f.book_id = $1 and f.id = i.file_id
                    cross join lateral (select balances from ledger_customer where book_id = $1 and intake_id = i.id and customer = $2) c
                    cross join lateral jsonb_to_recordset(c.balances) b (currency text, balance numeric, items int)
                order by i.kept_at desc, i.id desc, b.currency
                """,
                book,
                customer
            )
            .ListAsync(
                r => new BalanceRecord(
                    r.Int64("id"),
                    r.String("name"),
                    r.Value<DateTimeOffset>("kept_at"),
                    r.String("currency"),
                    r.Decimal("balance"),
                    r.Int32("items")
                ),
                cancel
            );
}
