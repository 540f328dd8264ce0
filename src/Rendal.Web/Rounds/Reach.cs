using Rendal.Core.Customers;
using Rendal.Core.Rounds;
using Rendal.Store.Customers;

namespace Rendal.Web.Rounds;

/// <summary>What choosing has to know of customers beside the ledger, each worked out once.</summary>
/// <param name="traitsOf">The traits of a customer's card; null for one that has none.</param>
/// <param name="headOffices">Who is whose head office.</param>
/// <param name="lastWritten">The last day on which something was sent, by customer.</param>
internal sealed class Reach(Func<string, CustomerTraits?> traitsOf, HeadOffices headOffices, IReadOnlyDictionary<string, DateOnly> lastWritten)
{
    private static readonly CustomerTraits Unknown = CustomerTraits.Of(new Customer { Key = "", Name = "" });

    private readonly Dictionary<string, Reachability> known = new(StringComparer.Ordinal);

    public Reachability Of(string key)
    {
        if (!known.TryGetValue(key, out var of))
        {
            var traits = traitsOf(key) ?? Unknown;
            of = new Reachability(traits.OnHold, traits.IsReachable, lastWritten.TryGetValue(key, out var last) ? last : null, traits.MinimumBalance, headOffices.TopOf(key), traits.Groups, traits.Form);
            known.Add(key, of);
        }

        return of;
    }
}
