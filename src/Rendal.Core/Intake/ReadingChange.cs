using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>What a person has decided about the reading of one file; the rest is worked out.</summary>
public sealed record ReadingChange
{
    /// <summary>Nothing decided.</summary>
    public static ReadingChange None { get; } = new();

    /// <summary>The row of the headings, from 1.</summary>
    public int? HeadingRow { get; init; }

    /// <summary>What columns are, by their index from 0.</summary>
    public IReadOnlyDictionary<int, ColumnMeaning> Meanings { get; init; } = new Dictionary<int, ColumnMeaning>();

    /// <summary>Decimal marks of columns, by their index from 0.</summary>
    public IReadOnlyDictionary<int, DecimalMark> Marks { get; init; } = new Dictionary<int, DecimalMark>();

    /// <summary>Date orders of columns, by their index from 0.</summary>
    public IReadOnlyDictionary<int, DateOrder> Orders { get; init; } = new Dictionary<int, DateOrder>();
}
