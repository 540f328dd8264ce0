using Rendal.App.Books;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>
/// Holds a customer's parcel back, removes the customer from a round or puts it in, or takes that back; and prepares the round anew where
/// who is in it may be another.
/// </summary>
public sealed class DecideCustomer(BookStores stores, TimeProvider clock)
{
    /// <summary>Notes what a person decides about a customer in a round, in place of what was decided before.</summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="decision"><c>held</c>, <c>removed</c> or <c>put-in</c>; null takes back what was decided.</param>
    /// <param name="reason">Why; needed for who is removed or put in.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round or the customer is not there, the reason is missing, something of the round was
    /// released, or somebody else decided about the customer since.</exception>
    public async Task RunAsync(long round, long seen, string customer, string? decision, string reason, CancellationToken cancel)
    {
        if (decision is not (null or "held" or "removed" or "put-in"))
        {
            throw ProblemException.Invalid("A customer can be held, removed or put in.");
        }

        if (decision is "removed" or "put-in" && string.IsNullOrWhiteSpace(reason))
        {
            throw ProblemException.Invalid("Give the reason; it is listed with what is left out.");
        }

        var of = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        if (
            await stores.Customers.FindAsync(customer, cancel) is null
            && (await stores.Ledger.RowsAsync(of.IntakeId, [customer], cancel)).Count == 0
        )
        {
            throw ProblemException.NotFound("This customer");
        }

        var (update, prepareAnew) = await stores.Decisions.DecideAsync(
            round,
            seen,
            customer,
            decision is null ? null : new RoundDecision(customer, decision, reason.Trim()),
            stores.Person,
            cancel
        );
        await RoundConflict.DemandAsync(update, stores, cancel);
        if (prepareAnew)
        {
            await new PrepareRound(stores, clock).CatchUpAsync(round, cancel);
        }
    }
}
