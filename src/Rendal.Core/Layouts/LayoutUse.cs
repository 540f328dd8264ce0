namespace Rendal.Core.Layouts;

/// <summary>What a layout is used for.</summary>
/// <param name="Purpose">One of <see cref="LayoutUses.Purposes"/>.</param>
/// <param name="Language">The code of the language of those who get it; empty for any.</param>
/// <param name="Layout">The layout's number.</param>
public sealed record LayoutUse(string Purpose, string Language, long Layout);

/// <summary>Finds the layout for what is sent.</summary>
public static class LayoutUses
{
    /// <summary>For statements that are no reminder.</summary>
    public const string Statement = "statement";

    /// <summary>For reminders whose level has no layout of its own.</summary>
    public const string Reminder = "reminder";

    /// <summary>All purposes: <c>statement</c>, <c>reminder</c>, and <c>reminder-1</c> to <c>reminder-9</c> for those of one level.</summary>
    public static IReadOnlyList<string> Purposes { get; } = [Statement, Reminder, .. Enumerable.Range(1, Reminders.ReminderRules.MostLevels).Select(OfLevel)];

    /// <summary>
    /// The layout for a document: that of its purpose in its language, else of its purpose in any language; for a reminder
    /// that of its level first. Null where none is said, which leaves the one that is there before any was made.
    /// </summary>
    /// <param name="uses">What the layouts of the book are used for.</param>
    /// <param name="reminderLevel">The level of a reminder; null for a statement.</param>
    /// <param name="language">The code of the customer's language.</param>
    public static long? Find(IReadOnlyCollection<LayoutUse> uses, int? reminderLevel, string language)
    {
        string[] purposes = reminderLevel is { } level ? [OfLevel(level), Reminder] : [Statement];
        foreach (var purpose in purposes)
        {
            foreach (var of in new[] { language, "" })
            {
                if (uses.FirstOrDefault(u => u.Purpose == purpose && u.Language == of) is { } use)
                {
                    return use.Layout;
                }
            }
        }

        return null;
    }

    private static string OfLevel(int level) => $"{Reminder}-{level}";
}
