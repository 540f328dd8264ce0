using System.ComponentModel.DataAnnotations;
using Rendal.App.Corrections;
using Rendal.Files.Pdf;
using SkiaSharp;

namespace Rendal.Web.Rounds;

/// <summary>Where on the pages of a statement stands what was taken from the ledger or a card.</summary>
/// <param name="Places">The places, in the order in which they are read.</param>
internal sealed record PlacesView(IReadOnlyList<PlaceView> Places)
{
    /// <summary>Places on pages of a size in points.</summary>
    public static PlacesView Of(IReadOnlyList<PlacedOrigin> places, SKSize page) => new([.. places.Select(p => PlaceView.Of(p, page))]);
}

/// <summary>One place.</summary>
/// <param name="From">What stands there was taken from: <c>row 12 due</c>, <c>card name</c>, <c>slot statement.total</c>.</param>
/// <param name="Page">The page, from 1.</param>
/// <param name="Left">Where it begins, as a part of the width of the page.</param>
/// <param name="Top">Where it begins, as a part of its height.</param>
/// <param name="Width">How wide it is, as a part of the width.</param>
/// <param name="Height">How high it is, as a part of the height.</param>
internal sealed record PlaceView(string From, int Page, double Left, double Top, double Width, double Height)
{
    /// <summary>A place on a page of a size in points.</summary>
    public static PlaceView Of(PlacedOrigin place, SKSize page) =>
        new(
            place.From.ToString(),
            place.Page,
            place.Area.Left / page.Width,
            place.Area.Top / page.Height,
            place.Area.Width / page.Width,
            place.Area.Height / page.Height
        );
}

/// <summary>What something in a parcel was read from.</summary>
/// <param name="Cell">The cell of the ledger file; null where the file has no such column, so that it was reckoned.</param>
internal sealed record SourceView(LedgerCell? Cell);

/// <summary>What is to hold instead of what the file says.</summary>
internal sealed record SourceRequest([property: StringLength(4_000)] string Becomes);
