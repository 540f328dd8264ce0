using System.Text.Json.Serialization;
using Rendal.Core.Money;

namespace Rendal.Core.Statements;

/// <summary>What one customer owes in one currency on one date, item by item.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Currency">The currency of all amounts.</param>
/// <param name="AsOf">The date for which it holds.</param>
/// <param name="Items">The open items in order of due date, date, number.</param>
/// <param name="Ageing">The same by age; its total is the sum of the items.</param>
/// <remarks>The statement of a head office holds those of its branches as <see cref="Parts"/>, and their items together.</remarks>
public sealed record Statement(string Customer, Currency Currency, DateOnly AsOf, IReadOnlyList<StatementItem> Items, Ageing Ageing)
{
    /// <summary>What is owed in all.</summary>
    public decimal Total => Ageing.Total;

    /// <summary>How many rows of the account are settled in full, and so not listed.</summary>
    public int SettledRows { get; init; }

    /// <summary>Interest on overdue items; empty where none is asked for. <see cref="Total"/> is without it.</summary>
    public IReadOnlyList<InterestLine> Interest { get; init; } = [];

    /// <summary>What is to be paid: <see cref="Total"/> and the interest shown. Below 0 where the customer is in credit.</summary>
    public decimal ToPay => Total + Interest.Sum(i => i.Amount);

    /// <summary>
    /// The movements of a period, for a brought-forward statement of one account; null for one of open items, and for one with parts,
    /// which have their own.
    /// </summary>
    public BroughtForward? Forward { get; init; }

    /// <summary>
    /// What a brought-forward statement of one account comes to beside its open items: 0, or the ledger holds open items without the
    /// movements that led to them, and the statement must not go as it is.
    /// </summary>
    public decimal ForwardDifference => Forward is null ? 0 : Forward.Closing - Total;

    /// <summary>
    /// The statement of each account on the statement of a head office, its own first, then its branches in order of customer (ordinal);
    /// empty for the statement of one account.
    /// </summary>
    public IReadOnlyList<Statement> Parts { get; init; } = [];

    /// <summary>The statements of single accounts that this is made of: its parts, or itself.</summary>
    [JsonIgnore]
    public IReadOnlyList<Statement> Accounts => Parts.Count == 0 ? [this] : Parts;

    /// <summary>
    /// The head office whose statement has the same items, so that this one is for the branch to know and is not counted again; null for a
    /// statement that counts.
    /// </summary>
    public string? AlsoOn { get; init; }

    /// <summary>The level of the reminder that it goes with; null for one that is no reminder.</summary>
    public int? ReminderLevel { get; init; }

    /// <summary>Whether there is nothing to show: no open item, and no movement of a period with a balance before it.</summary>
    public bool IsEmpty => Items.Count == 0 && (Forward is null || (Forward.Movements.Count == 0 && Forward.Opening == 0));

    /// <summary>What is past due.</summary>
    public decimal Overdue => Ageing.Overdue;

    /// <summary>The most days that a charge is past due; 0 where none is.</summary>
    public int OldestDaysPastDue =>
        Items.Where(i => i.Open > 0).Select(i => i.DaysPastDue).DefaultIfEmpty().Max() is var days and > 0 ? days : 0;

    /// <summary>
    /// Gathers the statements of several accounts in one currency into one of their head office. Where there is its own account alone,
    /// that is the statement.
    /// </summary>
    /// <param name="headOffice">The head office.</param>
    /// <param name="parts">The statements of the accounts, for one date and in one currency; at least one.</param>
    public static Statement Gather(string headOffice, IReadOnlyList<Statement> parts)
    {
        if (parts is [{ } only] && only.Customer == headOffice)
        {
            return only;
        }

        var bands = new decimal[parts[0].Ageing.Bands.Count];
        foreach (var part in parts)
        {
            for (var band = 0; band < bands.Length; band++)
            {
                bands[band] += part.Ageing.Bands[band];
            }
        }

        IReadOnlyList<Statement> ordered =
        [
            .. parts.OrderBy(p => p.Customer == headOffice ? 0 : 1).ThenBy(p => p.Customer, StringComparer.Ordinal),
        ];
        return new Statement(
            headOffice,
            parts[0].Currency,
            parts[0].AsOf,
            [.. ordered.SelectMany(p => p.Items)],
            new Ageing(bands, parts.Sum(p => p.Ageing.Credits), parts.Sum(p => p.Ageing.Overdue))
        )
        {
            Interest = [.. ordered.SelectMany(p => p.Interest)],
            Parts = ordered,
        };
    }

    /// <summary>Makes the statement of an account from what is open of its rows; items with nothing open are left away.</summary>
    public static Statement Of(string customer, Currency currency, IEnumerable<OpenItem> open, DateOnly asOf, AgeingRule rule)
    {
        var items = new List<StatementItem>();
        var bands = new decimal[rule.BandCount];
        var credits = 0m;
        var overdue = 0m;
        var settled = 0;
        foreach (var (row, amount) in open)
        {
            if (amount == 0)
            {
                settled++;
                continue;
            }

            var daysPastDue = asOf.DayNumber - row.Due.DayNumber;
            overdue += amount > 0 && daysPastDue > 0 ? amount : 0;
            int? band = amount > 0 || rule.CreditsByDate ? rule.BandOf(rule.AgeOf(row, amount, asOf)) : null;
            if (band is { } counted)
            {
                bands[counted] += amount;
            }
            else
            {
                credits += amount;
            }

            items.Add(new StatementItem(row, amount, daysPastDue, band));
        }

        items.Sort(
            (a, b) => StatementItem.Compare(a.Row, b.Row) is var order and not 0 ? order : a.Row.Source.Row.CompareTo(b.Row.Source.Row)
        );
        return new Statement(customer, currency, asOf, items, new Ageing(bands, credits, overdue)) { SettledRows = settled };
    }
}
