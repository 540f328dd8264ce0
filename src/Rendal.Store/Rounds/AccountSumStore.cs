using Npgsql;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>What the wanted items of the accounts of a round come to, as they did when its parcels were last made up.</summary>
public sealed class AccountSumStore(NpgsqlDataSource source, long book)
{
    /// <summary>The sums of a round; null where they were made for other items than <paramref name="basis"/> wants.</summary>
    public async Task<(IEnumerable<AccountSum> Accounts, IReadOnlyList<LeftOutShare> ItemsLeftOut)?> FindAsync(long round, RoundBasis basis, CancellationToken cancel)
    {
        // One transaction that sees one state: the sums are replaced as a whole when the round is prepared anew.
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
        if (await connection.Sql("select items_basis from round where book_id = $1 and id = $2", book, round).FirstAsync(r => r.Text(0) ?? "", cancel) != basis.OfItems())
        {
            return null;
        }

        var accounts = await connection.Sql("select currency, customers, totals, oldest, rows, empty, levels, due from round_account where book_id = $1 and round_id = $2", book, round).ListAsync(Read, cancel);
        return (accounts.SelectMany(a => a), await ItemsLeftOutAsync(connection, book, round, cancel));
    }

    /// <summary>Puts new sums in place of the earlier ones.</summary>
    internal static async Task PutAsync(NpgsqlConnection connection, long book, long round, ChosenRound chosen, RoundBasis basis, CancellationToken cancel)
    {
        await connection.Sql("update round set items_basis = $3 where book_id = $1 and id = $2", book, round, basis.OfItems()).RunAsync(cancel);
        await connection.Sql("delete from round_account where book_id = $1 and round_id = $2", book, round).RunAsync(cancel);
        await AddAsync(connection, book, round, chosen, basis, cancel);
        await PutItemsLeftOutAsync(connection, book, round, chosen.ItemsLeftOut, cancel);
    }

    /// <summary>Puts new sums of some accounts in place of theirs, where other items of them are wanted now.</summary>
    /// <param name="family">The customers whose accounts they are.</param>
    /// <param name="chosen">What choosing among their rows came to.</param>
    internal static async Task PutAsync(NpgsqlConnection connection, long book, long round, string[] family, ChosenRound chosen, RoundBasis basis, CancellationToken cancel)
    {
        var items = basis.OfItems();
        if (await connection.Sql("update round set items_basis = $3 where book_id = $1 and id = $2 and items_basis is distinct from $3", book, round, items).RunAsync(cancel) == 0)
        {
            return;
        }

        await connection.Sql(
            """
            update round_account a set (customers, totals, oldest, rows, empty, levels, due) = (
                select coalesce(array_agg(u.customer), '{}'), coalesce(array_agg(u.total), '{}'), coalesce(array_agg(u.oldest), '{}'), coalesce(array_agg(u.rows), '{}'), coalesce(array_agg(u.empty), '{}'),
                    case when a.levels is not null then coalesce(array_agg(u.level), '{}') end, case when a.due is not null then coalesce(array_agg(u.due), '{}') end
                from unnest(a.customers, a.totals, a.oldest, a.rows, a.empty, a.levels, a.due) as u (customer, total, oldest, rows, empty, level, due) where u.customer <> all ($3))
            where a.book_id = $1 and a.round_id = $2 and a.customers && $3
            """,
            book, round, family).RunAsync(cancel);
        await AddAsync(connection, book, round, chosen, basis, cancel);
    }

    /// <summary>What of the items of a round is not wanted, by currency and reason.</summary>
    internal static Task<List<LeftOutShare>> ItemsLeftOutAsync(NpgsqlConnection connection, long book, long round, CancellationToken cancel) =>
        connection.Sql("select currency, reason, customers, amount from round_item_left_out where book_id = $1 and round_id = $2", book, round)
            .ListAsync(r => new LeftOutShare(Currency.Of(r.GetString(0)), EnumText.Parse<LeftOutReason>(r.GetString(1)), r.GetInt32(2), r.GetDecimal(3)), cancel);

    /// <summary>Puts what of the items is not wanted in place of what was.</summary>
    internal static async Task PutItemsLeftOutAsync(NpgsqlConnection connection, long book, long round, IReadOnlyList<LeftOutShare> left, CancellationToken cancel)
    {
        await connection.Sql("delete from round_item_left_out where book_id = $1 and round_id = $2", book, round).RunAsync(cancel);
        await connection.Sql(
            "insert into round_item_left_out (book_id, round_id, currency, reason, customers, amount) select $1, $2, * from unnest($3::text[], $4::text[], $5::int[], $6::numeric[])",
            book, round, left.Select(l => l.Currency!.Value.Code).ToArray(), left.Select(l => l.Reason.Code()).ToArray(), left.Select(l => l.Customers).ToArray(), left.Select(l => l.Amount).ToArray()).RunAsync(cancel);
    }

    private static async Task AddAsync(NpgsqlConnection connection, long book, long round, ChosenRound chosen, RoundBasis basis, CancellationToken cancel)
    {
        var ofReminders = basis.Choice.ReminderLevels is not null;
        foreach (var of in chosen.Accounts.GroupBy(a => a.Currency))
        {
            await connection.Sql(
                """
                insert into round_account as a (book_id, round_id, currency, customers, totals, oldest, rows, empty, levels, due) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
                on conflict (book_id, round_id, currency) do update set customers = a.customers || $4, totals = a.totals || $5, oldest = a.oldest || $6, rows = a.rows || $7, empty = a.empty || $8, levels = a.levels || $9, due = a.due || $10
                """,
                book, round, of.Key.Code, of.Select(a => a.Customer).ToArray(), of.Select(a => a.Total).ToArray(), of.Select(a => a.OldestDaysPastDue).ToArray(), of.Select(a => a.Rows).ToArray(), of.Select(a => a.IsEmpty).ToArray(),
                ofReminders ? of.Select(a => a.Reminder!.Value.Level).ToArray() : null, ofReminders ? of.Select(a => a.Reminder!.Value.IsDue).ToArray() : null).RunAsync(cancel);
        }
    }

    private static IEnumerable<AccountSum> Read(NpgsqlDataReader r)
    {
        var currency = Currency.Of(r.GetString(0));
        var (customers, totals, oldest, rows, empty) = (r.GetFieldValue<string[]>(1), r.GetFieldValue<decimal[]>(2), r.GetFieldValue<int[]>(3), r.GetFieldValue<int[]>(4), r.GetFieldValue<bool[]>(5));
        var (levels, due) = r.IsDBNull(6) ? (null, null) : (r.GetFieldValue<int[]>(6), r.GetFieldValue<bool[]>(7));
        return customers.Select((customer, i) => new AccountSum(customer, currency, totals[i], oldest[i], rows[i], empty[i], levels is null ? null : new ReminderStep(levels[i], due![i])));
    }
}
