using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>One line of a statement.</summary>
/// <param name="Row">The ledger row that it comes from.</param>
/// <param name="Open">What is outstanding; negative for a credit, never 0.</param>
/// <param name="DaysPastDue">As-of date less due date, whatever the ageing rule; 0 and less is not due. Due on 30 November: -30 on 31
/// October.</param>
/// <param name="Band">The ageing band, by <see cref="AgeingRule.AgeOf"/>; null for a credit that stands apart.</param>
public sealed record StatementItem(LedgerRow Row, decimal Open, int DaysPastDue, int? Band)
{
    /// <summary>The order of items on statements and in settlement: due date, document date, number (ordinal).</summary>
    public static int Compare(LedgerRow a, LedgerRow b) =>
        a.Due.CompareTo(b.Due) is var byDue and not 0 ? byDue
        : Nullable.Compare(a.Date, b.Date) is var byDate and not 0 ? byDate
        : string.CompareOrdinal(a.Number, b.Number);
}
