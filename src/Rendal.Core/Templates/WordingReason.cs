namespace Rendal.Core.Templates;

/// <summary>Why the message of a customer has the wording that it has, the strongest reason first.</summary>
public enum WordingReason
{
    /// <summary>The rows of the ledger name it, in the column that the round says.</summary>
    NamedInRow,

    /// <summary>It was picked for the round.</summary>
    Picked,

    /// <summary>It is the customer's own, by the card.</summary>
    OnCard,

    /// <summary>It is that of the reminder's level.</summary>
    OfLevel,

    /// <summary>It is the book's for what goes, in the customer's language.</summary>
    OfPurposeInLanguage,

    /// <summary>It is the book's for what goes, in any language.</summary>
    OfPurpose,

    /// <summary>It is the first of the book: none is said for what goes.</summary>
    First,
}
