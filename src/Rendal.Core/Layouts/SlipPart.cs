namespace Rendal.Core.Layouts;

/// <summary>
/// A slip to be torn off and sent back, under a line to cut along: a remittance slip, or a reply. It is never parted by the end of a page.
/// </summary>
public sealed record SlipPart : LayoutPart
{
    /// <summary>The text as an HTML fragment, written as the body of a <see cref="Wordings.Wording"/> is.</summary>
    public required string Text { get; init; }
}
