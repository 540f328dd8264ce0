using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Text;
using Rendal.Web.Hosting;

namespace Rendal.Trials;

/// <summary>Rendal in a process of its own, as <c>rendal start</c> makes it, with a folder of its own.</summary>
internal sealed class RendalProcess : IAsyncDisposable
{
    private readonly Process process;
    private readonly StringBuilder said = new();

    private RendalProcess(Process process, int port) =>
        (this.process, Address) = (process, new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{port}")));

    public Uri Address { get; }

    public int Id => process.Id;

    /// <summary>What it said so far.</summary>
    public string Said
    {
        get
        {
            lock (said)
            {
                return said.ToString();
            }
        }
    }

    /// <summary>What the first person needs; empty where there is one already.</summary>
    public string FirstRunKey => Said.Split("/first-run?key=") is [_, var rest] ? rest.Split('\n')[0].Trim() : "";

    /// <summary>Starts one and waits until it can be asked.</summary>
    /// <param name="folder">Where its data are.</param>
    /// <param name="ports">Of the application, and of the postroom for SMTP and IMAP.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Null where it refused to start, which it says why.</returns>
    /// <param name="role">What it does.</param>
    public static async Task<RendalProcess?> StartAsync(
        string folder,
        (int Web, int Mail, int Imap) ports,
        CancellationToken cancel,
        string role = "all"
    )
    {
        string Text(int port) => port.ToString(CultureInfo.InvariantCulture);
        var start = new ProcessStartInfo(
            Environment.ProcessPath is { } path && Path.GetFileNameWithoutExtension(path) == "dotnet" ? path : "dotnet"
        )
        {
            ArgumentList =
            {
                typeof(RendalHost).Assembly.Location,
                "start",
                "--role",
                role,
                "--data",
                folder,
                "--port",
                Text(ports.Web),
                "--mail-port",
                Text(ports.Mail),
                "--imap-port",
                Text(ports.Imap),
            },
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        var rendal = new RendalProcess(
            Process.Start(start) ?? throw new InvalidOperationException("Rendal could not be started."),
            ports.Web
        );
        rendal.process.OutputDataReceived += rendal.Hear;
        rendal.process.ErrorDataReceived += rendal.Hear;
        rendal.process.BeginOutputReadLine();
        rendal.process.BeginErrorReadLine();
        while (!rendal.Said.Contains("Ctrl-C stops it.", StringComparison.Ordinal))
        {
            if (rendal.process.HasExited)
            {
                await rendal.DisposeAsync();
                return null;
            }

            await Task.Delay(20, cancel);
        }

        return rendal;
    }

    /// <summary>A browser that sends the header of Rendal's own pages.</summary>
    public HttpClient Browser()
    {
        var browser = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = Address,
            Timeout = TimeSpan.FromMinutes(5),
        };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        return browser;
    }

    /// <summary>Ends it as a power cut does: SIGKILL, no farewell.</summary>
    public async Task KillAsync()
    {
        process.Kill();
        await process.WaitForExitAsync();
    }

    /// <summary>Ends it as Ctrl-C does, and says how long it took.</summary>
    public async Task<TimeSpan> StopAsync()
    {
        var watch = Stopwatch.StartNew();
        if (!process.HasExited)
        {
            using var signal = Process.Start("kill", ["-TERM", process.Id.ToString(CultureInfo.InvariantCulture)]);
            await process.WaitForExitAsync();
        }

        return watch.Elapsed;
    }

    public async ValueTask DisposeAsync()
    {
        await StopAsync();
        process.Dispose();
    }

    private void Hear(object sender, DataReceivedEventArgs line)
    {
        lock (said)
        {
            said.AppendLine(line.Data);
        }
    }
}
