using System.Net.Sockets;
using MailKit.Net.Smtp;
using MailKit.Security;

namespace Rendal.Mail;

/// <summary>A step of trying a mail account.</summary>
public enum TrialStep
{
    /// <summary>Whether there is a server of this name.</summary>
    Name,

    /// <summary>Whether it answers at the port, on a line secured as it should be.</summary>
    Line,

    /// <summary>Whether its certificate is good.</summary>
    Certificate,

    /// <summary>Whether it lets the account in.</summary>
    SignIn,

    /// <summary>Whether the account may send under the address.</summary>
    Address,
}

/// <summary>What came of one step.</summary>
/// <param name="Step">The step.</param>
/// <param name="Passed">Whether it went well.</param>
/// <param name="Words">What was found, or the server's words.</param>
/// <param name="Remedy">What to do; empty where it went well.</param>
public sealed record TrialAnswer(TrialStep Step, bool Passed, string Words, string Remedy);

/// <summary>What came of trying an account.</summary>
/// <param name="Answers">The steps in their order, up to the first that failed.</param>
/// <param name="LargestBytes">The largest message that the server says it takes (SIZE of RFC 1870); null where it does not say.</param>
public sealed record TrialResult(IReadOnlyList<TrialAnswer> Answers, int? LargestBytes);

