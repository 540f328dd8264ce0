using System.Net;
using System.Net.Sockets;
using System.Runtime.InteropServices;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Npgsql;
using Rendal.Store.Cluster;
using Rendal.Store.Dispatch;
using Rendal.Store.Migrations;
using Rendal.Store.People;
using Rendal.Web.Postroom;

namespace Rendal.Web.Hosting;

/// <summary>Starts everything in order, and stops it in the other order on Ctrl-C.</summary>
internal static class Launch
{
    private static readonly TimeSpan LongestStop = TimeSpan.FromSeconds(4);

    /// <summary>Runs until it is stopped.</summary>
    /// <exception cref="StartRefused">It cannot start, in words for whoever started it.</exception>
    public static async Task RunAsync(RendalOptions options)
    {
        using var stop = new CancellationTokenSource();
        using var interrupt = PosixSignalRegistration.Create(PosixSignal.SIGINT, Stop);
        using var terminate = PosixSignalRegistration.Create(PosixSignal.SIGTERM, Stop);

        Prepare(options);
        var authorities = MailAuthorities(options);

        // Any number of them may run with the same data; a browser finds one Rendal at an address, and one has the postroom.
        if (options.Role != Role.Worker)
        {
            DemandFree(options.Listen, options.Port, "--port");
            if (!PostroomServer.IsServed(options.Data))
            {
                DemandFree(IPAddress.Loopback, options.MailPort, "--mail-port");
                DemandFree(IPAddress.Loopback, options.ImapPort, "--imap-port");
            }
        }

        await using var cluster =
            options.Database is not null ? null
            : options.Role == Role.Worker ? await RunningClusterAsync(options, stop.Token)
            : await LocalCluster.StartAsync(options.Data, forTests: false, stop.Token);
        try
        {
            var access = options.Database ?? await cluster!.DatabaseAsync("rendal", stop.Token);
            await UpgradeAsync(access);
            var (mailPort, imapPort) = PracticePorts.Of(options);
            var key = Convert.ToHexString(RandomNumberGenerator.GetBytes(12));
            await using var app = RendalHost.Build(
                new HostParts(access.Application, options.Data, options.Port, mailPort, imapPort, options.Role, options.WebRoot, key)
                {
                    Listen = options.Listen,
                    PathBase = options.PathBase,
                    MailAuthorities = authorities,
                    MailHosts = options.MailHosts,
                    Proxies = options.Proxies,
                    Hosts = options.Hosts,
                }
            );
            await app.Services.GetRequiredService<PersonStore>().FoldNamesAsync(stop.Token);
            if (cluster is not null && await DataFolder.WasMovedAsync(options.Data, stop.Token))
            {
                await PauseAsync(app, options, stop.Token);
            }

            if (options.Demo)
            {
                await DemoBook.EnsureAsync(app.Services, stop.Token);
            }

            await app.StartAsync(stop.Token);
            await AnnounceAsync(app, options, key, stop.Token);
            await (cluster?.KeepAsync(Console.Error.WriteLine, stop.Token) ?? Task.Delay(Timeout.Infinite, stop.Token)).ConfigureAwait(
                ConfigureAwaitOptions.SuppressThrowing
            );
            Console.WriteLine("Stopping.");

            // What does not come to its end by then is cut off, as by a kill: it is told from the record what became of it.
            using var late = new CancellationTokenSource(LongestStop);
            late.Token.Register(() => Environment.Exit(0));
            await app.StopAsync();
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            // Ctrl-C while starting: what was started is stopped all the same.
        }

        void Stop(PosixSignalContext signal)
        {
            signal.Cancel = true;
            stop.Cancel();
        }
    }

    /// <summary>The database of the Rendal that a worker helps; it is that one's to stop.</summary>
    private static async Task<LocalCluster> RunningClusterAsync(RendalOptions options, CancellationToken cancel) =>
        await LocalCluster.FindRunningAsync(options.Data, cancel)
        ?? throw new StartRefused(
            $"No Rendal runs with the data in {options.Data} whose messages could be sent. Start that one first, or name its "
                + "database by RENDAL_DATABASE_URL."
        );

    private static X509Certificate2Collection? MailAuthorities(RendalOptions options)
    {
        if (options.MailAuthorities is not { } file)
        {
            return null;
        }

        try
        {
            var authorities = new X509Certificate2Collection();
            authorities.ImportFromPemFile(file);
            return authorities.Count > 0
                ? authorities
                : throw new StartRefused($"RENDAL_MAIL_AUTHORITIES: there is no certificate in {file}.");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or CryptographicException)
        {
            throw new StartRefused($"RENDAL_MAIL_AUTHORITIES: {file} cannot be read: {e.Message}");
        }
    }

