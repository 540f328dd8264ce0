namespace Rendal.Core.Statements;

/// <summary>The interest on one overdue item. It stands on the statement and is never in the ledger.</summary>
/// <param name="Item">The item.</param>
/// <param name="Days">The days past due, from the day after the due date to the as-of date.</param>
/// <param name="Amount">The interest, rounded to the currency's minor unit; above 0.</param>
public sealed record InterestLine(StatementItem Item, int Days, decimal Amount)
{
    private const decimal DaysInAYear = 365;

    /// <summary>
    /// Simple interest on each overdue item of a statement: a yearly rate, actual days, 365 days a year. 1,000.00 at 8 per cent, due 73
    /// days ago, bears 16.00. What rounds to nothing has no line, nor has a credit.
    /// </summary>
    /// <param name="statement">The statement.</param>
    /// <param name="yearlyPercent">The rate in per cent.</param>
    public static IReadOnlyList<InterestLine> On(Statement statement, decimal yearlyPercent)
    {
        var lines = new List<InterestLine>();
        foreach (var item in statement.Items)
        {
            var days = statement.AsOf.DayNumber - item.Row.Due.DayNumber;
            if (
                item.Open > 0
                && days > 0
                && statement.Currency.Round(item.Open * yearlyPercent / 100 * days / DaysInAYear) is > 0 and var amount
            )
            {
                lines.Add(new InterestLine(item, days, amount));
            }
        }

        return lines;
    }
}
