namespace Rendal.Core.Enclosures;

/// <summary>The files that go with one parcel beside its document.</summary>
/// <param name="Files">
/// The files in their order: copies by item, then what is named in the ledger, the customer's own, what all get.
/// </param>
/// <param name="Missing">The numbers of the invoices without a copy, in the order of the items.</param>
/// <param name="Problem">What a person has to see to, in words; empty for nothing.</param>
public sealed record ParcelEnclosures(IReadOnlyList<ParcelEnclosure> Files, IReadOnlyList<string> Missing, string Problem)
{
    /// <summary>What the problem of a parcel begins with that is settled where copies are.</summary>
    public const string AboutCopies = "copies: ";

    /// <summary>None.</summary>
    public static ParcelEnclosures None { get; } = new([], [], "");

    /// <summary>The numbers of the documents that there are copies of in it, in the order of the items.</summary>
    public IReadOnlyList<string> Copied => [.. Files.SelectMany(f => f.Numbers).Distinct(StringComparer.Ordinal)];
}
