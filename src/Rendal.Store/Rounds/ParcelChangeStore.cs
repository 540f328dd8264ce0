using Npgsql;
using Rendal.Core.Parcels;

namespace Rendal.Store.Rounds;

/// <summary>What people changed on single parcels of the rounds of one book, until something of the round is released.</summary>
public sealed class ParcelChangeStore(NpgsqlDataSource source, long book)
{
    private const string Parcel = "parcel";

    /// <summary>The changes in a round, by customer.</summary>
    /// <param name="round">The round.</param>
    /// <param name="only">The customers that are asked for; null for all.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<Dictionary<string, ParcelChange>> OfAsync(long round, IReadOnlyCollection<string>? only, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    "select customer, change from parcel_change where book_id = $1 and round_id = $2 and ($3 or customer = any ($4))",
                    book,
                    round,
                    only is null,
                    only?.ToArray() ?? []
                )
                .ListAsync(r => (r.GetString(0), StoreJson.Read<ParcelChange>(r.GetString(1))), cancel)
        ).ToDictionary(c => c.Item1, c => c.Item2, StringComparer.Ordinal);

    /// <summary>
    /// Changes the parcel of a customer, in place of what was changed on it before, and notes that it is to be made up anew. Of two
    /// changes by one person the later stands.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="change">The change; one without <see cref="ParcelChange.Parts"/> takes back what was changed.</param>
    /// <param name="person">Who.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<RoundUpdate> PutAsync(
        long round,
        long seen,
        string customer,
        ParcelChange change,
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

        if (await RoundChanges.OthersAboutAsync(connection, book, round, seen, person, Parcel, [customer], cancel) is { } other)
        {
            return RoundUpdate.Contested(other);
        }

        await RoundChanges.RaiseAsync(connection, book, round, person, Parcel, [customer], null, cancel);
        if (change.Parts.Count > 0)
        {
            await connection
                .Sql(
                    """
                    insert into parcel_change (book_id, round_id, customer, change, changed_by) values ($1, $2, $3, $4, $5)
                    on conflict (book_id, round_id, customer) do update set change = excluded.change, changed_by = excluded.changed_by,
                        changed_at = excluded.changed_at
                    """,
                    book,
                    round,
                    customer,
                    Commands.Json(change),
                    person
                )
                .RunAsync(cancel);
        }
        else
        {
            await connection
                .Sql("delete from parcel_change where book_id = $1 and round_id = $2 and customer = $3", book, round, customer)
                .RunAsync(cancel);
        }

        await RoundChanges.AwaitsAsync(connection, book, round, [customer], cancel);
        await transaction.CommitAsync(cancel);
        return RoundUpdate.Done;
    }

    /// <summary>
    /// Has what was changed in one round hold in another, for some customers, within the transaction that makes that one.
    /// </summary>
    internal static Task CopyAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        long other,
        string[] customers,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                """
                insert into parcel_change (book_id, round_id, customer, change, changed_by, changed_at)
                select book_id, $3, customer, change, changed_by, changed_at from parcel_change where book_id = $1 and round_id = $2
                    and customer = any ($4)
                """,
                book,
                round,
                other,
                customers
            )
            .RunAsync(cancel);
}
