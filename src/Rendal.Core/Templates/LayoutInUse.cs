using Rendal.Core.Customers;

namespace Rendal.Core.Templates;

/// <summary>Which layout the document of a customer has.</summary>
/// <param name="kind">What the round is about.</param>
/// <param name="picked">The layout that was picked for the round; null for none.</param>
/// <param name="uses">What layouts are used for.</param>
public sealed class LayoutInUse(RoundKind kind, long? picked, IReadOnlyCollection<TemplateAssignment> uses)
{
    /// <summary>
    /// Its number: the one picked for the round, else, for a statement, the card's own, else the book's for what goes, in the customer's
    /// language; null where none is said, so that the built-in one serves.
    /// </summary>
    /// <param name="card">The customer.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    public long? For(Customer card, int? reminderLevel) =>
        picked
        ?? (kind == RoundKind.Statements ? card.OwnLayout : null)
        ?? Purposes.Find(uses, Purposes.Of(kind, reminderLevel), card.Language);
}
