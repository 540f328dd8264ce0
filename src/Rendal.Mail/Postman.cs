using System.Net.Sockets;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using Rendal.Core.Dispatch;

namespace Rendal.Mail;

/// <summary>
/// Carries messages to one mail server over one connection, one after another. The connection is made when it is
/// needed and made anew after it failed. Not to be shared between threads.
/// </summary>
public sealed class Postman(MailAccount account, TimeSpan timeout) : IAsyncDisposable
{
    private AnsweringClient? client;

    /// <summary>Hands one message to the server.</summary>
    /// <param name="bytes">The message as it goes out.</param>
    /// <param name="from">The address that returned mail goes to.</param>
    /// <param name="recipients">Whom the server is asked to deliver to.</param>
    /// <param name="beforeEnd">
    /// Awaited when the server has all but the end. If it throws, the line is cut, the server never had the message
    /// whole, and the exception comes through.
    /// </param>
    /// <param name="cancel">Stops it at the next step.</param>
    /// <exception cref="OperationCanceledException">It was stopped before the end was handed over.</exception>
    public async Task<Outcome> CarryAsync(byte[] bytes, string from, IReadOnlyList<string> recipients, Func<Task> beforeEnd, CancellationToken cancel)
    {
        var ended = false;
        Exception? stopped = null;
        async Task BeforeEnd()
        {
            try
            {
                await beforeEnd();
                ended = true;
            }
            catch (Exception e)
            {
                stopped = e;
                throw;
            }
        }

        try
        {
            var connected = await ConnectedAsync(cancel);
            connected.Answers.Clear();
            using var message = RecordedMessage.Of(bytes, BeforeEnd);
            var answer = await connected.SendAsync(message, new MailboxAddress("", from), recipients.Select(r => new MailboxAddress("", r)), cancel);
            return new Outcome(Ending.Accepted, $"250 {answer}".Trim(), [.. connected.Answers]);
        }
        catch (Exception e) when (e is SmtpCommandException or NobodyAccepted)
        {
            // The server answered and the line is in order; MailKit has sent RSET.
            var answers = client?.Answers.ToList() ?? [];
            return e is NobodyAccepted ? Refused(answers) : Answered((SmtpCommandException)e, answers);
        }
        catch (AuthenticationException e)
        {
            await DropAsync();
            var code = (e.InnerException as SmtpCommandException)?.StatusCode;
            return new Outcome(IsTransient(code) ? Ending.TryLater : Ending.SignInRefused, code is { } c ? $"{(int)c} {e.InnerException!.Message}" : e.Message, []);
        }
        catch (Exception e) when (stopped is null && !cancel.IsCancellationRequested && e is IOException or SocketException or ProtocolException or SslHandshakeException or ServiceNotConnectedException or TimeoutException or OperationCanceledException or NotSupportedException)
        {
            var answers = client?.Answers.ToList() ?? [];
            await DropAsync();
            return ended
                ? new Outcome(Ending.Unanswered, $"The line was cut after the message was handed over and before the server answered: {OneLine(e)}", answers)
                : new Outcome(Ending.TryLater, $"{account.Host}:{account.Port} – {OneLine(e)}", answers);
        }
        catch
        {
            await DropAsync();
            throw;
        }
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        if (client is { IsConnected: true })
        {
            try
            {
                await client.DisconnectAsync(quit: true);
            }
            catch (Exception e) when (e is IOException or ProtocolException or SmtpCommandException or SocketException)
            {
                // The server need not hear the goodbye: everything it took was answered.
            }
        }

        client?.Dispose();
        client = null;
    }

    private async Task<AnsweringClient> ConnectedAsync(CancellationToken cancel)
    {
        if (client is { IsConnected: true })
        {
            return client;
        }

        client?.Dispose();
        client = new AnsweringClient { Timeout = (int)timeout.TotalMilliseconds };

        // A socket of our own, because without NoDelay each message waits for delayed acknowledgements.
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            limit.CancelAfter(timeout);
            await socket.ConnectAsync(account.Host, account.Port, limit.Token);
            await client.ConnectAsync(socket, account.Host, account.Port, account.Security.Options(), cancel);
        }
        catch
        {
            socket.Dispose();
            throw;
        }

        // BDAT would give the server the end together with the last piece, and there would be no moment to write it down before.
        client.Capabilities &= ~SmtpCapabilities.Chunking;
        if (account.UserName.Length > 0)
        {
            await client.AuthenticateAsync(account.UserName, account.Password, cancel);
        }

        return client;
    }

    private async Task DropAsync()
    {
        if (client is { IsConnected: true })
        {
            await client.DisconnectAsync(quit: false);
        }

        client?.Dispose();
        client = null;
    }

    private static Outcome Answered(SmtpCommandException e, IReadOnlyList<RecipientAnswer> answers) =>
        new(IsTransient(e.StatusCode) ? Ending.TryLater : Ending.Refused, $"{(int)e.StatusCode} {e.Message}", answers);

    /// <summary>No recipient was taken. If one was refused for now only, it is worth coming back.</summary>
    private static Outcome Refused(IReadOnlyList<RecipientAnswer> answers) =>
        new(answers.Any(a => a.Answer.StartsWith('4')) ? Ending.TryLater : Ending.Refused, string.Join("; ", answers.Select(a => a.Answer)), answers);

    private static bool IsTransient(SmtpStatusCode? code) => (int?)code is >= 400 and < 500;

    private static string OneLine(Exception e) => (e.InnerException is SocketException inner ? inner.Message : e.Message).ReplaceLineEndings(" ");

    private sealed class NobodyAccepted : Exception;

    /// <summary>A client that goes on when one recipient among several is refused, and remembers each answer.</summary>
    private sealed class AnsweringClient : SmtpClient
    {
        public List<RecipientAnswer> Answers { get; } = [];

        protected override void OnRecipientAccepted(MimeMessage message, MailboxAddress mailbox, SmtpResponse response) =>
            Answers.Add(new RecipientAnswer(mailbox.Address, true, $"{(int)response.StatusCode} {response.Response}"));

        protected override void OnRecipientNotAccepted(MimeMessage message, MailboxAddress mailbox, SmtpResponse response) =>
            Answers.Add(new RecipientAnswer(mailbox.Address, false, $"{(int)response.StatusCode} {response.Response}"));

        protected override void OnNoRecipientsAccepted(MimeMessage message) => throw new NobodyAccepted();
    }
}
