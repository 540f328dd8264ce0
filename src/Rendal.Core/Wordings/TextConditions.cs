using Rendal.Core.Statements;

namespace Rendal.Core.Wordings;

/// <summary>Conditions under which words stand.</summary>
public static class TextConditions
{
    private static readonly Dictionary<string, TextWhen> ByName = new(StringComparer.Ordinal)
    {
        ["overdue"] = TextWhen.Overdue,
        ["not-overdue"] = TextWhen.NotOverdue,
        ["reminder"] = TextWhen.Reminder,
        ["no-reminder"] = TextWhen.NoReminder,
        ["one-item"] = TextWhen.OneItem,
        ["several-items"] = TextWhen.SeveralItems,
        ["they-owe"] = TextWhen.TheyOwe,
        ["we-owe"] = TextWhen.WeOwe,
        ["balanced"] = TextWhen.Balanced,
        ["credits"] = TextWhen.Credits,
        ["interest"] = TextWhen.Interest,
        ["group"] = TextWhen.Group,
        ["copies"] = TextWhen.Copies,
        ["no-copies"] = TextWhen.NoCopies,
    };

    /// <summary>The names of all conditions: <c>not-overdue</c>.</summary>
    public static IReadOnlyCollection<string> Names => ByName.Keys;

    /// <summary>The condition of a name; null where there is none.</summary>
    public static TextWhen? Find(string name) => ByName.TryGetValue(name, out var when) ? when : null;

    /// <summary>The conditions that hold for what one customer gets.</summary>
    /// <param name="statements">The statements; at least one.</param>
    /// <param name="reminderLevel">The level of the reminder; null for none.</param>
    /// <param name="hasCopies">Whether copies of invoices are enclosed.</param>
    public static IReadOnlySet<TextWhen> Holding(IReadOnlyList<Statement> statements, int? reminderLevel, bool hasCopies = false)
    {
        var holding = new HashSet<TextWhen>
        {
            TextWhen.Always,
            statements.Any(s => s.Overdue > 0) ? TextWhen.Overdue : TextWhen.NotOverdue,
            reminderLevel is null ? TextWhen.NoReminder : TextWhen.Reminder,
            statements.Sum(s => s.Items.Count) == 1 ? TextWhen.OneItem : TextWhen.SeveralItems,
            hasCopies ? TextWhen.Copies : TextWhen.NoCopies,
        };
        Hold(TextWhen.TheyOwe, statements.Any(s => s.Total > 0));
        Hold(TextWhen.WeOwe, statements.Any(s => s.Total < 0));
        Hold(TextWhen.Balanced, statements.All(s => s.Total == 0));
        Hold(TextWhen.Credits, statements.Any(s => s.Ageing.Credits < 0));
        Hold(TextWhen.Interest, statements.Any(s => s.Interest.Count > 0));
        Hold(TextWhen.Group, statements.Any(s => s.Accounts.Count > 1));
        return holding;

        void Hold(TextWhen when, bool holds)
        {
            if (holds)
            {
                holding.Add(when);
            }
        }
    }
}
