using System.Globalization;
using CsCheck;
using Rendal.Core.Ledger;

namespace Rendal.Core.Tests;

/// <summary>
/// Random ledgers: invoices and credits around the as-of date 31 October 2026, with numbers and references that meet and miss.
/// </summary>
internal static class RandomLedger
{
    public static Gen<IReadOnlyList<LedgerRow>> Rows(string customer) => Of(Gen.Const(customer));

    public static Gen<IReadOnlyList<LedgerRow>> OfCustomers(int customers) => Of(Gen.Int[1, customers].Select(n => $"C{n:00}"));

    private static Gen<IReadOnlyList<LedgerRow>> Of(Gen<string> customer) =>
        Gen.Select(
                customer,
                Gen.Long[-50_000, 90_000],
                Gen.Int[-200, 30],
                Gen.Int[0, 60],
                Gen.Int[0, 6],
                Gen.Select(Gen.Int[0, 8], Gen.Bool, Gen.Int[0, 9], Gen.Int[0, 2]),
                (who, pennies, day, terms, number, more) =>
                {
                    var (reference, euro, held, unit) = more;
                    var date = new DateOnly(2026, 10, 31).AddDays(day);
                    return Ledgers.Row(
                        who,
                        pennies / 100m,
                        date.ToString("O", CultureInfo.InvariantCulture),
                        date.AddDays(terms).ToString("O", CultureInfo.InvariantCulture),
                        $"T{number}",
                        euro && who != "A" ? Ledgers.Euro : Ledgers.Pounds,
                        reference > 6 ? "" : $"T{reference}",
                        held == 0 ? "in dispute" : "",
                        new[] { "", "Northgate", "Harbour" }[unit]
                    );
                }
            )
            .List[0, 40]
            .Select(rows => (IReadOnlyList<LedgerRow>)rows);
}
