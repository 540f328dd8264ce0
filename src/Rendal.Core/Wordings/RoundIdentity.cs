namespace Rendal.Core.Wordings;

/// <summary>What the words of a parcel can say about its round.</summary>
/// <param name="Name">The round's name; empty outside a round.</param>
/// <param name="PreparedBy">The name of the person who made it; empty outside a round.</param>
/// <param name="MadeAt">The hour at which it was made, in the zone of the book; null outside a round.</param>
public sealed record RoundIdentity(string Name, string PreparedBy = "", TimeOnly? MadeAt = null)
{
    internal const string PreparedBySlot = "round.prepared-by";
    internal const string GreetingSlot = "round.greeting";

    /// <summary>The lines with which that person signs, with line feeds between; empty for none.</summary>
    public string Signature { get; init; } = "";

    /// <summary>No round.</summary>
    public static RoundIdentity None { get; } = new("");

    /// <summary>
    /// What of it stands on a parcel beside the name, to be sealed: only what its words use. A round that says neither who made it nor a
    /// greeting keeps its seals when that person takes another name.
    /// </summary>
    /// <param name="uses">Whether a slot of this name is used.</param>
    public string Said(Func<string, bool> uses) =>
        (uses(PreparedBySlot) ? PreparedBy : "")
        + (uses(GreetingSlot) ? $"\n{Language.PartOf(MadeAt)}" : "")
        + (uses(SlotCatalogue.Signature) ? Signature : "");
}
