using Npgsql;
using Rendal.Core.Rounds;

namespace Rendal.Store.Rounds;

/// <summary>How what is left out stands in its table.</summary>
internal static class LeftOutTable
{
    /// <summary>Adds what of a round is left out, from a position on.</summary>
    /// <param name="first">The position of the first.</param>
    /// <param name="step">How far the positions lie apart.</param>
    public static Task AddAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        IReadOnlyList<LeftOut> left,
        int first,
        int step,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                "insert into left_out (book_id, round_id, position, customer, currency, reason, amount, items) select $1, $2, "
                    + "* from unnest($3::int[], $4::text[], $5::text[], $6::text[], $7::numeric[], $8::int[])",
                book,
                round,
                left.Select((_, i) => first + (i * step)).ToArray(),
                left.Select(l => l.Customer).ToArray(),
                left.Select(l => l.Currency?.Code).ToArray(),
                left.Select(l => l.Reason.Code()).ToArray(),
                left.Select(l => l.Amount).ToArray(),
                left.Select(l => l.Items).ToArray()
            )
            .RunAsync(cancel);

    /// <summary>The customers of the first lines between two positions, in their order; null for what has none.</summary>
    public static Task<List<(int Position, string? Customer)>> BetweenAsync(
        NpgsqlConnection connection,
        long book,
        long round,
        int from,
        int to,
        int most,
        CancellationToken cancel
    ) =>
        connection
            .Sql(
                "select position, customer from left_out where book_id = $1 and round_id = $2 and position > $3 and position "
                    + "< $4 order by position limit $5",
                book,
                round,
                from,
                to,
                most
            )
            .ListAsync(r => (r.GetInt32(0), r.Text(1)), cancel);
}
