using Rendal.Core.Sealing;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>The parcels of a round that can be released, among those that are wanted.</summary>
/// <param name="Parcels">They, in their order.</param>
public sealed record ReadyParcels(IReadOnlyList<ParcelRecord> Parcels)
{
    /// <summary>
    /// What stands for exactly these parcels as they are sealed; another where one of them is another, or more or fewer are ready.
    /// </summary>
    public string Seen => ParcelSeal.Digest(Parcels.Select(p => (p.Id, p.Seal)));

    /// <summary>Those that are ready among all of a round.</summary>
    /// <param name="all">All parcels of the round.</param>
    /// <param name="wanted">The numbers of those that are wanted; null for all.</param>
    public static ReadyParcels Among(IEnumerable<ParcelRecord> all, IReadOnlyList<long>? wanted)
    {
        var among = wanted?.ToHashSet();
        return new([.. all.Where(p => p.IsReady && (among is null || among.Contains(p.Id)))]);
    }
}
