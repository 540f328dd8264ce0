namespace Rendal.Core.Statements;

/// <summary>How long what is owed is past due.</summary>
/// <param name="Bands">The sum of each band: not due, then one per edge, then over the last edge.</param>
/// <param name="Credits">The sum of the credits, 0 or below; they stand apart from the bands.</param>
public sealed record Ageing(IReadOnlyList<decimal> Bands, decimal Credits)
{
    /// <summary>Bands and credits together: what is owed.</summary>
    public decimal Total => Bands.Sum() + Credits;

    /// <summary>The bands past due; credits do not reduce it.</summary>
    public decimal Overdue => Bands.Skip(1).Sum();
}
