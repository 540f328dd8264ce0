namespace Rendal.Core.Dispatch;

/// <summary>What is shown of where a parcel stands: its state, or that it needs a person before it can go.</summary>
public static class ParcelStatus
{
    /// <summary>Of a prepared parcel that a person has to see to.</summary>
    public const string NeedsYou = "needs-you";

    /// <summary>All standings in the order in which parcels are listed: what needs a person comes first, what is done last.</summary>
    public static IReadOnlyList<string> ListOrder { get; } =
    [
        NeedsYou,
        .. new[]
        {
            ParcelState.Unsure,
            ParcelState.Refused,
            ParcelState.Returned,
            ParcelState.ToBeRetried,
            ParcelState.Prepared,
            ParcelState.Held,
            ParcelState.Sending,
            ParcelState.Released,
            ParcelState.Exported,
            ParcelState.Printed,
            ParcelState.Sent,
        }.Select(s => s.Code()),
    ];

    /// <summary>The standings of parcels that wait for a person, or to be sent.</summary>
    public static IReadOnlyList<string> Waiting { get; } =
    [
        NeedsYou,
        .. new[]
        {
            ParcelState.Unsure,
            ParcelState.ToBeRetried,
            ParcelState.Prepared,
            ParcelState.Held,
            ParcelState.Sending,
            ParcelState.Released,
        }.Select(s => s.Code()),
    ];

    /// <summary>
    /// Whether a parcel can be released: it is prepared, and nothing is to be seen to. One that is held, or has a problem, never is.
    /// </summary>
    /// <param name="state">Its state.</param>
    /// <param name="problem">What a person has to see to; empty for nothing.</param>
    public static bool IsReady(ParcelState state, string problem) => state == ParcelState.Prepared && problem.Length == 0;

    /// <summary>The code of its status: <see cref="NeedsYou"/>, or that of its state.</summary>
    /// <param name="state">Its state.</param>
    /// <param name="problem">What a person has to see to; empty for nothing.</param>
    public static string Of(ParcelState state, string problem) =>
        state == ParcelState.Prepared && problem.Length > 0 ? NeedsYou : state.Code();
}