/// <summary>
/// Attempts a mail account step by step. Nothing is sent. What it tells is in words of its own, with the number of the server's
/// answer at the most: whatever answers at a port that somebody names is not read out to them.
/// </summary>
public static class AccountTrial
{
    /// <summary>Connects and signs in, and tells how far that came; nothing is sent.</summary>
    /// <param name="account">The account.</param>
    /// <param name="address">The address that it is to send under.</param>
    /// <param name="longest">How long the whole may take, however little the server is silent in between.</param>
    /// <param name="network">Which servers may be talked to, and whose certificates are trusted.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task<TrialResult> TryAsync(
        MailAccount account,
        string address,
        TimeSpan longest,
        MailNetwork network,
        CancellationToken cancel
    )
    {
        var answers = new List<TrialAnswer>();
        int? largest = null;
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(longest);
        try
        {
            await network.AddressesAsync(account.Host, account.Port, limit.Token);
            Passed(TrialStep.Name, $"there is a server named {account.Host}");
        }
        catch (HostNotAllowed e)
        {
            return Failed(TrialStep.Name, $"{account.Host} is not to be talked to", $"{e.Message}.");
        }
        catch (SocketException)
        {
            return Failed(
                TrialStep.Name,
                $"no server named {account.Host} was found",
                "There is no server of this name, or this machine cannot look names up. Check the spelling; your mail "
                    + "provider names the server."
            );
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return TimeUp(TrialStep.Name);
        }

        using var line = new SmtpConnection(account, longest, network);
        try
        {
            await line.OpenAsync(limit.Token);
            largest = line.MaxSize is > 0 and <= int.MaxValue ? (int)line.MaxSize : null;
            Passed(
                TrialStep.Line,
                "the server answers at port "
                    + $"{account.Port}{(line.IsSecure ? $", the line is secured by {line.SslProtocol}" : ", the line is not secured")}"
            );
            if (line.IsSecure)
            {
                Passed(TrialStep.Certificate, "its certificate is good");
            }
        }
        catch (BadCertificate e)
        {
            return Failed(
                TrialStep.Certificate,
                e.Message,
                "Somebody else may be answering in its place. If it is your own server, have its certificate renewed, or name "
                    + "the authority that signed it by RENDAL_MAIL_AUTHORITIES."
            );
        }
        catch (SslHandshakeException)
        {
            return Failed(
                TrialStep.Line,
                $"port {account.Port} does not answer in TLS",
                "Port 587 goes with STARTTLS, port 465 with TLS. Choose the other one."
            );
        }
        catch (NotSupportedException)
        {
            return Failed(
                TrialStep.Line,
                "the server does not offer STARTTLS",
                "The server cannot secure the line by STARTTLS. Choose TLS with port 465, or another server."
            );
        }
        catch (Exception e) when (IsTimeUp(e))
        {
            return TimeUp(TrialStep.Line);
        }
        catch (Exception e) when (Deliverer.IsOfTheLine(e) && !cancel.IsCancellationRequested)
        {
            return Failed(
                TrialStep.Line,
                Reached(e),
                $"Nothing useful answers at port {account.Port}. Check the port (587 with STARTTLS, 465 with TLS), and whether "
                    + "a firewall keeps this machine from it."
            );
        }

        try
        {
            await line.SignInAsync(limit.Token);
            Passed(TrialStep.SignIn, account.UserName.Length > 0 ? $"{account.UserName} is let in" : "no sign-in is wanted");
        }
        catch (NotSupportedException)
        {
            return Failed(
                TrialStep.SignIn,
                "the server offers no sign-in on this line",
                "Choose STARTTLS or TLS: most servers let nobody sign in on a line that is not secured."
            );
        }
        catch (Exception e) when (IsTimeUp(e))
        {
            return TimeUp(TrialStep.SignIn);
        }
        catch (Exception e) when (Deliverer.IsOfTheLine(e) && !cancel.IsCancellationRequested)
        {
            return Failed(
                TrialStep.SignIn,
                $"the server does not let {account.UserName} in{Number(e)}",
                "Check the user name and the password. Many providers want an app password here, which is made in the "
                    + "security settings of the account."
            );
        }

        try
        {
            foreach (var command in new[] { $"MAIL FROM:<{address}>", $"RCPT TO:<{address}>" })
            {
                var answer = await line.SayAsync(command, limit.Token);
                if ((int)answer.StatusCode is < 200 or >= 300)
                {
                    return Failed(
                        TrialStep.Address,
                        $"the server answers {(int)answer.StatusCode}",
                        $"The server does not let this account send as {address}. Use the account’s own address, or ask your "
                            + "mail provider to allow this one."
                    );
                }
            }

            await line.SayAsync("RSET", limit.Token);
            Passed(TrialStep.Address, $"{address} may send; nothing was sent");
        }
        catch (Exception e) when (IsTimeUp(e))
        {
            return TimeUp(TrialStep.Address);
        }
        catch (Exception e) when (Deliverer.IsOfTheLine(e) && !cancel.IsCancellationRequested)
        {
            return Failed(
                TrialStep.Address,
                "the line was closed",
                "The server closed the line. Try again; if it happens again, ask your mail provider."
            );
        }

        try
        {
            await line.DisconnectAsync(quit: true, limit.Token);
        }
        catch (Exception e) when (Deliverer.IsOfTheLine(e) && !cancel.IsCancellationRequested)
        {
            // The server need not hear the goodbye: everything that it was asked was answered.
        }

        return new TrialResult(answers, largest);

        bool IsTimeUp(Exception e) => Deliverer.IsOfTheLine(e) && limit.IsCancellationRequested && !cancel.IsCancellationRequested;

        void Passed(TrialStep step, string words) => answers.Add(new TrialAnswer(step, true, words, ""));

        TrialResult Failed(TrialStep step, string words, string remedy)
        {
            answers.Add(new TrialAnswer(step, false, words, remedy));
            return new TrialResult(answers, largest);
        }

        TrialResult TimeUp(TrialStep step) =>
            Failed(
                step,
                $"the server did not get this done in the {longest.TotalSeconds:0} seconds of the test",
                "Try again in a while. A message is given longer, so that mail may go all the same; if it happens again, ask "
                    + "your mail provider."
            );
    }

    /// <summary>How far a line came that could not be opened.</summary>
    private static string Reached(Exception fault) =>
        fault switch
        {
            SocketException { SocketErrorCode: SocketError.ConnectionRefused } => "nothing answers at this port",
            SocketException => "the server cannot be reached",
            OperationCanceledException or TimeoutException => "the server does not answer in time",
            SmtpCommandException refused => $"the server refuses the line{Number(refused)}",
            _ => "what answers is no mail server",
        };

    private static string Number(Exception fault) =>
        (fault as SmtpCommandException ?? fault.InnerException as SmtpCommandException) is { } answer
            ? $" ({(int)answer.StatusCode})"
            : "";
}
