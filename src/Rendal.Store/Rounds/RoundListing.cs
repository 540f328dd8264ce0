using Npgsql;
using Rendal.Core.Money;

namespace Rendal.Store.Rounds;

/// <summary>What a list of rounds tells of one beside the round itself.</summary>
/// <param name="MadeBy">Who made it.</param>
/// <param name="ReleasedBy">Who released it first; empty while nobody did.</param>
/// <param name="RequestedBy">Who asked somebody else to release it, while nothing of it is; else empty.</param>
/// <param name="Totals">What its parcels come to, by currency.</param>
public sealed record RoundListed(
    string MadeBy,
    string ReleasedBy,
    string RequestedBy,
    IReadOnlyList<(Currency Currency, decimal Total)> Totals
);

/// <summary>What lists of rounds tell of them.</summary>
public sealed class RoundListing(NpgsqlDataSource source, long book)
{
    /// <summary>That of some rounds, by number; one that is not there is not among them.</summary>
    public async Task<Dictionary<long, RoundListed>> OfAsync(long[] rounds, CancellationToken cancel)
    {
        var totals = (
            await source
                .Sql(
                    "select round_id, currency, parcels from round_proof where book_id = $1 and round_id = any ($2) and parcels <> 0 "
                        + "order by currency",
                    book,
                    rounds
                )
                .ListAsync(r => (Round: r.GetInt64(0), Total: (Currency.Of(r.GetString(1)), r.GetDecimal(2))), cancel)
        ).ToLookup(t => t.Round, t => t.Total);
        return (
            await source
                .Sql(
                    """
                    select r.id, m.name made_by, coalesce(l.name, '') released_by, coalesce(a.name, '') requested_by
                    from round r join person m on m.id = r.made_by left join person l on l.id = r.released_by
                        left join release_request q on q.book_id = r.book_id and q.round_id = r.id and r.released_at is null
                        left join person a on a.id = q.person_id
                    where r.book_id = $1 and r.id = any ($2)
                    """,
                    book,
                    rounds
                )
                .ListAsync(
                    r =>
                        KeyValuePair.Create(
                            r.Int64("id"),
                            new RoundListed(
                                r.String("made_by"),
                                r.String("released_by"),
                                r.String("requested_by"),
                                [.. totals[r.Int64("id")]]
                            )
                        ),
                    cancel
                )
        ).ToDictionary();
    }
}
