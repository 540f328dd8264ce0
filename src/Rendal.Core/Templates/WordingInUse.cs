using Rendal.Core.Customers;
using Rendal.Core.Reminders;

namespace Rendal.Core.Templates;

/// <summary>Which wording the message of a customer has.</summary>
/// <param name="kind">What the round is about.</param>
/// <param name="ofRound">The wording of the round.</param>
/// <param name="reminders">The reminder levels, some with a wording of their own.</param>
/// <param name="languages">The language of each wording that there is, by its number.</param>
/// <param name="uses">What wordings are used for.</param>
public sealed class WordingInUse(
    RoundKind kind,
    long ofRound,
    ReminderRules reminders,
    IReadOnlyDictionary<long, string> languages,
    IReadOnlyCollection<TemplateAssignment> uses
)
{
    /// <summary>
    /// Its number: the card's own for a statement; else that of the reminder's level, or of the round; in its place, where that is in
    /// another language than the customer's, the book's for the purpose in that language. One that is not there any more counts for none.
    /// </summary>
    /// <param name="card">The customer.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    public long For(Customer card, int? reminderLevel)
    {
        if (kind == RoundKind.Statements && card.OwnWording is { } own && languages.ContainsKey(own))
        {
            return own;
        }

        var usual =
            reminderLevel is { } level
            && reminders.Levels.ElementAtOrDefault(level - 1)?.Wording is { } ofLevel
            && languages.ContainsKey(ofLevel)
                ? ofLevel
                : ofRound;
        return languages[usual] == card.Language
            ? usual
            : Purposes.Find([.. uses.Where(u => u.Language == card.Language)], Purposes.Of(kind, reminderLevel), card.Language) ?? usual;
    }
}
