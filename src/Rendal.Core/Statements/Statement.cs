using Rendal.Core.Money;

namespace Rendal.Core.Statements;

/// <summary>What one customer owes in one currency on one date, item by item.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Currency">The currency of all amounts.</param>
/// <param name="AsOf">The date for which it holds.</param>
/// <param name="Items">The open items in order of due date, date, number.</param>
/// <param name="Ageing">The same by age; its total is the sum of the items.</param>
public sealed record Statement(string Customer, Currency Currency, DateOnly AsOf, IReadOnlyList<StatementItem> Items, Ageing Ageing)
{
    /// <summary>What is owed in all.</summary>
    public decimal Total => Ageing.Total;

    /// <summary>Interest on overdue items; empty where none is asked for. <see cref="Total"/> is without it.</summary>
    public IReadOnlyList<InterestLine> Interest { get; init; } = [];

    /// <summary>What is owed with interest.</summary>
    public decimal ToPay => Total + Interest.Sum(i => i.Amount);

    /// <summary>The movements of a period, for a brought-forward statement; null for one of open items.</summary>
    public BroughtForward? Forward { get; init; }

    /// <summary>
    /// What a brought-forward statement comes to beside its open items: 0, or the ledger holds open items without the
    /// movements that led to them, and the statement must not go as it is.
    /// </summary>
    public decimal ForwardDifference => Forward is null ? 0 : Forward.Closing - Total;

    /// <summary>What is past due.</summary>
    public decimal Overdue => Ageing.Overdue;

    /// <summary>The most days that a charge is past due; 0 where none is.</summary>
    public int OldestDaysPastDue => Items.Where(i => i.Open > 0).Select(i => i.DaysPastDue).DefaultIfEmpty().Max() is var days and > 0 ? days : 0;

    /// <summary>Makes the statement of an account from what is open of its rows; items with nothing open are left away.</summary>
    public static Statement Of(string customer, Currency currency, IEnumerable<OpenItem> open, DateOnly asOf, AgeingRule rule)
    {
        var items = new List<StatementItem>();
        var bands = new decimal[rule.BandCount];
        var credits = 0m;
        foreach (var (row, amount) in open)
        {
            if (amount == 0)
            {
                continue;
            }

            var from = rule.By == AgeBy.Document ? row.Date ?? row.Due : row.Due;
            var days = asOf.DayNumber - from.DayNumber;
            int? band = amount > 0 ? rule.BandOf(days) : null;
            if (band is { } charged)
            {
                bands[charged] += amount;
            }
            else
            {
                credits += amount;
            }

            items.Add(new StatementItem(row, amount, days, band));
        }

        items.Sort((a, b) => StatementItem.Compare(a.Row, b.Row) is var order and not 0 ? order : a.Row.Source.Row.CompareTo(b.Row.Source.Row));
        return new Statement(customer, currency, asOf, items, new Ageing(bands, credits));
    }
}
