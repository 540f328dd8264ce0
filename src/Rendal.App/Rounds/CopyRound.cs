using Rendal.App.Books;
using Rendal.App.Ledger;

namespace Rendal.App.Rounds;

/// <summary>Makes a round like an earlier one, from the ledger that holds now. It is still to be prepared.</summary>
public sealed class CopyRound(BookStores stores, TimeProvider clock)
{
    /// <summary>
    /// Makes it with the choice, wording, layout and sender of the earlier one. Its days move along with the date, as
    /// <see cref="Core.Rounds.Choice.At"/> says. Where the person may not send under that sender, it is the first that they may. What was
    /// decided about single customers and items, and changed on single parcels, stays with the earlier one.
    /// </summary>
    /// <param name="of">The earlier round.</param>
    /// <param name="name">What the bookkeeper calls the new one.</param>
    /// <param name="asOf">The date for which its statements hold; null for today.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="ProblemException">The earlier round is not there, there is no ledger, or the name is missing.</exception>
    public async Task<long> RunAsync(long of, string name, DateOnly? asOf, CancellationToken cancel)
    {
        var settings = (await stores.Rounds.FindAsync(of, cancel) ?? throw ProblemException.NotFound("This round")).Settings;
        var intake = await TheLedger.OfAsync(stores, cancel);
        var senders = await stores.Senders.ListAsync(stores.Person, cancel);
        return await stores.Rounds.MakeAsync(
            intake.Id,
            settings with
            {
                Name = RoundName.Checked(name),
                Choice = settings.Choice.At(asOf ?? stores.Book.Today(clock)),
                Sender = senders.Exists(s => s.Id == settings.Sender) ? settings.Sender : senders[0].Id,
            },
            stores.Book.Rules,
            stores.Person,
            cancel
        );
    }
}
