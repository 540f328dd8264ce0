using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>What is left out, added up by customer, currency and reason.</summary>
internal sealed class LeftOutSums : ILeftOut
{
    private readonly Dictionary<(string? Customer, Currency? Currency, LeftOutReason Reason), (decimal Amount, int Items)> sums = [];

    public void Add(string? customer, Currency? currency, LeftOutReason reason, decimal amount, int items = 1)
    {
        var (sum, count) = sums.GetValueOrDefault((customer, currency, reason));
        sums[(customer, currency, reason)] = (sum + amount, count + items);
    }

    /// <summary>Adds what was added up elsewhere.</summary>
    public void Add(LeftOutSums others)
    {
        foreach (var (of, (amount, items)) in others.sums)
        {
            Add(of.Customer, of.Currency, of.Reason, amount, items);
        }
    }

    public IReadOnlyList<LeftOutShare> Shares() =>
        [
            .. sums.GroupBy(s => (s.Key.Currency, s.Key.Reason))
                .Select(g => new LeftOutShare(g.Key.Currency, g.Key.Reason, g.Count(), g.Sum(s => s.Value.Amount)))
                .OrderBy(s => s.Currency)
                .ThenBy(s => s.Reason),
        ];

    /// <summary>What is left out in a currency, for whatever reason.</summary>
    public decimal Of(Currency currency) => sums.Where(s => s.Key.Currency == currency).Sum(s => s.Value.Amount);

    /// <summary>Each customer, currency and reason with its amount, in that order.</summary>
    public IReadOnlyList<LeftOut> Listed() =>
        [
            .. sums.Select(s => new LeftOut(s.Key.Customer, s.Key.Currency, s.Key.Reason, s.Value.Amount, s.Value.Items))
                .OrderBy(l => l.Customer, StringComparer.Ordinal)
                .ThenBy(l => l.Currency)
                .ThenBy(l => l.Reason),
        ];
}
