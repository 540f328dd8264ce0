using Npgsql;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>What came of a decision about customers.</summary>
/// <param name="Update">Whether it was made.</param>
/// <param name="PrepareAnew">Whether who is in the round may be another now, so that it is to be prepared anew; a parcel that is only
/// held, or not any more, is that already.</param>
public sealed record DecisionUpdate(RoundUpdate Update, bool PrepareAnew);

/// <summary>What people decide by hand about the customers and items of a round, until something of it is released.</summary>
public sealed class RoundDecisions(NpgsqlDataSource source, long book)
{
    private const string Held = "held";

    /// <summary>What was decided about customers.</summary>
    public Task<List<RoundDecision>> OfCustomersAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                "select customer, decision, reason from round_decision where book_id = $1 and round_id = $2 order by customer",
                book,
                round
            )
            .ListAsync(ReadDecision, cancel);

    /// <summary>What was decided about single items.</summary>
    public Task<List<ItemByHand>> OfItemsAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                "select item, is_in, reason from round_item_decision where book_id = $1 and round_id = $2 order by decided_at, item",
                book,
                round
            )
            .ListAsync(ReadItem, cancel);

    /// <summary>The open rounds of a ledger in which an item was taken out or put in by hand, by their names.</summary>
    public Task<List<string>> RoundsOfItemAsync(long intake, string item, CancellationToken cancel) =>
        source
            .Sql(
                "select r.name from round r join round_item_decision d on d.book_id = r.book_id and d.round_id = r.id "
                    + "where r.book_id = $1 and r.intake_id = $2 and r.released_at is null and d.item = $3 order by r.id",
                book,
                intake,
                item
            )
            .ListAsync(r => r.GetString(0), cancel);

    /// <summary>
    /// Decides the same about some customers, or takes back what was decided about them: about all, or where somebody else decided about
    /// one of them since, about none. Who is held, or not any more, has that parcel held at once: that costs the same in a round of any
    /// size.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customers">The customers, each once.</param>
    /// <param name="decision">The decision: <c>held</c>, <c>removed</c> or <c>put-in</c>; null takes it back.</param>
    /// <param name="reason">Why; empty where none was given.</param>
    /// <param name="person">Who.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<DecisionUpdate> DecideAsync(
        long round,
        long seen,
        IReadOnlyCollection<string> customers,
        string? decision,
        string reason,
        long person,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (!await RoundChanges.IsOpenAsync(connection, book, round, cancel))
        {
            return new DecisionUpdate(RoundUpdate.TooLate, false);
        }

        var now = (
            await connection
                .Sql(
                    "select customer, decision, reason from round_decision where book_id = $1 and round_id = $2 and customer = any ($3)",
                    book,
                    round,
                    customers.ToArray()
                )
                .ListAsync(ReadDecision, cancel)
        ).ToDictionary(d => d.Customer, StringComparer.Ordinal);
        string[] changing =
        [
            .. customers.Where(c => now.GetValueOrDefault(c) != (decision is null ? null : new RoundDecision(c, decision, reason))),
        ];
        if (changing.Length == 0)
        {
            return new DecisionUpdate(RoundUpdate.Done, false);
        }

        if (await RoundChanges.OthersAboutAsync(connection, book, round, seen, person, "customer", changing, cancel) is { } other)
        {
            return new DecisionUpdate(RoundUpdate.Contested(other), false);
        }

        await RoundChanges.RaiseAsync(connection, book, round, person, "customer", changing, null, cancel);
        await connection
            .Sql("delete from round_decision where book_id = $1 and round_id = $2 and customer = any ($3)", book, round, changing)
            .RunAsync(cancel);
        if (decision is not null)
        {
            await connection
                .Sql(
                    "insert into round_decision (book_id, round_id, customer, decision, reason, decided_by) select $1, $2, c, $4, $5, $6 "
                        + "from unnest($3::text[]) c",
                    book,
                    round,
                    changing,
                    decision,
                    reason,
                    person
                )
                .RunAsync(cancel);
        }

        await connection
            .Sql(
                "update parcel set state = $4 where book_id = $1 and round_id = $2 and customer = any ($3) "
                    + "and state in ('prepared', 'held')",
                book,
                round,
                changing,
                decision == Held ? Held : "prepared"
            )
            .RunAsync(cancel);
        string[] anew = [.. changing.Where(c => (now.GetValueOrDefault(c)?.Decision ?? Held, decision ?? Held) != (Held, Held))];
        if (anew.Length > 0)
        {
            await RoundChanges.AwaitsAsync(connection, book, round, anew, cancel);
        }

        await transaction.CommitAsync(cancel);
        return new DecisionUpdate(RoundUpdate.Done, anew.Length > 0);
    }

    /// <summary>Takes an item out by hand, or puts it in, or takes that back.</summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customer">Whose item it is.</param>
    /// <param name="item">The item.</param>
    /// <param name="decision">The decision; null takes it back.</param>
    /// <param name="person">Who.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<RoundUpdate> DecideItemAsync(
        long round,
        long seen,
        string customer,
        string item,
        ItemByHand? decision,
        long person,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        if (!await RoundChanges.IsOpenAsync(connection, book, round, cancel))
        {
            return RoundUpdate.TooLate;
        }

        var now = await connection
            .Sql(
                "select item, is_in, reason from round_item_decision where book_id = $1 and round_id = $2 and item = $3",
                book,
                round,
                item
            )
            .FirstAsync(ReadItem, cancel);
        if (now == decision)
        {
            return RoundUpdate.Done;
        }

        if (await RoundChanges.OthersAboutAsync(connection, book, round, seen, person, "item", [item], cancel) is { } other)
        {
            return RoundUpdate.Contested(other);
        }

        await RoundChanges.RaiseAsync(connection, book, round, person, "item", [item], null, cancel);
        await connection
            .Sql("delete from round_item_decision where book_id = $1 and round_id = $2 and item = $3", book, round, item)
            .RunAsync(cancel);
        if (decision is not null)
        {
            await connection
                .Sql(
                    "insert into round_item_decision (book_id, round_id, item, is_in, reason, decided_by) values ($1, $2, $3, $4, $5, $6)",
                    book,
                    round,
                    item,
                    decision.IsIn,
                    decision.Reason,
                    person
                )
                .RunAsync(cancel);
        }

        await RoundChanges.AwaitsAsync(connection, book, round, [customer], cancel);
        await transaction.CommitAsync(cancel);
        return RoundUpdate.Done;
    }

    private static RoundDecision ReadDecision(NpgsqlDataReader r) => new(r.GetString(0), r.GetString(1), r.GetString(2));

    private static ItemByHand ReadItem(NpgsqlDataReader r) => new(r.GetString(0), r.GetBoolean(1), r.GetString(2));
}
