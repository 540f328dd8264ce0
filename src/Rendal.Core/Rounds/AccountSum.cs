using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>What choosing has to know of one account in one currency, once it is known which of its items are wanted.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Currency">The currency.</param>
/// <param name="Total">What the wanted items come to.</param>
/// <param name="OldestDaysPastDue">The most days that one of them is past due; 0 where none is.</param>
/// <param name="Rows">How many ledger rows that are, settled ones included.</param>
/// <param name="IsEmpty">Whether a statement would have nothing to show.</param>
/// <param name="Reminder">The reminder that is next; null where none was asked for.</param>
public readonly record struct AccountSum(
    string Customer,
    Currency Currency,
    decimal Total,
    int OldestDaysPastDue,
    int Rows,
    bool IsEmpty,
    ReminderStep? Reminder = null
)
{
    /// <summary>The sum of the statement of one account.</summary>
    /// <param name="statement">The statement.</param>
    /// <param name="reminder">The reminder that is next for it.</param>
    public static AccountSum Of(Statement statement, ReminderStep? reminder) =>
        new(
            statement.Customer,
            statement.Currency,
            statement.Total,
            statement.OldestDaysPastDue,
            statement.Items.Count + statement.SettledRows,
            statement.IsEmpty,
            reminder
        );

    /// <summary>
    /// Several accounts in one currency as one of their head office. The account with the oldest item says which reminder is next.
    /// </summary>
    public static AccountSum Of(string headOffice, IReadOnlyList<AccountSum> accounts)
    {
        var oldest = accounts.Max(a => a.OldestDaysPastDue);
        var reminder = accounts
            .Where(a => a.OldestDaysPastDue == oldest)
            .Select(a => a.Reminder)
            .Aggregate((a, b) => a is { } one && b is { } other ? ReminderStep.Gentler(one, other) : null);
        return new(headOffice, accounts[0].Currency, accounts.Sum(a => a.Total), oldest, accounts.Sum(a => a.Rows), false, reminder);
    }
}
