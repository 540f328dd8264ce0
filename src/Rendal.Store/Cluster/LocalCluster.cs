using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography;
using Npgsql;

namespace Rendal.Store.Cluster;

/// <summary>
/// A PostgreSQL server of our own: its files in a folder of ours, on loopback, on a free port, run as a user without rights. It leaves any
/// other PostgreSQL on the machine alone. Any number of processes use one; the last stops it, and where that was killed or crashed,
/// <see cref="ClusterWatch"/> does.
/// </summary>
public sealed class LocalCluster : IAsyncDisposable
{
    private const string Unprivileged = "postgres";
    private const string Owner = "rendal";
    private const string Application = "rendal_application";
    private const int SecondsToStop = 3;

    private static readonly TimeSpan LookEvery = TimeSpan.FromSeconds(1);

    private readonly PostgresBinaries binaries;
    private readonly string folder;
    private readonly bool forTests;
    private readonly string ownersPassword;
    private readonly string applicationsPassword;
    private readonly FileLock use;

    private LocalCluster(
        PostgresBinaries binaries,
        string folder,
        bool forTests,
        string ownersPassword,
        string applicationsPassword,
        int port,
        FileLock use
    ) =>
        (this.binaries, this.folder, this.forTests, this.ownersPassword, this.applicationsPassword, Port, this.use) = (
            binaries,
            folder,
            forTests,
            ownersPassword,
            applicationsPassword,
            port,
            use
        );

    /// <summary>The port on 127.0.0.1.</summary>
    public int Port { get; }

    private string Data => DataIn(folder);

    /// <summary>Starts the server, making its files first where there are none. One that runs in this folder already is joined.</summary>
    /// <param name="folder">The folder; made where it is missing. A user other than root must be able to reach it when we are
    /// root.</param>
    /// <param name="forTests">Whether the data may be lost in a power cut, which makes tests quick.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ClusterFailed">There is no server on the machine, or it does not start.</exception>
    public static async Task<LocalCluster> StartAsync(string folder, bool forTests, CancellationToken cancel)
    {
        var binaries = Binaries();
        Directory.CreateDirectory(folder);
        var use = await FileLock.ShareAsync(Path.Combine(folder, "in-use"), cancel);
        try
        {
            var port = await RunAsync(binaries, folder, forTests, null, cancel);
            return await ReachAsync(binaries, folder, forTests, port, use, cancel);
        }
        catch
        {
            use.Dispose();
            throw;
        }
    }

    /// <summary>Joins the server that runs in a folder; null where none does.</summary>
    /// <exception cref="ClusterFailed">There is no server on the machine.</exception>
    public static async Task<LocalCluster?> FindRunningAsync(string folder, CancellationToken cancel)
    {
        var binaries = Binaries();
        if (!Directory.Exists(DataIn(folder)))
        {
            return null;
        }

        var use = await FileLock.ShareAsync(Path.Combine(folder, "in-use"), cancel);
        try
        {
            if (await RunningPortAsync(binaries, folder, cancel) is { } port)
            {
                return await ReachAsync(binaries, folder, forTests: false, port, use, cancel);
            }

            use.Dispose();
            return null;
        }
        catch
        {
            use.Dispose();
            throw;
        }
    }

    /// <summary>
    /// Starts the server again whenever it has gone away, at the same port, until it is stopped. Of several who notice, one does.
    /// </summary>
    /// <param name="wentAway">Is told why it has to be started, and what keeps it from starting.</param>
    /// <param name="stop">Ends it.</param>
    public async Task KeepAsync(Action<string> wentAway, CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            await Task.Delay(LookEvery, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            try
            {
                if (!stop.IsCancellationRequested && !HasProcess() && await RunningPortAsync(binaries, folder, stop) is null)
                {
                    wentAway("The database server has gone away and is started again.");
                    await RunAsync(binaries, folder, forTests, Port, stop);
                }
            }
            catch (OperationCanceledException) when (stop.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is ClusterFailed or IOException)
            {
                wentAway(e.Message);
            }
        }
    }

    /// <summary>
    /// Whether the process is there that the server's folder names; asked every second, and so without the help of others.
    /// </summary>
    private bool HasProcess()
    {
        try
        {
            return Directory.Exists($"/proc/{File.ReadLines(Path.Combine(Data, "postmaster.pid")).First()}");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or InvalidOperationException)
        {
            return false;
        }
    }

