namespace Rendal.Core.Statements;

/// <summary>
/// What a person has said about a payment or credit. It is remembered over later intakes, in which the items are known again by their
/// <see cref="Ledger.ItemKey"/>.
/// </summary>
/// <param name="Credit">The key of the payment or credit.</param>
/// <param name="Charge">The key of the item that it is set against; null where it is to stay a credit, set against nothing.</param>
/// <param name="Amount">How much of it; null for as much as both have open. More than that is never set.</param>
public sealed record SettledByHand(string Credit, string? Charge, decimal? Amount);
