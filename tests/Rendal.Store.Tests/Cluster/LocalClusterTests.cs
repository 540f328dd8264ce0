using System.Diagnostics;
using Npgsql;
using Rendal.Core.Tests;
using Rendal.Store.Cluster;

namespace Rendal.Store.Tests.Cluster;

public class LocalClusterTests
{
    [Fact]
    public async Task A_cluster_listens_on_loopback_only_keeps_its_data_and_stops()
    {
        var cancel = TestContext.Current.CancellationToken;
        var folder = Directory.CreateTempSubdirectory("rendal-cluster-").FullName;
        try
        {
            await using (var first = await LocalCluster.StartAsync(folder, forTests: true, cancel))
            {
                await using var source = NpgsqlDataSource.Create((await first.DatabaseAsync("rendal", cancel)).Owner);
                Assert.Equal("127.0.0.1", await ScalarAsync<string>(source, "show listen_addresses"));
                Assert.Equal("", await ScalarAsync<string>(source, "show unix_socket_directories"));
                await ScalarAsync<object>(source, "create table kept (value text)");
                await ScalarAsync<object>(source, "insert into kept values ('still here')");
            }

            await using var second = await LocalCluster.StartAsync(folder, forTests: true, cancel);
            await using var later = NpgsqlDataSource.Create((await second.DatabaseAsync("rendal", cancel)).Owner);
            Assert.Equal("still here", await ScalarAsync<string>(later, "select value from kept"));

            // As in a folder of an older version, which knew one role only.
            File.Delete(Path.Combine(folder, "postgresql-application-password"));
            await using var joined = (await LocalCluster.FindRunningAsync(folder, cancel))!;
            await using var older = NpgsqlDataSource.Create((await joined.DatabaseAsync("rendal", cancel)).Application);
            Assert.Equal("rendal_application", await ScalarAsync<string>(older, "select current_user::text"));
            Assert.False(
                await ScalarAsync<bool>(
                    older,
                    "select rolsuper or rolcreatedb or rolcreaterole from pg_roles where rolname = current_user"
                )
            );
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact]
    public async Task A_folder_that_cannot_hold_a_database_is_said_in_one_sentence()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-cluster-").FullName;
        try
        {
            Directory.CreateDirectory(Path.Combine(folder, "postgresql"));
            await File.WriteAllTextAsync(
                Path.Combine(folder, "postgresql", "letter.txt"),
                "somebody's letter",
                TestContext.Current.CancellationToken
            );
            var failed = await Assert.ThrowsAsync<ClusterFailed>(() =>
                LocalCluster.StartAsync(folder, forTests: true, TestContext.Current.CancellationToken)
            );
            Assert.StartsWith($"The database could not be made in {folder}/postgresql: ", failed.Message);
            Assert.DoesNotContain('\n', failed.Message);
            Assert.True(File.Exists(Path.Combine(folder, "postgresql", "letter.txt")));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact]
    public async Task Who_comes_second_joins_and_the_last_who_leaves_stops_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var folder = new Folder();
        var first = await LocalCluster.StartAsync(folder.Path, forTests: true, cancel);
        var second = await LocalCluster.StartAsync(folder.Path, forTests: true, cancel);
        Assert.Equal(first.Port, second.Port);
        await using var source = NpgsqlDataSource.Create($"{(await second.DatabaseAsync("rendal", cancel)).Owner};Pooling=false");
        await first.DisposeAsync();
        Assert.Equal(1, await ScalarAsync<int>(source, "select 1"));
        await second.DisposeAsync();
        await Assert.ThrowsAnyAsync<NpgsqlException>(() => ScalarAsync<int>(source, "select 1"));
        Assert.Null(await LocalCluster.FindRunningAsync(folder.Path, cancel));
    }

