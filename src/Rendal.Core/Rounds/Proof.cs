using Rendal.Core.Money;

namespace Rendal.Core.Rounds;

/// <summary>The reckoning that the ledger's total in one currency is the sum of what is sent and what is left out.</summary>
/// <param name="Currency">The currency.</param>
/// <param name="Ledger">The signed sum of the rows as read, before settlement, rows set aside and rows after the date included.</param>
/// <param name="Statements">The sum of the chosen statements' totals.</param>
/// <param name="LeftOut">The sum of what is left out.</param>
public sealed record Proof(Currency Currency, decimal Ledger, decimal Statements, decimal LeftOut)
{
    /// <summary>What cannot be accounted for: 0, or the program has an error and nothing may be sent.</summary>
    public decimal Difference => Ledger - Statements - LeftOut;
}
