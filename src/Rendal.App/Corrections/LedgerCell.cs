namespace Rendal.App.Corrections;

/// <summary>The cell of a ledger file that something in a parcel was read from.</summary>
/// <param name="File">The name of the file.</param>
/// <param name="Sheet">The sheet; null for a text file.</param>
/// <param name="Row">The row, as a spreadsheet numbers it.</param>
/// <param name="Heading">The heading of the column.</param>
/// <param name="Says">What the file says there.</param>
/// <param name="Holds">What holds instead, by a correction; the same where there is none.</param>
/// <param name="IsNow">Whether the file is the ledger of the book and nothing of the round was released, so that it can be put right.</param>
public sealed record LedgerCell(string File, string? Sheet, int Row, string Heading, string Says, string Holds, bool IsNow);
