using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Rounds;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>A saved choice in a list.</summary>
internal sealed record ChoiceLine(long Id, string Name);

/// <summary>The name under which the choice of a round is saved.</summary>
internal sealed record SaveChoiceRequest([property: StringLength(200)] string Name);

/// <summary>Choices under a name: saved from one round, used in another.</summary>
internal static class ChoiceEndpoints
{
    /// <summary>The endpoints of a book about choices that were given a name, and about what a choice comes to in a round.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var choices = book.MapGroup("/choices").WithTags("Choices");
        choices.MapGet("", ListAsync);
        choices.MapDelete("/{choice:long}", ForgetAsync);
        var round = book.MapGroup("/rounds/{id:long}/choices").WithTags("Choices");
        round.MapPost("", SaveAsync);
        round.MapPost("/{choice:long}", UseAsync);
    }

    private static async Task<List<ChoiceLine>> ListAsync(BookScope scope, CancellationToken cancel) =>
        [.. (await scope.Choices.ListAsync(cancel)).Select(c => new ChoiceLine(c.Id, c.Name))];

    private static async Task<List<ChoiceLine>> SaveAsync(
        long id,
        SaveChoiceRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new SaveChoice(scope, clock).RunAsync(id, request.Name, cancel);
        return await ListAsync(scope, cancel);
    }

    private static async Task<RoundView> UseAsync(
        long id,
        long choice,
        long revision,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new UseChoice(scope, clock).RunAsync(id, choice, revision, cancel);
        return await RoundEndpoints.ViewAsync(id, scope, clock, cancel);
    }

    private static async Task<NoContent> ForgetAsync(long choice, BookScope scope, CancellationToken cancel) =>
        await scope.Choices.ForgetAsync(choice, cancel) ? TypedResults.NoContent() : throw ProblemException.NotFound("This choice");
}