    [Fact]
    public async Task Of_several_who_come_at_once_one_starts_it()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var folder = new Folder();
        var all = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => LocalCluster.StartAsync(folder.Path, forTests: true, cancel)));
        Assert.Single(all.Select(c => c.Port).Distinct());
        foreach (var one in all)
        {
            await one.DisposeAsync();
        }

        Assert.Null(await LocalCluster.FindRunningAsync(folder.Path, cancel));
    }

    [Fact]
    public async Task Who_is_killed_leaves_no_server_behind()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var folder = new Folder();
        var cluster = await LocalCluster.StartAsync(folder.Path, forTests: true, cancel);
        var server = int.Parse(
            (await File.ReadAllLinesAsync(Path.Combine(folder.Path, "postgresql", "postmaster.pid"), cancel))[0],
            System.Globalization.CultureInfo.InvariantCulture
        );

        // Another process that uses it; the first one leaves, and then that one is killed.
        using var other = Process.Start("flock", ["-s", "-F", Path.Combine(folder.Path, "in-use"), "sleep", "600"]);
        await Task.Delay(200, cancel);
        await cluster.DisposeAsync();
        Assert.True(Directory.Exists($"/proc/{server}"), "the server was stopped although somebody uses it");
        other.Kill(entireProcessTree: true);
        await other.WaitForExitAsync(cancel);
        await Eventually.HoldsAsync(() => !Directory.Exists($"/proc/{server}"));
    }

    [Fact]
    public async Task A_server_that_went_away_is_started_again_where_it_was()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var folder = new Folder();
        await using var cluster = await LocalCluster.StartAsync(folder.Path, forTests: true, cancel);
        await using var source = NpgsqlDataSource.Create($"{(await cluster.DatabaseAsync("rendal", cancel)).Owner};Pooling=false");
        await ScalarAsync<object>(source, "create table kept (value text)");
        await ScalarAsync<object>(source, "checkpoint");
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var said = new List<string>();
        var keeping = cluster.KeepAsync(said.Add, stop.Token);
        var server = int.Parse(
            (await File.ReadAllLinesAsync(Path.Combine(folder.Path, "postgresql", "postmaster.pid"), cancel))[0],
            System.Globalization.CultureInfo.InvariantCulture
        );
        Process.GetProcessById(server).Kill();
        await Eventually.HoldsAsync(async () => said.Count > 0 && await AnswersAsync(source));

        Assert.Equal("The database server has gone away and is started again.", said[0]);
        Assert.Equal(0L, await ScalarAsync<long>(source, "select count(*) from kept"));
        await stop.CancelAsync();
        await keeping;
    }

    [Fact]
    public async Task A_copy_of_a_folder_has_a_server_of_its_own_and_leaves_that_of_the_first_alone()
    {
        var cancel = TestContext.Current.CancellationToken;
        using var folder = new Folder();
        using var copy = new Folder();
        await using var first = await LocalCluster.StartAsync(folder.Path, forTests: true, cancel);
        await using var source = NpgsqlDataSource.Create((await first.DatabaseAsync("rendal", cancel)).Owner);
        await ScalarAsync<object>(source, "create table kept (value text)");
        await ScalarAsync<object>(source, "checkpoint");
        using (var copying = Process.Start("cp", ["-a", $"{folder.Path}/.", copy.Path]))
        {
            await copying.WaitForExitAsync(cancel);
        }

        Assert.Null(await LocalCluster.FindRunningAsync(copy.Path, cancel));
        await using (var second = await LocalCluster.StartAsync(copy.Path, forTests: true, cancel))
        {
            Assert.NotEqual(first.Port, second.Port);
            await using var copied = NpgsqlDataSource.Create((await second.DatabaseAsync("rendal", cancel)).Owner);
            await ScalarAsync<object>(copied, "insert into kept values ('in the copy')");
            Assert.Equal($"{copy.Path}/postgresql", await ScalarAsync<string>(copied, "show data_directory"));
        }

        Assert.Equal(0L, await ScalarAsync<long>(source, "select count(*) from kept"));
    }

    private static async Task<bool> AnswersAsync(NpgsqlDataSource source)
    {
        try
        {
            return await ScalarAsync<int>(source, "select 1") == 1;
        }
        catch (NpgsqlException)
        {
            // It is on its way.
            return false;
        }
    }

    private static async Task<T?> ScalarAsync<T>(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        return (T?)await command.ExecuteScalarAsync(TestContext.Current.CancellationToken);
    }

    /// <summary>A folder for a test.</summary>
    private sealed class Folder : IDisposable
    {
        public string Path { get; } = Directory.CreateTempSubdirectory("rendal-cluster-").FullName;

        public void Dispose() => Directory.Delete(Path, recursive: true);
    }
}
