using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Rounds;

namespace Rendal.Store.Items;

/// <summary>An item that is held back.</summary>
/// <param name="Customer">Whose it is.</param>
/// <param name="Hold">The hold.</param>
/// <param name="By">Who held it.</param>
/// <param name="At">When.</param>
public sealed record HeldItem(string Customer, ItemHold Hold, string By, DateTimeOffset At);

/// <summary>The items of one book that are held back until a day, or until somebody says so. Ended holds stay on record.</summary>
public sealed class HoldStore(NpgsqlDataSource source, long book)
{
    /// <summary>The items that are held, in the order in which they come up again; those that nobody gave a day for last.</summary>
    public Task<List<HeldItem>> ListAsync(CancellationToken cancel) =>
        source
            .Sql(
                """
                select h.customer, h.item, h.note, h.until, p.name, h.made_at from item_hold h join person p on p.id = h.made_by
                where h.book_id = $1 and h.ended_at is null order by h.until nulls last, h.id
                """,
                book
            )
            .ListAsync(
                r => new HeldItem(
                    r.String("customer"),
                    new ItemHold(r.String("item"), r.String("note"), r.Nullable<DateOnly>("until")),
                    r.String("name"),
                    r.Value<DateTimeOffset>("made_at")
                ),
                cancel
            );

    /// <summary>Holds an item back; a hold that is there already ends with it.</summary>
    public async Task HoldAsync(string customer, ItemHold hold, long person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        await EndAsync(connection, hold.Item, person, now, cancel);
        await connection
            .Sql(
                "insert into item_hold (book_id, item, customer, note, until, made_by, made_at) values ($1, $2, $3, $4, $5, $6, $7)",
                book,
                hold.Item,
                customer,
                hold.Note,
                new NpgsqlParameter { Value = (object?)hold.Until ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Date },
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Ends a hold. False where there is none.</summary>
    public async Task<bool> EndAsync(string item, long person, DateTimeOffset now, CancellationToken cancel)
    {
        return await source.ByAsync(person, connection => EndAsync(connection, item, person, now, cancel), cancel) == 1;
    }

    private Task<int> EndAsync(NpgsqlConnection connection, string item, long person, DateTimeOffset now, CancellationToken cancel) =>
        connection
            .Sql(
                "update item_hold set ended_by = $3, ended_at = $4 where book_id = $1 and item = $2 and ended_at is null",
                book,
                item,
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
}
