using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Rounds;
using Rendal.Core.Rounds;
using Rendal.Store.People;
using Rendal.Store.Rounds;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>What can be rehearsed of a round, and what was.</summary>
/// <param name="Address">The person's own address; empty where none is known.</param>
/// <param name="Picked">The three parcels that are proposed, with why.</param>
/// <param name="Rehearsals">What was rehearsed, the newest first.</param>
internal sealed record RehearsalsView(string Address, IReadOnlyList<PickedParcel> Picked, IReadOnlyList<RehearsalRecord> Rehearsals);

/// <summary>What is to be rehearsed.</summary>
/// <param name="Parcels">The parcels by number; null for all that lack nothing.</param>
/// <param name="Address">Where they go.</param>
internal sealed record RehearsalRequest(
    [property: MaxLength(100_000)] IReadOnlyList<long>? Parcels,
    [property: StringLength(320)] string Address
);

/// <summary>Which message of a rehearsal a person has looked at.</summary>
/// <param name="Parcel">The message by its parcel; null for all of the rehearsal.</param>
internal sealed record RehearsalLookRequest(long? Parcel);

/// <summary>Sending parcels to oneself first.</summary>
internal static class RehearsalEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/rounds/{id}/rehearsals</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/rounds/{id:long}/rehearsals").WithTags("Rounds");
        group.MapGet("", ListAsync);
        group.MapPost("", BeginAsync);
        group.MapPost("/{rehearsal:long}/looked-at", LookedAtAsync);
    }

    private static async Task<RehearsalsView> ListAsync(
        long id,
        BookScope scope,
        PersonStore people,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        new(
            await people.AddressAsync(scope.Person, cancel),
            await new RehearseRound(scope, clock).PickAsync(id, cancel),
            await scope.Rehearsals.OfAsync(id, cancel)
        );

    private static async Task<NoContent> BeginAsync(
        long id,
        long revision,
        RehearsalRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new RehearseRound(scope, clock).RunAsync(id, revision, request.Parcels, request.Address, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> LookedAtAsync(
        long id,
        long rehearsal,
        RehearsalLookRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        await scope.Rehearsals.LookedAtAsync(id, rehearsal, request.Parcel, scope.Person, clock.GetUtcNow(), cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.NotFound("This rehearsal");
}
