using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Where a single item of a customer ends.</summary>
/// <param name="Item">The item with what is open of it after settlement.</param>
/// <param name="Reason">Why it is left out; null where it goes on the statement, or would if the customer's statement went, and for a
/// settled one.</param>
public readonly record struct ItemChosen(OpenItem Item, LeftOutReason? Reason);
