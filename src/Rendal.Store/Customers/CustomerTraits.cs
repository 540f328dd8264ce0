using Rendal.Core.Customers;
using Rendal.Core.Statements;

namespace Rendal.Store.Customers;

/// <summary>What choosing has to know of a customer's card.</summary>
/// <param name="OnHold">Whether nothing is to be sent.</param>
/// <param name="IsReachable">Whether a message of the kind of round asked for can reach the customer.</param>
/// <param name="MinimumBalance">The least balance to write about; null for the round's.</param>
/// <param name="HeadOffice">The key of the head office; empty where there is none.</param>
/// <param name="Groups">Of a head office: who gets the statements.</param>
/// <param name="Form">What the statements list; null for what the book says.</param>
public sealed record CustomerTraits(
    bool OnHold,
    bool IsReachable,
    decimal? MinimumBalance,
    string HeadOffice,
    GroupStatements Groups,
    StatementForm? Form
)
{
    /// <summary>A customer who can be reached, and of whom nothing else is to be known.</summary>
    public static CustomerTraits Usual { get; } = new(false, true, null, "", GroupStatements.Branches, null);

    /// <summary>A customer without a card, who cannot be reached.</summary>
    public static CustomerTraits NoCard { get; } = Usual with { IsReachable = false };

    /// <summary>The traits of a card for a kind of round.</summary>
    public static CustomerTraits Of(Customer card, RoundKind kind) =>
        new(card.OnHold, card.IsReachedBy(kind), card.MinimumBalance, card.HeadOffice, card.Groups, card.Form);
}
