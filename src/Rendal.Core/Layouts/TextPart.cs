using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>Paragraphs and lists with slots.</summary>
public sealed record TextPart : LayoutPart
{
    /// <summary>The text as an HTML fragment, written as the body of a <see cref="Wording"/> is.</summary>
    public required string Text { get; init; }

    /// <summary>When it stands there.</summary>
    public TextWhen When { get; init; }
}
