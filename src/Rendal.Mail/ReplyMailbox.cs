using System.Net.Sockets;
using MailKit;
using MailKit.Net.Imap;
using MailKit.Search;
using MailKit.Security;

namespace Rendal.Mail;

/// <summary>How far a mailbox was looked through (RFC 3501, section 2.3.1.1).</summary>
/// <param name="Validity">What the server's numbers are worth: with another one, they begin anew.</param>
/// <param name="Last">The highest number that was looked at.</param>
public sealed record ReplyPlace(long Validity, long Last);

/// <summary>Fetches what came back from a mailbox by IMAP (RFC 3501). The mailbox is left as it is: nothing in it is marked, moved or deleted.</summary>
public static class ReplyMailbox
{
    // Reports carry the message that came back, with its enclosures; what is larger is none.
    private const uint LargestReport = 50_000_000;

    /// <summary>Goes through the messages of the inbox that were not looked at yet, the oldest first.</summary>
    /// <param name="account">The mailbox.</param>
    /// <param name="place">How far it was looked through; null for not at all.</param>
    /// <param name="since">The day from which on it is looked through the first time.</param>
    /// <param name="silence">How long the server may be silent.</param>
    /// <param name="network">Which servers may be talked to, and whose certificates are trusted.</param>
    /// <param name="take">Is given each message.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>How far it is looked through now.</returns>
    /// <exception cref="ReplyMailboxAway">It cannot be reached or read; the message says why and what to do.</exception>
    public static async Task<ReplyPlace> LookAsync(MailAccount account, ReplyPlace? place, DateOnly since, TimeSpan silence, MailNetwork network, Func<byte[], Task> take, CancellationToken cancel)
    {
        var check = new CertificateCheck(network.Authorities, account.Zone);
        using var client = new ImapClient { Timeout = (int)silence.TotalMilliseconds, CheckCertificateRevocation = false, ServerCertificateValidationCallback = check.IsGood };
        using var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(await network.AddressesAsync(account.Host, account.Port, cancel), account.Port, cancel);
            await client.ConnectAsync(socket, account.Host, account.Port, account.Security.Options(), cancel);
            await client.AuthenticateAsync(account.UserName, account.Password, cancel);
            await client.Inbox.OpenAsync(FolderAccess.ReadOnly, cancel);
            var known = place is not null && place.Validity == client.Inbox.UidValidity ? place.Last : 0;
            SearchQuery query = known > 0 ? SearchQuery.Uids(new UniqueIdRange(new UniqueId((uint)known + 1), UniqueId.MaxValue)) : SearchQuery.DeliveredAfter(since.ToDateTime(TimeOnly.MinValue));

            // “From 8 on” is answered with the last message even when that is number 7.
            var found = (await client.Inbox.SearchAsync(query, cancel)).Where(uid => uid.Id > known).Order().ToList();
            var sizes = found.Count == 0 ? [] : await client.Inbox.FetchAsync(found, MessageSummaryItems.UniqueId | MessageSummaryItems.Size, cancel);
            foreach (var one in sizes.Where(s => s.Size <= LargestReport).OrderBy(s => s.UniqueId.Id))
            {
                using var bytes = new MemoryStream();
                await using (var stream = await client.Inbox.GetStreamAsync(one.UniqueId, string.Empty, cancel))
                {
                    await stream.CopyToAsync(bytes, cancel);
                }

                await take(bytes.ToArray());
            }

            var reached = new ReplyPlace(client.Inbox.UidValidity, found.Count > 0 ? found[^1].Id : known);
            await client.DisconnectAsync(quit: true, cancel);
            return reached;
        }
        catch (HostNotAllowed e)
        {
            throw new ReplyMailboxAway($"{e.Message}.", e);
        }
        catch (SslHandshakeException e)
        {
            throw new ReplyMailboxAway(check.Problem.Length > 0 ? $"The certificate of {account.Host} {check.Problem}." : $"The line to {account.Host} could not be secured; choose TLS (port 993) or STARTTLS (port 143).", e);
        }
        catch (SocketException e)
        {
            throw new ReplyMailboxAway(e.SocketErrorCode is SocketError.HostNotFound or SocketError.NoData or SocketError.TryAgain
                ? $"There is no server named {account.Host}."
                : $"{account.Host} does not answer at port {account.Port}.", e);
        }
        catch (Exception e) when (e is AuthenticationException or SaslException)
        {
            throw new ReplyMailboxAway($"{account.Host} does not let {account.UserName} in. Look at the name and the password.", e);
        }
        catch (NotSupportedException e)
        {
            throw new ReplyMailboxAway($"{account.Host} does not offer to secure the line; choose TLS (port 993).", e);
        }
        catch (Exception e) when (e is IOException or ImapCommandException or ImapProtocolException or TimeoutException || (e is OperationCanceledException && !cancel.IsCancellationRequested))
        {
            throw new ReplyMailboxAway($"{account.Host} could not be read from: the line was closed, or what answers is no mailbox.", e);
        }
    }
}

/// <summary>A mailbox cannot be reached or read; the message says why.</summary>
public sealed class ReplyMailboxAway(string message, Exception inner) : IOException(message, inner);
