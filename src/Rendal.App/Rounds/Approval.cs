using Rendal.App.Books;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>What a second person is told before they release a round that another one prepared.</summary>
/// <param name="Preparers">Who made the round or changed anything of what goes.</param>
/// <param name="MayRelease">Whether the person who asks is none of them.</param>
/// <param name="Requested">The last request to release it; null where nobody asked.</param>
/// <param name="Since">What changed since it was asked for, in one sentence; empty for nothing, and where nobody asked.</param>
/// <param name="LookedAtBy">Who said of a rehearsal, as the parcel is now, that they had looked at it.</param>
/// <param name="Sample">Parcels to look through, in which what can go wrong is likely to show.</param>
/// <param name="AllSeen">What <see cref="ReadyParcels.Seen"/> is of all that is ready in it.</param>
public sealed record Approval(
    IReadOnlyList<Preparer> Preparers,
    bool MayRelease,
    ReleaseRequested? Requested,
    string Since,
    IReadOnlyList<string> LookedAtBy,
    IReadOnlyList<SampledParcel> Sample,
    string AllSeen
)
{
    /// <summary>What it is for a round as it stands; null where the book asks for no second person.</summary>
    /// <param name="round">The round.</param>
    /// <param name="all">All its parcels.</param>
    /// <param name="rehearsals">Its rehearsals.</param>
    /// <param name="stores">The book, and who asks.</param>
    /// <param name="cancel">Stops it.</param>
    internal static async Task<Approval?> OfAsync(
        RoundRecord round,
        IReadOnlyList<ParcelRecord> all,
        IReadOnlyList<RehearsalRecord> rehearsals,
        BookStores stores,
        CancellationToken cancel
    )
    {
        if (!stores.Book.NeedsSecondPerson)
        {
            return null;
        }

        var preparers = await stores.ReleaseRequests.PreparersAsync(round.Id, cancel);
        var requested = await stores.ReleaseRequests.FindAsync(round.Id, cancel);
        var ready = ReadyParcels.Among(all, null);
        var seen = ready.Seen;
        var byNumber = all.ToDictionary(p => p.Id);
        return new Approval(
            preparers,
            !preparers.Exists(p => p.Id == stores.Person),
            requested,
            requested is null ? "" : await SinceAsync(requested, round, seen, stores, cancel),
            [
                .. rehearsals
                    .SelectMany(r => r.Parcels)
                    .Where(p => p.IsAsNow)
                    .SelectMany(p => p.LookedAtBy)
                    .Distinct(StringComparer.Ordinal)
                    .Order(StringComparer.Ordinal),
            ],
            [
                .. RehearseRound
                    .Pick(ready.Parcels)
                    .Select(p => new SampledParcel(byNumber[p.Parcel].Customer, byNumber[p.Parcel].Name, p.Why)),
            ],
            seen
        );
    }

    private static async Task<string> SinceAsync(
        ReleaseRequested requested,
        RoundRecord round,
        string seen,
        BookStores stores,
        CancellationToken cancel
    )
    {
        if (round.ReleasedAt is null && requested.Digest == seen)
        {
            return "";
        }

        var changes = await RoundConflict.SinceAsync(
            await stores.Changes.SinceAsync(round.Id, requested.Revision, cancel),
            stores,
            cancel
        );
        return changes.Length > 0 ? changes
            : requested.Digest != seen ? "what goes is not what it was: something that it is made from was changed"
            : "";
    }
}

/// <summary>A parcel to look at.</summary>
/// <param name="Customer">Its customer's code.</param>
/// <param name="Name">Their name.</param>
/// <param name="Why">What it was picked for: <c>the longest, 41 items</c>.</param>
public sealed record SampledParcel(string Customer, string Name, string Why);
