using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Bench;

/// <summary>Settling, ageing, grouping and choosing a large ledger in the core, against one LINQ GroupBy and Sum.</summary>
internal static class GroupingBench
{
    public static IReadOnlyList<Measurement> Run() => [Of(250_000, 12_500), Of(1_000_000, 50_000)];

    private static Measurement Of(int rows, int customers)
    {
        var ledger = BenchLedger.Rows(rows, customers);
        var choice = new Choice { AsOf = BenchLedger.AsOf };
        var (ours, linq) = Rounds.InTurns(
            5,
            () =>
                Check(
                    Choosing
                        .Choose(ledger, [], choice, SettlementRule.Oldest, StatementRules.Default, _ => new Reachability(
                            false,
                            true,
                            null
                        ))
                        .Proof[0]
                        .Difference == 0
                ),
            () => Check(Sum(ledger) > 0)
        );
        return new Measurement(
            $"settling, ageing, grouping and choosing {rows:N0} rows of {customers:N0} customers",
            $"{ours:0.00} s",
            $"LINQ GroupBy + Sum {linq:0.00} s",
            ours / linq,
            "≤ 4"
        );
    }

    private static int Sum(IEnumerable<LedgerRow> ledger) =>
        ledger.GroupBy(r => (r.Customer, r.Currency)).Select(g => (g.Key, Sum: g.Sum(r => r.Open))).ToList().Count;

    private static void Check(bool holds)
    {
        if (!holds)
        {
            throw new InvalidOperationException("What was measured did not come out right.");
        }
    }
}
