namespace Rendal.Core.Wordings;

/// <summary>A picture that stands in messages, such as the firm’s logo. It never changes; another picture has another number.</summary>
/// <param name="Number">Its number in the book.</param>
/// <param name="ContentType"><c>image/png</c> or <c>image/jpeg</c>.</param>
/// <param name="Bytes">The picture.</param>
public sealed record MessagePicture(long Number, string ContentType, byte[] Bytes)
{
    /// <summary>The most bytes of a picture: it goes with each message.</summary>
    public const int Largest = 300_000;
}
