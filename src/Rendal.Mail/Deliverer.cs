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
/// <param name="account">The server.</param>
/// <param name="timeout">How long it may be silent.</param>
/// <param name="network">Which servers may be talked to, and whose certificates are trusted.</param>
public sealed class Deliverer(MailAccount account, TimeSpan timeout, MailNetwork network) : IAsyncDisposable
{
    /// <summary>However the server drips, a message takes no longer than so many times what it may be silent.</summary>
    private const int SilencesAMessage = 5;

    private SmtpConnection? client;

    /// <summary>Hands one message to the server, signing in first where the connection is not open yet.</summary>
    /// <param name="bytes">The message as it goes out.</param>
    /// <param name="from">The address that returned mail goes to.</param>
    /// <param name="recipients">Whom the server is asked to deliver to.</param>
    /// <param name="beforeEnd">
    /// Awaited when the server has all but the end, unless the line is known to be down. If it throws, the line is cut, the server never
    /// had the message whole, and the exception comes through.
    /// </param>
    /// <param name="cancel">Stops it at the next step.</param>
    /// <exception cref="OperationCanceledException">It was stopped before the end was handed over.</exception>
    public async Task<Outcome> CarryAsync(
        byte[] bytes,
        string from,
        IReadOnlyList<string> recipients,
        Func<Task> beforeEnd,
        CancellationToken cancel
    )
    {
        var used = client is { IsConnected: true };
        var (outcome, reached) = await OnceAsync(bytes, from, recipients, beforeEnd, cancel);

        // A line that has carried messages before may have been closed since, or be closed now because it carried enough (421).
        // The server took nothing of this message, so it is said again on a new line.
        return used && !reached ? (await OnceAsync(bytes, from, recipients, beforeEnd, cancel)).Outcome : outcome;
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
            catch (Exception e) when (IsOfTheLine(e))
            {
                // The server need not hear the goodbye: everything it took was answered.
            }
        }

