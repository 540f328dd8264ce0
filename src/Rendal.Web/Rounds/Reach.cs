using Rendal.Core.Customers;
using Rendal.Core.Rounds;
using Rendal.Store.Customers;

namespace Rendal.Web.Rounds;

/// <summary>What choosing has to know of customers beside the ledger.</summary>
/// <param name="traitsOf">The traits of a customer's card.</param>
/// <param name="headOffices">Who is whose head office.</param>
/// <param name="lastWritten">The last day on which something was sent, by customer.</param>
internal sealed class Reach(Func<string, CustomerTraits> traitsOf, HeadOffices headOffices, IReadOnlyDictionary<string, DateOnly> lastWritten)
{
    public Reachability Of(string key)
    {
        var traits = traitsOf(key);
        return new Reachability(traits.OnHold, traits.IsReachable, lastWritten.TryGetValue(key, out var last) ? last : null, traits.MinimumBalance, headOffices.TopOf(key), traits.Groups, traits.Form);
    }
}
