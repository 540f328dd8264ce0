namespace Rendal.Core.Layouts;

/// <summary>Words of a paragraph that look alike.</summary>
/// <param name="Text">The words; line breaks stand as <c>\n</c>.</param>
/// <param name="IsStrong">Whether they are set in a stronger font.</param>
/// <param name="Link">Where they lead; null for nowhere.</param>
public readonly record struct TextRun(string Text, bool IsStrong, string? Link);

/// <summary>A paragraph, or one entry of a list.</summary>
/// <param name="Runs">Its words.</param>
/// <param name="Mark">What stands before an entry of a list, <c>•</c> or <c>2.</c>; empty for a paragraph.</param>
public sealed record TextParagraph(IReadOnlyList<TextRun> Runs, string Mark);
