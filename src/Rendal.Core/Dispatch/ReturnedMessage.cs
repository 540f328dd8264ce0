namespace Rendal.Core.Dispatch;

/// <summary>What a report says of one recipient.</summary>
/// <param name="Address">The recipient, as the report names it.</param>
/// <param name="Kind"><see cref="ReturnKind.Failed"/>, <see cref="ReturnKind.Delayed"/>, or <see cref="ReturnKind.Other"/> where it was
/// delivered.</param>
/// <param name="Status">The status code of RFC 3463, for example <c>5.1.1</c>; empty where none is given.</param>
/// <param name="Reason">Why, in the server's words, on one line; empty where it gives none.</param>
public sealed record ReturnedRecipient(string Address, ReturnKind Kind, string Status, string Reason);

/// <summary>A message that came in answer to one that was sent, as far as it tells.</summary>
/// <param name="Kind">What it is. A report of both failures and delays counts as failed.</param>
/// <param name="MessageIds">The Message-IDs of what it is about, without angle brackets, the surest first.</param>
/// <param name="Recipients">Of a report, what it says of each recipient that it names; of an automatic reply or what is unclear, who it
/// may be from or about.</param>
/// <param name="Reason">Its first words, on one line, for who looks at it.</param>
/// <param name="Date">When it was written.</param>
/// <param name="Subject">Its subject.</param>
public sealed record ReturnedMessage(
    ReturnKind Kind,
    IReadOnlyList<string> MessageIds,
    IReadOnlyList<ReturnedRecipient> Recipients,
    string Reason,
    DateTimeOffset Date,
    string Subject
)
{
    /// <summary>Whether it is a report about recipients.</summary>
    public bool IsReport => Kind is ReturnKind.Failed or ReturnKind.Delayed;

    /// <summary>
    /// What it means for one message: a report counts for the recipients that it names and for nobody else. About the sender's own copy,
    /// it means nothing for the parcel; about an address that the message was not sent to, to which somebody may have passed it on, it is
    /// unclear.
    /// </summary>
    /// <param name="sentTo">The message's recipients.</param>
    /// <param name="sender">The address that it was sent under.</param>
    public ReturnedConcern Concerning(IReadOnlyList<string> sentTo, string sender)
    {
        if (!IsReport)
        {
            return new ReturnedConcern(Kind, [.. Recipients.Select(r => r.Address)], "", Reason);
        }

        var those = Recipients.Where(r => sentTo.Contains(r.Address, StringComparer.OrdinalIgnoreCase)).ToList();
        foreach (var kind in new[] { ReturnKind.Failed, ReturnKind.Delayed, ReturnKind.Other })
        {
            if (those.FindAll(r => r.Kind == kind) is [var first, ..] found)
            {
                return new ReturnedConcern(
                    kind,
                    [.. found.Select(r => r.Address)],
                    first.Status,
                    first.Reason.Length > 0 ? first.Reason : Reason
                );
            }
        }

        var (named, own) = (
            Recipients.Select(r => r.Address).ToList(),
            Recipients.FirstOrDefault(r => r.Address.Equals(sender, StringComparison.OrdinalIgnoreCase))
        );
        return own is not null
            ? new ReturnedConcern(ReturnKind.OwnCopy, [own.Address], own.Status, own.Reason)
            : new ReturnedConcern(
                ReturnKind.Unclear,
                named,
                Recipients is [var any, ..] ? any.Status : "",
                Recipients.Select(r => r.Reason).FirstOrDefault(r => r.Length > 0) ?? Reason
            );
    }
}

/// <summary>What a message that came back means for one that was sent.</summary>
/// <param name="Kind">What it is for that message.</param>
/// <param name="Addresses">The recipients whom it is about.</param>
/// <param name="Status">The status code of RFC 3463; empty where none is given.</param>
/// <param name="Reason">Why, on one line.</param>
public sealed record ReturnedConcern(ReturnKind Kind, IReadOnlyList<string> Addresses, string Status, string Reason);
