using System.Runtime.InteropServices;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Statements;

/// <summary>All ledger rows of one customer in one currency.</summary>
/// <param name="Customer">The customer's key.</param>
/// <param name="Currency">The one currency of all rows.</param>
/// <param name="Rows">The rows in the order of the file; at least one.</param>
public sealed record CustomerAccount(string Customer, Currency Currency, IReadOnlyList<LedgerRow> Rows)
{
    /// <summary>
    /// Groups rows by customer and currency. The accounts come in order of customer (ordinal), then currency.
    /// </summary>
    public static IReadOnlyList<CustomerAccount> Group(IEnumerable<LedgerRow> rows)
    {
        var groups = new Dictionary<(string Customer, Currency Currency), List<LedgerRow>>();
        foreach (var row in rows)
        {
            ref var group = ref CollectionsMarshal.GetValueRefOrAddDefault(groups, (row.Customer, row.Currency), out _);
            (group ??= []).Add(row);
        }

        var accounts = new List<CustomerAccount>(groups.Count);
        foreach (var ((customer, currency), of) in groups)
        {
            accounts.Add(new CustomerAccount(customer, currency, of));
        }

        accounts.Sort(
            (a, b) => string.CompareOrdinal(a.Customer, b.Customer) is var order and not 0 ? order : a.Currency.CompareTo(b.Currency)
        );
        return accounts;
    }
}
