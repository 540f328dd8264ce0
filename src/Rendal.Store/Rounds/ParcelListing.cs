using Npgsql;
using Rendal.Core.Dispatch;
using Rendal.Core.Money;
using Rendal.Core.Sealing;

namespace Rendal.Store.Rounds;

/// <summary>How many parcels of a list stand in one place.</summary>
public sealed record ParcelGroup(string Status, int Count);

/// <summary>A part of the list of parcels.</summary>
/// <param name="Groups">How many parcels of the whole list stand where, in its order.</param>
/// <param name="Parcels">The parcels of the part.</param>
public sealed record ParcelPart(IReadOnlyList<ParcelGroup> Groups, IReadOnlyList<ParcelRecord> Parcels);

/// <summary>A part of the proof: the parcels of one status, or what is left out for one reason, in one currency.</summary>
/// <param name="Currency">The currency.</param>
/// <param name="Kind">A status, or <c>left-out:</c> and the reason.</param>
/// <param name="Count">How many parcels, or lines of what is left out.</param>
/// <param name="Amount">Their sum; what stands on two parcels is counted once.</param>
/// <param name="Weight">The sum of the absolute amounts.</param>
public sealed record ProofPart(Currency Currency, string Kind, int Count, decimal Amount, decimal Weight);

/// <summary>
/// The list of a round part by part: its parcels in the order of <see cref="ParcelStatus.ListOrder"/>, then what is left out. What
/// is sent to a page is as much for a round of any size; the groups and the proof are counted over all of its parcels.
/// </summary>
public sealed class ParcelListing(NpgsqlDataSource source, long book)
{
    private static readonly string[] Order = [.. ParcelStatus.ListOrder];

    /// <summary>How many parcels of some rounds stand where, each in the order of the list.</summary>
    public async Task<ILookup<long, ParcelGroup>> GroupsAsync(long[] rounds, CancellationToken cancel) =>
        (
            await source
                .Sql(
                    "select p.round_id, p.status, count(*)::int from parcel p where p.book_id = $1 and p.round_id = any "
                        + "($2) group by 1, 2",
                    book,
                    rounds
                )
                .ListAsync(r => (Round: r.GetInt64(0), Group: new ParcelGroup(r.GetString(1), r.GetInt32(2))), cancel)
        )
            .OrderBy(g => Rank(g.Group.Status))
            .ToLookup(g => g.Round, g => g.Group);

    /// <summary>
    /// How many parcels wait for a person or to be sent, by round, each in the order of the list. Those that go with another round do not
    /// wait.
    /// </summary>
    public async Task<ILookup<long, ParcelGroup>> WaitingAsync(CancellationToken cancel) =>
        (
            await source
                .Sql(
                    $"""
                    select r.id, w.status, w.n from round r cross join unnest($2::text[]) with ordinality s (status, rank)
                        cross join lateral (
                        select s.status, count(*)::int n from parcel p
                        where p.book_id = $1 and p.round_id = r.id and p.status = s.status
                            and (s.status <> 'held' or p.problem <> '{RoundStore.GoesElsewhere}')) w
                    where r.book_id = $1 and r.rehearses is null and w.n > 0 order by s.rank
                    """,
                    book,
                    ParcelStatus.Waiting.ToArray()
                )
                .ListAsync(r => (Round: r.GetInt64(0), Group: new ParcelGroup(r.GetString(1), r.GetInt32(2))), cancel)
        ).ToLookup(g => g.Round, g => g.Group);

