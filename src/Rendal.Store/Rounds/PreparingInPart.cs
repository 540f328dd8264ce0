using Npgsql;
using Rendal.Core.Money;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>
/// Puts what was made up again of a few customers of a round in place of what was there of them. What it costs depends on them and
/// hardly on how many others there are.
/// </summary>
public sealed class PreparingInPart(NpgsqlDataSource source, long book)
{
    /// <summary>
    /// Puts it. False where the round was changed since, or something that it uses; null where it has to be prepared as a whole: something
    /// of it was released, the parts do not add up to what was there, or there is no room between two parcels.
    /// </summary>
    /// <param name="id">The round.</param>
    /// <param name="at">What the parcels were made up at.</param>
    /// <param name="family">The customers: with each that is in it all that it shares a head office with.</param>
    /// <param name="parcels">Their parcels.</param>
    /// <param name="chosen">What choosing among their rows came to.</param>
    /// <param name="basis">What the round is made up from.</param>
    /// <param name="cancel">Stops it; nothing is kept then.</param>
    public async Task<bool?> PutAsync(
        long id,
        PreparedState at,
        IReadOnlyCollection<string> family,
        IReadOnlyList<ParcelRecord> parcels,
        ChosenRound chosen,
        RoundBasis basis,
        CancellationToken cancel
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);

        // Nobody waits for the disk here: where this is lost with the machine, the round is behind as before, and is made up once more.
        await connection.Sql("set local synchronous_commit to off").RunAsync(cancel);
        var now = await connection
            .Sql(
                "select released_at is null and not to_be_prepared, revision, prepared_at_change from round where book_id = "
                    + "$1 and id = $2 for update",
                book,
                id
            )
            .FirstAsync(
                r => new
                {
                    MayBe = r.GetBoolean(0),
                    Revision = r.GetInt64(1),
                    Change = r.GetInt64(2),
                },
                cancel
            );
        if (now is not { MayBe: true })
        {
            return null;
        }

        if (now.Revision != at.Revision || now.Change != at.Change)
        {
            return false;
        }

        string[] of = [.. family];
        if (!await ProofAsync(connection, id, of, chosen, cancel))
        {
            return null;
        }

        await ItemsLeftOutAsync(connection, id, of, chosen, cancel);
        await AccountSumStore.PutAsync(connection, book, id, of, chosen, basis, cancel);
        if (!await LeftOutAsync(connection, id, of, chosen.LeftOut, cancel) || !await ParcelsAsync(connection, id, of, parcels, cancel))
        {
            return null;
        }

