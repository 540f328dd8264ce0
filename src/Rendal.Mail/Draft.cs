using Rendal.Core.Layouts;
using Rendal.Core.Wordings;

namespace Rendal.Mail;

/// <summary>A file that goes with a message.</summary>
/// <param name="Name">Its name as the recipient sees it.</param>
/// <param name="ContentType">For example <c>application/pdf</c>.</param>
/// <param name="Bytes">Its content.</param>
public sealed record Enclosure(string Name, string ContentType, byte[] Bytes);

/// <summary>What a message is made from.</summary>
/// <param name="SenderName">The name that the recipient sees.</param>
/// <param name="SenderAddress">The address that the recipient sees.</param>
/// <param name="To">Whom it is to; at least one.</param>
/// <param name="Copies">Who gets a copy that all recipients see. Blind copies stand on no message.</param>
/// <param name="Subject">One line.</param>
/// <param name="Body">An HTML fragment.</param>
/// <param name="Language">Code of the language of the body.</param>
/// <param name="Enclosures">The files.</param>
/// <param name="Date">The date that the message bears.</param>
public sealed record Draft(
    string SenderName,
    string SenderAddress,
    IReadOnlyList<string> To,
    IReadOnlyList<string> Copies,
    string Subject,
    string Body,
    string Language,
    IReadOnlyList<Enclosure> Enclosures,
    DateTimeOffset Date
)
{
    /// <summary>Where answers go; empty for the sender's address.</summary>
    public string ReplyTo { get; init; } = "";

    /// <summary>
    /// The pictures that its body has places for (<see cref="Html.PicturePlaces"/>); they go inside the message and are no enclosures.
    /// </summary>
    public IReadOnlyList<MessagePicture> Pictures { get; init; } = [];

    /// <summary>The codes that its body has places for (<see cref="Html.PaymentCodePlaces"/>), each as a PNG.</summary>
    public IReadOnlyDictionary<PaymentCode, byte[]> Codes { get; init; } = new Dictionary<PaymentCode, byte[]>();

    /// <summary>
    /// Who gets a copy that nobody else sees. They are named in a message for one's own mail program, which takes them out when it sends,
    /// and in no other.
    /// </summary>
    public IReadOnlyList<string> NamedBlindCopies { get; init; } = [];
}