    /// <summary>Lets nothing go out of data that were copied: the folder that they were copied from may be sending the same.</summary>
    private static async Task PauseAsync(WebApplication app, RendalOptions options, CancellationToken cancel)
    {
        var paused = await app.Services.GetRequiredService<DispatchQueue>().PauseAllAsync(cancel);
        if (paused > 0)
        {
            Console.WriteLine(
                $"The folder {options.Data} was moved or copied. {paused} "
                    + $"{(paused == 1 ? "round that has" : "rounds that have")} something to send {(paused == 1 ? "is" : "are")} "
                    + "paused, so that nothing goes out twice: look whether the folder that it was copied from sends it, and let it "
                    + "go on then."
            );
        }
    }

    private static async Task AnnounceAsync(WebApplication app, RendalOptions options, string key, CancellationToken cancel)
    {
        var isAny = IPAddress.Any.Equals(options.Listen) || IPAddress.IPv6Any.Equals(options.Listen);
        var address = $"http://{new IPEndPoint(isAny ? IPAddress.Loopback : options.Listen, options.Port)}{options.PathBase}";
        if (options.Role == Role.Worker)
        {
            Console.WriteLine("Rendal sends. Ctrl-C stops it.");
        }
        else if (options.Demo)
        {
            Console.WriteLine(
                $"""

                Rendal with the sample firm is at   {address}
                Sign in as                          {DemoBook.Person}
                with the password                   {DemoBook.Password}

                Ctrl-C stops it. The data stay in {options.Data}
                """
            );
        }
        else if (await app.Services.GetRequiredService<PersonStore>().AnyAsync(cancel))
        {
            Console.WriteLine($"Rendal is at {address}. Ctrl-C stops it. The data are in {options.Data}");
        }
        else
        {
            Console.WriteLine(
                $"Rendal is at {address}/first-run?key={key}\nOpen that address to say who you are. Ctrl-C stops it. The data "
                    + $"are in {options.Data}"
            );
        }
    }

    private static void Prepare(RendalOptions options)
    {
        try
        {
            Directory.CreateDirectory(options.Data);
            var free = new DriveInfo(options.Data).AvailableFreeSpace;
            if (free < 200L * 1024 * 1024)
            {
                throw new StartRefused(
                    $"The disk with {options.Data} has {free / 1024 / 1024} MB left; at least 200 MB are needed. Make room, or "
                        + "name another folder by --data."
                );
            }
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new StartRefused($"The folder {options.Data} cannot be used: {e.Message} Name another one by --data.");
        }
    }

    private static void DemandFree(IPAddress address, int port, string option)
    {
        try
        {
            using var listener = new TcpListener(address, port);
            listener.Start();
        }
        catch (SocketException)
        {
            throw new StartRefused($"Port {port} is taken by another program. Name another one by {option}.");
        }
    }

    private static async Task UpgradeAsync(DatabaseAccess access)
    {
        var settings = access.Owner == access.Application ? "RENDAL_DATABASE_URL" : "RENDAL_DATABASE_URL or RENDAL_DATABASE_OWNER_URL";
        try
        {
            await Schema.UpgradeAsync(access);
            if (await Rights.ReachTheRecordAsync(access.Application))
            {
                Console.WriteLine(
                    "The role in RENDAL_DATABASE_URL could alter the record of what went out. Give Rendal a role of its own "
                        + "for that, and name who owns the tables by RENDAL_DATABASE_OWNER_URL."
                );
            }
        }
        catch (InvalidOperationException e)
            when (e.InnerException is PostgresException { SqlState: PostgresErrorCodes.InsufficientPrivilege } refused)
        {
            throw new StartRefused(
                $"The tables cannot be brought up to date by the role in {settings}: {refused.MessageText}. Name who owns them "
                    + "by RENDAL_DATABASE_OWNER_URL."
            );
        }
        catch (Exception e) when ((e as NpgsqlException ?? e.InnerException as NpgsqlException) is { } away)
        {
            throw new StartRefused($"The database cannot be used: {away.Message.ReplaceLineEndings(" ")}. Look at {settings}.");
        }
        catch (Exception e) when ((e as ArgumentException ?? e.InnerException as ArgumentException) is { } malformed)
        {
            throw new StartRefused(
                $"{settings} is not understood: {malformed.Message.ReplaceLineEndings(" ")} Write it like "
                    + "Host=db.example;Username=rendal;Password=…;Database=rendal."
            );
        }
    }
}
