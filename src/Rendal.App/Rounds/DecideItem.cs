using Rendal.App.Books;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Takes an item out of a round by hand, or puts it in, or takes that back; and prepares the round anew.</summary>
public sealed class DecideItem(BookStores stores, TimeProvider clock)
{
    /// <summary>Notes what a person decides about an item in a round, in place of what was decided before.</summary>
    /// <param name="round">The round.</param>
    /// <param name="seen">The revision that the person saw.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="item">The item, by its <see cref="ItemKey"/> as text.</param>
    /// <param name="decision"><c>in</c> or <c>out</c>; null takes back what was decided.</param>
    /// <param name="reason">Why; needed with a decision.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The round or the item is not there, the reason is missing, something of the round was released,
    /// or somebody else decided about the item since.</exception>
    public async Task RunAsync(
        long round,
        long seen,
        string customer,
        string item,
        string? decision,
        string reason,
        CancellationToken cancel
    )
    {
        if (decision is not (null or "out" or "in"))
        {
            throw ProblemException.Invalid("An item can be taken out or put in.");
        }

        if (decision is not null && string.IsNullOrWhiteSpace(reason))
        {
            throw ProblemException.Invalid("Give the reason; it is listed with what is left out.");
        }

        var of = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        if (!(await stores.Ledger.RowsAsync(of.IntakeId, [customer], cancel)).Exists(r => ItemKey.Of(r).Text == item))
        {
            throw ProblemException.NotFound("This item");
        }

        await RoundConflict.DemandAsync(
            await stores.Decisions.DecideItemAsync(
                round,
                seen,
                customer,
                item,
                decision is null ? null : new ItemByHand(item, decision == "in", reason.Trim()),
                stores.Person,
                cancel
            ),
            stores,
            cancel
        );
        await new PrepareRound(stores, clock).CatchUpAsync(round, cancel);
    }
}
