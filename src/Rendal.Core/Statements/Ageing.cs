namespace Rendal.Core.Statements;

/// <summary>What is owed, by its age.</summary>
/// <param name="Bands">The sum of each band: not due (or, by document date, of the day itself), then one per edge, then over the last
/// edge.</param>
/// <param name="Credits">The sum of the credits that stand apart from the bands, 0 or below; 0 where they are in the bands of their own
/// age.</param>
/// <param name="Overdue">The sum of the charges past due; credits do not reduce it, whatever band they are in.</param>
public sealed record Ageing(IReadOnlyList<decimal> Bands, decimal Credits, decimal Overdue)
{
    /// <summary>The sum of all bands and of the credits, which count negative: what is owed, below 0 for an account in credit.</summary>
    public decimal Total => Bands.Sum() + Credits;
}
