using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.App.Progress;

namespace Rendal.App.Rounds;

/// <summary>Makes a round of what did not go in a released one, from the ledger as it is now.</summary>
public sealed class MakeRest(BookStores stores, TimeProvider clock)
{
    /// <summary>Makes a round of the customers whose parcels did not go, with the settings of the released one.</summary>
    /// <param name="id">The released round.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>The number of the new one.</returns>
    /// <exception cref="ProblemException">The round is not there, there is no ledger, or nothing is left.</exception>
    public async Task<long> RunAsync(long id, CancellationToken cancel)
    {
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        var intake = await TheLedger.OfAsync(stores, cancel);
        var made = await stores.Following.MakeRestAsync(id, $"{round.Name}, the rest", intake.Id, round.Choice, stores.Person, cancel)
            ?? throw ProblemException.Conflict(
                "Nothing of this round is left: either all of it went or is on its way, or it was never released."
            );
        await new PrepareRound(stores, clock).RunAsync(made, new ProgressMeter(), cancel);
        return made;
    }
}
