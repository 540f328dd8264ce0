using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Server.Kestrel.Core;
using Microsoft.AspNetCore.Server.Kestrel.Transport.Sockets;
using Microsoft.Extensions.Options;
using Rendal.Postroom;
using Rendal.Web.Hosting;

namespace Rendal.Web.Postroom;

/// <summary>
/// Serves the postroom, in one of the processes that share a folder of data. When that one is gone another of them does: what was
/// received stands in the folder.
/// </summary>
internal sealed partial class PostroomServer(HostParts parts, Drills drills, IServiceProvider services, ILoggerFactory logs)
    : IHostedService,
        IDisposable
{
    private static readonly TimeSpan Between = TimeSpan.FromSeconds(1);

    private readonly CancellationTokenSource stop = new();
    private readonly ILogger log = logs.CreateLogger<PostroomServer>();
    private Task waiting = Task.CompletedTask;
    private FileStream? place;
    private KestrelServer? server;

    /// <summary>Whether a process serves it now.</summary>
    public static bool IsServed(string data)
    {
        using var place = Take(data);
        return place is null;
    }

    /// <inheritdoc/>
    public async Task StartAsync(CancellationToken cancellationToken)
    {
        if (!await ServeAsync(cancellationToken))
        {
            waiting = WaitAsync();
        }
    }

    /// <inheritdoc/>
    public async Task StopAsync(CancellationToken cancellationToken)
    {
        await stop.CancelAsync();
        await waiting;
        await (server?.StopAsync(cancellationToken) ?? Task.CompletedTask);
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        server?.Dispose();
        place?.Dispose();
        stop.Dispose();
    }

    /// <summary>
    /// Takes the place of the one who serves; null where another has it. It is free again when its process has ended, however that was.
    /// </summary>
    private static FileStream? Take(string data)
    {
        Directory.CreateDirectory(Path.Combine(data, "postroom"));
        try
        {
            return new FileStream(Path.Combine(data, "postroom", "serving"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException)
        {
            return null;
        }
    }

    private async Task WaitAsync()
    {
        try
        {
            do
            {
                await Task.Delay(Between, stop.Token);
            } while (!await TryServeAsync());
        }
        catch (OperationCanceledException)
        {
            // It never came to that.
        }
    }

    private async Task<bool> TryServeAsync()
    {
        try
        {
            return await ServeAsync(stop.Token);
        }
        catch (IOException e)
        {
            // The ports may still be those of the process that has just ended.
            NotYet(log, e.Message);
            return false;
        }
    }

    private async Task<bool> ServeAsync(CancellationToken cancel)
    {
        if (Take(parts.Data) is not { } taken)
        {
            return false;
        }

        var options = new KestrelServerOptions { ApplicationServices = services };
        options.ListenForMail(parts.MailPort);
        options.ListenForFetching(parts.ImapPort);
        var made = new KestrelServer(
            Options.Create(options),
            new SocketTransportFactory(Options.Create(new SocketTransportOptions()), logs),
            logs
        );
        try
        {
            drills.EndAll();
            await made.StartAsync(new NoPages(), cancel);
        }
        catch
        {
            made.Dispose();
            await taken.DisposeAsync();
            throw;
        }

        (server, place) = (made, taken);
        PracticePorts.Note(parts);
        return true;
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The postroom is not served yet: {Why}")]
    private static partial void NotYet(ILogger log, string why);

    /// <summary>A server of lines that are no HTTP is never asked for a page.</summary>
    private sealed class NoPages : IHttpApplication<IFeatureCollection>
    {
        public IFeatureCollection CreateContext(IFeatureCollection contextFeatures) => contextFeatures;

        public Task ProcessRequestAsync(IFeatureCollection context) =>
            throw new InvalidOperationException("The postroom answers no HTTP.");

        public void DisposeContext(IFeatureCollection context, Exception? exception)
        {
            // There is nothing of a page to be put away.
        }
    }
}
