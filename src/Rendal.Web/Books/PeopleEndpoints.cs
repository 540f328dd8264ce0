using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.People;

namespace Rendal.Web.Books;

/// <summary>Somebody who has the book.</summary>
internal sealed record PersonLine(long Id, string Name, bool IsYou, bool Made);

/// <summary>Who has the book, and who is invited to.</summary>
/// <param name="NeedsSecondPerson">Whether nobody may release what they prepared themselves.</param>
internal sealed record PeopleView(IReadOnlyList<PersonLine> People, IReadOnlyList<InvitationLine> Invitations, bool NeedsSecondPerson);

/// <summary>Whether nobody is to release what they prepared themselves.</summary>
internal sealed record SecondPersonRequest(bool IsNeeded);

/// <summary>Somebody who is invited.</summary>
internal sealed record InvitationLine(long Id, string Name, string By, DateTimeOffset GoodUntil, bool IsTooOld);

/// <summary>To whom the book is to be given.</summary>
internal sealed record GiveRequest(string Name);

/// <summary>Who may open a book. Everybody who has it may invite others; who follows an invitation has it.</summary>
internal static class PeopleEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/people</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/people").WithTags("People");
        group.MapGet("", ViewAsync);
        group.MapPost("", GiveAsync);
        group.MapDelete("/{person:long}", TakeAsync);
        group.MapPut("/second-person", DemandSecondPersonAsync);
        group.MapDelete("/invitations/{id:long}", async (long id, BookScope scope, CancellationToken cancel) =>
            await scope.People.WithdrawAsync(id, cancel) ? TypedResults.NoContent() : throw ProblemException.NotFound("This invitation")
        );
    }

    private static async Task<PeopleView> ViewAsync(BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        return new PeopleView(
            [.. (await scope.People.ListAsync(cancel)).Select(p => new PersonLine(p.Id, p.Name, p.Id == scope.Person, p.Made))],
            [
                .. (await scope.People.InvitationsAsync(cancel)).Select(i => new InvitationLine(
                    i.Id,
                    i.Name,
                    i.By,
                    i.GoodUntil,
                    i.GoodUntil <= now
                )),
            ],
            scope.Book.NeedsSecondPerson
        );
    }

    private static async Task<MadeInvitation> GiveAsync(
        GiveRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) => await new GiveBook(scope, clock).RunAsync(request.Name, cancel);

    private static async Task<NoContent> DemandSecondPersonAsync(SecondPersonRequest request, BookScope scope, CancellationToken cancel)
    {
        await new DemandSecondPerson(scope).RunAsync(request.IsNeeded, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> TakeAsync(long person, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new TakeBook(scope, clock).RunAsync(person, cancel);
        return TypedResults.NoContent();
    }
}
