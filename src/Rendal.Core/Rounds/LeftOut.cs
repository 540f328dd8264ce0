using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>What of one customer in one currency is left out of a round for one reason.</summary>
/// <param name="Customer">The customer; null where a row says neither code nor name.</param>
/// <param name="Currency">The currency of the amount; null for rows whose currency could not be read, which have no amount.</param>
/// <param name="Reason">Why.</param>
/// <param name="Amount">The signed sum; 0 for rows whose amount could not be read.</param>
/// <param name="Items">How many ledger rows it is.</param>
public sealed record LeftOut(string? Customer, Currency? Currency, LeftOutReason Reason, decimal Amount, int Items);
