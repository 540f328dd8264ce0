using Rendal.App.Books;
using Rendal.Core.Rounds;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Says what a choice would come to, before parcels are made up for it.</summary>
public sealed class CountChoice(BookStores stores)
{
    /// <summary>Counts it from the sums of accounts that the round was made up with.</summary>
    /// <param name="id">The round.</param>
    /// <param name="choice">The choice.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Null where it wants other items than the round was made up with, or the round was not made up yet: making up the parcels
    /// goes through the ledger; it is not done here as well.</returns>
    /// <exception cref="ProblemException">There is no round of this number.</exception>
    public async Task<ChosenCount?> RunAsync(long id, Choice choice, CancellationToken cancel)
    {
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        var hand = await RoundContent.ByHandAsync(stores, id, await stores.Decisions.OfCustomersAsync(id, cancel), cancel);
        var written = choice.WrittenSince is { } since ? await stores.Rounds.LastWrittenAsync(stores.Book.StartOf(since), cancel) : [];
        var reading = Reach.OfLedgerAsync(stores, round.IntakeId, choice.Kind, written, cancel);
        var found = await stores.AccountSums.FindAsync(id, new RoundBasis(choice, hand, stores.Book.Rules), cancel);
        var reach = await reading;
        return found is { } sums
            ? Choosing.Count(
                sums.Accounts,
                sums.ItemsLeftOut,
                await stores.Ledger.SetAsideAsync(round.IntakeId, null, cancel),
                choice,
                reach.Of,
                hand
            )
            : null;
    }
}
