using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Rendal.Mail.Tests;

/// <summary>A mail server for one connection that answers whatever it is told to.</summary>
internal sealed class ScriptedServer : IAsyncDisposable
{
    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly Task serving;

    /// <summary>Starts it.</summary>
    /// <param name="answer">The answer to a line, for example to <c>RCPT TO:&lt;a@b.example&gt;</c>; to <c>.</c> for the end of the
    /// message.</param>
    public ScriptedServer(Func<string, string> answer)
    {
        listener.Start();
        serving = ServeAsync(answer);
    }

    public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

    public async ValueTask DisposeAsync()
    {
        listener.Dispose();
        await serving;
    }

    private async Task ServeAsync(Func<string, string> answer)
    {
        try
        {
            using var client = await listener.AcceptTcpClientAsync();
            using var stream = client.GetStream();
            using var reader = new StreamReader(stream, Encoding.Latin1);
            await SayAsync(stream, "220 mx.inn.example");
            var inMessage = false;
            while (await reader.ReadLineAsync() is { } line)
            {
                if (!inMessage || line == ".")
                {
                    inMessage = line.StartsWith("DATA", StringComparison.Ordinal);
                    await SayAsync(stream, answer(line));
                }
            }
        }
        catch (Exception e) when (e is SocketException or IOException)
        {
            // Whoever tests is done with it.
        }
    }

    private static async Task SayAsync(NetworkStream stream, string line) =>
        await stream.WriteAsync(Encoding.Latin1.GetBytes($"{line}\r\n"));
}
