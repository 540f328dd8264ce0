namespace Rendal.Core.Wordings;

/// <summary>A place in a wording that is filled from the customer's data.</summary>
/// <param name="Name">By which templates name it: <c>customer.name</c>.</param>
/// <param name="Label">What the bookkeeper sees on the chip.</param>
/// <param name="Says">What it is filled with, one sentence.</param>
/// <param name="Group">Under which heading it is offered.</param>
/// <param name="Kind">What it is filled with.</param>
public sealed record Slot(string Name, string Label, string Says, SlotGroup Group, SlotKind Kind = SlotKind.Text)
{
    /// <summary>Whether it is a piece of a page rather than text, so that it can stand in the body only.</summary>
    public bool IsHtml => Kind == SlotKind.Block;

    /// <summary>Whether it can stand in messages only, not on documents.</summary>
    public bool IsOfMessage => IsHtml || Name == RoundIdentity.GreetingSlot;
}
