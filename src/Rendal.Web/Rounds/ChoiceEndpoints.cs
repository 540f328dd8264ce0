using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Progress;
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

    private static async Task<List<ChoiceLine>> SaveAsync(long id, SaveChoiceRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var name = string.IsNullOrWhiteSpace(request.Name) ? throw Unable.Invalid("Give the choice a name.") : request.Name.Trim();
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        await scope.Choices.SaveAsync(name, round.Choice, scope.Person, clock.GetUtcNow(), cancel);
        return await ListAsync(scope, cancel);
    }

    /// <summary>Puts a saved choice in place of the round's; the day for which the round holds, and its period, stay the round's own.</summary>
    private static async Task<RoundView> UseAsync(long id, long choice, long revision, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var saved = await scope.Choices.FindAsync(choice, cancel) ?? throw Unable.NotFound("This choice");
        var used = saved.Choice with { AsOf = round.Choice.AsOf, PeriodFrom = round.Choice.PeriodFrom };
        await new ChangeRound(scope, clock).RunAsync(id, revision, round.Settings with { Choice = used }, new ProgressMeter(), cancel);
        return await RoundEndpoints.ViewAsync(id, scope, clock, cancel);
    }

    private static async Task<NoContent> ForgetAsync(long choice, BookScope scope, CancellationToken cancel) =>
        await scope.Choices.ForgetAsync(choice, cancel) ? TypedResults.NoContent() : throw Unable.NotFound("This choice");
}
