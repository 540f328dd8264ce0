using System.ComponentModel.DataAnnotations;
using Rendal.Core.Dispatch;
using Rendal.Store.Senders;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>How many messages a wording is for.</summary>
internal sealed record WordingCount(string Name, int Messages);

/// <summary>What is about to be released.</summary>
/// <param name="Parcels">How many parcels are ready.</param>
/// <param name="Messages">How many of them are messages.</param>
/// <param name="Letters">How many of them go by post, some beside their message.</param>
/// <param name="Rehearsed">How many of them were rehearsed as they are now.</param>
/// <param name="LookedAt">How many of those somebody said to have looked at.</param>
/// <param name="OthersReady">How many others are ready, and stay.</param>
internal sealed record ReleaseSummary(
    int Parcels,
    int Messages,
    int Letters,
    int Addresses,
    IReadOnlyList<SumView> Totals,
    string Sender,
    string Server,
    bool IsPractice,
    IReadOnlyList<WordingCount> Wordings,
    string Enclosure,
    int Rehearsed,
    int LookedAt,
    int OthersReady,
    int NeedYou,
    int Held,
    int LeftOut,
    bool CountToBeTyped
)
{
    /// <summary>How many of the messages are further ones of a parcel, which one message would be too large for.</summary>
    public required int Further { get; init; }

    /// <summary>The revision of the round; the release names it.</summary>
    public required long Revision { get; init; }

    /// <summary>What stands for exactly these parcels as they are shown; the release names it.</summary>
    public required string Seen { get; init; }

    /// <summary>When they go, as far as the sender's allowance tells.</summary>
    public required ForecastView Forecast { get; init; }

    /// <summary>
    /// What changed by itself since somebody looked at it; empty for nothing. Where it is not, the release says that it was seen.
    /// </summary>
    public required string Changed { get; init; }

    /// <summary>What a second person is told; null where the book asks for none.</summary>
    public required ApprovalView? Approval { get; init; }

    /// <summary>
    /// What is doubtful about the ledger that the round is from; empty for nothing. Where it is not, it has to be released all the same.
    /// </summary>
    public required string LedgerDoubt { get; init; }
}

/// <summary>When messages go, as far as the sender's allowance tells.</summary>
/// <param name="Today">How many go today.</param>
/// <param name="Later">How many go on the days after.</param>
/// <param name="LastDay">The day on which the last goes.</param>
/// <param name="TodaySeconds">How long those of today take at the least; null where there is no allowance a minute.</param>
internal sealed record ForecastView(int Today, int Later, DateOnly LastDay, int? TodaySeconds)
{
    /// <summary>How long sending is going to take.</summary>
    public static ForecastView Of(Forecast f) =>
        new(f.Today, f.Later, f.LastDay, f.TodayTakes is { } takes ? (int)Math.Ceiling(takes.TotalSeconds) : null);
}

/// <summary>Which parcels are about to be let go.</summary>
/// <param name="Parcels">The parcels by number; null for all that are ready.</param>
internal sealed record SummaryRequest(IReadOnlyList<long>? Parcels);

/// <summary>Which parcels are let go.</summary>
/// <param name="Parcels">The parcels by number; null for all that are ready.</param>
/// <param name="Revision">The revision that the summary is of.</param>
/// <param name="Seen">What the summary gave for those parcels; another where one of them is another now.</param>
/// <param name="Channel">How they leave.</param>
/// <param name="DespiteLedger">Whether they are let go although the ledger that the round is from was undone, or is not the
/// newest.</param>
/// <param name="SeenChanges">Whether what the summary says to have changed was seen.</param>
/// <param name="At">When they leave, by the clock of the book, as <c>2026-11-02T07:30</c>; null for now.</param>
internal sealed record ReleaseRequest(
    IReadOnlyList<long>? Parcels,
    long Revision,
    [property: StringLength(64)] string Seen,
    string? At = null,
    Channel Channel = Channel.Mail,
    bool? DespiteLedger = null,
    bool? SeenChanges = null
);

/// <summary>How sending goes.</summary>
/// <param name="Counts">How many parcels stand where.</param>
/// <param name="Paused">Whether the round waits.</param>
/// <param name="SenderPaused">Why its sender sends nothing; empty when it may.</param>
/// <param name="ServerUnreachable">What keeps the sender's server from being reached; null while it is.</param>
/// <param name="AMinute">How many messages the server takes a minute, by the last ten seconds.</param>
/// <param name="Forecast">When the rest goes, as far as the sender's allowance tells.</param>
/// <param name="Letters">How many letters were made up for the post.</param>
/// <param name="LeavesAt">When the next leaves, where that is later; null where it may go now, or none is left.</param>
internal sealed record ProgressView(
    IReadOnlyDictionary<string, long> Counts,
    bool Paused,
    string SenderPaused,
    ServerUnreachable? ServerUnreachable,
    int AMinute,
    ForecastView Forecast,
    DateTimeOffset? LeavesAt,
    int Letters
);

/// <summary>How many parcels were stopped.</summary>
/// <param name="Parcels">How many.</param>
/// <param name="IsTakenBack">Whether nothing of the round had left, so that it can be changed again.</param>
internal sealed record StoppedView(int Parcels, bool IsTakenBack);

/// <summary>How many exported parcels are counted as sent.</summary>
internal sealed record CountedAsSent(int Parcels);

/// <summary>Whether sending is to wait.</summary>
internal sealed record PauseRequest(bool Paused);
