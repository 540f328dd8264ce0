using Rendal.App.Books;
using Rendal.Core.Wordings;
using Rendal.Store;

namespace Rendal.App.Wordings;

/// <summary>Stores a wording, as far as it can stand in a message: markup that cannot is dropped.</summary>
public sealed class StoreWording(BookStores stores, TimeProvider clock)
{
    /// <summary>Adds a wording to the book.</summary>
    /// <returns>Its number.</returns>
    /// <exception cref="ProblemException">It has no name, a language that is not known, or a picture that is not one of the
    /// book.</exception>
    public async Task<long> AddAsync(Wording wording, CancellationToken cancel) =>
        await stores.Wordings.AddAsync(await CheckedAsync(wording, cancel), stores.Person, cancel);

    /// <summary>Changes a wording. Rounds that use it follow, but for what was released.</summary>
    /// <param name="id">The wording.</param>
    /// <param name="version">The version that was changed.</param>
    /// <param name="wording">What it is to be.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">As for <see cref="AddAsync"/>; or it is not there, or somebody else changed it
    /// since.</exception>
    public async Task ChangeAsync(long id, long version, Wording wording, CancellationToken cancel)
    {
        switch (
            await stores.Wordings.UpdateAsync(id, version, await CheckedAsync(wording, cancel), stores.Person, clock.GetUtcNow(), cancel)
        )
        {
            case Update.Done:
                return;
            case Update.Stale:
                throw ProblemException.Conflict(
                    $"{await stores.Wordings.ChangedByAsync(id, cancel) ?? "Somebody"} changed this wording since you opened "
                        + "it. What you wrote is still here; save again to put it in the place of theirs."
                );
            default:
                throw ProblemException.NotFound("This wording");
        }
    }

    private async Task<Wording> CheckedAsync(Wording given, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(given.Name))
        {
            throw ProblemException.Invalid("Give the wording a name.");
        }

        if (given.Name.Trim().Length > Wording.LongestName)
        {
            throw ProblemException.Invalid($"The name of a wording has at most {Wording.LongestName} characters.");
        }

        if (!Language.TryParse(given.Language, out var language))
        {
            throw ProblemException.Invalid($"“{given.Language}” is not a language that is known.");
        }

        var (subject, body) = await MessageWords.CheckedAsync(stores, given.Subject, given.Body, cancel);
        return new Wording(given.Name.Trim(), language.Code, subject, body);
    }
}
