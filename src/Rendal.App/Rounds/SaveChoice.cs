using Rendal.App.Books;

namespace Rendal.App.Rounds;

/// <summary>Saves the choice of a round under a name, to be used in others.</summary>
public sealed class SaveChoice(BookStores stores, TimeProvider clock)
{
    /// <summary>Saves it; one of the same name is replaced.</summary>
    /// <param name="round">The round.</param>
    /// <param name="name">The name; blanks around it do not count.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The name is empty, or the round is not there.</exception>
    public async Task RunAsync(long round, string name, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(name))
        {
            throw ProblemException.Invalid("Give the choice a name.");
        }

        var of = await stores.Rounds.FindAsync(round, cancel) ?? throw ProblemException.NotFound("This round");
        await stores.Choices.SaveAsync(name.Trim(), of.Choice, stores.Person, clock.GetUtcNow(), cancel);
    }
}
