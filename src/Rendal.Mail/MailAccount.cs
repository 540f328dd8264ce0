using MailKit.Security;

namespace Rendal.Mail;

/// <summary>A mail server and how to sign in to it.</summary>
/// <param name="Host">The server's name.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security">How the line is secured.</param>
/// <param name="UserName">Who signs in; empty where nobody has to.</param>
/// <param name="Password">The password.</param>
public sealed record MailAccount(string Host, int Port, LineSecurity Security, string UserName, string Password)
{
    /// <summary>The zone that dates are told in.</summary>
    public TimeZoneInfo Zone { get; init; } = TimeZoneInfo.Utc;
}

/// <summary>How the line to a server is secured.</summary>
public enum LineSecurity
{
    /// <summary>Not at all: on this machine only.</summary>
    None,

    /// <summary>By STARTTLS (RFC 3207), which must be offered.</summary>
    StartTls,

    /// <summary>From the first byte (RFC 8314).</summary>
    Tls,
}

/// <summary>The names of the ways to secure a line.</summary>
public static class LineSecurities
{
    /// <summary>The security of a stored name: <c>none</c>, <c>starttls</c>, <c>tls</c>.</summary>
    /// <exception cref="ArgumentException">There is no such security.</exception>
    public static LineSecurity Parse(string code) =>
        code switch
        {
            "none" => LineSecurity.None,
            "starttls" => LineSecurity.StartTls,
            "tls" => LineSecurity.Tls,
            _ => throw new ArgumentException($"“{code}” is not a way to secure a line.", nameof(code)),
        };

    /// <summary>The same for the library.</summary>
    internal static SecureSocketOptions Options(this LineSecurity security) =>
        security switch
        {
            LineSecurity.None => SecureSocketOptions.None,
            LineSecurity.StartTls => SecureSocketOptions.StartTls,
            _ => SecureSocketOptions.SslOnConnect,
        };
}
