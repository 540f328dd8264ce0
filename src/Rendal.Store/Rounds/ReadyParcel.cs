using Rendal.Core.Sealing;

namespace Rendal.Store.Rounds;

/// <summary>What a release has to know of a parcel that is ready: a round has tens of thousands of them.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Customer">The customer.</param>
/// <param name="Accounts">The keys of the accounts on its statements.</param>
/// <param name="ReminderLevel">The level of the reminder that it is; null for statements.</param>
/// <param name="Seal">What it was prepared from; null where that was not noted yet.</param>
/// <param name="Changed">What of it changed by itself since somebody looked at it.</param>
public sealed record ReadyParcel(
    long Id,
    string Customer,
    IReadOnlyList<string> Accounts,
    int? ReminderLevel,
    ParcelSeal? Seal,
    IReadOnlyList<SealPart> Changed
);
