namespace Rendal.Core.Dispatch;

/// <summary>What follows from the outcome of a try.</summary>
/// <param name="State">The parcel's new state.</param>
/// <param name="After">How long to wait before the next try; null where there is none.</param>
/// <param name="Sender">What follows for the sender, and so for all its other parcels.</param>
public sealed record NextStep(ParcelState State, TimeSpan? After, SenderStep Sender = SenderStep.GoesOn)
{
    /// <summary>The pauses between attempts that hold unless set otherwise: 1, 5, 15 and 60 minutes.</summary>
    public static IReadOnlyList<TimeSpan> DefaultPauses { get; } = [.. new[] { 1, 5, 15, 60 }.Select(m => TimeSpan.FromMinutes(m))];

    /// <summary>
    /// Whether the try is one of those after which a parcel is refused. What went wrong before the server heard of it is not.
    /// </summary>
    public bool CountsAsTry => Sender == SenderStep.GoesOn;

    /// <summary>
    /// What follows.
    /// </summary>
    /// <param name="outcome">The outcome.</param>
    /// <param name="attempts">How many attempts there have been, this one included: at least 1.</param>
    /// <param name="pauses">The pauses; after the last one the parcel is refused. With four pauses there are five attempts.</param>
    /// <param name="someHaveIt">Whether recipients of the parcel got it at an earlier try; what is refused then is refused for the others
    /// alone.</param>
    /// <remarks>
    /// A message that was taken for some recipients and put off (4yz) for others is tried again for these; when the pauses are used up it
    /// counts as sent, and the log says who did not get it.
    /// </remarks>
    public static NextStep Following(Outcome outcome, int attempts, IReadOnlyList<TimeSpan> pauses, bool someHaveIt = false) =>
        outcome.Kind switch
        {
            OutcomeKind.Accepted when outcome.PutOff && attempts <= pauses.Count => new(ParcelState.ToBeRetried, pauses[attempts - 1]),
            OutcomeKind.Accepted => new(ParcelState.Sent, null),
            OutcomeKind.Refused => new(someHaveIt ? ParcelState.Sent : ParcelState.Refused, null),
            OutcomeKind.Unanswered => new(ParcelState.Unsure, null),
            OutcomeKind.Exported => new(ParcelState.Exported, null),
            OutcomeKind.Printed => new(ParcelState.Printed, null),
            OutcomeKind.SignInRefused => new(ParcelState.ToBeRetried, TimeSpan.Zero, SenderStep.Stops),
            OutcomeKind.Unreachable => new(ParcelState.ToBeRetried, TimeSpan.Zero, SenderStep.Waits),
            OutcomeKind.Stopped => new(ParcelState.ToBeRetried, TimeSpan.Zero),
            OutcomeKind.TryLater when attempts <= pauses.Count => new(ParcelState.ToBeRetried, pauses[attempts - 1]),
            OutcomeKind.TryLater => new(someHaveIt ? ParcelState.Sent : ParcelState.Refused, null),
            _ => throw new ArgumentOutOfRangeException(nameof(outcome), outcome.Kind, null),
        };

    /// <summary>
    /// How long a sender waits when its server could not be reached for the nth time in a row: 10 and 30 seconds, 1, 2, and from then on 5
    /// minutes.
    /// </summary>
    /// <param name="times">How often in a row: at least 1.</param>
    public static TimeSpan Waiting(int times) =>
        TimeSpan.FromSeconds(
            times switch
            {
                1 => 10,
                2 => 30,
                3 => 60,
                4 => 120,
                _ => 300,
            }
        );
}
