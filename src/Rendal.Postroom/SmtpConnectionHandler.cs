using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.Connections;
using Microsoft.Extensions.Logging;

namespace Rendal.Postroom;

/// <summary>Answers on the postroom's port. The certificate for STARTTLS is made for each run and signed by nobody.</summary>
public sealed partial class SmtpConnectionHandler(Mailbox mailbox, TimeProvider clock, ILogger<SmtpConnectionHandler> log) : ConnectionHandler
{
    private static readonly TimeSpan LongestConversation = TimeSpan.FromMinutes(30);
    private static readonly Lazy<X509Certificate2> Certificate = new(MakeCertificate);

    /// <inheritdoc/>
    public override async Task OnConnectedAsync(ConnectionContext connection)
    {
        await using var stream = new ConnectionStream(connection.Transport);
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(connection.ConnectionClosed);
        limit.CancelAfter(LongestConversation);
        var line = new SmtpLine(stream);
        try
        {
            await new SmtpSession(line, mailbox, Certificate.Value, clock).RunAsync(limit.Token);
        }
        catch (InvalidDataException)
        {
            await line.WriteAsync("500 the line is too long; goodbye", CancellationToken.None);
        }
        catch (Exception e) when (e is IOException or OperationCanceledException or ConnectionResetException or System.Security.Authentication.AuthenticationException)
        {
            LineLost(log, e.Message);
        }
    }

    private static X509Certificate2 MakeCertificate()
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=postroom.rendal.example", key, HashAlgorithmName.SHA256);
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddYears(1));
        return X509CertificateLoader.LoadPkcs12(made.Export(X509ContentType.Pkcs12), null);
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "The line to a mail program was lost: {Reason}")]
    private static partial void LineLost(ILogger log, string reason);
}