        await connection
            .Sql(
                "update round set awaiting = '{}', prepared_at = $3, by_hand = $4 where book_id = $1 and id = $2",
                book,
                id,
                at.At.ToUniversalTime(),
                Commands.Json(basis.Hand)
            )
            .RunAsync(cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Moves in the proof what went from parcels to what is left out, or back. False where the two together are not what they were.
    /// </summary>
    private async Task<bool> ProofAsync(
        NpgsqlConnection connection,
        long id,
        string[] family,
        ChosenRound chosen,
        CancellationToken cancel
    )
    {
        var before = (
            await connection
                .Sql(
                    """
                    select currency, sum(in_parcels), sum(left_out) from (
                        select s ->> 'currency' currency, (s ->> 'total')::numeric in_parcels, 0 left_out from parcel p
                            cross join lateral jsonb_array_elements(p.sums) s
                            where p.book_id = $1 and p.round_id = $2 and p.customer = any ($3) and s ->> 'alsoOn' is null
                        union all select currency, 0, amount from left_out where book_id = $1 and round_id = $2 and customer = any ($3)
                            and currency is not null) w
                    group by currency
                    """,
                    book,
                    id,
                    family
                )
                .ListAsync(r => (Currency: r.GetString(0), Parcels: r.GetDecimal(1), LeftOut: r.GetDecimal(2)), cancel)
        ).ToDictionary(b => b.Currency);
        var after = chosen.Proof.ToDictionary(p => p.Currency.Code);
        foreach (var currency in before.Keys.Union(after.Keys))
        {
            var (was, isNow) = (before.GetValueOrDefault(currency), after.GetValueOrDefault(currency));
            var (parcels, leftOut) = (isNow?.Statements ?? 0, isNow?.LeftOut ?? 0);
            if (
                was.Parcels + was.LeftOut != parcels + leftOut
                || await connection
                    .Sql(
                        "update round_proof set parcels = parcels + $4, left_out = left_out + $5 where book_id = $1 and "
                            + "round_id = $2 and currency = $3",
                        book,
                        id,
                        currency,
                        parcels - was.Parcels,
                        leftOut - was.LeftOut
                    )
                    .RunAsync(cancel) != 1
            )
            {
                return false;
            }
        }

        return true;
    }

    private async Task ItemsLeftOutAsync(
        NpgsqlConnection connection,
        long id,
        string[] family,
        ChosenRound chosen,
        CancellationToken cancel
    )
    {
        var ofItems = Enum.GetValues<LeftOutReason>().Where(r => r.IsOfItem()).Select(r => r.Code()).ToArray();
        var before = await connection
            .Sql(
                "select currency, reason, count(*)::int customers, sum(amount) amount from left_out where book_id = $1 and round_id = $2 and "
                    + "customer = any ($3) and reason = any ($4) group by 1, 2",
                book,
                id,
                family,
                ofItems
            )
            .ListAsync(
                r => new LeftOutShare(
                    Currency.Of(r.String("currency")),
                    EnumText.Parse<LeftOutReason>(r.String("reason")),
                    -r.Int32("customers"),
                    -r.Decimal("amount")
                ),
                cancel
            );
        if (before.Count == 0 && chosen.ItemsLeftOut.Count == 0)
        {
            return;
        }

        var all = await AccountSumStore.ItemsLeftOutAsync(connection, book, id, cancel);
        await AccountSumStore.PutItemsLeftOutAsync(
            connection,
            book,
            id,
            [
                .. all.Concat(before)
                    .Concat(chosen.ItemsLeftOut)
                    .GroupBy(s => (s.Currency, s.Reason))
                    .Select(g => new LeftOutShare(g.Key.Currency, g.Key.Reason, g.Sum(s => s.Customers), g.Sum(s => s.Amount)))
                    .Where(s => s.Customers > 0),
            ],
            cancel
        );
    }

    private async Task<bool> LeftOutAsync(
        NpgsqlConnection connection,
        long id,
        string[] family,
        IReadOnlyList<LeftOut> left,
        CancellationToken cancel
    )
    {
        await connection
            .Sql("delete from left_out where book_id = $1 and round_id = $2 and customer = any ($3)", book, id, family)
            .RunAsync(cancel);
        foreach (var of in left.GroupBy(l => l.Customer))
        {
            var lines = of.ToList();
            var room = await Room.OfAsync(
                (from, to, most) => LeftOutTable.BetweenAsync(connection, book, id, from, to, most, cancel),
                customer => string.CompareOrdinal(customer, of.Key) < 0
            );
            var step = (room.To - room.From) / (lines.Count + 1);
            if (step == 0)
            {
                return false;
            }

            await LeftOutTable.AddAsync(connection, book, id, lines, room.From + step, step, cancel);
        }

        return true;
    }

    private async Task<bool> ParcelsAsync(
        NpgsqlConnection connection,
        long id,
        string[] family,
        IReadOnlyList<ParcelRecord> parcels,
        CancellationToken cancel
    )
    {
        await connection
            .Sql(
                "delete from parcel p where p.book_id = $1 and p.round_id = $2 and p.customer = any ($3) and p.customer <> all ($4)",
                book,
                id,
                family,
                parcels.Select(p => p.Customer).ToArray()
            )
            .RunAsync(cancel);
        var positions = (
            await connection
                .Sql(
                    "select customer, position from parcel where book_id = $1 and round_id = $2 and customer = any ($3)",
                    book,
                    id,
                    family
                )
                .ListAsync(r => (r.GetString(0), r.GetInt32(1)), cancel)
        ).ToDictionary(p => p.Item1, p => p.Item2);
        var placed = new List<(ParcelRecord, int)>();
        foreach (var parcel in parcels)
        {
            if (!positions.TryGetValue(parcel.Customer, out var position))
            {
                var room = await Room.OfAsync(
                    (from, to, most) => ParcelTable.BetweenAsync(connection, book, id, from, to, most, cancel),
                    other => ParcelOrder.Is.Compare(other, (parcel.Name, parcel.Customer)) < 0
                );
                position = room.From + ((room.To - room.From) / 2);
                if (position == room.From || placed.Exists(p => p.Item2 == position))
                {
                    return false;
                }
            }

            placed.Add((parcel, position));
        }

        await ParcelTable.WriteAsync(connection, book, id, placed, cancel);
        return true;
    }
}
