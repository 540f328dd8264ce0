namespace Rendal.Core.Wordings;

/// <summary>A wording filled for one customer.</summary>
/// <param name="Subject">The subject as text on one line.</param>
/// <param name="Body">The body as an HTML fragment.</param>
/// <param name="EmptySlots">Slots that had no value and no fallback. While there are any, the message must not leave.</param>
public sealed record FilledWording(string Subject, string Body, IReadOnlyList<Slot> EmptySlots);
