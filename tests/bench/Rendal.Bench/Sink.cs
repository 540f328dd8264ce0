using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;

namespace Rendal.Bench;

/// <summary>
/// smtp-sink of Debian's postfix: takes mail on loopback and throws it away. Rendal and the yardstick send into the same one.
/// </summary>
internal sealed class Sink : IDisposable
{
    private readonly Process process;

    private Sink(Process process, int port) => (this.process, Port) = (process, port);

    public int Port { get; }

    /// <summary>Starts one; null where postfix is not installed.</summary>
    public static Sink? Start()
    {
        if (Find("smtp-sink") is not { } program || Find("smtp-source") is null)
        {
            return null;
        }

        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        var port = ((IPEndPoint)listener.LocalEndpoint).Port;
        listener.Stop();
        string[] arguments = [$"127.0.0.1:{port}", "100"];
        var start = Environment.IsPrivilegedProcess
            ? new ProcessStartInfo(program, ["-u", "nobody", .. arguments])
            : new ProcessStartInfo(program, arguments);
        var sink = new Sink(Process.Start(start)!, port);
        sink.WaitUntilItListens();
        return sink;
    }

    /// <summary>Pumps ready-made messages in by smtp-source.</summary>
    public static void Pump(int port, int messages, int sessions, int size)
    {
        string[] arguments =
        [
            "-s",
            sessions.ToString(CultureInfo.InvariantCulture),
            "-m",
            messages.ToString(CultureInfo.InvariantCulture),
            "-l",
            size.ToString(CultureInfo.InvariantCulture),
            "-d",
            "-f",
            "a@tarnbrook.example",
            "-t",
            "b@inn.example",
            $"127.0.0.1:{port}",
        ];
        using var process = Process.Start(Find("smtp-source")!, arguments);
        process.WaitForExit();
        if (process.ExitCode != 0)
        {
            throw new InvalidOperationException("smtp-source did not come to its end.");
        }
    }

    public void Dispose()
    {
        process.Kill();
        process.WaitForExit();
        process.Dispose();
    }

    private static string? Find(string name) =>
        (Environment.GetEnvironmentVariable("PATH") ?? "")
            .Split(':')
            .Append("/usr/sbin")
            .Select(folder => Path.Combine(folder, name))
            .FirstOrDefault(File.Exists);

    private void WaitUntilItListens()
    {
        while (true)
        {
            try
            {
                using var client = new TcpClient();
                client.Connect(IPAddress.Loopback, Port);
                return;
            }
            catch (SocketException) when (!process.HasExited)
            {
                Thread.Sleep(20);
            }
        }
    }
}
