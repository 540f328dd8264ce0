namespace Rendal.Core.Dispatch;

/// <summary>What follows from the outcome of a try.</summary>
/// <param name="State">The parcel's new state.</param>
/// <param name="After">How long to wait before the next try; null where there is none.</param>
/// <param name="PausesSender">Whether nothing more is to be sent under this sender until a person has seen to it.</param>
public sealed record NextStep(ParcelState State, TimeSpan? After, bool PausesSender)
{
    /// <summary>The pauses between tries that hold unless set otherwise: 1, 5, 15 and 60 minutes.</summary>
    public static IReadOnlyList<TimeSpan> DefaultPauses { get; } = [.. new[] { 1, 5, 15, 60 }.Select(m => TimeSpan.FromMinutes(m))];

    /// <summary>
    /// What follows.
    /// </summary>
    /// <param name="outcome">The outcome.</param>
    /// <param name="tries">How many tries there have been, this one included: at least 1.</param>
    /// <param name="pauses">The pauses; after the last one the parcel is refused. With four pauses there are five tries.</param>
    /// <remarks>A refused sign-in uses up no try of the parcel: it waits for the sender.</remarks>
    public static NextStep Following(Outcome outcome, int tries, IReadOnlyList<TimeSpan> pauses) => outcome.Ending switch
    {
        Ending.Accepted => new(ParcelState.Sent, null, false),
        Ending.Refused => new(ParcelState.Refused, null, false),
        Ending.Unanswered => new(ParcelState.Unsure, null, false),
        Ending.SignInRefused => new(ParcelState.ToBeRetried, TimeSpan.Zero, true),
        Ending.TryLater when tries <= pauses.Count => new(ParcelState.ToBeRetried, pauses[tries - 1], false),
        Ending.TryLater => new(ParcelState.Refused, null, false),
        _ => throw new ArgumentOutOfRangeException(nameof(outcome), outcome.Ending, null),
    };
}
