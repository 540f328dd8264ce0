namespace Rendal.Core.Ledger;

/// <summary>Where something was read.</summary>
/// <param name="File">The file's name without folders.</param>
/// <param name="Sheet">The sheet of a workbook; null for a text file.</param>
/// <param name="Row">The row, from 1, as a spreadsheet shows it: title and heading lines included.</param>
public readonly record struct SourceRef(string File, string? Sheet, int Row);
