using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Reminders;

/// <summary>To how many a level of reminders is due, in one currency.</summary>
/// <param name="Level">The level, from 1.</param>
/// <param name="Customers">How many get it.</param>
/// <param name="Overdue">What of theirs is past due; what a head office and its branches both get is counted once.</param>
public readonly record struct RemindersDue(int Level, int Customers, decimal Overdue)
{
    /// <summary>Counts the reminders of a round, level by level; a level that is due to nobody is not in it.</summary>
    /// <param name="statements">The statements that go with them.</param>
    /// <param name="currency">The currency that is looked at.</param>
    public static IReadOnlyList<RemindersDue> Of(IEnumerable<Statement> statements, Currency currency) =>
        [
            .. statements
                .Where(s => s.Currency == currency && s.ReminderLevel is not null)
                .GroupBy(s => s.ReminderLevel!.Value)
                .Select(g => new RemindersDue(g.Key, g.Count(), g.Where(s => s.AlsoOn is null).Sum(s => s.Overdue)))
                .OrderBy(d => d.Level),
        ];
}
