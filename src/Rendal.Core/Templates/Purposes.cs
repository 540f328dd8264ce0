using Rendal.Core.Customers;
using Rendal.Core.Reminders;

namespace Rendal.Core.Templates;

/// <summary>What layouts and wordings are used for, and which one serves.</summary>
public static class Purposes
{
    /// <summary>For statements that are no reminder.</summary>
    public const string Statement = "statement";

    /// <summary>For reminders whose level has none of its own.</summary>
    public const string Reminder = "reminder";

    /// <summary>For lists of the open invoices.</summary>
    public const string InvoiceList = "invoice-list";

    /// <summary>For letters that ask to confirm a balance.</summary>
    public const string Confirmation = "confirmation";

    /// <summary>
    /// All purposes: <c>statement</c>, <c>reminder</c>, <c>reminder-1</c> to <c>reminder-9</c> for those of one level,
    /// <c>invoice-list</c>, <c>confirmation</c>.
    /// </summary>
    public static IReadOnlyList<string> All { get; } =
    [Statement, Reminder, .. Enumerable.Range(1, ReminderRules.MostLevels).Select(OfLevel), InvoiceList, Confirmation];

    /// <summary>The purpose of reminders of one level: <c>reminder-2</c>.</summary>
    public static string OfLevel(int level) => $"{Reminder}-{level}";

    /// <summary>
    /// The purposes that something sent serves, the closest first: for a reminder that of its level, then that of all reminders.
    /// </summary>
    /// <param name="kind">What the round is about.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    /// <exception cref="ArgumentOutOfRangeException">Rounds of this kind are not made from a ledger.</exception>
    public static IReadOnlyList<string> Of(RoundKind kind, int? reminderLevel) =>
        (kind, reminderLevel) switch
        {
            (_, { } level) => [OfLevel(level), Reminder],
            (RoundKind.Reminders, null) => [Reminder],
            (RoundKind.Statements, null) => [Statement],
            (RoundKind.Invoices, null) => [InvoiceList],
            (RoundKind.Confirmations, null) => [Confirmation],
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "Rounds of this kind are not made from a ledger."),
        };

    /// <summary>
    /// The one for what is sent: that of the closest purpose in its language, else of that purpose in any language, else so for the next
    /// purpose. Null where none is said.
    /// </summary>
    /// <param name="uses">What those of the book are used for.</param>
    /// <param name="purposes">The purposes, the closest first.</param>
    /// <param name="language">The code of the customer's language.</param>
    public static long? Find(IReadOnlyCollection<TemplateAssignment> uses, IReadOnlyList<string> purposes, string language)
    {
        foreach (var purpose in purposes)
        {
            foreach (var of in new[] { language, "" })
            {
                if (uses.FirstOrDefault(u => u.Purpose == purpose && u.Language == of) is { } use)
                {
                    return use.Id;
                }
            }
        }

        return null;
    }
}
