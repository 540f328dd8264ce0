using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.Core.People;
using Rendal.Store.People;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>Somebody who has the book.</summary>
internal sealed record PersonLine(long Id, string Name, bool IsYou, bool Made);

/// <summary>Who has the book, and who is invited to.</summary>
internal sealed record PeopleView(IReadOnlyList<PersonLine> People, IReadOnlyList<InvitationLine> Invitations);

/// <summary>Somebody who is invited.</summary>
internal sealed record InvitationLine(long Id, string Name, string By, DateTimeOffset GoodUntil, bool IsTooOld);

/// <summary>To whom the book is to be given.</summary>
internal sealed record GiveRequest(string Name);

/// <summary>What came of it.</summary>
/// <param name="Name">To whom.</param>
/// <param name="Key">The key of their invitation. It is told here and never again.</param>
/// <param name="GoodUntil">Until when the key is taken.</param>
internal sealed record GivenView(string Name, string Key, DateTimeOffset GoodUntil);

/// <summary>Who may open a book. Everybody who has it may invite others; who follows an invitation has it.</summary>
internal static class PeopleEndpoints
{
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
            [.. (await scope.People.ListAsync(cancel)).Select(p => new PersonLine(p.Id, p.Name, p.Id == scope.Person, p.Made))],
            [.. (await scope.People.InvitationsAsync(cancel)).Select(i => new InvitationLine(i.Id, i.Name, i.By, i.GoodUntil, i.GoodUntil <= now))]);
    }

    private static async Task<GivenView> GiveAsync(GiveRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var name = request.Name.Trim();
        if (PersonName.Problem(name) is { } problem)
        {
            throw Unable.Invalid(problem);
        }

        if ((await scope.People.ListAsync(cancel)).Exists(p => PersonName.Fold(p.Name) == PersonName.Fold(name)))
        {
            throw Unable.Conflict($"{name} has this book already.");
        }

        var (key, now) = (SecretKey.New(), clock.GetUtcNow());
        await scope.People.InviteAsync(name, SecretKey.Hash(key), scope.Person, now, now + Good, cancel);
        return new GivenView(name, key, now + Good);
    }

    private static async Task<NoContent> TakeAsync(long person, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await scope.People.TakeAsync(person, scope.Person, clock.GetUtcNow(), cancel) switch
        {
            Taking.Done => TypedResults.NoContent(),
            Taking.LastOne => throw Unable.Conflict("Nobody else has this book, so it cannot be taken away. Give it to somebody first."),
            Taking.TheMakers => throw Unable.Conflict("This person made the book. Only they themselves can leave it."),
            _ => throw Unable.NotFound("This person"),
        };
}
