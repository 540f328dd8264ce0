namespace Rendal.Core.Review;

/// <summary>A filled message as it is read, without its tables and other pieces of a page.</summary>
/// <param name="Subject">The subject.</param>
/// <param name="Lines">The lines of the body that have words.</param>
/// <param name="Links">The links in it that were typed.</param>
public sealed record MessageText(MessageLine Subject, IReadOnlyList<MessageLine> Lines, IReadOnlyList<MessageLink> Links);
