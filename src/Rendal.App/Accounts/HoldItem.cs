using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.Core.Rounds;

namespace Rendal.App.Accounts;

/// <summary>Holds an item back from every round, or no longer.</summary>
public sealed class HoldItem(BookStores stores, TimeProvider clock)
{
    /// <summary>
    /// Holds an item back from all rounds that are prepared from now on; one that is held already gets the new reason and day.
    /// </summary>
    /// <param name="customer">Whose item it is.</param>
    /// <param name="item">The item, by its key as text.</param>
    /// <param name="note">Why; needed.</param>
    /// <param name="until">The day on which it comes up again; null for until somebody ends it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The reason is missing, the day does not lie ahead, there is no ledger, or the item is not in
    /// it.</exception>
    public async Task RunAsync(string customer, string item, string note, DateOnly? until, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(note))
        {
            throw ProblemException.Invalid("Say why it is held back.");
        }

        if (until <= stores.Book.Today(clock))
        {
            throw ProblemException.Invalid("The day on which it comes up again has to lie ahead.");
        }

        await KnownItem.OfAsync(stores, (await TheLedger.OfAsync(stores, cancel)).Id, customer, item, cancel);
        await stores.Holds.HoldAsync(customer, new ItemHold(item, note.Trim(), until), stores.Person, clock.GetUtcNow(), cancel);
    }

    /// <summary>Lets an item into rounds again before its day has come.</summary>
    /// <exception cref="ProblemException">It is not held back.</exception>
    public async Task EndAsync(string item, CancellationToken cancel)
    {
        if (!await stores.Holds.EndAsync(item, stores.Person, clock.GetUtcNow(), cancel))
        {
            throw ProblemException.Conflict("This item is not held back any more.");
        }
    }
}
