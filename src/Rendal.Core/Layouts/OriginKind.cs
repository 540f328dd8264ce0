namespace Rendal.Core.Layouts;

/// <summary>What a word or figure of a parcel was taken from.</summary>
public enum OriginKind
{
    /// <summary>A row of the ledger file.</summary>
    Row,

    /// <summary>The card of the customer.</summary>
    Card,

    /// <summary>A slot that is filled from neither alone: sums, dates of the round, what the firm says of itself.</summary>
    Slot,
}
