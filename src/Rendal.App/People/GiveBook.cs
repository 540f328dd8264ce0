using Rendal.App.Books;
using Rendal.Core.People;

namespace Rendal.App.People;

/// <summary>An invitation to a book.</summary>
/// <param name="Name">The name that whoever follows it signs in with.</param>
/// <param name="Key">Its key. It is told here and never again.</param>
/// <param name="GoodUntil">Until when the key is taken.</param>
public sealed record MadeInvitation(string Name, string Key, DateTimeOffset GoodUntil);

/// <summary>Invites somebody to a book, who has it once they have followed.</summary>
public sealed class GiveBook(BookStores stores, TimeProvider clock)
{
    private static readonly TimeSpan Good = TimeSpan.FromDays(7);

    /// <summary>Invites them. Who was invited already gets a new key, and the old one is good no more.</summary>
    /// <param name="name">Their name; blanks around it do not count.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">Nobody can have such a name, or somebody of that name, or one that looks like it, has the
    /// book.</exception>
    public async Task<MadeInvitation> RunAsync(string name, CancellationToken cancel)
    {
        var trimmed = name.Trim();
        if (PersonName.Problem(trimmed) is { } problem)
        {
            throw ProblemException.Invalid(problem);
        }

        if ((await stores.People.ListAsync(cancel)).Exists(p => PersonName.Fold(p.Name) == PersonName.Fold(trimmed)))
        {
            throw ProblemException.Conflict($"{trimmed} has this book already.");
        }

        var (key, now) = (SecretKey.New(), clock.GetUtcNow());
        await stores.People.InviteAsync(trimmed, SecretKey.Hash(key), stores.Person, now, now + Good, cancel);
        return new MadeInvitation(trimmed, key, now + Good);
    }
}
