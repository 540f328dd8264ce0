using Npgsql;
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

                var again = await LocalCluster.StartAsync(folder, forTests: true, cancel);
                Assert.Equal(first.Port, again.Port);
            }

            await using var second = await LocalCluster.StartAsync(folder, forTests: true, cancel);
            await using var later = NpgsqlDataSource.Create((await second.DatabaseAsync("rendal", cancel)).Owner);
            Assert.Equal("still here", await ScalarAsync<string>(later, "select value from kept"));

            // As in a folder of an older version, which knew one role only.
            File.Delete(Path.Combine(folder, "postgresql-application-password"));
            await using var older = NpgsqlDataSource.Create((await (await LocalCluster.FindRunningAsync(folder, cancel))!.DatabaseAsync("rendal", cancel)).Application);
            Assert.Equal("rendal_application", await ScalarAsync<string>(older, "select current_user::text"));
            Assert.False(await ScalarAsync<bool>(older, "select rolsuper or rolcreatedb or rolcreaterole from pg_roles where rolname = current_user"));
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
            await File.WriteAllTextAsync(Path.Combine(folder, "postgresql", "letter.txt"), "somebody's letter", TestContext.Current.CancellationToken);
            var failed = await Assert.ThrowsAsync<ClusterFailed>(() => LocalCluster.StartAsync(folder, forTests: true, TestContext.Current.CancellationToken));
            Assert.StartsWith($"The database could not be made in {folder}/postgresql: ", failed.Message);
            Assert.DoesNotContain('\n', failed.Message);
            Assert.True(File.Exists(Path.Combine(folder, "postgresql", "letter.txt")));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<T?> ScalarAsync<T>(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        return (T?)await command.ExecuteScalarAsync(TestContext.Current.CancellationToken);
    }
}
