using System.Globalization;

namespace Rendal.Core.Ledger;

/// <summary>What people call an item.</summary>
public static class ItemName
{
    /// <summary>Its number; where it has none, its kind and date, as <c>payment of 2026-10-03</c>, or its kind alone.</summary>
    public static string Of(LedgerRow row) =>
        row.Number.Length > 0 ? row.Number
        : row.Date is { } date ? string.Create(CultureInfo.InvariantCulture, $"{row.Kind.Code()} of {date:yyyy-MM-dd}")
        : row.Kind.Code();
}
