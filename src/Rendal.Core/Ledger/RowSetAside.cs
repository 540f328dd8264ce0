using Rendal.Core.Money;

namespace Rendal.Core.Ledger;

/// <summary>
/// A row that could not become a ledger row. It still counts in the proof as far as its amount could be read,
/// and it blocks its customer's statement, because a statement that lacks a row is wrong.
/// </summary>
/// <param name="Customer">Whose it is, where that could be read.</param>
/// <param name="Currency">Its currency, where that could be read.</param>
/// <param name="Amount">Its signed amount; 0 where it could not be read.</param>
/// <param name="Source">File, sheet and row.</param>
public sealed record RowSetAside(string? Customer, Currency? Currency, decimal Amount, SourceRef Source);
