using Rendal.App.Books;
using Rendal.Core.Intake;

namespace Rendal.App.Corrections;

/// <summary>Makes one customer of two, in every ledger that is kept from now on.</summary>
public sealed class JoinCustomers(BookStores stores, TimeProvider clock)
{
    /// <summary>Gives the rows of one key to another, in each file that is read from now on.</summary>
    /// <param name="customer">The key that is given up.</param>
    /// <param name="with">The key that stays.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">They are the same, one has no key, or they are joined the other way round.</exception>
    public async Task RunAsync(string customer, string with, CancellationToken cancel)
    {
        if (customer == with || customer.Length == 0 || with.Length == 0)
        {
            throw ProblemException.Invalid("Two different customers are needed to make one of them.");
        }

        var holding = new AppliedCorrections(new Reading(1, []), await stores.Corrections.HoldingAsync(cancel));
        if (holding.CustomerOf(with) == customer)
        {
            throw ProblemException.Conflict($"{with} is joined with {customer} already; take that back first.");
        }

        await stores.Corrections.AddAsync(
            new Correction
            {
                Kind = CorrectionKind.CustomersJoined,
                Was = customer,
                Becomes = with,
            },
            default,
            stores.Person,
            clock.GetUtcNow(),
            cancel
        );
    }
}
