namespace Rendal.Store.Returned;

/// <summary>A mailbox that what came back to a sender is fetched from.</summary>
/// <param name="Book">The book.</param>
/// <param name="Sender">The sender.</param>
/// <param name="Host">The server's name.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c> (on loopback only), <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in.</param>
/// <param name="ProtectedPassword">The password, encrypted; null where none was given.</param>
public sealed record ReplyMailboxRecord(
    long Book,
    long Sender,
    string Host,
    int Port,
    string Security,
    string UserName,
    byte[]? ProtectedPassword
)
{
    /// <summary>
    /// The mailbox’s UIDVALIDITY (RFC 9051, 2.3.1.1) when it was looked through; null before the first time. Under another one all is
    /// looked at again.
    /// </summary>
    public long? Validity { get; init; }

    /// <summary>The largest UID (RFC 9051, 2.3.1.1) that was looked at under <see cref="Validity"/>; 0 before the first.</summary>
    public long LastUid { get; init; }

    /// <summary>When it was looked through last; null before the first time.</summary>
    public DateTimeOffset? LookedAt { get; init; }

    /// <summary>The IANA name of the book's zone.</summary>
    public string TimeZone { get; init; } = "Etc/UTC";

    /// <summary>How many messages about parcels the last look brought.</summary>
    public int Taken { get; init; }

    /// <summary>What kept the last look from being made; empty where nothing did.</summary>
    public string Trouble { get; init; } = "";
}
