namespace Rendal.Core.Dispatch;

/// <summary>How one attempt to hand a message to a mail server ended.</summary>
public enum OutcomeKind
{
    /// <summary>The server took it.</summary>
    Accepted,

    /// <summary>The server answered 4yz to this message, or the line was cut before it had the end of the data.</summary>
    TryLater,

    /// <summary>The server answered 5yz to this message.</summary>
    Refused,

    /// <summary>The server had the end of the data and gave no answer.</summary>
    Unanswered,

    /// <summary>The server did not accept the sign-in, so that no other message would fare better.</summary>
    SignInRefused,

    /// <summary>
    /// The server could not be reached, would not talk, or was not the one it should be, so that no other message would fare better now.
    /// </summary>
    Unreachable,

    /// <summary>It was made up for one's own mail program, and no server asked.</summary>
    Exported,

    /// <summary>It was made up for the post, and no server asked.</summary>
    Printed,

    /// <summary>It was broken off on our side, before the server was given the end of the data.</summary>
    Stopped,
}

/// <summary>The outcome of one attempt.</summary>
/// <param name="Kind">How it ended.</param>
/// <param name="Answer">The server's own words with its code, or what happened on our side.</param>
/// <param name="Recipients">The answer for each recipient that the server was asked about.</param>
public sealed record Outcome(OutcomeKind Kind, string Answer, IReadOnlyList<RecipientAnswer> Recipients)
{
    /// <summary>
    /// The server's answer to the message, with what it said of the recipients that it did not take where it took others: “250 2.0.0 kept;
    /// 1 of 2 recipients refused: kell@inn.example: 550 5.1.1 no such mailbox”.
    /// </summary>
    /// <param name="answer">The answer to the message.</param>
    /// <param name="recipients">The answer for each recipient.</param>
    public static string Told(string answer, IReadOnlyList<RecipientAnswer> recipients)
    {
        var others = recipients.Where(r => !r.Accepted).ToList();
        return others.Count == 0 || others.Count == recipients.Count
            ? answer
            : $"{answer}; {others.Count} of {recipients.Count} recipients "
                + $"{(others.TrueForAll(r => r.IsPutOff) ? "put off" : "refused")}: "
                + $"{string.Join("; ", others.Select(r => $"{r.Address}: {r.Answer}"))}";
    }

    /// <summary>Whether the server asked to come back later, for all recipients or for some.</summary>
    public bool IsToBeTriedAgain => Kind == OutcomeKind.TryLater || (Kind == OutcomeKind.Accepted && PutOff);

    /// <summary>Whether a recipient was put off (4yz) while others were taken.</summary>
    public bool PutOff => Recipients.Any(r => r.IsPutOff);

    /// <summary>
    /// The outcome for the recipients of the parcel, where the message went to the sender as well: if the server took the sender's copy
    /// alone, the parcel was not sent.
    /// </summary>
    /// <param name="self">The sender's own address, which is not counted; null where no copy goes there.</param>
    public Outcome Without(string? self)
    {
        if (self is null)
        {
            return this;
        }

        var others = Recipients.Where(r => !r.Address.Equals(self, StringComparison.OrdinalIgnoreCase)).ToList();
        return Kind != OutcomeKind.Accepted || others.Any(r => r.Accepted)
            ? this with
            {
                Recipients = others,
            }
            : new Outcome(
                others.Any(r => r.Answer.StartsWith('4')) ? OutcomeKind.TryLater : OutcomeKind.Refused,
                string.Join("; ", others.Select(r => r.Answer)),
                others
            );
    }
}
