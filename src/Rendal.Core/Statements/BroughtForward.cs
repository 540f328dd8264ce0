using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>One line of a brought-forward statement.</summary>
/// <param name="Row">The ledger row.</param>
/// <param name="Debit">What it adds to the balance; 0 for a credit.</param>
/// <param name="Credit">What it takes off, as a positive figure; 0 for a charge.</param>
/// <param name="Balance">The balance after it.</param>
public readonly record struct Movement(LedgerRow Row, decimal Debit, decimal Credit, decimal Balance);

/// <summary>The movements of one account in a period, between the balance before and the balance after.</summary>
/// <param name="Period">The period.</param>
/// <param name="Opening">The signed sum of all movements before its first day.</param>
/// <param name="Movements">The movements of the period in order of date, number and row.</param>
public sealed record BroughtForward(Period Period, decimal Opening, IReadOnlyList<Movement> Movements)
{
    /// <summary>The balance after the last movement.</summary>
    public decimal Closing => Movements.Count > 0 ? Movements[^1].Balance : Opening;

    /// <summary>
    /// Lays out the movements of one account. Each row counts with its full amount, on its document date, or its due date where it has no
    /// other; rows after the period are left away.
    /// </summary>
    public static BroughtForward Of(IEnumerable<LedgerRow> rows, Period period)
    {
        var opening = 0m;
        var within = new List<LedgerRow>();
        foreach (var row in rows)
        {
            var day = Day(row);
            if (day < period.From)
            {
                opening += row.Original;
            }
            else if (day <= period.To)
            {
                within.Add(row);
            }
        }

        within.Sort(
            (a, b) =>
                Day(a).CompareTo(Day(b)) is var byDay and not 0 ? byDay
                : string.CompareOrdinal(a.Number, b.Number) is var byNumber and not 0 ? byNumber
                : a.Source.Row.CompareTo(b.Source.Row)
        );
        var balance = opening;
        return new BroughtForward(
            period,
            opening,
            [.. within.Select(row => new Movement(row, Math.Max(row.Original, 0), Math.Max(-row.Original, 0), balance += row.Original))]
        );
    }

    private static DateOnly Day(LedgerRow row) => row.Date ?? row.Due;
}