    /// <summary>A part of the parcels, and how many there are of each status.</summary>
    /// <param name="round">The round.</param>
    /// <param name="find">A text in the code or name, case ignored; empty for all.</param>
    /// <param name="from">How many are passed over.</param>
    /// <param name="most">How many are given at most.</param>
    /// <param name="cancel">Stops it.</param>
    /// <remarks>
    /// One statement, as a parcel that is sent meanwhile would else be looked for where it does not stand any more, and as all are gone
    /// through for a text. Each parcel of the part is looked for by its number: of a book that is new the server expects so few that it
    /// would go through all of them for each.
    /// </remarks>
    public async Task<ParcelPart> PartAsync(long round, string find, int from, int most, CancellationToken cancel)
    {
        var rows = await source
            .Sql(
                $"""
                with {(
                    IsAll(find) ? "" : $"found as materialized (select p.id, p.status, p.position from parcel p where {Wanted(find)}), "
                )}
                status as (select p.status, count(*) as n, array_position($4::text[], p.status) as rank from {Found(
                    find
                )} group by 1),
                part as (select status, rank, n, (sum(n) over (order by rank))::bigint - n as before from status),
                page as materialized (
                    select at.id, at.position, part.rank from part cross join lateral (
                        select p.id, p.position from {Found(find)} {(
                    IsAll(find) ? "and" : "where"
                )} p.status = part.status order by p.position
                        offset greatest(0, $5 - part.before) limit $6 - greatest(0, part.before - $5)) at
                    where part.before < $5 + $6 and part.before + part.n > $5)
                select {ParcelTable.Columns}, part.status group_status, part.n::int group_count
                from part left join page on page.rank = part.rank
                    left join lateral (select * from parcel where book_id = $1 and id = page.id offset 0) p on true
                order by part.rank, page.position
                """,
                [.. Filter(round, find), Order, (long)from, (long)most]
            )
            .ListAsync(
                r =>
                    (
                        Parcel: r.IsNull("id") ? null : ParcelTable.Read(r),
                        Group: new ParcelGroup(r.String("group_status"), r.Int32("group_count"))
                    ),
                cancel
            );
        return new ParcelPart([.. rows.Select(r => r.Group).Distinct()], [.. rows.Select(r => r.Parcel).OfType<ParcelRecord>()]);
    }

