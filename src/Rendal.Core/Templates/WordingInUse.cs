using Rendal.Core.Customers;
using Rendal.Core.Reminders;

namespace Rendal.Core.Templates;

/// <summary>Which wording the message of a customer has.</summary>
/// <param name="kind">What the round is about.</param>
/// <param name="picked">The wording that was picked for the round; null for none.</param>
/// <param name="reminders">The reminder levels, some with a wording of their own.</param>
/// <param name="wordings">The name and the language of each wording that there is, by its number; at least one.</param>
/// <param name="uses">What wordings are used for.</param>
public sealed class WordingInUse(
    RoundKind kind,
    long? picked,
    ReminderRules reminders,
    IReadOnlyDictionary<long, (string Name, string Language)> wordings,
    IReadOnlyCollection<TemplateAssignment> uses
)
{
    private readonly ILookup<string, long> byName = wordings
        .OrderBy(w => w.Key)
        .ToLookup(w => w.Value.Name.Trim(), w => w.Key, StringComparer.OrdinalIgnoreCase);

    /// <summary>
    /// The one that the customer's rows name; else the one picked for the round; else, for a statement, the card's own; else, each in the
    /// customer's language first, that of the reminder's level and the book's for what goes; else the book's first. One that is not there
    /// any more counts for none. Of several of one name, the only one in the customer's language is meant; without such a one the parcel
    /// needs a person.
    /// </summary>
    /// <param name="card">The customer.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    /// <param name="named">What the customer's rows name.</param>
    public AssignedWording For(Customer card, int? reminderLevel, NamedWording named) =>
        named.Names switch
        {
            [] => Usual(card, reminderLevel),
            [var name] when Only(byName[name], card.Language) is { } id => new AssignedWording(id, WordingReason.NamedInRow),
            [var name] => Usual(card, reminderLevel) with
            {
                Problem = byName[name].Any()
                    ? $"“{name}” in “{named.Column}” is the name of more than one wording: give each a name of its own"
                    : $"“{name}” in “{named.Column}” is no wording of this book",
            },
            [var one, var other, ..] => Usual(card, reminderLevel) with
            {
                Problem = $"its rows name two wordings in “{named.Column}”, “{one}” and “{other}”",
            },
        };

    private long? Only(IEnumerable<long> ofOneName, string language) =>
        ofOneName.ToList() switch
        {
            [var id] => id,
            var several => several.Where(id => wordings[id].Language == language).ToList() is [var spoken] ? spoken : null,
        };

    private AssignedWording Usual(Customer card, int? reminderLevel)
    {
        if (picked is { } ofRound && wordings.ContainsKey(ofRound))
        {
            return new AssignedWording(ofRound, WordingReason.Picked);
        }

        if (kind == RoundKind.Statements && card.OwnWording is { } own && wordings.ContainsKey(own))
        {
            return new AssignedWording(own, WordingReason.OnCard);
        }

        var ofLevel =
            reminderLevel is { } level
            && reminders.Levels.ElementAtOrDefault(level - 1)?.Wording is { } levels
            && wordings.ContainsKey(levels)
                ? levels
                : (long?)null;
        if (ofLevel is { } spoken && wordings[spoken].Language == card.Language)
        {
            return new AssignedWording(spoken, WordingReason.OfLevel);
        }

        var purposes = Purposes.Of(kind, reminderLevel);
        return Purposes.Find([.. uses.Where(u => u.Language == card.Language)], purposes, card.Language) is { } inLanguage
                ? new AssignedWording(inLanguage, WordingReason.OfPurposeInLanguage)
            : ofLevel is { } foreign ? new AssignedWording(foreign, WordingReason.OfLevel)
            : Purposes.Find(uses, purposes, "") is { } forAny ? new AssignedWording(forAny, WordingReason.OfPurpose)
            : new AssignedWording(wordings.Keys.Min(), WordingReason.First);
    }
}
