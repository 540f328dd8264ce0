namespace Rendal.Core.Review;

/// <summary>A link of a filled message.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Target">Where it leads.</param>
public sealed record MessageLink(string Text, string Target);
