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

/// <summary>What a look into a mailbox came to.</summary>
/// <param name="Place">How far it is looked through now.</param>
/// <param name="Left">How many new messages were not reached in the time that it had.</param>
public sealed record ReplyLook(ReplyPlace Place, int Left);

/// <summary>
/// Fetches what came back from a mailbox by IMAP (RFC 3501). The mailbox is left as it is: nothing in it is marked, moved or deleted.
/// </summary>
public static class ReplyMailbox
{
    // Reports carry the message that came back, with its enclosures; what is larger is none.
    private const uint LargestReport = 50_000_000;

    /// <summary>Goes through the messages of the inbox that were not looked at yet, the oldest first.</summary>
    /// <param name="account">The mailbox.</param>
    /// <param name="place">How far it was looked through; null for not at all.</param>
    /// <param name="since">The day from which on it is looked through the first time.</param>
    /// <param name="silence">How long the server may be silent.</param>
    /// <param name="longest">How long the whole may take. What it reached by then counts; the rest is left for the next look.</param>
    /// <param name="network">Which servers may be talked to, and whose certificates are trusted.</param>
    /// <param name="take">Is given each message.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="MailboxUnreachable">It cannot be reached or read; the message says why and what to do.</exception>
    public static async Task<ReplyLook> LookAsync(
        MailAccount account,
        ReplyPlace? place,
        DateOnly since,
        TimeSpan silence,
        TimeSpan longest,
        MailNetwork network,
        Func<byte[], Task> take,
        CancellationToken cancel
    )
    {
        var check = new CertificateCheck(network.Authorities, account.Zone);
        using var client = new ImapClient
        {
            Timeout = (int)silence.TotalMilliseconds,
            CheckCertificateRevocation = false,
            ServerCertificateValidationCallback = check.IsGood,
        };
        using var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(longest);
        try
        {
            await socket.ConnectAsync(await network.AddressesAsync(account.Host, account.Port, limit.Token), account.Port, limit.Token);
            await client.ConnectAsync(socket, account.Host, account.Port, account.Security.Options(), limit.Token);
            await client.AuthenticateAsync(account.UserName, account.Password, limit.Token);
            await client.Inbox.OpenAsync(FolderAccess.ReadOnly, limit.Token);
            var known = place is not null && place.Validity == client.Inbox.UidValidity ? place.Last : 0;
            SearchQuery query =
                known > 0
                    ? SearchQuery.Uids(new UniqueIdRange(new UniqueId((uint)known + 1), UniqueId.MaxValue))
                    : SearchQuery.DeliveredAfter(since.ToDateTime(TimeOnly.MinValue));

            // “From 8 on” is answered with the last message even when that is number 7.
            var found = (await client.Inbox.SearchAsync(query, limit.Token)).Where(uid => uid.Id > known).Order().ToList();
            var sizes =
                found.Count == 0
                    ? []
                    : await client.Inbox.FetchAsync(found, MessageSummaryItems.UniqueId | MessageSummaryItems.Size, limit.Token);
            var reports = sizes.Where(s => s.Size <= LargestReport).OrderBy(s => s.UniqueId.Id).ToList();
            for (var i = 0; i < reports.Count; i++)
            {
                try
                {
                    await take(await ReadAsync(client.Inbox, reports[i].UniqueId, limit.Token));
                }
                catch (Exception e) when (i > 0 && e is OperationCanceledException or IOException && IsTimeUp())
                {
                    return new ReplyLook(new ReplyPlace(client.Inbox.UidValidity, reports[i - 1].UniqueId.Id), reports.Count - i);
                }
            }

            var reached = new ReplyPlace(client.Inbox.UidValidity, found.Count > 0 ? found[^1].Id : known);
            await LeaveAsync(client, limit.Token, cancel);
            return new ReplyLook(reached, 0);
        }
        catch (HostNotAllowed e)
        {
            throw new MailboxUnreachable($"{e.Message}.", e);
        }
        catch (Exception e) when (e is OperationCanceledException or IOException && IsTimeUp())
        {
            throw new MailboxUnreachable(
                $"{account.Host} did not get on in the {longest.TotalSeconds:0} seconds that it is given. It is asked again by itself.",
                e
            );
        }
        catch (SslHandshakeException e)
        {
            throw new MailboxUnreachable(
                check.Problem.Length > 0
                    ? $"The certificate of {account.Host} {check.Problem}."
                    : $"The line to {account.Host} could not be secured; choose TLS (port 993) or STARTTLS (port 143).",
                e
            );
        }
        catch (SocketException e)
        {
            throw new MailboxUnreachable(
                e.SocketErrorCode is SocketError.HostNotFound or SocketError.NoData or SocketError.TryAgain
                    ? $"There is no server named {account.Host}."
                    : $"{account.Host} does not answer at port {account.Port}.",
                e
            );
        }
        catch (Exception e) when (e is AuthenticationException or SaslException)
        {
            throw new MailboxUnreachable($"{account.Host} does not let {account.UserName} in. Look at the name and the password.", e);
        }
        catch (NotSupportedException e)
        {
            throw new MailboxUnreachable($"{account.Host} does not offer to secure the line; choose TLS (port 993).", e);
        }
        catch (Exception e) when (e is IOException or ImapCommandException or ImapProtocolException or TimeoutException)
        {
            throw new MailboxUnreachable($"{account.Host} could not be read from: the line was closed, or what answers is no mailbox.", e);
        }

        bool IsTimeUp() => limit.IsCancellationRequested && !cancel.IsCancellationRequested;
    }

    private static async Task LeaveAsync(ImapClient client, CancellationToken limit, CancellationToken cancel)
    {
        try
        {
            await client.DisconnectAsync(quit: true, limit);
        }
        catch (Exception e)
            when (e is IOException or ImapCommandException or ImapProtocolException or TimeoutException or OperationCanceledException
                && !cancel.IsCancellationRequested
            )
        {
            // The server need not hear the goodbye: everything that it was asked was answered.
        }
    }

    private static async Task<byte[]> ReadAsync(IMailFolder folder, UniqueId message, CancellationToken cancel)
    {
        using var bytes = new MemoryStream();
        await using var stream = await folder.GetStreamAsync(message, string.Empty, cancel);
        await stream.CopyToAsync(bytes, cancel);
        return bytes.ToArray();
    }
}
