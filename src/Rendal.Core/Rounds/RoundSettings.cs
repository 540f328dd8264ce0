using Rendal.Core.Enclosures;

namespace Rendal.Core.Rounds;

/// <summary>What people choose in a round.</summary>
/// <param name="Name">What the bookkeeper calls it.</param>
/// <param name="Choice">Who and what is wanted.</param>
/// <param name="Wording">The number of the wording that is picked for it; null for that of each customer.</param>
/// <param name="Sender">The number of its sender.</param>
/// <param name="Layout">The number of the layout that is picked for it; null for the book's.</param>
public sealed record RoundSettings(string Name, Choice Choice, long? Wording, long Sender, long? Layout)
{
    /// <summary>What is enclosed beside the document.</summary>
    public Enclosing Enclosing { get; init; } = new();
}
