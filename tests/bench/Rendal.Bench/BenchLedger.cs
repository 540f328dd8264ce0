using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Bench;

/// <summary>A made-up ledger of any size, the same on every run.</summary>
internal static class BenchLedger
{
    public static readonly DateOnly AsOf = new(2026, 10, 31);

    public static List<LedgerRow> Rows(int rows, int customers)
    {
        var pounds = Currency.Of("GBP");
        var chance = new Random(20261031);
        var names = Enumerable.Range(0, customers).Select(i => $"C{i:00000}").ToArray();
        var ledger = new List<LedgerRow>(rows);
        for (var i = 0; i < rows; i++)
        {
            var date = AsOf.AddDays(-chance.Next(200));
            var isPayment = chance.Next(10) == 0;
            var amount = chance.Next(1_000, 90_000) / 100m;
            ledger.Add(
                new LedgerRow
                {
                    Customer = names[chance.Next(customers)],
                    CustomerName = "",
                    Kind = isPayment ? ItemKind.Payment : ItemKind.Invoice,
                    Number = $"T-{i}",
                    Date = date,
                    Due = date.AddDays(30),
                    Currency = pounds,
                    Original = isPayment ? -amount : amount,
                    Open = isPayment ? -amount : amount,
                    Source = new SourceRef("bench.csv", null, i + 2),
                }
            );
        }

        return ledger;
    }
}
