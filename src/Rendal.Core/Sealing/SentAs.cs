namespace Rendal.Core.Sealing;

/// <summary>
/// The identity that a message goes out under, as its recipient sees it. How the mail server is reached is no part of it.
/// </summary>
/// <param name="Name">The name of the sender.</param>
/// <param name="Address">The address of the sender, to which returned mail goes as well.</param>
/// <param name="ReplyTo">The address that answers go to; empty for <see cref="Address"/>.</param>
/// <param name="CopyToSelf">Whether each message goes to <see cref="Address"/> as well, seen by nobody else.</param>
public sealed record SentAs(string Name, string Address, string ReplyTo, bool CopyToSelf)
{
    /// <summary>The lines under messages, with line feeds between; empty for the name.</summary>
    public string Signature { get; init; } = "";
}
