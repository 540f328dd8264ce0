using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Money;

namespace Rendal.Web.Intake;

/// <summary>A column as it was taken: of a ledger by its meaning, of a customer list by its field.</summary>
internal sealed record ColumnView(
    int Index,
    string Heading,
    ColumnMeaning Meaning,
    CardField Field,
    string Reason,
    DecimalMark? Mark,
    DateOrder? Order,
    bool? UnsignedCredits,
    string Notation
)
{
    /// <summary>How certain the meaning is.</summary>
    public Confidence Confidence { get; init; }

    /// <summary>What else a column of a ledger could be, the likeliest first.</summary>
    public IReadOnlyList<OtherMeaning> Others { get; init; } = [];

    /// <summary>What else a column of a customer list could be, the likeliest first.</summary>
    public IReadOnlyList<CardField> OtherFields { get; init; } = [];

    /// <summary>Whether the workbook hides it.</summary>
    public bool IsHidden { get; init; }
}
