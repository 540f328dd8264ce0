using Rendal.Core.Dispatch;
using Rendal.Core.Sealing;

namespace Rendal.Store.Senders;

/// <summary>The mail account and identity that messages go out under.</summary>
/// <param name="Id">Its number; 0 before it is stored.</param>
/// <param name="Name">The name that recipients see.</param>
/// <param name="Address">The address that recipients see, and that returned mail goes to.</param>
/// <param name="Host">The mail server's name.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c> (on loopback only), <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in; empty where nobody has to.</param>
/// <param name="ProtectedPassword">The password, encrypted; null where there is none.</param>
public sealed record Sender(
    long Id,
    string Name,
    string Address,
    string Host,
    int Port,
    string Security,
    string UserName,
    byte[]? ProtectedPassword
)
{
    /// <summary>The person whose own it is and who alone sends under it; null where everybody of the book does.</summary>
    public long? Person { get; init; }

    /// <summary>The address that answers go to; empty for <see cref="Address"/>.</summary>
    public string ReplyTo { get; init; } = "";

    /// <summary>The lines under its messages, with line feeds between; empty for its name.</summary>
    public string Signature { get; init; } = "";

    /// <summary>Whether each message goes to <see cref="Address"/> as well, seen by nobody else.</summary>
    public bool CopyToSelf { get; init; }

    /// <summary>How many messages may be begun a minute; null for as many as go.</summary>
    public int? AMinute { get; init; }

    /// <summary>How many messages may be begun on a day of the book; null for as many as go.</summary>
    public int? ADay { get; init; }

    /// <summary>The size in bytes beyond which the server takes no message; null where it is not known.</summary>
    public int? LargestBytes { get; init; }

    /// <summary>The pauses between the tries of a message that the server puts off; after the last one it is refused.</summary>
    public IReadOnlyList<TimeSpan> Pauses { get; init; } = NextStep.DefaultPauses;

    /// <summary>Why nothing is sent under it until a person has seen to it; empty when it may send.</summary>
    public string Paused { get; init; } = "";

    /// <summary>What keeps its server from being reached; null while it is.</summary>
    public ServerUnreachable? Unreachable { get; init; }

    /// <summary>The identity that its messages go out under.</summary>
    public SentAs SentAs => new(Name, Address, ReplyTo, CopyToSelf) { Signature = Signature };

    /// <summary>Whether a person may send under it.</summary>
    public bool IsFor(long person) => Person is null || Person == person;

    /// <summary>What a person is told of it: its name and address; of somebody else's own, that it is a colleague's.</summary>
    public string ShownTo(long person) => IsFor(person) ? $"{Name} <{Address}>" : "a colleague’s sender";

    /// <summary>Why nothing is sent under it, as a person is told: of somebody else's own, without the server's words.</summary>
    public string PausedFor(long person) =>
        IsFor(person) || Paused.Length == 0 ? Paused : "A colleague’s sender is paused; they have to see to it.";

    /// <summary>What keeps its server from being reached, as a person is told.</summary>
    public ServerUnreachable? UnreachableFor(long person) =>
        IsFor(person) || Unreachable is null
            ? Unreachable
            : Unreachable with
            {
                Words = "the server of a colleague’s sender cannot be reached",
            };
}

/// <summary>A server that cannot be reached.</summary>
/// <param name="Times">How often in a row it was tried.</param>
/// <param name="Since">Since when.</param>
/// <param name="Words">Why, the last time.</param>
/// <param name="Until">When it is tried again.</param>
public sealed record ServerUnreachable(int Times, DateTimeOffset Since, string Words, DateTimeOffset Until);
