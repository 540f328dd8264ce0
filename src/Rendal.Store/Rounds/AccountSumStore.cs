using Npgsql;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>What the wanted items of the accounts of a round come to, as they did when its parcels were last made up.</summary>
public sealed class AccountSumStore(NpgsqlDataSource source, long book)
{
    /// <summary>The sums of a round; null where they were made for other items than <paramref name="basis"/> wants.</summary>
    public async Task<(IEnumerable<AccountSum> Accounts, IReadOnlyList<LeftOutShare> ItemsLeftOut)?> FindAsync(
        long round,
        RoundBasis basis,
        CancellationToken cancel
    )
    {
        // One transaction that sees one state: the sums are replaced as a whole when the round is prepared anew.
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(System.Data.IsolationLevel.RepeatableRead, cancel);
        if (
            await connection
                .Sql("select items_basis from round where book_id = $1 and id = $2", book, round)
                .FirstAsync(r => r.Text(0) ?? "", cancel) != basis.OfItems()
        )
        {
            return null;
        }

        var accounts = await connection
            .Sql(
                "select customer, currency, total, oldest, rows, empty, level, due from round_account where book_id = $1 and "
                    + "round_id = $2",
                book,
                round
            )
            .ListAsync(Read, cancel);
        return (accounts, await ItemsLeftOutAsync(connection, book, round, cancel));
    }

    /// <summary>
    /// Puts new sums in place of the earlier ones; of reminders always, else where other items are wanted or what they are made from was
    /// changed.
    /// </summary>
    /// <param name="isChanged">Whether something that the round uses was changed since the earlier ones.</param>
    internal static async Task PutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        ChosenRound chosen,
        RoundBasis basis,
        bool isChanged,
        CancellationToken cancel
    )
    {
        if (await HasOtherItemsAsync(connection, book, round, basis, cancel) || isChanged || basis.Choice.ReminderLevels is not null)
        {
            await connection.Sql("delete from round_account where book_id = $1 and round_id = $2", book, round).RunAsync(cancel);
            await AddAsync(connection, book, round, chosen, cancel);
            await PutItemsLeftOutAsync(connection, book, round, chosen.ItemsLeftOut, cancel);
        }
    }

    /// <summary>Puts new sums of some accounts in place of theirs, where other items of them are wanted now.</summary>
    /// <param name="family">The customers whose accounts they are.</param>
    /// <param name="chosen">What choosing among their rows came to.</param>
    internal static async Task PutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        string[] family,
        ChosenRound chosen,
        RoundBasis basis,
        CancellationToken cancel
    )
    {
        if (await HasOtherItemsAsync(connection, book, round, basis, cancel))
        {
            await connection
                .Sql("delete from round_account where book_id = $1 and round_id = $2 and customer = any ($3)", book, round, family)
                .RunAsync(cancel);
            await AddAsync(connection, book, round, chosen, cancel);
        }
    }

    /// <summary>What of the items of a round is not wanted, by currency and reason.</summary>
    internal static Task<List<LeftOutShare>> ItemsLeftOutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        CancellationToken cancel
    ) =>
        connection
            .Sql("select currency, reason, customers, amount from round_item_left_out where book_id = $1 and round_id = $2", book, round)
            .ListAsync(
                r => new LeftOutShare(
                    Currency.Of(r.String("currency")),
                    EnumText.Parse<LeftOutReason>(r.String("reason")),
                    r.Int32("customers"),
                    r.Decimal("amount")
                ),
                cancel
            );

    /// <summary>Puts what of the items is not wanted in place of what was.</summary>
    internal static async Task PutItemsLeftOutAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        IReadOnlyList<LeftOutShare> left,
        CancellationToken cancel
    )
    {
        await connection.Sql("delete from round_item_left_out where book_id = $1 and round_id = $2", book, round).RunAsync(cancel);
        await connection
            .Sql(
                "insert into round_item_left_out (book_id, round_id, currency, reason, customers, amount) select $1, $2, * "
                    + "from unnest($3::text[], $4::text[], $5::int[], $6::numeric[])",
                book,
                round,
                left.Select(l => l.Currency!.Value.Code).ToArray(),
                left.Select(l => l.Reason.Code()).ToArray(),
                left.Select(l => l.Customers).ToArray(),
                left.Select(l => l.Amount).ToArray()
            )
            .RunAsync(cancel);
    }

    /// <summary>Whether other items are wanted than before, which is noted.</summary>
    private static async Task<bool> HasOtherItemsAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        RoundBasis basis,
        CancellationToken cancel
    ) =>
        await connection
            .Sql(
                "update round set items_basis = $3 where book_id = $1 and id = $2 and items_basis is distinct from $3",
                book,
                round,
                basis.OfItems()
            )
            .RunAsync(cancel) > 0;

    private static async Task AddAsync(NpgsqlConnection connection, long book, long round, ChosenRound chosen, CancellationToken cancel)
    {
        await using var copy = await BinaryCopy.BeginAsync(
            connection,
            "copy round_account (book_id, round_id, customer, currency, total, oldest, rows, empty, level, due) from stdin "
                + "(format binary)",
            cancel
        );
        foreach (var account in chosen.Accounts)
        {
            copy.Row(10);
            copy.Write(book);
            copy.Write(round);
            copy.Write(account.Customer);
            copy.Write(account.Currency.Code);
            copy.Write(account.Total);
            copy.Write(account.OldestDaysPastDue);
            copy.Write(account.Rows);
            copy.Write(account.IsEmpty);
            copy.WriteOrNull((short?)account.Reminder?.Level);
            copy.WriteOrNull(account.Reminder?.IsDue);
        }

        await copy.CompleteAsync(cancel);
    }

    private static AccountSum Read(NpgsqlDataReader r) =>
        new(
            r.String("customer"),
            Currency.Of(r.String("currency")),
            r.Decimal("total"),
            r.Int32("oldest"),
            r.Int32("rows"),
            r.Boolean("empty"),
            r.Nullable<short>("level") is { } level ? new ReminderStep(level, r.Boolean("due")) : null
        );
}
