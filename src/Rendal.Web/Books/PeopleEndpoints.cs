using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Web.Hosting;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>Somebody who has the book.</summary>
internal sealed record PersonLine(long Id, string Name, bool IsYou);

/// <summary>Who has the book, and who is invited to.</summary>
internal sealed record PeopleView(IReadOnlyList<PersonLine> People, IReadOnlyList<InvitationLine> Invitations);

/// <summary>Somebody who is invited.</summary>
internal sealed record InvitationLine(long Id, string Name, string By, DateTimeOffset GoodUntil, bool IsTooOld);

/// <summary>To whom the book is to be given.</summary>
internal sealed record GiveRequest(string Name);

/// <summary>What came of it.</summary>
/// <param name="Name">To whom.</param>
/// <param name="Key">The key of an invitation, where they cannot sign in yet; null where they have the book now. It is told here and never again.</param>
/// <param name="GoodUntil">Until when the key is taken.</param>
internal sealed record GivenView(string Name, string? Key, DateTimeOffset? GoodUntil);

/// <summary>Who may open a book. Everybody who has it may give it to others.</summary>
internal static class PeopleEndpoints
{
    private const int LongestName = 100;

    private static readonly TimeSpan Good = TimeSpan.FromDays(7);

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/people").WithTags("People");
        group.MapGet("", ViewAsync);
        group.MapPost("", GiveAsync);
        group.MapDelete("/{person:long}", TakeAsync);
        group.MapDelete("/invitations/{id:long}", async (long id, BookScope scope, CancellationToken cancel) =>
            await scope.People.WithdrawAsync(id, cancel) ? TypedResults.NoContent() : throw Unable.NotFound("This invitation"));
    }

    private static async Task<PeopleView> ViewAsync(BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return new PeopleView(
            [.. (await scope.People.ListAsync(cancel)).Select(p => new PersonLine(p.Id, p.Name, p.Id == scope.Person))],
            [.. (await scope.People.InvitationsAsync(cancel)).Select(i => new InvitationLine(i.Id, i.Name, i.By, i.GoodUntil, i.GoodUntil <= now))]);
    }

    private static async Task<GivenView> GiveAsync(GiveRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var name = request.Name.Trim();
        if (name.Length is 0 or > LongestName || name.Any(char.IsControl))
        {
            throw Unable.Invalid($"Say the name that they sign in with, or are to sign in with: at most {LongestName} characters, on one line.");
        }

        if (await scope.People.GiveAsync(name, cancel))
        {
            return new GivenView(name, null, null);
        }

        var (key, now) = (InvitationKey.New(), clock.GetUtcNow());
        await scope.People.InviteAsync(name, InvitationKey.Hash(key), scope.Person, now, now + Good, cancel);
        return new GivenView(name, key, now + Good);
    }

    private static async Task<NoContent> TakeAsync(long person, BookScope scope, CancellationToken cancel)
    {
        if (await scope.People.TakeAsync(person, cancel))
        {
            return TypedResults.NoContent();
        }

        throw (await scope.People.ListAsync(cancel)).Exists(p => p.Id == person)
            ? Unable.Conflict("Nobody else has this book, so it cannot be taken away. Give it to somebody first.")
            : Unable.NotFound("This person");
    }
}
