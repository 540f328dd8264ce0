using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Review;
using Rendal.Core.Review;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>A remark on a message.</summary>
/// <param name="Says">What is wrong, one sentence.</param>
/// <param name="Place">The line that it stands in, cut around it.</param>
/// <param name="Quote">The words that it is about.</param>
internal sealed record RemarkView(RemarkCode Code, string Says, string Place, string Quote, bool InSubject)
{
    /// <summary>A remark as it is shown.</summary>
    public static RemarkView Of(Remark remark) => new(remark.Code, remark.Says, remark.Place, remark.Quote, remark.InSubject);
}

/// <summary>A parcel that has a remark.</summary>
internal sealed record RemarkedParcel(long Id, string Customer, string Name);

/// <summary>The same remark on parcels of a round.</summary>
/// <param name="Wording">The wording, by number.</param>
/// <param name="Count">How many parcels have it.</param>
/// <param name="First">The first of them.</param>
internal sealed record RemarkGroup(long Wording, RemarkView Remark, int Count, IReadOnlyList<RemarkedParcel> First);

/// <summary>A wording of a round.</summary>
/// <param name="Wording">It, by number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Parcels">How many parcels go with it.</param>
/// <param name="Passages">What its passages under conditions on values are seldom meant to do, one sentence each.</param>
internal sealed record RoundWording(long Wording, string Name, int Parcels, IReadOnlyList<string> Passages);

/// <summary>What catches the eye in the messages of a round.</summary>
/// <param name="Remarks">What nobody said is meant so, the most serious first.</param>
/// <param name="Parcels">How many parcels have one.</param>
/// <param name="Wordings">The wordings that they are filled from, the one of most parcels first.</param>
internal sealed record RoundRemarks(IReadOnlyList<RemarkGroup> Remarks, int Parcels, IReadOnlyList<RoundWording> Wordings);

/// <summary>What is meant so in the messages that are filled from a wording.</summary>
/// <param name="Code">The kind of remark.</param>
/// <param name="Quote">The words that it is about.</param>
internal sealed record MeantRequest(RemarkCode Code, [property: StringLength(2_000)] string Quote);

/// <summary>What catches the eye in messages, and what of it is meant so.</summary>
internal static class RemarkEndpoints
{
    /// <summary>The endpoints of a book about it.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Remarks");
        group.MapGet("/rounds/{round:long}/remarks", OfRoundAsync);
        group.MapGet("/wordings/{wording:long}/meant", MeantAsync);
        group.MapPost("/wordings/{wording:long}/meant", MeanAsync);
        group.MapPost("/wordings/{wording:long}/meant-no-more", MeanNoMoreAsync);
    }

    private static async Task<RoundRemarks> OfRoundAsync(long round, BookScope scope, CancellationToken cancel) =>
        new(
            [
                .. (await scope.Remarks.OfRoundAsync(round, cancel)).Select(r => new RemarkGroup(
                    r.Wording,
                    RemarkView.Of(r.Remark),
                    r.Count,
                    [.. r.First.Select(p => new RemarkedParcel(p.Id, p.Customer, p.Name))]
                )),
            ],
            await scope.Remarks.CountAsync(round, cancel),
            [.. (await RoundPassages.OfAsync(scope, round, cancel)).Select(p => new RoundWording(p.Wording, p.Name, p.Parcels, p.Says))]
        );

    private static async Task<List<MeantRequest>> MeantAsync(long wording, BookScope scope, CancellationToken cancel) =>
        (await scope.Remarks.MeantAsync(wording, cancel)).ConvertAll(m => new MeantRequest(m.Code, m.Quote));

    private static async Task<NoContent> MeanAsync(long wording, MeantRequest meant, BookScope scope, CancellationToken cancel)
    {
        if (await scope.Wordings.FindAsync(wording, cancel) is null)
        {
            throw ProblemException.NotFound("This wording");
        }

        await scope.Remarks.MeanAsync(wording, meant.Code, meant.Quote, scope.Person, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> MeanNoMoreAsync(long wording, MeantRequest meant, BookScope scope, CancellationToken cancel)
    {
        await scope.Remarks.MeanNoMoreAsync(wording, meant.Code, meant.Quote, cancel);
        return TypedResults.NoContent();
    }
}
