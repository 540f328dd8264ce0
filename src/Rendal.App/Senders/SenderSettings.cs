using System.ComponentModel.DataAnnotations;

namespace Rendal.App.Senders;

/// <summary>A sender to be stored or tried.</summary>
/// <param name="Name">The name that recipients see.</param>
/// <param name="Address">The address that recipients see.</param>
/// <param name="ReplyTo">The address that answers go to; empty for the address.</param>
/// <param name="CopyToSelf">Whether each message goes to the address as well.</param>
/// <param name="Host">The mail server.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c>, <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in.</param>
/// <param name="Password">The password; null or empty for the one that was there.</param>
/// <param name="AMinute">How many messages a minute; null for as many as go.</param>
/// <param name="ADay">How many messages a day; null for as many as go.</param>
/// <param name="LargestBytes">The largest message; null where it is not known.</param>
/// <param name="PauseMinutes">The pauses between the tries of a message that the server puts off; null for 1, 5, 15 and 60.</param>
/// <param name="IsMine">Whether it is the person's own, and nobody else sends under it.</param>
/// <param name="Signature">The lines under its messages, with line feeds between; empty for the name.</param>
public sealed record SenderSettings(
    [property: StringLength(200)] string Name,
    [property: StringLength(500)] string Address,
    [property: StringLength(500)] string ReplyTo,
    bool CopyToSelf,
    [property: StringLength(255)] string Host,
    int Port,
    [property: StringLength(10)] string Security,
    [property: StringLength(255)] string UserName,
    [property: StringLength(10_000)] string? Password,
    int? AMinute,
    int? ADay,
    int? LargestBytes,
    IReadOnlyList<int>? PauseMinutes = null,
    bool IsMine = false,
    [property: StringLength(1_000)] string Signature = ""
);
