using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Runtime.InteropServices;
using Rendal.Store.Cluster;
using Rendal.Store.Migrations;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>Rounds of 300 parcels whose workers are killed a hundred times in all, half with one worker and half with three.</summary>
internal static class KillBench
{
    public const string Option = "--kill";

    private const int Parcels = 300;
    private const int Kills = 100;

    /// <returns>0 where nothing arrived twice, nothing is missing, nothing stands elsewhere than it should, and nothing is unsure without need; else 1.</returns>
    public static async Task<int> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-kill-").FullName;
        try
        {
            await using var cluster = await LocalCluster.StartAsync(folder, forTests: false, CancellationToken.None);
            var database = await cluster.DatabaseAsync("rendal", CancellationToken.None);
            await Schema.UpgradeAsync(database);
            var parts = new HostParts(database.Application, folder, 0, FreePort(), 0, Role.Web, null, null);
            await using var app = RendalHost.Build(parts);
            await app.StartAsync();
            var seed = Environment.TickCount;
            var trial = new KillTrial(app.Services, parts, new Random(seed));
            var table = "| workers | parcels | kills | sent | unsure | neither | twice | missing | unsure and never there |\n| --- | --- | --- | --- | --- | --- | --- | --- | --- |\n";
            var all = KillResult.Nothing;
            foreach (var workers in new[] { 1, 3 })
            {
                var result = KillResult.Nothing;
                while (result.Kills < Kills / 2)
                {
                    Console.Error.WriteLine($"{workers} {(workers == 1 ? "worker" : "workers")}: {result.Kills} kills so far …");
                    result += await trial.RunAsync(Parcels, workers, (Kills / 2) - result.Kills, CancellationToken.None);
                }

                table += string.Create(CultureInfo.InvariantCulture, $"| {workers} | {result.Parcels} | {result.Kills} | {result.Sent} | {result.Unsure} | {result.Elsewhere} | {result.Twice} | {result.Missing} | {result.UnsureNeverThere} |\n");
                all += result;
            }

            Console.WriteLine(table);
            await File.WriteAllTextAsync("docs/killed-while-sending.md", Page(table, seed));
            return all is { Elsewhere: 0, Twice: 0, Missing: 0, UnsureNeverThere: 0 } ? 0 : 1;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static string Page(string table, int seed) =>
        $"""
        # Killed while sending

        Written by `./rendal bench {Option}` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores, {RuntimeInformation.FrameworkDescription}, moments drawn from seed {seed}.
        Workers in processes of their own are ended by SIGKILL at random moments and started again, until there were {Kills} kills;
        what the postroom has is then compared with what the dispatch log says.

        {table}
        *Unsure and never there* counts parcels of which the server never had the end, and a person has to decide all the same.

        """;

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
