using System.Net;

namespace Rendal.App.Senders;

/// <summary>Refuses a mail server that cannot be used as it is filled in.</summary>
public static class MailServerCheck
{
    /// <summary>Whether a host is the machine that this runs on, by its name or address.</summary>
    public static bool IsThisMachine(string host) =>
        host == "localhost" || (IPAddress.TryParse(host, out var address) && IPAddress.IsLoopback(address));

    /// <summary>Refuses a server that is not named, or that would be talked to without security although it is another machine.</summary>
    /// <param name="host">Its name or address.</param>
    /// <param name="port">Its port.</param>
    /// <param name="security"><c>none</c>, <c>starttls</c> or <c>tls</c>.</param>
    /// <param name="secured">How it would be secured, in words for a person.</param>
    /// <exception cref="ProblemException">It is one of those.</exception>
    internal static void DemandServer(string host, int port, string security, string secured)
    {
        if (security is not ("none" or "starttls" or "tls"))
        {
            throw ProblemException.Invalid("Choose how the line is secured.");
        }

        if (security == "none" && !IsThisMachine(host))
        {
            throw ProblemException.Invalid($"Without security mail can only go to this machine. Choose {secured} for {host}.");
        }

        if (
            port is < 1 or > 65535
            || Uri.CheckHostName(host.Trim()) is not (UriHostNameType.Dns or UriHostNameType.IPv4 or UriHostNameType.IPv6)
        )
        {
            throw ProblemException.Invalid("Say the mail server’s name and its port.");
        }
    }

    /// <summary>Refuses a kept password for another server than the one that it was given for.</summary>
    /// <param name="kept">The server that it was given for; null where none was.</param>
    /// <param name="secret">It, encrypted; null where none is kept.</param>
    /// <param name="host">The server that it would be used for.</param>
    /// <param name="port">Its port.</param>
    /// <param name="security">How it is secured.</param>
    /// <param name="typed">The password that was typed; null or empty where the kept one is meant.</param>
    /// <exception cref="ProblemException">It is for another server.</exception>
    internal static void DemandPassword(
        (string Host, int Port, string Security)? kept,
        byte[]? secret,
        string host,
        int port,
        string security,
        string? typed
    )
    {
        if (secret is not null && string.IsNullOrEmpty(typed) && kept is { } server && server != (host.Trim(), port, security))
        {
            throw ProblemException.Invalid(
                $"The password was given for {server.Host}, port {server.Port}. Type it again for {host.Trim()}, port {port}."
            );
        }
    }

    /// <summary>Refuses another user than the book at the server to practise with.</summary>
    /// <exception cref="ProblemException">It is another.</exception>
    internal static void DemandPracticeUser(SenderSecrets secrets, long book, string host, int port, string userName)
    {
        if (secrets.IsPractice(host.Trim(), port) && secrets.PracticeUser(book) is var own && userName.Trim() != own)
        {
            throw ProblemException.Invalid($"The postroom knows this book as {own}. Give that as the user name.");
        }
    }
}
