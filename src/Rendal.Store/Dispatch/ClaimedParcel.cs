using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Sealing;
using Rendal.Store.Layouts;
using Rendal.Store.Senders;

namespace Rendal.Store.Dispatch;

/// <summary>A parcel that a worker has claimed.</summary>
/// <param name="Book">The book.</param>
/// <param name="Parcel">The parcel.</param>
/// <param name="Round">Its round.</param>
/// <param name="Attempts">How many attempts there have been, this one included.</param>
/// <param name="Recipients">The addresses.</param>
/// <param name="Subject">The subject as frozen.</param>
/// <param name="Body">The body as frozen.</param>
/// <param name="Card">The customer's card as frozen.</param>
/// <param name="Message">The message as it was made for an earlier try; null on the first one.</param>
/// <param name="Sender">How its mail server is reached. What the customer sees of the sender is <paramref name="SentAs"/>.</param>
/// <param name="Layout">The layout that it was made up with; null for the one that is there before any was made.</param>
/// <param name="Channel">How it leaves.</param>
/// <param name="Letterhead">The firm as it was released with.</param>
/// <param name="SentAs">The sender as it was released with.</param>
public sealed record ClaimedParcel(
    long Book,
    long Parcel,
    long Round,
    int Attempts,
    IReadOnlyList<string> Recipients,
    string Subject,
    string Body,
    Customer Card,
    byte[]? Message,
    Sender Sender,
    LayoutRef? Layout,
    Channel Channel,
    Firm Letterhead,
    SentAs SentAs
)
{
    /// <summary>
    /// The seal that it was released with, as it is stored: its message is written down only while it has that still. Null where it has
    /// none.
    /// </summary>
    public byte[]? Seal { get; init; }

    /// <summary>What a person changed on it alone; null for nothing.</summary>
    public ParcelChange? Change { get; init; }

    /// <summary>Whether it goes on paper, alone or beside the message.</summary>
    public bool OnPaper { get; init; }

    /// <summary>The IANA name of the book's zone.</summary>
    public string TimeZone { get; init; } = "Etc/UTC";

    /// <summary>Which of its messages is next, from 0.</summary>
    public int MessageIndex { get; init; }

    /// <summary>How many messages it is.</summary>
    public int Messages { get; init; } = 1;

    /// <summary>The recipients for whom a server took the message at earlier attempts.</summary>
    public IReadOnlyList<string> Taken { get; init; } = [];
}

/// <summary>A message ready to be stored before its first byte goes out.</summary>
/// <param name="MessageId">The Message-ID without angle brackets.</param>
/// <param name="Subject">Its subject, which says of several messages which one it is.</param>
/// <param name="Bytes">The message as it is sent.</param>
/// <param name="Sha256">The hash of the bytes.</param>
public sealed record OutgoingMessage(string MessageId, string Subject, byte[] Bytes, byte[] Sha256);

/// <summary>What goes to a customer by post.</summary>
/// <param name="Name">The name of the document.</param>
/// <param name="Bytes">The document (PDF).</param>
/// <param name="Sha256">The hash of the bytes.</param>
public sealed record OutgoingLetter(string Name, byte[] Bytes, byte[] Sha256);
