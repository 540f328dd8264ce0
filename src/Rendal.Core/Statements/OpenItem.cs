using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>A ledger row with what is outstanding of it after settlement.</summary>
/// <param name="Row">The row as read.</param>
/// <param name="Open">What is left of it: 0 when settled in full, negative for a credit.</param>
public readonly record struct OpenItem(LedgerRow Row, decimal Open);
