using Rendal.Core.Money;
using Rendal.Core.Rounds;

namespace Rendal.Web.Intake;

/// <summary>The ledger as it is now.</summary>
internal sealed record LedgerView(
    long IntakeId,
    string File,
    string? Sheet,
    DateTimeOffset KeptAt,
    int Rows,
    int RowsSetAside,
    int RowsLeftOut,
    int Customers,
    IReadOnlyList<LedgerSumView> Sums,
    IReadOnlyList<FindingGroupView> Findings
);

/// <summary>What is owed in one currency, by age.</summary>
internal sealed record LedgerSumView(string Currency, string Total, string Overdue, string Credits, IReadOnlyList<string> Bands)
{
    /// <summary>What is owed, by currency.</summary>
    /// <param name="owed">The sums.</param>
    /// <param name="first">The currency of the book, which comes first.</param>
    public static IEnumerable<LedgerSumView> Of(IEnumerable<Owed> owed, Currency first) =>
        owed.GroupBy(s => s.Currency)
            .OrderByDescending(g => g.Key == first)
            .ThenBy(g => g.Key)
            .Select(g => new LedgerSumView(
                g.Key.Code,
                g.Key.Plain(g.Sum(s => s.Total)),
                g.Key.Plain(g.Sum(s => s.Overdue)),
                g.Key.Plain(g.Sum(s => s.Ageing.Credits)),
                [.. Enumerable.Range(0, g.First().Ageing.Bands.Count).Select(b => g.Key.Plain(g.Sum(s => s.Ageing.Bands[b])))]
            ));
}
