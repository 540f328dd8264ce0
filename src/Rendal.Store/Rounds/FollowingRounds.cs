using Npgsql;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>Rounds that are made of parcels of an earlier one.</summary>
public sealed class FollowingRounds(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Makes a round that sends a parcel once more: to its customer alone, put in by hand, from the same rows and by the same choices,
    /// decisions about items, wording, layout and sender. Null where there is no such parcel, or it has not gone out or come to its end.
    /// </summary>
    public async Task<long?> MakeRepeatAsync(long parcel, Choice choice, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var made = await connection
            .Sql(
                """
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout,
                    enclosing, repeat_of)
                select r.book_id, r.name || ', once more', r.intake_id, $3, r.wording_id, r.sender_id, $4, r.rules,
                    r.picked_layout, r.enclosing, p.id
                from parcel p join round r on r.book_id = p.book_id and r.id = p.round_id
                where p.book_id = $1 and p.id = $2 and r.rehearses is null
                    and (p.state in ('sent', 'refused', 'returned', 'exported', 'printed')
                    or (p.state in ('prepared', 'held') and r.released_at is not null))
                returning id
                """,
                book,
                parcel,
                Commands.Json(choice),
                person
            )
            .ListAsync(r => r.GetInt64(0), cancel);
        if (made.Count == 0)
        {
            return null;
        }

        await connection
            .Sql(
                "insert into round_decision (book_id, round_id, customer, decision, reason, decided_by) select $1, $3, "
                    + "customer, 'put-in', 'sent once more on purpose', $4 from parcel where book_id = $1 and id = $2",
                book,
                parcel,
                made[0],
                person
            )
            .RunAsync(cancel);
        var (round, customer) = (
            await connection
                .Sql("select round_id, customer from parcel where book_id = $1 and id = $2", book, parcel)
                .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel)
        )[0];
        await ItemsAsDecidedAsync(connection, round, made[0], cancel);
        await ParcelChangeStore.CopyAsync(connection, book, round, made[0], [customer], cancel);
        await connection
            .Sql(
                "update parcel set state = 'held', problem = $3 where book_id = $1 and id = $2 and state in ('prepared', 'held')",
                book,
                parcel,
                RoundStore.GoesElsewhere
            )
            .RunAsync(cancel);
        await connection
            .Sql(
                $"update parcel p set goes_on_in = $3 where p.book_id = $1 and p.id = $2 and {ParcelTable.IsUndelivered}",
                book,
                parcel,
                made[0]
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return made[0];
    }

    /// <summary>
    /// Makes a round of those parcels of a released one that did not go: stopped, held, waiting for a person, refused by the server or
    /// returned. They are prepared anew from the ledger as it is now. Those that were not released do not go with the round that they were
    /// in; what was refused or came back stays on record there. What was decided about their customers and items holds in the new one: who
    /// is held stays held. Null where there are none.
    /// </summary>
    /// <param name="id">The round that they are in.</param>
    /// <param name="name">What the new one is called.</param>
    /// <param name="intake">The ledger.</param>
    /// <param name="choice">The choice of the round; the customers are put into it.</param>
    /// <param name="person">Who makes it.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<long?> MakeRestAsync(long id, string name, long intake, Choice choice, long person, CancellationToken cancel)
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        var left = await connection
            .Sql(
                $"""
                update parcel p set state = 'held', problem = $3 from round r
                where p.book_id = $1 and p.round_id = $2 and {ParcelTable.IsUnreleased} and r.book_id = p.book_id and r.id = p.round_id
                    and r.released_at is not null
                returning p.customer, p.accounts
                """,
                book,
                id,
                RoundStore.GoesElsewhere
            )
            .ListAsync(ReadLeft, cancel);
        var undelivered = await connection
            .Sql(
                "select p.id, p.customer, p.accounts from parcel p where p.book_id = $1 and p.round_id = $2 and "
                    + $"{ParcelTable.IsUndelivered} order by p.id for update",
                book,
                id
            )
            .ListAsync(r => (Id: r.Int64("id"), Left: ReadLeft(r)), cancel);
        left.AddRange(undelivered.Select(u => u.Left));
        if (left.Count == 0)
        {
            return null;
        }

        var customers = left.SelectMany(l => l.Accounts.Select(a => a.Key).Append(l.Customer)).ToHashSet(StringComparer.Ordinal);
        var made = await connection
            .Sql(
                """
                insert into round (book_id, name, intake_id, choice, wording_id, sender_id, made_by, rules, picked_layout, enclosing)
                select book_id, $3, $4, $5, wording_id, sender_id, $6, rules, picked_layout,
                    enclosing from round where book_id = $1 and id = $2
                    returning id
                """,
                book,
                id,
                name,
                intake,
                Commands.Json(choice with { Customers = customers }),
                person
            )
            .OneAsync<long>(cancel);

        // Exactly those: one that comes back in this moment is not among the customers, and waits for the next round of the rest.
        await connection
            .Sql(
                "update parcel set goes_on_in = $2 where book_id = $1 and id = any ($3)",
                book,
                made,
                undelivered.Select(u => u.Id).ToArray()
            )
            .RunAsync(cancel);
        await connection
            .Sql(
                """
                insert into round_decision (book_id, round_id, customer, decision, reason, decided_by, decided_at)
                select book_id, $3, customer, decision, reason, decided_by, decided_at from round_decision where book_id = $1
                    and round_id = $2 and customer = any ($4)
                """,
                book,
                id,
                made,
                customers.ToArray()
            )
            .RunAsync(cancel);
        await ItemsAsDecidedAsync(connection, id, made, cancel);
        await ParcelChangeStore.CopyAsync(connection, book, id, made, [.. customers], cancel);
        await transaction.CommitAsync(cancel);
        return made;
    }

    private static (string Customer, List<ParcelAccount> Accounts) ReadLeft(NpgsqlDataReader r) =>
        (r.String("customer"), StoreJson.Read<List<ParcelAccount>>(r.String("accounts")));

    /// <summary>Has what was decided about items in one round hold in another.</summary>
    private Task ItemsAsDecidedAsync(NpgsqlConnection connection, long round, long other, CancellationToken cancel) =>
        connection
            .Sql(
                """
                insert into round_item_decision (book_id, round_id, item, is_in, reason, decided_by, decided_at)
                select book_id, $3, item, is_in, reason, decided_by, decided_at from round_item_decision where book_id = $1
                    and round_id = $2
                """,
                book,
                round,
                other
            )
            .RunAsync(cancel);
}
