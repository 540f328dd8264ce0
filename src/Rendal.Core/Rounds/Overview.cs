using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What is worth a look in one currency of a ledger.</summary>
/// <param name="Largest">Who has the most past due, the most first; of those with as much, in order of customer.</param>
/// <param name="NotWritten">The customers who owe and were sent nothing in the period, the most owed first.</param>
public sealed record Overview(IReadOnlyList<Owed> Largest, IReadOnlyList<Owed> NotWritten)
{
    /// <summary>Looks over a ledger.</summary>
    /// <param name="owed">What is owed, one for each customer and currency.</param>
    /// <param name="currency">The currency that is looked at; amounts of two are never put in one order.</param>
    /// <param name="period">The days within which a customer should have been written to.</param>
    /// <param name="lastWritten">The last day on which something was sent to a customer; null for never.</param>
    /// <param name="most">How many of the largest are wanted.</param>
    public static Overview Of(IEnumerable<Owed> owed, Currency currency, Period period, Func<string, DateOnly?> lastWritten, int most)
    {
        var of = owed.Where(s => s.Currency == currency).ToList();
        return new Overview(
            [.. of.Where(s => s.Overdue > 0).OrderByDescending(s => s.Overdue).ThenBy(s => s.Customer, StringComparer.Ordinal).Take(most)],
            [
                .. of.Where(s => s.Total > 0 && !(lastWritten(s.Customer) is { } day && day >= period.From && day <= period.To))
                    .OrderByDescending(s => s.Total)
                    .ThenBy(s => s.Customer, StringComparer.Ordinal),
            ]
        );
    }
}
