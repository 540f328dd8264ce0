using Rendal.App.Books;

namespace Rendal.App.Rounds;

/// <summary>Asks a second person to release a round, in a book in which nobody releases what they prepared themselves.</summary>
public sealed class RequestRelease(BookStores stores, TimeProvider clock)
{
    /// <summary>Asks for it, in place of an earlier request.</summary>
    /// <param name="id">The round.</param>
    /// <param name="revision">The revision that the person saw.</param>
    /// <param name="seen">What <see cref="ReadyParcels.Seen"/> was of all that was ready in it.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The book asks for no second person, nothing is ready, or the round is not what the person
    /// saw.</exception>
    public async Task RunAsync(long id, long revision, string seen, CancellationToken cancel)
    {
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        if (!stores.Book.NeedsSecondPerson)
        {
            throw ProblemException.Conflict("In this book whoever prepared a round may release it. There is nobody to ask.");
        }

        var ready = ReadyParcels.Among(await stores.Rounds.ParcelsAsync(id, cancel), null);
        if (ready.Parcels.Count == 0)
        {
            throw ProblemException.Conflict("Nothing of this round is ready to be released.");
        }

        if (round.Revision != revision || ready.Seen != seen)
        {
            throw ProblemException.Conflict("The round is not what you were shown any more. Look at it, and ask again.");
        }

        await stores.ReleaseRequests.AskAsync(id, stores.Person, clock.GetUtcNow(), revision, seen, cancel);
    }
}
