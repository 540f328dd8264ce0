using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.DataProtection;
using Rendal.Mail;
using Rendal.Store.Returned;
using Rendal.Store.Senders;

namespace Rendal.App.Senders;

/// <summary>
/// Keeps mail passwords encrypted, their keys outside the database. Each is bound to the server that it was given for: it can
/// be read for that host, port and security alone.
/// </summary>
public sealed class SenderSecrets(IDataProtectionProvider provider, IPracticeServer practice)
{
    /// <summary>Why a sender sends nothing whose password cannot be read.</summary>
    public const string CannotBeRead =
        "The password that was kept cannot be read any more: its key is gone, or it was given for another server. Type it again.";

    private readonly IDataProtector unbound = provider.CreateProtector("sender password");

    /// <summary>Encrypts the password for a server.</summary>
    public byte[] Protect(string password, string host, int port, string security) =>
        Bound(host, port, security).Protect(Encoding.UTF8.GetBytes(password));

    /// <summary>What is needed to sign in at the mail server of a sender; null where its password cannot be read.</summary>
    /// <param name="book">The book.</param>
    /// <param name="timeZone">The IANA name of the book's zone.</param>
    /// <param name="sender">The sender.</param>
    public MailAccount? AccountOf(long book, string timeZone, Sender sender) =>
        Account(book, timeZone, sender.Host, sender.Port, sender.Security, sender.UserName, sender.ProtectedPassword);

    /// <summary>What is needed to sign in to a mailbox; null where its password cannot be read.</summary>
    public MailAccount? AccountOf(ReplyMailboxRecord mailbox) =>
        Account(mailbox.Book, mailbox.TimeZone, mailbox.Host, mailbox.Port, mailbox.Security, mailbox.UserName, mailbox.ProtectedPassword);

    /// <summary>Whether a server is the postroom.</summary>
    public bool IsPractice(string host, int port) => practice.IsAt(host, port);

    /// <summary>The name that the postroom knows a book by.</summary>
    public string PracticeUser(long book) => practice.UserName(book);

    private MailAccount? Account(long book, string timeZone, string host, int port, string security, string userName, byte[]? secret)
    {
        // The postroom lets a book in to its own account and to no other, and its password is never typed.
        var password = IsPractice(host, port)
            ? userName == practice.UserName(book)
                ? practice.Password(book)
                : null
            : secret is null
                ? ""
                : Unprotected(secret, host, port, security);
        return password is null
            ? null
            : new MailAccount(host, port, LineSecurities.Parse(security), userName, password)
            {
                Zone = TimeZoneInfo.FindSystemTimeZoneById(timeZone),
            };
    }

    private string? Unprotected(byte[] secret, string host, int port, string security)
    {
        foreach (var protector in new[] { Bound(host, port, security), unbound })
        {
            try
            {
                return Encoding.UTF8.GetString(protector.Unprotect(secret));
            }
            catch (CryptographicException)
            {
                // Bound to another server, kept by an older version, which bound none, or its key is gone.
            }
        }

        return null;
    }

    private IDataProtector Bound(string host, int port, string security) =>
        provider.CreateProtector(
            "mail password",
            host.ToUpperInvariant(),
            port.ToString(System.Globalization.CultureInfo.InvariantCulture),
            security
        );
}
