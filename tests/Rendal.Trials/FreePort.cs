using System.Net;
using System.Net.Sockets;

namespace Rendal.Trials;

/// <summary>A port on 127.0.0.1 that nobody listens at. Another program may take it before it is used.</summary>
internal static class FreePort
{
    public static int Find()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
