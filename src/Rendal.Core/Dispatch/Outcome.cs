namespace Rendal.Core.Dispatch;

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
