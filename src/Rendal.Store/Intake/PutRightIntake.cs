namespace Rendal.Store.Intake;

/// <summary>A kept ledger of which something is put right by the same file, taken in once more.</summary>
/// <param name="Intake">The ledger. Where it is the ledger of the book no more, nothing is kept.</param>
/// <param name="Round">The round in which it was seen. Where something of it was released meanwhile, nothing is kept.</param>
public sealed record PutRightIntake(long Intake, long Round);
