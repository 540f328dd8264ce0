namespace Rendal.Core.Templates;

/// <summary>The wording of a customer's message.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Reason">Why it is this one.</param>
public sealed record AssignedWording(long Id, WordingReason Reason)
{
    /// <summary>
    /// What is wrong with the name that the rows give, as a clause without a stop: “Soft” in “Wording” is no wording of this book. Empty
    /// where nothing is; else the wording is the one that would go if the rows gave none.
    /// </summary>
    public string Problem { get; init; } = "";
}
