using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Reminders;
using Rendal.Core.Sealing;

namespace Rendal.Store.Rounds;

/// <summary>A parcel's content as it is frozen on release.</summary>
/// <param name="Id">The parcel.</param>
/// <param name="Subject">The filled subject.</param>
/// <param name="Body">The filled body.</param>
/// <param name="Card">The customer's card.</param>
/// <param name="Letterhead">The firm as it stands on its document.</param>
/// <param name="SentAs">The sender as the customer sees it.</param>
public sealed record FrozenParcel(long Id, string Subject, string Body, Core.Customers.Customer Card, Firm Letterhead, SentAs SentAs)
{
    /// <summary>
    /// What it counts as for its items where it is a reminder. It is written with the release, and not read back with the parcel.
    /// </summary>
    public IReadOnlyList<ItemReminded> Reminded { get; init; } = [];

    /// <summary>
    /// What it was compared by: a parcel that has another seal by then is not released. Written like <see cref="Reminded"/>.
    /// </summary>
    public ParcelSeal? Seal { get; init; }

    /// <summary>What a person changed on it alone; null for nothing.</summary>
    public ParcelChange? Change { get; init; }

    /// <summary>Whose accounts are on its statements, beside the customer's own. Written like <see cref="Reminded"/>.</summary>
    public IReadOnlyList<string> Accounts { get; init; } = [];

    /// <summary>The numbers of the items on its statements, by which the log finds it. Written like <see cref="Reminded"/>.</summary>
    public IReadOnlyList<string> Numbers { get; init; } = [];
}
