using Npgsql;
using Rendal.Core.Review;

namespace Rendal.Store.Rounds;

/// <summary>The same remark on parcels of a round.</summary>
/// <param name="Wording">The wording that their messages were filled from.</param>
/// <param name="Remark">The remark, as it is on the first of them.</param>
/// <param name="Count">How many parcels have it.</param>
/// <param name="First">The first of them, by number and customer, in the order of the round.</param>
public sealed record RemarkedParcels(long Wording, Remark Remark, int Count, IReadOnlyList<(long Id, string Customer, string Name)> First);

/// <summary>How often the passages of a wording stand in the parcels of a round.</summary>
/// <param name="Wording">The wording.</param>
/// <param name="Parcels">How many parcels it was filled for.</param>
/// <param name="InSome">A bit for each passage that stands in one of them.</param>
/// <param name="InAll">A bit for each passage that stands in all of them.</param>
public sealed record PassagesStanding(long Wording, int Parcels, long InSome, long InAll);

/// <summary>What catches the eye in the messages of one book, and what of it somebody said is meant so.</summary>
public sealed class RemarkStore(NpgsqlDataSource source, long book)
{
    private const int MostNamed = 5;

    private const string IsMeant =
        "exists (select from wording_meant m where m.book_id = p.book_id and m.wording_id = p.wording_id "
        + "and m.code = r ->> 'code' and m.quote = r ->> 'quote')";

    // The passages of a parcel with words of its own are other ones.
    private const string ByTheWording = "not 'words' = any (p.altered)";

    // What was released says what it says.
    private const string IsOpen = "p.book_id = $1 and p.round_id = $2 and p.state in ('prepared', 'held') and p.remarks <> '[]'";

    /// <summary>
    /// The remarks of a round that nobody said are meant so, each with how many parcels have it; the most serious first.
    /// </summary>
    public async Task<List<RemarkedParcels>> OfRoundAsync(long round, CancellationToken cancel) => [.. (
                await source
                    .Sql(
                        $"""
                        select p.wording_id, (array_agg(r order by p.position))[1] remark, count(distinct p.id)::int parcels,
                            (array_agg(p.id order by p.position))[1:{MostNamed}] ids,
                            (array_agg(p.customer order by p.position))[1:{MostNamed}] customers,
                            (array_agg(p.name order by p.position))[1:{MostNamed}] names
                        from parcel p cross join lateral jsonb_array_elements(p.remarks) r
                        where {IsOpen} and not {IsMeant}
                        group by p.wording_id, r ->> 'code', r ->> 'quote'
                        """,
                        book,
                        round
                    )
                    .ListAsync(
                        r => new RemarkedParcels(
                            r.Int64("wording_id"),
                            StoreJson.Read<Remark>(r.String("remark")),
                            r.Int32("parcels"),
                            [.. r.Value<long[]>("ids").Zip(r.Value<string[]>("customers"), r.Value<string[]>("names"))]
                        ),
                        cancel
                    )
            ).OrderBy(r => r.Remark.Code).ThenByDescending(r => r.Count).ThenBy(r => r.Remark.Quote, StringComparer.Ordinal)];

    /// <summary>How many parcels of a round have a remark that nobody said is meant so.</summary>
    public Task<int> CountAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select count(*)::int from parcel p where {IsOpen}
                    and exists (select from jsonb_array_elements(p.remarks) r where not {IsMeant})
                """,
                book,
                round
            )
            .OneAsync<int>(cancel);

    /// <summary>How often passages stand in the parcels of a round, by wording.</summary>
    public Task<List<PassagesStanding>> PassagesAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select p.wording_id, count(*)::int parcels, coalesce(bit_or(p.passages) filter (where {ByTheWording}), -1) in_some,
                    coalesce(bit_and(p.passages) filter (where {ByTheWording}), 0) in_all from parcel p
                where p.book_id = $1 and p.round_id = $2 and p.state in ('prepared', 'held') and p.wording_id is not null
                group by p.wording_id order by parcels desc, p.wording_id
                """,
                book,
                round
            )
            .ListAsync(
                r => new PassagesStanding(r.Int64("wording_id"), r.Int32("parcels"), r.Int64("in_some"), r.Int64("in_all")),
                cancel
            );

    /// <summary>What is meant so in the messages that are filled from a wording.</summary>
    public Task<List<(RemarkCode Code, string Quote)>> MeantAsync(long wording, CancellationToken cancel) =>
        source
            .Sql("select code, quote from wording_meant where book_id = $1 and wording_id = $2 order by code, quote", book, wording)
            .ListAsync(r => (EnumText.Parse<RemarkCode>(r.String("code")), r.String("quote")), cancel);

    /// <summary>Says that it is meant so in the messages that are filled from a wording. Said twice it is said once.</summary>
    public Task MeanAsync(long wording, RemarkCode code, string quote, long person, CancellationToken cancel) =>
        source
            .Sql(
                "insert into wording_meant (book_id, wording_id, code, quote, said_by) values ($1, $2, $3, $4, $5) on conflict do nothing",
                book,
                wording,
                EnumText.Of(code),
                quote,
                person
            )
            .RunAsync(cancel);

    /// <summary>Takes back that it is meant so.</summary>
    public Task MeanNoMoreAsync(long wording, RemarkCode code, string quote, CancellationToken cancel) =>
        source
            .Sql(
                "delete from wording_meant where book_id = $1 and wording_id = $2 and code = $3 and quote = $4",
                book,
                wording,
                EnumText.Of(code),
                quote
            )
            .RunAsync(cancel);
}
