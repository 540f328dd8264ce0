using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Rounds;
using Rendal.Store.Customers;

namespace Rendal.App.Rounds;

/// <summary>What choosing has to know of customers beside the ledger.</summary>
/// <param name="traitsOf">The traits of a customer's card.</param>
/// <param name="headOffices">Who is whose head office.</param>
/// <param name="lastWritten">The last day on which something was sent, by customer.</param>
public sealed class Reach(
    Func<string, CustomerTraits> traitsOf,
    HeadOffices headOffices,
    IReadOnlyDictionary<string, DateOnly> lastWritten
)
{
    /// <summary>For a kind of round and the customers of a ledger, from the cards of those of whom something is to be known.</summary>
    public static async Task<Reach> OfLedgerAsync(
        BookStores stores,
        long intake,
        RoundKind kind,
        IReadOnlyDictionary<string, DateOnly> lastWritten,
        CancellationToken cancel
    )
    {
        var traits = await stores.Customers.TraitsAsync(intake, kind, cancel);
        var offices = new HeadOffices(
            traits.Where(t => t.Value.HeadOffice.Length > 0).ToDictionary(t => t.Key, t => t.Value.HeadOffice, StringComparer.Ordinal)
        );
        return new Reach(key => traits.GetValueOrDefault(key, CustomerTraits.Usual), offices, lastWritten);
    }

    /// <summary>What choosing has to know of a customer.</summary>
    /// <param name="key">The customer.</param>
    public Reachability Of(string key)
    {
        var traits = traitsOf(key);
        return new Reachability(
            traits.OnHold,
            traits.IsReachable,
            lastWritten.TryGetValue(key, out var last) ? last : null,
            traits.MinimumBalance,
            headOffices.TopOf(key),
            traits.Groups,
            traits.Form
        );
    }
}
