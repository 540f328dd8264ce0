using Rendal.Core.Dispatch;

namespace Rendal.Store.Dispatch;

/// <summary>One try in the record of what went out.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Parcel">The parcel.</param>
/// <param name="Round">The round's number.</param>
/// <param name="RoundName">The round's name.</param>
/// <param name="Customer">The customer's key.</param>
/// <param name="CustomerName">The customer's name at the time.</param>
/// <param name="StartedAt">When the try began.</param>
/// <param name="EndedAt">When it ended; null while it goes on.</param>
/// <param name="Outcome">How it ended; null while it goes on.</param>
/// <param name="Answer">The server's words, with what it said of recipients that it did not take; or what happened on our side.</param>
/// <param name="MessageId">The Message-ID; empty for paper.</param>
/// <param name="Subject">The subject; the document’s name for paper.</param>
/// <param name="Sender">The address it went out under; empty for paper.</param>
/// <param name="Recipients">Whom it went to; the postal address for paper.</param>
/// <param name="Answers">The server's answer for each recipient.</param>
/// <param name="Sha256">The hash of the exact message, or document, in hexadecimal.</param>
/// <param name="Size">The size of the exact message in bytes.</param>
public sealed record DispatchEntry(
    long Id,
    long Parcel,
    long Round,
    string RoundName,
    string Customer,
    string CustomerName,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    OutcomeKind? Outcome,
    string Answer,
    string MessageId,
    string Subject,
    string Sender,
    IReadOnlyList<string> Recipients,
    IReadOnlyList<RecipientAnswer> Answers,
    string Sha256,
    int Size
)
{
    /// <summary>Which of the messages of its parcel it is, from 0.</summary>
    public int Message { get; init; }

    /// <summary>Whether the message came back after the server had taken it.</summary>
    public bool CameBack { get; init; }

    /// <summary>Whether the server asked to come back later once more than is done: nobody tries again by itself.</summary>
    public bool GaveUp { get; init; }

    /// <summary>How many of its recipients the server did not take, where it took others.</summary>
    public int Refused => Answers.Any(a => a.Accepted) ? Answers.Count(a => !a.Accepted) : 0;

    /// <summary>Whether it went to one’s own, to be looked at, and not to the customer.</summary>
    public bool IsRehearsal { get; init; }

    /// <summary>Whether a person had it sent once more on purpose.</summary>
    public bool IsRepeat { get; init; }
}

/// <summary>What a person added to the record of a parcel.</summary>
/// <param name="WrittenAt">When.</param>
/// <param name="By">Who.</param>
/// <param name="Text">What.</param>
public sealed record DispatchNote(DateTimeOffset WrittenAt, string By, string Text);