    /// <summary>The numbers and customers of the parcels of a part of the list, in its order.</summary>
    /// <param name="round">The round.</param>
    /// <param name="find">A text in the code or name, case ignored; empty for all.</param>
    /// <param name="from">How many are passed over.</param>
    /// <param name="most">How many are given at most; null for all that follow.</param>
    /// <param name="cancel">Stops it.</param>
    public Task<List<(long Id, string Customer)>> KeysAsync(long round, string find, int from, int? most, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select p.id, p.customer from parcel p where {Wanted(find)}
                order by array_position($4::text[], p.status), p.position offset $5 limit $6
                """,
                [.. Filter(round, find), Order, from, (long?)most ?? long.MaxValue]
            )
            .ListAsync(r => (r.GetInt64(0), r.GetString(1)), cancel);

    /// <summary>How many parcels come before that of a customer; null where the customer has none in the list.</summary>
    public async Task<int?> PlaceAsync(long round, string find, string customer, CancellationToken cancel) =>
        await source
            .Sql(
                $"""
                with its as materialized (select p.status, p.position from parcel p where {Wanted(find)} and p.customer = $4)
                select count(*) filter (where array_position($5::text[], p.status) < array_position($5::text[], its.status)
                    or (p.status = its.status and p.position < its.position))::int
                from parcel p cross join its where {Wanted(find)} having count(*) > 0
                """,
                [.. Filter(round, find), customer, Order]
            )
            .ListAsync(r => r.GetInt32(0), cancel)
            is [var place]
            ? place
            : null;

    /// <summary>
    /// The customer of the next parcel after a place that changed since somebody looked at it; after the last comes the first. Null where
    /// none did.
    /// </summary>
    public async Task<string?> NextChangedAsync(long round, int after, CancellationToken cancel)
    {
        var here = after < 0 ? [] : (await PartAsync(round, "", after, 1, cancel)).Parcels;
        return
            await source
                .Sql(
                    """
                    select p.customer from parcel p left join parcel here on here.book_id = p.book_id and here.id = $3
                    where p.book_id = $1 and p.round_id = $2 and p.changed <> '{}'
                    order by (array_position($4::text[], p.status), p.position)
                            <= (array_position($4::text[], here.status), here.position),
                        array_position($4::text[], p.status), p.position limit 1
                    """,
                    book,
                    round,
                    here is [var parcel] ? parcel.Id : 0,
                    Order
                )
                .ListAsync(r => r.GetString(0), cancel)
                is [var customer]
            ? customer
            : null;
    }

    /// <summary>
    /// So many lines of what is left out of a round from one on, counted from 0, in the order in which choosing left them out.
    /// </summary>
    public Task<List<LeftOutRecord>> LeftOutAsync(long round, int from, int most, CancellationToken cancel) =>
        source
            .Sql(
                """
                select l.customer, coalesce(c.name, l.customer, '') name, l.currency, l.reason, l.amount, l.items
                from (select * from left_out where book_id = $1 and round_id = $2 order by position offset $3 limit $4) l
                left join customer c on c.book_id = l.book_id and c.key = l.customer order by l.position
                """,
                book,
                round,
                from,
                most
            )
            .ListAsync(
                r => new LeftOutRecord(
                    r.Text("customer"),
                    r.String("name"),
                    r.Text("currency"),
                    r.String("reason"),
                    r.Decimal("amount"),
                    r.Int32("items")
                ),
                cancel
            );

    /// <summary>How many lines there are of what is left out: one for each customer, currency and reason.</summary>
    public Task<int> LeftOutCountAsync(long round, CancellationToken cancel) =>
        source.Sql("select count(*)::int from left_out where book_id = $1 and round_id = $2", book, round).OneAsync<int>(cancel);

    /// <summary>
    /// What the proof of a round is made of: by currency, where its parcels stand, and the reasons for what is left out.
    /// </summary>
    public Task<List<ProofPart>> ProofPartsAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                $"""
                select currency, status, count(*)::int parcels, sum(total) total, sum(abs(total)) size from (
                    select p.sum_currency currency, p.status, p.sum_total total from parcel p where p.book_id = $1 and p.round_id = $2
                        and p.sum_currency is not null
                    union all
                    select s ->> 'currency', p.status, (s ->> 'total')::numeric from parcel p
                        cross join lateral jsonb_array_elements(p.sums) s
                    where p.book_id = $1 and p.round_id = $2 and p.sum_currency is null and s ->> 'alsoOn' is null) p group by 1, 2
                union all
                select currency, 'left-out:' || reason, count(*)::int, sum(amount), sum(abs(amount)) from left_out where book_id = $1
                    and round_id = $2 and currency is not null group by 1, 2
                """,
                book,
                round
            )
            .ListAsync(
                r => new ProofPart(
                    Currency.Of(r.String("currency")),
                    r.String("status"),
                    r.Int32("parcels"),
                    r.Decimal("total"),
                    r.Decimal("size")
                ),
                cancel
            );

    /// <summary>How many parcels go neither with a released round nor with another one.</summary>
    public Task<int> LeftAsync(long round, CancellationToken cancel) =>
        source
            .Sql($"select count(*)::int from parcel p where p.book_id = $1 and p.round_id = $2 and {ParcelTable.IsLeft}", book, round)
            .OneAsync<int>(cancel);

    /// <summary>What of how many parcels changed since somebody looked at them.</summary>
    public Task<List<(IReadOnlyList<SealPart> Changed, int Parcels)>> ChangedAsync(long round, CancellationToken cancel) =>
        source
            .Sql(
                "select changed, count(*)::int from parcel where book_id = $1 and round_id = $2 and changed <> '{}' group by changed",
                book,
                round
            )
            .ListAsync(
                r => ((IReadOnlyList<SealPart>)[.. r.GetFieldValue<string[]>(0).Select(EnumText.Parse<SealPart>)], r.GetInt32(1)),
                cancel
            );

    // Without a text nothing but the index is to be read.
    private static string Wanted(string find) =>
        IsAll(find)
            ? "p.book_id = $1 and p.round_id = $2"
            : "p.book_id = $1 and p.round_id = $2 and (p.customer || ' ' || p.name) ilike $3";

    private static bool IsAll(string find) => string.IsNullOrWhiteSpace(find);

    // With a text all parcels are gone through, which is done once in a statement.
    private static string Found(string find) => IsAll(find) ? $"parcel p where {Wanted(find)}" : "found p";

    private static int Rank(string status) => Array.IndexOf(Order, status);

    private object?[] Filter(long round, string find) => [book, round, Pattern.Holding(find.Trim())];
}
