using Npgsql;
using Rendal.Core.Money;

namespace Rendal.Store.Rounds;

/// <summary>What parcels that a person marked come to.</summary>
/// <param name="Groups">How many of them stand where, in no order; fewer than were marked where some are not in the round any
/// more.</param>
/// <param name="Totals">Their sum in each currency; what stands on two of them is counted once.</param>
public sealed record MarkedSum(IReadOnlyList<ParcelGroup> Groups, IReadOnlyList<(Currency Currency, decimal Total)> Totals);

/// <summary>Parcels of a round that a person marked, to do something to all of them.</summary>
public sealed class MarkedParcels(NpgsqlDataSource source, long book)
{
    /// <summary>What some parcels of a round come to.</summary>
    /// <param name="round">The round.</param>
    /// <param name="parcels">The parcels by number; one that is not in the round is passed over.</param>
    /// <param name="cancel">Stops it.</param>
    public async Task<MarkedSum> SumAsync(long round, IReadOnlyCollection<long> parcels, CancellationToken cancel)
    {
        long[] ids = [.. parcels];
        var groups = await source
            .Sql(
                "select p.status, count(*)::int from parcel p where p.book_id = $1 and p.round_id = $2 and p.id = any ($3) group by 1",
                book,
                round,
                ids
            )
            .ListAsync(r => new ParcelGroup(r.GetString(0), r.GetInt32(1)), cancel);
        var totals = await source
            .Sql(
                """
                select s ->> 'currency', sum((s ->> 'total')::numeric) from parcel p cross join lateral jsonb_array_elements(p.sums) s
                where p.book_id = $1 and p.round_id = $2 and p.id = any ($3) and s ->> 'alsoOn' is null group by 1 order by 1
                """,
                book,
                round,
                ids
            )
            .ListAsync(r => (Currency.Of(r.GetString(0)), r.GetDecimal(1)), cancel);
        return new MarkedSum(groups, totals);
    }
}
