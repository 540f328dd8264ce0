using System.ComponentModel.DataAnnotations;
using Rendal.App.Rounds;

namespace Rendal.Web.Rounds;

/// <summary>What a second person is told before they release a round that another one prepared.</summary>
/// <param name="Preparers">Who made the round or changed anything of what goes, by name.</param>
/// <param name="MayRelease">Whether the person who asks is none of them.</param>
/// <param name="RequestedBy">Who asked for its release; empty where nobody did.</param>
/// <param name="RequestedAt">When; null where nobody did.</param>
/// <param name="Since">What changed since, in one sentence; empty for nothing.</param>
/// <param name="LookedAtBy">Who said of a rehearsal, as the parcel is now, that they had looked at it.</param>
/// <param name="Sample">Parcels to look through, in which what can go wrong is likely to show.</param>
/// <param name="AllSeen">What stands for all parcels that are ready, as they are shown; a request names it.</param>
internal sealed record ApprovalView(
    IReadOnlyList<string> Preparers,
    bool MayRelease,
    string RequestedBy,
    DateTimeOffset? RequestedAt,
    string Since,
    IReadOnlyList<string> LookedAtBy,
    IReadOnlyList<SampledParcel> Sample,
    string AllSeen
)
{
    /// <summary>What a person is told; null where the book asks for no second person.</summary>
    public static ApprovalView? Of(ReleaseSummed summed) =>
        summed.Approval is not { } a
            ? null
            : new(
                [.. a.Preparers.Select(p => p.Name)],
                a.MayRelease,
                a.Requested?.By ?? "",
                a.Requested?.At,
                a.Since,
                a.LookedAtBy,
                a.Sample,
                a.AllSeen
            );
}

/// <summary>That a second person is asked to release a round.</summary>
/// <param name="Revision">The revision that the summary is of.</param>
/// <param name="Seen">What the summary gave for all parcels that are ready.</param>
internal sealed record AskedRelease(long Revision, [property: StringLength(64)] string Seen);
