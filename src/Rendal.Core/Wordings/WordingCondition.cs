namespace Rendal.Core.Wordings;

/// <summary>A condition under which a passage stands.</summary>
public abstract record WordingCondition
{
    /// <summary>Whether it holds for a customer.</summary>
    /// <param name="values">The values of the slots.</param>
    /// <param name="holding">What holds of the statements.</param>
    public abstract bool Holds(IReadOnlyDictionary<string, string> values, IReadOnlySet<TextWhen> holding);
}
