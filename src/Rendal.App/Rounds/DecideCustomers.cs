using Rendal.App.Books;

namespace Rendal.App.Rounds;

/// <summary>
/// Holds the parcels of customers back, removes customers from a round or puts them in, or takes that back; and prepares the round anew
/// where who is in it may be another.
/// </summary>
public sealed class DecideCustomers(BookStores stores, TimeProvider clock)
{
    private const string LetGo = "let-go";

    /// <summary>
    /// Notes what a person decides about customers in a round, in place of what was decided before: about all of them or none.
    /// </summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customers">The customers.</param>
    /// <param name="decision"><c>held</c>, <c>removed</c> or <c>put-in</c>; <c>let-go</c> takes back that they are held, and nothing else
    /// that was decided; null takes back whatever was.</param>
    /// <param name="reason">Why; needed for who is removed or put in.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round or a customer is not there, the reason is missing, something of the round was
    /// released, or somebody else decided about one of the customers since.</exception>
    public async Task RunAsync(
        long round,
        long seen,
        IReadOnlyList<string> customers,
        string? decision,
        string reason,
        CancellationToken cancel
    )
    {
        if (decision is not (null or "held" or "removed" or "put-in" or LetGo))
        {
            throw ProblemException.Invalid("A customer can be held, let go, removed or put in.");
        }

        if (decision is "removed" or "put-in" && string.IsNullOrWhiteSpace(reason))
        {
            throw ProblemException.Invalid("Give the reason; it is listed with what is left out.");
        }

        var of = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        if (decision == LetGo)
        {
            var held = (await stores.Decisions.OfCustomersAsync(round, cancel)).Where(d => d.Decision == "held").Select(d => d.Customer);
            (customers, decision) = ([.. customers.Intersect(held, StringComparer.Ordinal)], null);
        }

        var known = await stores.Customers.NamesAsync([.. customers], cancel);
        string[] without = [.. customers.Where(c => !known.ContainsKey(c))];
        if (without.Length > 0)
        {
            var inLedger = (await stores.Ledger.RowsAsync(of.IntakeId, without, cancel))
                .Select(r => r.Customer)
                .ToHashSet(StringComparer.Ordinal);
            if (without.FirstOrDefault(c => !inLedger.Contains(c)) is { } nobody)
            {
                throw ProblemException.NotFound(customers.Count == 1 ? "This customer" : $"The customer {nobody}");
            }
        }

        var (update, prepareAnew) = await stores.Decisions.DecideAsync(
            round,
            seen,
            customers.ToHashSet(StringComparer.Ordinal),
            decision,
            decision is null ? "" : reason.Trim(),
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
