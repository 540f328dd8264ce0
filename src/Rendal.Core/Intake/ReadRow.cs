using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>What became of one row of a file: a ledger row, or a row set aside. Exactly one of the two is there.</summary>
/// <param name="Row">The ledger row.</param>
/// <param name="SetAside">The row that could not be used; the reasons stand in the findings.</param>
public readonly record struct ReadRow(LedgerRow? Row, RowSetAside? SetAside);
