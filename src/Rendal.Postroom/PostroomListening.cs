using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Server.Kestrel.Core;

namespace Rendal.Postroom;

/// <summary>Adds the postroom to a web server.</summary>
public static class PostroomListening
{
    /// <summary>Listens for mail programs on a port of 127.0.0.1; 0 takes a free one.</summary>
    public static void ListenForMail(this KestrelServerOptions options, int port) =>
        options.Listen(System.Net.IPAddress.Loopback, port, listen => listen.UseConnectionHandler<SmtpConnectionHandler>());
}
