using Npgsql;
using NpgsqlTypes;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Store.Items;

/// <summary>What a person has said about a payment or credit, as kept.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Settlement">What was said.</param>
/// <param name="By">Who said it.</param>
/// <param name="At">When.</param>
public sealed record KeptSettlement(long Id, CustomerSettlement Settlement, string By, DateTimeOffset At);

/// <summary>What people have set payments and credits of one book against. What was taken back stays on record.</summary>
public sealed class SettlementStore(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// What holds, in the order in which it was said; of one customer, or of all where <paramref name="customer"/> is null.
    /// </summary>
    public Task<List<KeptSettlement>> ListAsync(string? customer, CancellationToken cancel) =>
        source
            .Sql(
                """
                select s.id, s.customer, s.credit, s.charge, s.amount, p.name, s.made_at from settled_by_hand s
                    join person p on p.id = s.made_by
                where s.book_id = $1 and s.taken_back_at is null and ($2::text is null or s.customer = $2) order by s.id
                """,
                book,
                new NpgsqlParameter { Value = (object?)customer ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Text }
            )
            .ListAsync(
                r => new KeptSettlement(
                    r.Int64("id"),
                    new CustomerSettlement(
                        r.String("customer"),
                        new SettledByHand(r.String("credit"), r.Text("charge"), r.Nullable<decimal>("amount"))
                    ),
                    r.String("name"),
                    r.Value<DateTimeOffset>("made_at")
                ),
                cancel
            );

    /// <summary>
    /// Keeps what a person says. That a credit is to stay one takes back what it was set against before, and the other way about; the same
    /// pair said again counts with its new amount. Of two people who say it at the same moment, the later counts.
    /// </summary>
    public async Task SayAsync(CustomerSettlement settlement, long person, DateTimeOffset now, CancellationToken cancel)
    {
        var said = settlement.Said;
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.ActsAsync(person, cancel);
        await connection
            .Sql("select pg_advisory_xact_lock(hashtextextended('settled_by_hand ' || $1::text || ' ' || $2, 0))", book, said.Credit)
            .RunAsync(cancel);
        var charge = new NpgsqlParameter { Value = (object?)said.Charge ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Text };
        await connection
            .Sql(
                "update settled_by_hand set taken_back_by = $4, taken_back_at = $5 where book_id = $1 and credit = $2 and "
                    + "taken_back_at is null and ($3::text is null or charge is null or charge = $3)",
                book,
                said.Credit,
                charge,
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
        await connection
            .Sql(
                "insert into settled_by_hand (book_id, customer, credit, charge, amount, made_by, made_at) values ($1, $2, "
                    + "$3, $4, $5, $6, $7)",
                book,
                settlement.Customer,
                said.Credit,
                charge.Clone(),
                new NpgsqlParameter { Value = (object?)said.Amount ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Numeric },
                person,
                now.ToUniversalTime()
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Takes back what was said. False where it was before.</summary>
    public async Task<bool> TakeBackAsync(long id, long person, DateTimeOffset now, CancellationToken cancel) =>
        await source.ByAsync(
            person,
            connection =>
                connection
                    .Sql(
                        "update settled_by_hand set taken_back_by = $3, taken_back_at = $4 where book_id = $1 and id = $2 and "
                            + "taken_back_at is null",
                        book,
                        id,
                        person,
                        now.ToUniversalTime()
                    )
                    .RunAsync(cancel),
            cancel
        ) == 1;
}
