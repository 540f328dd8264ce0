using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>
/// What is left out, counted by currency and reason alone. Each customer is told of once for each currency and reason, save for errors.
/// </summary>
internal sealed class LeftOutTally : ILeftOut
{
    private readonly Dictionary<(Currency? Currency, LeftOutReason Reason), (int Customers, decimal Amount)> shares = [];
    private readonly HashSet<(string? Customer, Currency? Currency)> withErrors = [];

    public void Add(string? customer, Currency? currency, LeftOutReason reason, decimal amount, int items = 1)
    {
        // Several rows of a customer may be in error, and its account as well.
        var isNew = reason != LeftOutReason.Error || withErrors.Add((customer, currency));
        var (customers, sum) = shares.GetValueOrDefault((currency, reason));
        shares[(currency, reason)] = (customers + (isNew ? 1 : 0), sum + amount);
    }

    public IReadOnlyList<LeftOutShare> Shares() =>
        [
            .. shares
                .Select(s => new LeftOutShare(s.Key.Currency, s.Key.Reason, s.Value.Customers, s.Value.Amount))
                .OrderBy(s => s.Currency)
                .ThenBy(s => s.Reason),
        ];
}