    /// <summary>
    /// The port of the server, started where it does not run. Who comes while another starts it waits, and finds it running.
    /// </summary>
    private static async Task<int> RunAsync(PostgresBinaries binaries, string folder, bool forTests, int? port, CancellationToken cancel)
    {
        using var starting = await FileLock.AloneAsync(Path.Combine(folder, "starting"), cancel);
        var data = DataIn(folder);
        if (!File.Exists(Path.Combine(data, "PG_VERSION")))
        {
            await MakeAsync(binaries, folder, data, cancel);
        }

        if (await RunningPortAsync(binaries, folder, cancel) is { } running)
        {
            Watch(binaries, folder);
            return running;
        }

        var wanted = port ?? FreePort();

        // Rows that come into a table made for them need not go into the log as well, so long as no other server follows this one. Letters
        // and messages are the most of what is stored; the usual way to compress them takes several times as long as to make them.
        var settings =
            $"-p {wanted} -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c max_connections=100 -c "
            + "wal_level=minimal -c max_wal_senders=0 -c default_toast_compression=lz4"
            + (forTests ? " -c fsync=off -c synchronous_commit=off -c full_page_writes=off" : "");
        var log = Path.Combine(data, "server.log");
        var start = await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "-l", log, "-w", "-t", "60", "-o", settings, "start"], cancel);
        if (start.Exit != 0)
        {
            var reason = File.Exists(log)
                ? (await File.ReadAllLinesAsync(log, cancel)).LastOrDefault(l =>
                    l.Contains("FATAL", StringComparison.Ordinal)
                    || l.Contains("ERROR", StringComparison.Ordinal)
                    || l.Contains("PANIC", StringComparison.Ordinal)
                )
                : null;
            throw new ClusterFailed($"PostgreSQL did not start: {reason ?? start.Output}. Its log is {log}.");
        }

        Watch(binaries, folder);
        return wanted;
    }

    private static void Watch(PostgresBinaries binaries, string folder)
    {
        var program = AsUnprivileged(binaries.Program("pg_ctl"));
        ClusterWatch.Begin(folder, DataIn(folder), program);
    }

    /// <summary>How a database of this server is reached; the database is made where it is missing.</summary>
    public async Task<DatabaseAccess> DatabaseAsync(string name, CancellationToken cancel)
    {
        await using var source = NpgsqlDataSource.Create(OwnersString("postgres") + ";Pooling=false");
        await using var exists = source.CreateCommand("select 1 from pg_database where datname = $1");
        exists.Parameters.Add(new() { Value = name });
        if (await exists.ExecuteScalarAsync(cancel) is null)
        {
            await using var create = source.CreateCommand($"create database \"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"");
            await create.ExecuteNonQueryAsync(cancel);
        }

        return new DatabaseAccess(OwnersString(name), ConnectionString(name, Application, applicationsPassword));
    }

    /// <summary>Stops the server, whoever is connected, and starts it again as it was.</summary>
    public async Task RestartAsync() =>
        await RunAsync(
            binaries.Program("pg_ctl"),
            ["-D", Data, "-m", "fast", "-w", "-t", "60", "-l", Path.Combine(Data, "server.log"), "restart"],
            CancellationToken.None
        );

    /// <summary>
    /// Uses it no longer. The last who does stops it: whoever is connected is disconnected, and what takes too long is cut off, which it
    /// recovers from.
    /// </summary>
    public async ValueTask DisposeAsync()
    {
        if (!use.BecomeAlone())
        {
            return;
        }

        if (
            await RunningPortAsync(binaries, folder, CancellationToken.None) is not null
            && (
                await RunAsync(
                    binaries.Program("pg_ctl"),
                    ["-D", Data, "-m", "fast", "-w", "-t", $"{SecondsToStop}", "stop"],
                    CancellationToken.None
                )
            ).Exit != 0
        )
        {
            await RunAsync(
                binaries.Program("pg_ctl"),
                ["-D", Data, "-m", "immediate", "-w", "-t", $"{SecondsToStop}", "stop"],
                CancellationToken.None
            );
        }

        use.Dispose();
    }

    private static string DataIn(string folder) => Path.Combine(folder, "postgresql");

    private static PostgresBinaries Binaries() =>
        PostgresBinaries.Find()
        ?? throw new ClusterFailed(
            "No PostgreSQL server was found; install it (apt-get install postgresql), or name another one by RENDAL_DATABASE_URL."
        );

    private static string OwnersPasswordFile(string folder) => Path.Combine(folder, "postgresql-password");

    private static string ApplicationsPasswordFile(string folder) => Path.Combine(folder, "postgresql-application-password");

    private string OwnersString(string database) => ConnectionString(database, Owner, ownersPassword);

    private string ConnectionString(string database, string role, string password) =>
        new NpgsqlConnectionStringBuilder
        {
            Host = "127.0.0.1",
            Port = Port,
            Username = role,
            Password = password,
            Database = database,
            IncludeErrorDetail = true,
            Timeout = 120,
        }.ConnectionString;

    /// <summary>The server, once it runs: with the role that Rendal works as, which files of an older version do not have.</summary>
    private static async Task<LocalCluster> ReachAsync(
        PostgresBinaries binaries,
        string folder,
        bool forTests,
        int port,
        FileLock use,
        CancellationToken cancel
    )
    {
        // Of several who come at once one makes the role, and the others wait until its password is written.
        using var making = await FileLock.AloneAsync(Path.Combine(folder, "starting"), cancel);
        var file = ApplicationsPasswordFile(folder);
        var isNew = !File.Exists(file);
        var password = isNew ? NewPassword() : await File.ReadAllTextAsync(file, cancel);
        var cluster = new LocalCluster(
            binaries,
            folder,
            forTests,
            await File.ReadAllTextAsync(OwnersPasswordFile(folder), cancel),
            password,
            port,
            use
        );
        if (isNew)
        {
            await using var source = NpgsqlDataSource.Create(cluster.OwnersString("postgres") + ";Pooling=false");
            await using var make = source.CreateCommand(
                $"""
                do $$ begin
                    if not exists (select from pg_roles where rolname = '{Application}') then create role {Application}; end if;
                    alter role {Application} login nosuperuser nocreatedb nocreaterole password '{password}';
                end $$
                """
            );
            await make.ExecuteNonQueryAsync(cancel);
            await WritePasswordAsync(file, password, cancel);
        }

        return cluster;
    }

    private static string NewPassword() => Convert.ToHexString(RandomNumberGenerator.GetBytes(24));

    private static async Task WritePasswordAsync(string file, string password, CancellationToken cancel)
    {
        await using (File.Create(file))
        {
            File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        }

        await File.WriteAllTextAsync(file, password, cancel);
    }

    private static async Task MakeAsync(PostgresBinaries binaries, string folder, string data, CancellationToken cancel)
    {
        Directory.CreateDirectory(data);
        var passwordFile = OwnersPasswordFile(folder);
        await WritePasswordAsync(passwordFile, NewPassword(), cancel);
        File.SetUnixFileMode(data, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        if (Environment.IsPrivilegedProcess)
        {
            // The server refuses to run as root. Its folder goes to the user that Debian's package made for it.
            await DemandAsync(
                "chown",
                [Unprivileged, data, passwordFile],
                $"The folder {data} could not be given to the user “{Unprivileged}”",
                cancel
            );
            File.SetUnixFileMode(
                folder,
                UnixFileMode.UserRead
                    | UnixFileMode.UserWrite
                    | UnixFileMode.UserExecute
                    | UnixFileMode.GroupExecute
                    | UnixFileMode.OtherExecute
            );
        }

        await DemandAsync(
            binaries.Program("initdb"),
            ["-D", data, "-U", Owner, "--pwfile", passwordFile, "-A", "scram-sha-256", "-E", "UTF8", "--locale=C.UTF-8"],
            $"The database could not be made in {data}",
            cancel
        );
    }

    private static async Task DemandAsync(string program, string[] arguments, string failed, CancellationToken cancel)
    {
        var (exit, output) = await RunAsync(program, arguments, cancel);
        if (exit != 0)
        {
            throw new ClusterFailed($"{failed}: {output.Split('\n').LastOrDefault(l => l.Length > 0) ?? "no reason given"}");
        }
    }

    /// <summary>
    /// The port of the server whose data are in a folder; null where it does not run. A folder that was copied while its server
    /// ran says that one does: it is the other folder's, and what the copy says of it is thrown away.
    /// </summary>
    private static async Task<int?> RunningPortAsync(PostgresBinaries binaries, string folder, CancellationToken cancel)
    {
        var data = DataIn(folder);
        var file = Path.Combine(data, "postmaster.pid");
        if (!File.Exists(file) || (await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "status"], cancel)).Exit != 0)
        {
            return null;
        }

        // The first line of the file is the process, the fourth the port (PostgreSQL documentation, "Database File Layout").
        var lines = await File.ReadAllLinesAsync(file, cancel);
        if (lines.Length < 4 || !int.TryParse(lines[0], out var process) || !int.TryParse(lines[3], out var port))
        {
            return null;
        }

        // A server works in the folder of its data.
        if (
            await Place.OfAsync(data, cancel) is not { } ours
            || await Place.OfAsync($"/proc/{process}/cwd", cancel) is not { } theirs
            || ours == theirs
        )
        {
            return port;
        }

        File.Delete(file);
        return null;
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    /// <summary>A program as it is run without rights: the server refuses to run as root.</summary>
    private static string[] AsUnprivileged(string program) =>
        Environment.IsPrivilegedProcess
            ? ["setpriv", $"--reuid={Unprivileged}", $"--regid={Unprivileged}", "--clear-groups", "--", program]
            : [program];

    private static async Task<(int Exit, string Output)> RunAsync(string program, string[] arguments, CancellationToken cancel)
    {
        var command = program == "chown" ? [program] : AsUnprivileged(program);
        var start = new ProcessStartInfo(command[0])
        {
            WorkingDirectory = "/",
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            RedirectStandardInput = true,
        };
        foreach (var argument in command.Skip(1).Concat(arguments))
        {
            start.ArgumentList.Add(argument);
        }

        // What pg_ctl leaves running keeps its output open, so the end of the program is what is waited for, not of its output.
        using var process = Process.Start(start) ?? throw new ClusterFailed($"{program} could not be run.");
        process.StandardInput.Close();
        var output = new System.Text.StringBuilder();
        process.OutputDataReceived += (_, e) => Append(e.Data);
        process.ErrorDataReceived += (_, e) => Append(e.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        while (!process.HasExited)
        {
            await Task.Delay(20, cancel);
        }

        lock (output)
        {
            return (process.ExitCode, output.ToString().Trim());
        }

        void Append(string? line)
        {
            lock (output)
            {
                output.AppendLine(line);
            }
        }
    }
}
