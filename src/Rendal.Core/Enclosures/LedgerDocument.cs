using Rendal.Core.Ledger;

namespace Rendal.Core.Enclosures;

/// <summary>A document of a ledger that there can be a copy of.</summary>
/// <param name="Number">Its number as it is written in the ledger.</param>
/// <param name="Customer">The key of whom it was made out to.</param>
/// <param name="CustomerName">That customer’s name.</param>
public sealed record LedgerDocument(string Number, string Customer, string CustomerName)
{
    /// <summary>
    /// The documents of rows, each once. Payments, adjustments and balances are no documents that somebody keeps a copy of, and a row
    /// without a number cannot be found.
    /// </summary>
    public static IEnumerable<LedgerDocument> Of(IEnumerable<LedgerRow> rows) =>
        rows.Where(IsDocument)
            .Select(r => new LedgerDocument(r.Number, r.Customer, r.CustomerName))
            .DistinctBy(d => (d.Number, d.Customer));

    /// <summary>Whether a row is one that there can be a copy of: an invoice or a credit note with a number.</summary>
    public static bool IsDocument(LedgerRow row) =>
        row.Kind is ItemKind.Invoice or ItemKind.CreditNote && DocumentNumber.Key(row.Number).Length > 0;
}
