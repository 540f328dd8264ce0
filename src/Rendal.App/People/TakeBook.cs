using Rendal.App.Books;
using Rendal.Store.People;

namespace Rendal.App.People;

/// <summary>Takes a book from somebody who has it.</summary>
public sealed class TakeBook(BookStores stores, TimeProvider clock)
{
    /// <summary>Takes the book from a person. What they did in it stays on record under their name.</summary>
    /// <param name="person">From whom.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">They do not have it, are the last who has it, or made it and somebody else takes it.</exception>
    public async Task RunAsync(long person, CancellationToken cancel)
    {
        var taken = await stores.People.TakeAsync(person, stores.Person, clock.GetUtcNow(), cancel);
        if (taken != Taking.Done)
        {
            throw taken switch
            {
                Taking.LastOne => ProblemException.Conflict(
                    "Nobody else has this book, so it cannot be taken away. Give it to somebody first."
                ),
                Taking.TheMakers => ProblemException.Conflict("This person made the book. Only they themselves can leave it."),
                _ => ProblemException.NotFound("This person"),
            };
        }
    }
}
