using Rendal.App.Books;
using Rendal.App.Senders;
using Rendal.Store.Returned;

namespace Rendal.App.Returned;

/// <summary>Keeps the mailbox that what came back to a sender is fetched from.</summary>
public sealed class KeepReplyMailbox(BookStores stores, ReplyMailboxStore mailboxes, SenderSecrets secrets)
{
    /// <summary>Keeps the mailbox of a sender, in place of the one that was there.</summary>
    /// <param name="sender">The sender.</param>
    /// <param name="host">The server's name.</param>
    /// <param name="port">Its port.</param>
    /// <param name="security"><c>none</c>, <c>starttls</c> or <c>tls</c>.</param>
    /// <param name="userName">Who signs in.</param>
    /// <param name="password">The password; null or empty for the one that was given for the same server.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The sender is not there, the server cannot be used like that, or the user or the password is
    /// missing.</exception>
    public async Task RunAsync(
        long sender,
        string host,
        int port,
        string security,
        string userName,
        string? password,
        CancellationToken cancel
    )
    {
        await UsableSender.FindAsync(sender, stores, cancel);
        MailServerCheck.DemandServer(host, port, security, "STARTTLS (port 143) or TLS (port 993)");
        if (string.IsNullOrWhiteSpace(userName))
        {
            throw ProblemException.Invalid("Say who signs in to the mailbox.");
        }

        var kept = await mailboxes.FindAsync(stores.Book.Id, sender, cancel);
        MailServerCheck.DemandPassword(
            kept is null ? null : (kept.Host, kept.Port, kept.Security),
            kept?.ProtectedPassword,
            host,
            port,
            security,
            password
        );
        MailServerCheck.DemandPracticeUser(secrets, stores.Book.Id, host, port, userName);
        if (!secrets.IsPractice(host.Trim(), port) && string.IsNullOrEmpty(password) && kept?.ProtectedPassword is null)
        {
            throw ProblemException.Invalid("Give the password of the mailbox.");
        }

        var secret = string.IsNullOrEmpty(password) ? null : secrets.Protect(password, host.Trim(), port, security);
        await mailboxes.PutAsync(
            new ReplyMailboxRecord(stores.Book.Id, sender, host.Trim(), port, security, userName.Trim(), secret),
            cancel
        );
    }
}
