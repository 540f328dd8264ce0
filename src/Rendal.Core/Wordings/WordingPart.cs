namespace Rendal.Core.Wordings;

/// <summary>
/// A piece of a template: what people typed, a slot, or pieces under a condition. What was typed is never read as anything else.
/// </summary>
public abstract record WordingPart;

/// <summary>What stands as it is.</summary>
/// <param name="Text">Text of a subject, HTML of a body.</param>
public sealed record WordingText(string Text) : WordingPart;

/// <summary>A place to be filled.</summary>
/// <param name="Slot">The slot.</param>
/// <param name="OrElse">What stands there instead where it is empty; empty for nothing, so that a message lacks it.</param>
public sealed record WordingSlot(Slot Slot, string OrElse) : WordingPart;

/// <summary>Pieces that stand only where a condition holds.</summary>
/// <param name="When">The condition.</param>
/// <param name="Parts">The pieces.</param>
public sealed record WordingCondition(TextWhen When, IReadOnlyList<WordingPart> Parts) : WordingPart;