        client?.Dispose();
        client = null;
    }

    /// <returns>The outcome, and whether the server said anything about the message or its recipients.</returns>
    private async Task<(Outcome Outcome, bool Reached)> OnceAsync(
        byte[] bytes,
        string from,
        IReadOnlyList<string> recipients,
        Func<Task> beforeEnd,
        CancellationToken cancel
    )
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(timeout * SilencesAMessage);
        SmtpConnection connected;
        try
        {
            connected = await ConnectedAsync(limit.Token);
        }
        catch (AuthenticationException e) when (e.InnerException is not SmtpCommandException answer || !IsTransient(answer.StatusCode))
        {
            await DropAsync();
            return (
                new Outcome(
                    OutcomeKind.SignInRefused,
                    e.InnerException is SmtpCommandException refused ? Words(refused) : ForeignWords.Printable(e.Message),
                    []
                ),
                true
            );
        }
        catch (Exception e) when (IsOfTheLine(e) && !cancel.IsCancellationRequested)
        {
            await DropAsync();
            return (new Outcome(OutcomeKind.Unreachable, $"{account.Host}:{account.Port} – {OneLine(e)}", []), true);
        }

        var handed = new Handing(beforeEnd, connected);
        try
        {
            connected.Answers.Clear();
            using var message = RecordedMessage.Of(bytes, handed.Begin, handed.BeforeEndAsync);
            var answer = await connected.SendAsync(
                message,
                new MailboxAddress("", from),
                recipients.Select(r => new MailboxAddress("", r)),
                limit.Token
            );
            return (new Outcome(OutcomeKind.Accepted, $"250 {ForeignWords.Printable(answer)}".Trim(), [.. connected.Answers]), true);
        }
        catch (Exception e) when (e is SmtpCommandException or NobodyAccepted)
        {
            List<RecipientAnswer> answers = [.. connected.Answers];
            var outcome = e is SmtpCommandException refused ? Answered(refused, answers) : Refused(answers);
            var isClosing = outcome.Answer.StartsWith("421", StringComparison.Ordinal);
            if (isClosing)
            {
                await DropAsync();
            }

            // Otherwise the line is in order: MailKit has sent RSET.
            return (outcome, !isClosing || answers.Count > 0 || handed.Over);
        }
        catch (Exception e) when (!handed.Stopped && !cancel.IsCancellationRequested && IsOfTheLine(e))
        {
            List<RecipientAnswer> answers = [.. connected.Answers];
            await DropAsync();
            return handed.Over
                ? (
                    new Outcome(
                        OutcomeKind.Unanswered,
                        $"The line was cut after the message was handed over and before the server answered: {OneLine(e)}",
                        answers
                    ),
                    true
                )
                : (new Outcome(OutcomeKind.TryLater, $"{account.Host}:{account.Port} – {OneLine(e)}", answers), false);
        }
        catch
        {
            await DropAsync();
            throw;
        }
    }

    private async Task<SmtpConnection> ConnectedAsync(CancellationToken cancel)
    {
        if (client is { IsConnected: true })
        {
            return client;
        }

        client?.Dispose();
        client = new SmtpConnection(account, timeout, network);
        await client.OpenAsync(cancel);
        await client.SignInAsync(cancel);
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

    /// <summary>Whether a fault is one of the connection, not of our own.</summary>
    internal static bool IsOfTheLine(Exception e) =>
        e
            is IOException
                or SocketException
                or ProtocolException
                or SslHandshakeException
                or ServiceNotConnectedException
                or SmtpCommandException
                or AuthenticationException
                or TimeoutException
                or OperationCanceledException
                or NotSupportedException;

    private static Outcome Answered(SmtpCommandException e, IReadOnlyList<RecipientAnswer> answers) =>
        new(IsTransient(e.StatusCode) ? OutcomeKind.TryLater : OutcomeKind.Refused, Words(e), answers);

    /// <summary>No recipient was taken. If one was refused for now only, it is worth coming back.</summary>
    private static Outcome Refused(IReadOnlyList<RecipientAnswer> answers) =>
        new(
            answers.Any(a => a.Answer.StartsWith('4')) ? OutcomeKind.TryLater : OutcomeKind.Refused,
            string.Join("; ", answers.Select(a => a.Answer)),
            answers
        );

    private static bool IsTransient(SmtpStatusCode code) => (int)code is >= 400 and < 500;

    private static string Words(SmtpCommandException e) => $"{(int)e.StatusCode} {ForeignWords.Printable(e.Message)}";

    /// <summary>What went wrong, on one line: the server’s reply where there is one, else the words of the system.</summary>
    internal static string OneLine(Exception e) =>
        e is SmtpCommandException answered ? Words(answered)
        : e is AuthenticationException { InnerException: SmtpCommandException refused } ? Words(refused)
        : e is OperationCanceledException ? "the server did not get on within the time that it is given"
        : ForeignWords.Printable((e.InnerException is SocketException inner ? inner.Message : e.Message).Split('\n')[0]).Trim();

    /// <summary>How far one message was handed over.</summary>
    private sealed class Handing(Func<Task> beforeEnd, SmtpConnection line)
    {
        /// <summary>Whether the server may have been given the end.</summary>
        public bool Over { get; private set; }

        /// <summary>Whether whoever sends wanted the end not to be given.</summary>
        public bool Stopped { get; private set; }

        /// <summary>Called when the message begins: from then on short writes are gathered.</summary>
        public void Begin() => line.IsFillingPackets = true;

        /// <summary>Called when all but the end is written.</summary>
        public async Task BeforeEndAsync()
        {
            line.IsFillingPackets = false;
            line.DemandUp();
            try
            {
                await beforeEnd();
            }
            catch
            {
                Stopped = true;
                throw;
            }

            // It was written down that the end goes out now. Where the line broke meanwhile it does not go out after all.
            line.DemandUp();
            Over = true;
        }
    }
}
