namespace Rendal.Core.Intake;

/// <summary>What a correction puts right.</summary>
public enum CorrectionKind
{
    /// <summary>One value in one row.</summary>
    Cell,

    /// <summary>The same value wherever it stands in one column.</summary>
    Everywhere,

    /// <summary>A row that is not to count.</summary>
    RowLeftOut,

    /// <summary>A customer that is the same as another one, under another code or spelling.</summary>
    CustomersJoined,

    /// <summary>A field of a customer's card.</summary>
    Card,
}

/// <summary>
/// A value put right in Rendal, kept over the source. It holds as long as the source still says what it said when the correction was made;
/// once the source says something else, the source counts.
/// </summary>
public sealed record Correction
{
    /// <summary>Its number; 0 where it is not stored.</summary>
    public long Id { get; init; }

    /// <summary>What is put right.</summary>
    public required CorrectionKind Kind { get; init; }

    /// <summary>
    /// The heading of the column as it stands, or the field of the card; empty for a row left out and for customers joined.
    /// </summary>
    public string Column { get; init; } = "";

    /// <summary>Which row it is, by <see cref="RowKey"/>; for a card the customer's key; empty for the other kinds.</summary>
    public string Of { get; init; } = "";

    /// <summary>What the source says; for customers joined, the key that is joined.</summary>
    public string Was { get; init; } = "";

    /// <summary>What holds instead; for customers joined, the key that it is joined with.</summary>
    public string Becomes { get; init; } = "";

    /// <summary>Why, in the person's words; needed for a row left out.</summary>
    public string Reason { get; init; } = "";
}
