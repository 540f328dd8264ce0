using System.Net.Security;
using Microsoft.AspNetCore.Connections;
using Microsoft.Extensions.Logging;

namespace Rendal.Postroom;

/// <summary>Answers on the postroom's port.</summary>
public sealed partial class SmtpConnectionHandler(Mailbox mailbox, Drills drills, PracticeCertificates certificates, TimeProvider clock, ILogger<SmtpConnectionHandler> log) : ConnectionHandler
{
    private static readonly TimeSpan LongestConversation = TimeSpan.FromMinutes(30);

    /// <inheritdoc/>
    public override async Task OnConnectedAsync(ConnectionContext connection)
    {
        await using var stream = new ConnectionStream(connection.Transport);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(connection.ConnectionClosed);
        limit.CancelAfter(LongestConversation);
        var line = new SmtpLine(stream);
        try
        {
            var secured = connection.Items.ContainsKey(PostroomListening.Secured);
            if (secured)
            {
                await SecureAsync(line, limit.Token);
            }

            await new SmtpSession(line, mailbox, drills, secured, cancel => SecureAsync(line, cancel), clock).RunAsync(limit.Token);
        }
        catch (InvalidDataException)
        {
            await line.WriteAsync("500 the line is too long; goodbye", CancellationToken.None);
        }
        catch (LineCut)
        {
            // As the drill wants it: gone without a word, and without what the other side may still be saying.
            connection.Abort();
        }
        catch (Exception e) when (e is IOException or OperationCanceledException or ConnectionResetException or System.Security.Authentication.AuthenticationException)
        {
            LineLost(log, e.Message);
        }
    }

    private async Task SecureAsync(SmtpLine line, CancellationToken cancel)
    {
        var secured = new SslStream(line.Stream, leaveInnerStreamOpen: false);
        await secured.AuthenticateAsServerAsync(new SslServerAuthenticationOptions { ServerCertificate = certificates.Of(drills.Certificate) }, cancel);
        line.Exchange(secured);
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "The line to a mail program was lost: {Reason}")]
    private static partial void LineLost(ILogger log, string reason);
}
