using System.Globalization;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Tests;

/// <summary>Ledger rows for tests, with only what matters said.</summary>
internal static class Ledgers
{
    public static readonly Currency Pounds = Currency.Of("GBP");

    public static readonly Currency Euro = Currency.Of("EUR");

    public static LedgerRow Row(
        string customer,
        decimal open,
        string date,
        string? due = null,
        string number = "",
        Currency? currency = null,
        string reference = "",
        string held = "",
        string unit = "",
        int row = 2
    ) =>
        new()
        {
            Customer = customer,
            CustomerName = customer,
            Kind = open < 0 ? ItemKind.CreditNote : ItemKind.Invoice,
            Number = number,
            Date = DateOnly.Parse(date, CultureInfo.InvariantCulture),
            Due = DateOnly.Parse(due ?? date, CultureInfo.InvariantCulture),
            Currency = currency ?? Pounds,
            Original = open,
            Open = open,
            Reference = reference,
            Held = held,
            Unit = unit,
            Source = new SourceRef("ledger.csv", null, row),
        };
}
