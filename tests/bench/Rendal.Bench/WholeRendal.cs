using Microsoft.AspNetCore.Builder;
using Rendal.Store.Cluster;
using Rendal.Store.Migrations;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>Rendal as it is started for people, on a PostgreSQL and a folder of its own; both are gone afterwards.</summary>
internal sealed class WholeRendal : IAsyncDisposable
{
    /// <summary>What the first person gives to make the first book.</summary>
    public const string Key = "bench";

    private readonly DirectoryInfo folder;
    private readonly LocalCluster cluster;

    private WholeRendal(DirectoryInfo folder, LocalCluster cluster, HostParts parts, WebApplication app)
    {
        this.folder = folder;
        this.cluster = cluster;
        Parts = parts;
        App = app;
    }

    public HostParts Parts { get; }

    public WebApplication App { get; }

    public string Folder => folder.FullName;

    public static async Task<WholeRendal> StartAsync(Role role, string? pages = null)
    {
        var folder = Directory.CreateTempSubdirectory("rendal-bench-");
        LocalCluster? cluster = null;
        try
        {
            cluster = await LocalCluster.StartAsync(folder.FullName, forTests: false, CancellationToken.None);
            var database = await cluster.DatabaseAsync("rendal", CancellationToken.None);
            await Schema.UpgradeAsync(database);
            var parts = new HostParts(database.Application, folder.FullName, 0, FreePort.Find(), 0, role, pages, Key)
            {
                MailHosts = ["127.0.0.1"],
            };
            var app = RendalHost.Build(parts);
            await app.StartAsync();
            return new WholeRendal(folder, cluster, parts, app);
        }
        catch
        {
            await EndAsync(cluster, folder);
            throw;
        }
    }

    public async ValueTask DisposeAsync()
    {
        await App.DisposeAsync();
        await EndAsync(cluster, folder);
    }

    private static async Task EndAsync(LocalCluster? cluster, DirectoryInfo folder)
    {
        if (cluster is not null)
        {
            await cluster.DisposeAsync();
        }

        folder.Delete(recursive: true);
    }
}
