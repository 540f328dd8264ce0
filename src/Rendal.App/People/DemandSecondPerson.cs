using Rendal.App.Books;

namespace Rendal.App.People;

/// <summary>Has every round of a book released by somebody else than who prepared it, or no more.</summary>
public sealed class DemandSecondPerson(BookStores stores)
{
    /// <summary>Says so.</summary>
    /// <exception cref="ProblemException">The person did not make the book, or nobody else has it.</exception>
    public async Task RunAsync(bool isNeeded, CancellationToken cancel)
    {
        if (await stores.People.DemandSecondPersonAsync(isNeeded, stores.Person, cancel))
        {
            return;
        }

        var people = await stores.People.ListAsync(cancel);
        throw people.Exists(p => p.Id == stores.Person && p.Made)
            ? ProblemException.Conflict("Nobody else has this book, so nobody could release anything. Invite somebody first.")
            : ProblemException.Conflict(
                $"Only who made the book decides that{(people.Find(p => p.Made) is { } maker ? $": {maker.Name}" : "")}."
            );
    }
}
