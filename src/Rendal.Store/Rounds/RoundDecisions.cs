using Npgsql;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>What people decide by hand about the customers and items of a round, until something of it is released.</summary>
public sealed class RoundDecisions(NpgsqlDataSource source, long book)
{
    /// <summary>What was decided about customers.</summary>
    public Task<List<RoundDecision>> OfCustomersAsync(long round, CancellationToken cancel) =>
        source.Sql("select customer, decision, reason from round_decision where book_id = $1 and round_id = $2", book, round).ListAsync(r => new RoundDecision(r.GetString(0), r.GetString(1), r.GetString(2)), cancel);

    /// <summary>What was decided about single items.</summary>
    public Task<List<ItemByHand>> OfItemsAsync(long round, CancellationToken cancel) =>
        source.Sql("select item, is_in, reason from round_item_decision where book_id = $1 and round_id = $2 order by decided_at, item", book, round).ListAsync(r => new ItemByHand(r.GetString(0), r.GetBoolean(1), r.GetString(2)), cancel);

    /// <summary>Decides about a customer. False where something of the round was released, or is being released.</summary>
    public Task<bool> DecideAsync(long round, RoundDecision decision, long person, CancellationToken cancel) =>
        WhileUnreleasedAsync(
            round,
            """
            insert into round_decision (book_id, round_id, customer, decision, reason, decided_by) values ($1, $2, $3, $4, $5, $6)
            on conflict (book_id, round_id, customer) do update set decision = excluded.decision, reason = excluded.reason, decided_by = excluded.decided_by, decided_at = now()
            """,
            [decision.Customer, decision.Decision, decision.Reason, person], cancel);

    /// <summary>Takes the decision about a customer back. False where something of the round was released, or is being released.</summary>
    public Task<bool> TakeBackAsync(long round, string customer, CancellationToken cancel) =>
        WhileUnreleasedAsync(round, "delete from round_decision where book_id = $1 and round_id = $2 and customer = $3", [customer], cancel);

    /// <summary>Takes an item out by hand, or puts it in. False where something of the round was released, or is being released.</summary>
    public Task<bool> DecideItemAsync(long round, ItemByHand decision, long person, CancellationToken cancel) =>
        WhileUnreleasedAsync(
            round,
            """
            insert into round_item_decision (book_id, round_id, item, is_in, reason, decided_by) values ($1, $2, $3, $4, $5, $6)
            on conflict (book_id, round_id, item) do update set is_in = excluded.is_in, reason = excluded.reason, decided_by = excluded.decided_by, decided_at = now()
            """,
            [decision.Item, decision.IsIn, decision.Reason, person], cancel);

    /// <summary>Takes the decision about an item back. False where something of the round was released, or is being released.</summary>
    public Task<bool> TakeItemBackAsync(long round, string item, CancellationToken cancel) =>
        WhileUnreleasedAsync(round, "delete from round_item_decision where book_id = $1 and round_id = $2 and item = $3", [item], cancel);

    /// <summary>A release takes the round's row first as well: it either sees what is written here, or has begun, and then this comes too late.</summary>
    private async Task<bool> WhileUnreleasedAsync(long round, string sql, IEnumerable<object?> values, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if ((await connection.Sql("select id from round where book_id = $1 and id = $2 and released_at is null for update", book, round).ListAsync(r => r.GetInt64(0), cancel)).Count == 0)
        {
            return false;
        }

        await connection.Sql(sql, [book, round, .. values]).RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }
}
