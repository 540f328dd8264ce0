namespace Rendal.Mail;

/// <summary>What a message is that came in answer to one that was sent.</summary>
public enum ReturnKind
{
    /// <summary>It could not be delivered, for good.</summary>
    Failed,

    /// <summary>It could not be delivered yet; the server goes on trying.</summary>
    Delayed,

    /// <summary>A program answers in the recipient's place: out of office.</summary>
    AutomaticReply,

    /// <summary>Anything else: a person's answer, a report of a delivery that went well.</summary>
    Other,
}

/// <summary>A message that came in answer to one that was sent, as far as it tells.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="MessageIds">The Message-IDs that it may be about, without angle brackets, the likeliest first.</param>
/// <param name="Recipients">The recipients that it speaks of: of a delivery report those who did not get the message.</param>
/// <param name="Status">The status code of RFC 3463, for example <c>5.1.1</c>; empty where none is given.</param>
/// <param name="Reason">Why, in the server's words, on one line; of an automatic reply its first words.</param>
/// <param name="Date">When it was written.</param>
/// <param name="Subject">Its subject.</param>
public sealed record ReturnedMessage(ReturnKind Kind, IReadOnlyList<string> MessageIds, IReadOnlyList<string> Recipients, string Status, string Reason, DateTimeOffset Date, string Subject);
