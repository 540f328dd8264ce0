using Rendal.App.Books;
using Rendal.Core.Sealing;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>What changed in a round by itself since somebody looked through it.</summary>
public static class SinceLookedThrough
{
    /// <summary>In one sentence; empty where nothing did.</summary>
    public static async Task<string> OfAsync(RoundRecord round, BookStores stores, CancellationToken cancel) =>
        Told(round, await stores.Listing.ChangedAsync(round.Id, cancel));

    /// <summary>The same of some of its parcels, and of all that fell out of it.</summary>
    /// <param name="round">The round.</param>
    /// <param name="parcels">What changed of each.</param>
    public static string Of(RoundRecord round, IEnumerable<IReadOnlyList<SealPart>> parcels) => Told(round, parcels.Select(p => (p, 1)));

    private static string Told(RoundRecord round, IEnumerable<(IReadOnlyList<SealPart> Changed, int Parcels)> counts)
    {
        var since = new ChangedSince("Since this round was looked through");
        foreach (var (changed, parcels) in counts)
        {
            since.Count(changed, parcels);
        }

        since.CountGone(round.FellOut.Count);
        return since.IsNothing ? "" : since.ToString();
    }
}
