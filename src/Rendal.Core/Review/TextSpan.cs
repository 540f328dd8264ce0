using Rendal.Core.Wordings;

namespace Rendal.Core.Review;

/// <summary>A stretch of a filled text.</summary>
/// <param name="Text">It.</param>
/// <param name="From">The slot that it was filled from; null for what was typed.</param>
public sealed record TextSpan(string Text, Slot? From);
