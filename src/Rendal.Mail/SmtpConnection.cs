using System.Diagnostics.CodeAnalysis;
using System.Net.Sockets;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Rendal.Core.Dispatch;

namespace Rendal.Mail;

/// <summary>A line to a mail server that remembers each answer, and goes on when one recipient among several is refused.</summary>
internal sealed class SmtpConnection : SmtpClient
{
    // The numbers of IPPROTO_TCP and TCP_CORK on Linux.
    private const int TcpOptions = 6;
    private const int TcpCork = 3;

    // A socket of our own, because without NoDelay each message waits for delayed acknowledgements.
    [SuppressMessage("Usage", "CA2213", Justification = "Once connected it is the base class’s, which disposes of it.")]
    private readonly Socket socket = new(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
    private readonly MailAccount account;
    private readonly MailNetwork network;
    private readonly CertificateCheck check;

    /// <summary>A line that is not open yet.</summary>
    /// <param name="account">The server.</param>
    /// <param name="silence">How long it may be silent.</param>
    /// <param name="network">Which servers may be talked to, and whose certificates are trusted.</param>
    public SmtpConnection(MailAccount account, TimeSpan silence, MailNetwork network)
    {
        (this.account, this.network, check) = (account, network, new CertificateCheck(network.Authorities, account.Zone));
        Timeout = (int)silence.TotalMilliseconds;
        CheckCertificateRevocation = false;
        ServerCertificateValidationCallback = check.IsGood;
    }

    /// <summary>The answers for the recipients since this was cleared last.</summary>
    public List<RecipientAnswer> Answers { get; } = [];

    /// <summary>Opens the line and says hello, secured as the account wants it.</summary>
    /// <exception cref="BadCertificate">The server's certificate is not good.</exception>
    /// <exception cref="HostNotAllowed">The server may not be talked to.</exception>
    public async Task OpenAsync(CancellationToken cancel)
    {
        try
        {
            using (var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel))
            {
                limit.CancelAfter(Timeout);
                await socket.ConnectAsync(
                    await network.AddressesAsync(account.Host, account.Port, limit.Token),
                    account.Port,
                    limit.Token
                );
            }

            await ConnectAsync(socket, account.Host, account.Port, account.Security.Options(), cancel);
        }
        catch (SslHandshakeException e) when (check.Problem.Length > 0)
        {
            socket.Dispose();
            throw new BadCertificate($"The certificate of {account.Host} {check.Problem}.", e);
        }
        catch
        {
            socket.Dispose();
            throw;
        }

        // BDAT would give the server the end together with the last piece, and there would be no moment to write it down before.
        Capabilities &= ~SmtpCapabilities.Chunking;
    }

    /// <summary>Signs in, where the account has a user name.</summary>
    public Task SignInAsync(CancellationToken cancel) =>
        account.UserName.Length > 0 ? AuthenticateAsync(account.UserName, account.Password, cancel) : Task.CompletedTask;

    /// <summary>Sends one command as it is, for example <c>RSET</c>, and waits for the reply.</summary>
    public async Task<SmtpResponse> SayAsync(string command, CancellationToken cancel) => await SendCommandAsync(command, cancel);

    /// <summary>
    /// Whether what is written is held back until a packet is full, or for 200 ms at most (TCP_CORK, see tcp(7)). The pieces in which a
    /// message is written would each be a packet of its own otherwise.
    /// </summary>
    public bool IsFillingPackets
    {
        set => socket.SetRawSocketOption(TcpOptions, TcpCork, BitConverter.GetBytes(value ? 1 : 0));
    }

    /// <summary>Throws where the server has closed the line: a message that it cut off in the middle has no end to be given.</summary>
    public void DemandUp()
    {
        if (socket.Poll(0, SelectMode.SelectError) || (socket.Poll(0, SelectMode.SelectRead) && socket.Available == 0))
        {
            throw new IOException("The server closed the line before it had the whole message.");
        }
    }

    protected override void OnRecipientAccepted(MimeMessage message, MailboxAddress mailbox, SmtpResponse response) =>
        Answers.Add(new RecipientAnswer(mailbox.Address, true, Words(response)));

    protected override void OnRecipientNotAccepted(MimeMessage message, MailboxAddress mailbox, SmtpResponse response) =>
        Answers.Add(new RecipientAnswer(mailbox.Address, false, Words(response)));

    protected override void OnNoRecipientsAccepted(MimeMessage message) => throw new NobodyAccepted();

    /// <summary>A reply with its code on one line: <c>550 5.1.1 User unknown</c>.</summary>
    public static string Words(SmtpResponse response) => $"{(int)response.StatusCode} {ForeignWords.Printable(response.Response)}";
}

/// <summary>The server took none of the recipients.</summary>
internal sealed class NobodyAccepted : Exception;
