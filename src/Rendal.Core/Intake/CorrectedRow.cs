namespace Rendal.Core.Intake;

/// <summary>A ledger row that a correction has made what it is.</summary>
/// <param name="Row">The row of the file.</param>
/// <param name="Correction">The correction.</param>
public readonly record struct CorrectedRow(int Row, Correction Correction);
