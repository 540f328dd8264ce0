using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Dispatch;
using Rendal.Web.Books;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>The list of a round, page by page, and what of it somebody has looked at.</summary>
internal static class ParcelListEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/rounds/{id}</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/rounds/{id:long}").WithTags("Rounds");
        group.MapGet("/parcels", PageAsync);
        group.MapGet("/parcels/place", PlaceAsync);
        group.MapGet("/parcels/keys", KeysAsync);
        group.MapPost("/parcels/marked", MarkedAsync);
        group.MapGet("/parcels/next-changed", NextChangedAsync);
        group.MapGet("/left-out", LeftOutAsync);
        group.MapPost("/looked-at", LookedAtAsync);
    }

    /// <summary>A page of the parcels.</summary>
    /// <param name="id">The round.</param>
    /// <param name="from">How many come before it.</param>
    /// <param name="find">A text in the code or name; empty for all.</param>
    private static async Task<ParcelPage> PageAsync(long id, BookScope scope, CancellationToken cancel, int from = 0, string find = "")
    {
        var part = await scope.Listing.PartAsync(id, find, Math.Max(0, from), RoundEndpoints.PageSize, cancel);
        return new ParcelPage(part.Groups, Math.Max(0, from), [.. part.Parcels.Select(ParcelLine.Of)]);
    }

    /// <summary>The parcels of a part of the list, to be marked.</summary>
    /// <param name="id">The round.</param>
    /// <param name="from">How many come before them.</param>
    /// <param name="most">How many at most; none for all that follow.</param>
    /// <param name="find">A text in the code or name; empty for all.</param>
    private static async Task<List<ParcelKey>> KeysAsync(
        long id,
        BookScope scope,
        CancellationToken cancel,
        int from = 0,
        int? most = null,
        string find = ""
    ) =>
        (await scope.Listing.KeysAsync(id, find, Math.Max(0, from), most is { } m ? Math.Max(0, m) : null, cancel)).ConvertAll(
            k => new ParcelKey(k.Id, k.Customer)
        );

    /// <summary>What marked parcels come to.</summary>
    private static async Task<MarkedView> MarkedAsync(long id, MarkedRequest request, BookScope scope, CancellationToken cancel)
    {
        var sum = await scope.Marked.SumAsync(id, request.Parcels, cancel);
        return new MarkedView(
            sum.Groups.Sum(g => g.Count),
            Standing(ParcelState.Prepared),
            Standing(ParcelState.Held),
            [.. sum.Totals.OrderByDescending(t => t.Currency == scope.Book.Currency).Select(t => SumView.Of(t.Currency, t.Total))]
        );

        int Standing(ParcelState state) => sum.Groups.Where(g => g.Status == state.Code()).Sum(g => g.Count);
    }

    /// <summary>Where the parcel of a customer is in the list.</summary>
    private static async Task<ParcelPlace> PlaceAsync(
        long id,
        string customer,
        BookScope scope,
        CancellationToken cancel,
        string find = ""
    ) => new(await scope.Listing.PlaceAsync(id, find, customer, cancel));

    /// <summary>The next parcel in the list that changed since somebody looked at it; after the last comes the first.</summary>
    /// <param name="id">The round.</param>
    /// <param name="after">The place that it is looked for after.</param>
    private static async Task<NextChanged> NextChangedAsync(long id, int after, BookScope scope, CancellationToken cancel) =>
        new(await scope.Listing.NextChangedAsync(id, after, cancel));

    /// <summary>A part of what is left out.</summary>
    /// <param name="id">The round.</param>
    /// <param name="from">How many lines come before it.</param>
    /// <param name="most">How many at most; none for a page.</param>
    private static async Task<List<LeftOutLine>> LeftOutAsync(
        long id,
        BookScope scope,
        CancellationToken cancel,
        int from = 0,
        int? most = null
    ) =>
        (await scope.Listing.LeftOutAsync(id, Math.Max(0, from), Math.Max(0, most ?? RoundEndpoints.PageSize), cancel)).ConvertAll(
            LeftOutLine.Of
        );

    /// <summary>Somebody has looked at a parcel, or through the whole round; what changed of it is not marked any more.</summary>
    private static async Task<NoContent> LookedAtAsync(long id, LookedAtRequest request, BookScope scope, CancellationToken cancel)
    {
        await scope.Rounds.LookedAtAsync(id, request.PreparedAt, request.Parcel, cancel);
        return TypedResults.NoContent();
    }
}
