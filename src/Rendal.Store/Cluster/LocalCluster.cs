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

    private readonly PostgresBinaries binaries;
    private readonly string data;
    private readonly string password;

    private LocalCluster(PostgresBinaries binaries, string data, string password, int port) =>
        (this.binaries, this.data, this.password, Port) = (binaries, data, password, port);

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
        var passwordFile = PasswordFile(folder);
        if (!File.Exists(Path.Combine(data, "PG_VERSION")))
        {
            await MakeAsync(binaries, folder, data, passwordFile, cancel);
        }

        var password = await File.ReadAllTextAsync(passwordFile, cancel);
        if (await RunningPortAsync(binaries, data, cancel) is { } running)
        {
            return new LocalCluster(binaries, data, password, running);
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

        return new LocalCluster(binaries, data, password, port);
    }

    /// <summary>The server that runs in a folder; null where none does.</summary>
    /// <exception cref="ClusterFailed">There is no server on the machine.</exception>
    public static async Task<LocalCluster?> FindRunningAsync(string folder, CancellationToken cancel)
    {
        var data = Path.Combine(folder, "postgresql");
        var binaries = Binaries();
        return await RunningPortAsync(binaries, data, cancel) is { } port ? new LocalCluster(binaries, data, await File.ReadAllTextAsync(PasswordFile(folder), cancel), port) : null;
    }

    /// <summary>The connection string of a database of this server; the database is made where it is missing.</summary>
    public async Task<string> DatabaseAsync(string name, CancellationToken cancel)
    {
        await using var source = NpgsqlDataSource.Create(ConnectionString("postgres") + ";Pooling=false");
        await using var exists = source.CreateCommand("select 1 from pg_database where datname = $1");
        exists.Parameters.Add(new() { Value = name });
        if (await exists.ExecuteScalarAsync(cancel) is null)
        {
            await using var create = source.CreateCommand($"create database \"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\"");
            await create.ExecuteNonQueryAsync(cancel);
        }

        return ConnectionString(name);
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

    private static string PasswordFile(string folder) => Path.Combine(folder, "postgresql-password");

    private string ConnectionString(string database) =>
        new NpgsqlConnectionStringBuilder { Host = "127.0.0.1", Port = Port, Username = Owner, Password = password, Database = database, IncludeErrorDetail = true, Timeout = 120 }.ConnectionString;

    private static async Task MakeAsync(PostgresBinaries binaries, string folder, string data, string passwordFile, CancellationToken cancel)
    {
        Directory.CreateDirectory(data);
        await File.WriteAllTextAsync(passwordFile, Convert.ToHexString(RandomNumberGenerator.GetBytes(24)), cancel);
        File.SetUnixFileMode(passwordFile, UnixFileMode.UserRead | UnixFileMode.UserWrite);
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
