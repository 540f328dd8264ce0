namespace Rendal.Core.Wordings;

/// <summary>A place in a wording that is filled from the customer's data.</summary>
/// <param name="Name">By which templates name it: <c>customer.name</c>.</param>
/// <param name="Label">What the bookkeeper sees on the chip.</param>
/// <param name="Says">What it is filled with, one sentence.</param>
/// <param name="IsHtml">Whether it is a piece of a page rather than text, so that it can stand in the body only.</param>
public sealed record Slot(string Name, string Label, string Says, bool IsHtml = false);
