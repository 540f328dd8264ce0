namespace Rendal.Core.Wordings;

/// <summary>A condition about what is sent.</summary>
/// <param name="When">What has to hold.</param>
public sealed record StatementCondition(TextWhen When) : WordingCondition
{
    /// <inheritdoc/>
    public override bool Holds(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding) => holding.Contains(When);
}
