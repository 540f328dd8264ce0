using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>What is left out in one currency for one reason.</summary>
/// <param name="Currency">The currency; null for rows whose currency could not be read.</param>
/// <param name="Reason">Why.</param>
/// <param name="Customers">How many customers it is.</param>
/// <param name="Amount">The signed sum.</param>
public sealed record LeftOutShare(Currency? Currency, LeftOutReason Reason, int Customers, decimal Amount);

/// <summary>What a choice comes to, in numbers.</summary>
/// <param name="Parcels">How many parcels there would be.</param>
/// <param name="Sums">What they come to, by currency.</param>
/// <param name="LeftOut">What is left out, by currency and reason.</param>
public sealed record ChosenCount(int Parcels, IReadOnlyDictionary<Currency, decimal> Sums, IReadOnlyList<LeftOutShare> LeftOut);
