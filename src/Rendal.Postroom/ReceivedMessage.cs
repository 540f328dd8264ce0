namespace Rendal.Postroom;

/// <summary>A message as the postroom received it.</summary>
/// <param name="Id">Its number, growing with each message.</param>
/// <param name="Account">The name that the sender signed in with; empty where nobody did.</param>
/// <param name="ReceivedAt">When its end came.</param>
/// <param name="From">The address of the envelope that returned mail would go to.</param>
/// <param name="Recipients">The recipients of the envelope.</param>
/// <param name="Subject">The subject in its header.</param>
/// <param name="MessageId">The Message-ID in its header; empty where it has none.</param>
/// <param name="EnclosureCount">How many files are enclosed.</param>
/// <param name="Size">Its size in bytes.</param>
public sealed record ReceivedMessage(
    long Id,
    string Account,
    DateTimeOffset ReceivedAt,
    string From,
    IReadOnlyList<string> Recipients,
    string Subject,
    string MessageId,
    int EnclosureCount,
    int Size
);
