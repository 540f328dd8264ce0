using Rendal.App.Books;
using Rendal.Core.Sealing;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>What changed in a round by itself since somebody looked through it.</summary>
public static class SinceLookedThrough
{
    private const string Since = "Since this round was looked through";

    /// <summary>In one sentence; empty where nothing did.</summary>
    public static async Task<string> OfAsync(RoundRecord round, BookStores stores, CancellationToken cancel)
    {
        var since = new ChangedSince(Since);
        foreach (var (changed, parcels) in await stores.Listing.ChangedAsync(round.Id, cancel))
        {
            since.Count(changed, parcels);
        }

        since.CountGone(round.FellOut.Count);
        return since.IsNothing ? "" : since.ToString();
    }

    /// <summary>The same of some of its parcels, and of all that fell out of it.</summary>
    public static string Of(RoundRecord round, IEnumerable<ParcelRecord> parcels)
    {
        var since = new ChangedSince(Since);
        foreach (var parcel in parcels.Where(p => p.Changed.Count > 0))
        {
            since.Count(parcel.Changed, 1);
        }

        since.CountGone(round.FellOut.Count);
        return since.IsNothing ? "" : since.ToString();
    }
}
