namespace Rendal.Core.Parcels;

/// <summary>What a parcel has beside its statements that its words and its document may tell of.</summary>
/// <param name="Note">What a person wrote for its document alone; empty for nothing.</param>
/// <param name="Copies">The numbers of the documents that copies are enclosed of, in the order of the items.</param>
public sealed record ParcelAdditions(string Note, IReadOnlyList<string> Copies)
{
    /// <summary>Nothing.</summary>
    public static ParcelAdditions None { get; } = new("", []);
}
