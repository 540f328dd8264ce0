using System.Net.Security;
using Microsoft.AspNetCore.Connections;
using Microsoft.Extensions.Logging;

namespace Rendal.Postroom;

/// <summary>Holds a line to a mail program, whichever language they talk, and secures it.</summary>
public abstract partial class MailConnectionHandler(Drills drills, PracticeCertificates certificates, ILogger log) : ConnectionHandler
{
    private static readonly TimeSpan LongestConversation = TimeSpan.FromMinutes(30);

    /// <inheritdoc/>
    public override async Task OnConnectedAsync(ConnectionContext connection)
    {
        await using var stream = new ConnectionStream(connection.Transport);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(connection.ConnectionClosed);
        limit.CancelAfter(LongestConversation);
        var line = new TalkLine(stream);
        try
        {
            var secured = connection.Items.ContainsKey(PostroomListening.Secured);
            if (secured)
            {
                await SecureAsync(line, limit.Token);
            }

            await TalkAsync(line, secured, cancel => SecureAsync(line, cancel), limit.Token);
        }
        catch (InvalidDataException)
        {
            await line.WriteAsync(TooLong, CancellationToken.None);
        }
        catch (LineCut)
        {
            // As the drill wants it: gone without a word, and without what the other side may still be saying.
            connection.Abort();
        }
        catch (Exception e)
            when (e
                    is IOException
                        or OperationCanceledException
                        or ConnectionResetException
                        or System.Security.Authentication.AuthenticationException
            )
        {
            LineLost(log, e.Message);
        }
    }

    /// <summary>The drills that go on.</summary>
    private protected Drills Drills => drills;

    /// <summary>What is said of a line that is longer than one may be.</summary>
    private protected abstract string TooLong { get; }

    /// <summary>Talks until the other side says goodbye or closes.</summary>
    private protected abstract Task TalkAsync(
        TalkLine line,
        bool secured,
        Func<CancellationToken, Task> secureAsync,
        CancellationToken cancel
    );

    private async Task SecureAsync(TalkLine line, CancellationToken cancel)
    {
        var secured = new SslStream(line.Stream, leaveInnerStreamOpen: false);
        await secured.AuthenticateAsServerAsync(
            new SslServerAuthenticationOptions { ServerCertificate = certificates.Of(drills.Certificate) },
            cancel
        );
        line.Exchange(secured);
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "The line to a mail program was lost: {Reason}")]
    private static partial void LineLost(ILogger log, string reason);
}
