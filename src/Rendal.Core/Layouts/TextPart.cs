using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>Paragraphs and lists with slots.</summary>
public sealed record TextPart : LayoutPart
{
    /// <summary>The text as an HTML fragment, written as the body of a <see cref="Wording"/> is.</summary>
    public required string Text { get; init; }

    /// <summary>In which cases it stands on the document; in the others nothing takes its place.</summary>
    public TextWhen When { get; init; }
}
