using Rendal.Core.Intake.Columns;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>How one column is read, and why.</summary>
/// <param name="Index">The column from 0.</param>
/// <param name="Heading">The heading as it stands; <c>Column C</c> where it has none; with <c> (2)</c> behind it where it stands
/// twice.</param>
/// <param name="Meaning">What it is to the rules.</param>
/// <param name="Reason">What decided it, in plain words: <c>by heading</c>, <c>set by you</c>.</param>
/// <param name="Mark">The decimal mark, for amounts.</param>
/// <param name="Order">The order of day and month, for dates.</param>
/// <param name="UnsignedCredits">For amounts: whether credits and payments are written without a sign, so that the kind gives it.</param>
/// <param name="Notation">What decided the mark or order, in plain words; empty for other columns.</param>
public sealed record ColumnReading(
    int Index,
    string Heading,
    ColumnMeaning Meaning,
    string Reason,
    DecimalMark? Mark = null,
    DateOrder? Order = null,
    bool UnsignedCredits = false,
    string Notation = ""
)
{
    /// <summary>The heading exactly as it is written; empty where the column has none.</summary>
    public string Written { get; init; } = "";

    /// <summary>How certain it is what the column is.</summary>
    public Confidence Confidence { get; init; }

    /// <summary>What else it could be, the likeliest first.</summary>
    public IReadOnlyList<OtherMeaning> Others { get; init; } = [];

    /// <summary>Whether the workbook hides the column.</summary>
    public bool IsHidden { get; init; }

    /// <summary>Whether the column is passed over, for slots too: it is hidden, and a person said so.</summary>
    public bool IsLeftOut { get; init; }

    /// <summary>Whether a person said how credits are signed in this column, so that none of them is unclear.</summary>
    public bool SignsAreSet { get; init; }
}
