using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography;
using Npgsql;

namespace Rendal.Store.Cluster;

/// <summary>
/// A PostgreSQL server of our own: its files in a folder of ours, on loopback, on a free port, run as a user without
/// rights. It leaves any other PostgreSQL on the machine alone.
/// </summary>
public sealed class LocalCluster : IAsyncDisposable
{
    private const string Unprivileged = "postgres";
    private const string Owner = "rendal";
    private const string Application = "rendal_application";

    private readonly PostgresBinaries binaries;
    private readonly string data;
    private readonly string ownersPassword;
    private readonly string applicationsPassword;

    private LocalCluster(PostgresBinaries binaries, string data, string ownersPassword, string applicationsPassword, int port) =>
        (this.binaries, this.data, this.ownersPassword, this.applicationsPassword, Port) = (binaries, data, ownersPassword, applicationsPassword, port);

    /// <summary>The port on 127.0.0.1.</summary>
    public int Port { get; }

    /// <summary>Starts the server, making its files first where there are none. One that still runs in this folder is taken over.</summary>
    /// <param name="folder">The folder; made where it is missing. A user other than root must be able to reach it when we are root.</param>
    /// <param name="forTests">Whether the data may be lost in a power cut, which makes tests quick.</param>
    /// <exception cref="ClusterFailed">There is no server on the machine, or it does not start.</exception>
    public static async Task<LocalCluster> StartAsync(string folder, bool forTests, CancellationToken cancel)
    {
        var binaries = Binaries();
        Directory.CreateDirectory(folder);
        var data = Path.Combine(folder, "postgresql");
        if (!File.Exists(Path.Combine(data, "PG_VERSION")))
        {
            await MakeAsync(binaries, folder, data, cancel);
        }

        if (await RunningPortAsync(binaries, data, cancel) is { } running)
        {
            return await ReachAsync(binaries, folder, running, cancel);
        }

        var port = FreePort();

        // Rows that come into a table made for them need not go into the log as well, so long as no other server follows this one.
        var settings = $"-p {port} -c listen_addresses=127.0.0.1 -c unix_socket_directories= -c max_connections=100 -c wal_level=minimal -c max_wal_senders=0"
            + (forTests ? " -c fsync=off -c synchronous_commit=off -c full_page_writes=off" : "");
        var log = Path.Combine(data, "server.log");
        var start = await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "-l", log, "-w", "-t", "60", "-o", settings, "start"], cancel);
        if (start.Exit != 0)
        {
            var reason = File.Exists(log) ? (await File.ReadAllLinesAsync(log, cancel)).LastOrDefault(l => l.Contains("FATAL", StringComparison.Ordinal) || l.Contains("ERROR", StringComparison.Ordinal) || l.Contains("PANIC", StringComparison.Ordinal)) : null;
            throw new ClusterFailed($"PostgreSQL did not start: {reason ?? start.Output}. Its log is {log}.");
        }

        return await ReachAsync(binaries, folder, port, cancel);
    }

    /// <summary>The server that runs in a folder; null where none does.</summary>
    /// <exception cref="ClusterFailed">There is no server on the machine.</exception>
    public static async Task<LocalCluster?> FindRunningAsync(string folder, CancellationToken cancel)
    {
        var data = Path.Combine(folder, "postgresql");
        var binaries = Binaries();
        return await RunningPortAsync(binaries, data, cancel) is { } port ? await ReachAsync(binaries, folder, port, cancel) : null;
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

    /// <summary>Stops the server; whoever is connected is disconnected.</summary>
    public async Task StopAsync() =>
        await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "-m", "fast", "-w", "-t", "60", "stop"], CancellationToken.None);

    /// <summary>Stops the server, whoever is connected, and starts it again as it was.</summary>
    public async Task RestartAsync() =>
        await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "-m", "fast", "-w", "-t", "60", "-l", Path.Combine(data, "server.log"), "restart"], CancellationToken.None);

    /// <inheritdoc/>
    public async ValueTask DisposeAsync() => await StopAsync();

    private static PostgresBinaries Binaries() =>
        PostgresBinaries.Find() ?? throw new ClusterFailed("No PostgreSQL server was found; install it (apt-get install postgresql), or name another one by RENDAL_DATABASE_URL.");

    private static string OwnersPasswordFile(string folder) => Path.Combine(folder, "postgresql-password");

    private static string ApplicationsPasswordFile(string folder) => Path.Combine(folder, "postgresql-application-password");

    private string OwnersString(string database) => ConnectionString(database, Owner, ownersPassword);

    private string ConnectionString(string database, string role, string password) =>
        new NpgsqlConnectionStringBuilder { Host = "127.0.0.1", Port = Port, Username = role, Password = password, Database = database, IncludeErrorDetail = true, Timeout = 120 }.ConnectionString;

    /// <summary>The server, once it runs: with the role that Rendal works as, which files of an older version do not have.</summary>
    private static async Task<LocalCluster> ReachAsync(PostgresBinaries binaries, string folder, int port, CancellationToken cancel)
    {
        var file = ApplicationsPasswordFile(folder);
        var isNew = !File.Exists(file);
        var password = isNew ? NewPassword() : await File.ReadAllTextAsync(file, cancel);
        var cluster = new LocalCluster(binaries, Path.Combine(folder, "postgresql"), await File.ReadAllTextAsync(OwnersPasswordFile(folder), cancel), password, port);
        if (isNew)
        {
            await using var source = NpgsqlDataSource.Create(cluster.OwnersString("postgres") + ";Pooling=false");
            await using var make = source.CreateCommand(
                $"""
                do $$ begin
                    if not exists (select from pg_roles where rolname = '{Application}') then create role {Application}; end if;
                    alter role {Application} login nosuperuser nocreatedb nocreaterole password '{password}';
                end $$
                """);
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
            await DemandAsync("chown", [Unprivileged, data, passwordFile], $"The folder {data} could not be given to the user “{Unprivileged}”", cancel);
            File.SetUnixFileMode(folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute | UnixFileMode.GroupExecute | UnixFileMode.OtherExecute);
        }

        await DemandAsync(binaries.Program("initdb"), ["-D", data, "-U", Owner, "--pwfile", passwordFile, "-A", "scram-sha-256", "-E", "UTF8", "--locale=C.UTF-8"], $"The database could not be made in {data}", cancel);
    }

    private static async Task DemandAsync(string program, string[] arguments, string failed, CancellationToken cancel)
    {
        var (exit, output) = await RunAsync(program, arguments, cancel);
        if (exit != 0)
        {
            throw new ClusterFailed($"{failed}: {output.Split('\n').LastOrDefault(l => l.Length > 0) ?? "no reason given"}");
        }
    }

    private static async Task<int?> RunningPortAsync(PostgresBinaries binaries, string data, CancellationToken cancel)
    {
        if (!File.Exists(Path.Combine(data, "postmaster.pid")) || (await RunAsync(binaries.Program("pg_ctl"), ["-D", data, "status"], cancel)).Exit != 0)
        {
            return null;
        }

        // The fourth line of the file is the port (PostgreSQL documentation, "Database File Layout").
        var lines = await File.ReadAllLinesAsync(Path.Combine(data, "postmaster.pid"), cancel);
        return lines.Length > 3 && int.TryParse(lines[3], out var port) ? port : null;
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static async Task<(int Exit, string Output)> RunAsync(string program, string[] arguments, CancellationToken cancel)
    {
        var asOther = Environment.IsPrivilegedProcess && program != "chown";
        var start = new ProcessStartInfo(asOther ? "setpriv" : program) { WorkingDirectory = "/", RedirectStandardOutput = true, RedirectStandardError = true, RedirectStandardInput = true };
        if (asOther)
        {
            foreach (var argument in new[] { $"--reuid={Unprivileged}", $"--regid={Unprivileged}", "--clear-groups", "--", program })
            {
                start.ArgumentList.Add(argument);
            }
        }

        foreach (var argument in arguments)
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
