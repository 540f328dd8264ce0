using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.Builder;
using Rendal.Store.Cluster;
using Rendal.Store.Migrations;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>
/// Released parcels until the last is in the dispatch log, the statement printed and enclosed on the way and every step
/// written down first, against smtp-source of Debian's postfix that pumps ready-made messages of the same size into the same sink.
/// </summary>
internal static class SendingBench
{
    private const int Messages = 1_000;
    private const int MessagesBefore = 300;
    private const int Sessions = 2;
    private const int MessageSize = 45_000;

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-bench-").FullName;
        try
        {
            await using var cluster = await LocalCluster.StartAsync(folder, forTests: false, CancellationToken.None);
            var database = await cluster.DatabaseAsync("rendal", CancellationToken.None);
            Schema.Upgrade(database);
            var mailPort = FreePort();
            await using var app = RendalHost.Build(new HostParts(database, folder, 0, mailPort, 0, Role.All, null, null));
            await app.StartAsync();
            using var sink = Sink.Start();

            // As a server that runs has done before.
            await SendAsync(app, sink?.Port ?? mailPort, MessagesBefore);
            var rate = await SendAsync(app, sink?.Port ?? mailPort, Messages);
            var pumped = sink is null ? null : Pumped(sink.Port);
            return
            [
                new Measurement(
                    $"{Messages:N0} messages with a statement, printed, enclosed, sent and logged", $"{rate:0} a second",
                    pumped is { } p ? $"smtp-source {p:0} a second" : "smtp-source is not installed (Debian package postfix)", rate / pumped, "≥ 0.25"),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<double> SendAsync(WebApplication app, int port, int messages)
    {
        var cancel = CancellationToken.None;
        var round = await PreparedRound.MakeAsync(app.Services, messages, cancel);
        var sender = (await round.Senders.FindAsync(round.Sender, cancel))!;
        await round.Senders.UpdateAsync(sender with { Port = port, UserName = "", ProtectedPassword = null }, DateOnly.FromDateTime(DateTime.UtcNow), cancel);

        var watch = Stopwatch.StartNew();
        await round.ReleaseAsync(cancel);
        while (true)
        {
            var counts = await round.Rounds.CountsAsync(round.Id, cancel);
            if (counts.GetValueOrDefault("sent") == messages)
            {
                return messages / watch.Elapsed.TotalSeconds;
            }

            if (counts.Keys.FirstOrDefault(s => s is not ("released" or "sending" or "sent")) is { } other)
            {
                throw new InvalidOperationException($"A parcel is {other}: what was measured did not come out right.");
            }

            await Task.Delay(200, cancel);
        }
    }

    private static double? Pumped(int port)
    {
        var seconds = Enumerable.Range(0, 3).Select(_ => Rounds.Seconds(() => Sink.Pump(port, Messages, Sessions, MessageSize))).ToList();
        return Messages / Rounds.Median(seconds);
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
