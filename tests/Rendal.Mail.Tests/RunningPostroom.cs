using System.Net.NetworkInformation;
using System.Security.Cryptography.X509Certificates;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Rendal.Core.Tests;
using Rendal.Postroom;

namespace Rendal.Mail.Tests;

/// <summary>The real postroom on a free port, with an empty mailbox.</summary>
public sealed class RunningPostroom : IAsyncLifetime
{
    private readonly string folder = Directory.CreateTempSubdirectory("rendal-postroom-").FullName;
    private readonly TaskCompletionSource lineClosed = new();
    private WebApplication? app;

    public Mailbox Mailbox { get; private set; } = null!;

    public Drills Drills { get; private set; } = null!;

    /// <summary>The authority that signed the postroom's certificates.</summary>
    public X509Certificate2 Authority { get; private set; } = null!;

    /// <summary>Done when a line was closed, and who was at its other end can know it.</summary>
    public async Task LineGoneAsync()
    {
        await lineClosed.Task;
        await Eventually.HoldsAsync(() =>
            IPGlobalProperties
                .GetIPGlobalProperties()
                .GetActiveTcpConnections()
                .All(c => c.RemoteEndPoint.Port != Port || c.State != TcpState.Established)
        );
    }

    public int Port { get; private set; }

    /// <summary>The port whose line is secured from the first byte.</summary>
    public int SecuredPort { get; private set; }

    /// <summary>The port where the mailbox is fetched.</summary>
    public int ImapPort { get; private set; }

    /// <summary>The port where the mailbox is fetched on a line secured from the first byte.</summary>
    public int SecuredImapPort { get; private set; }

    public async ValueTask InitializeAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.Services.AddSingleton(TimeProvider.System).AddPostroom(folder, _ => PracticeAccounts.Anybody);
        builder.WebHost.ConfigureKestrel(options =>
        {
            options.ConfigureEndpointDefaults(listen =>
                listen.Use(next =>
                    connection =>
                    {
                        connection.ConnectionClosed.Register(() => lineClosed.TrySetResult());
                        return next(connection);
                    }
                )
            );
            options.ListenForMail(0);
            options.ListenForMail(0, secured: true);
            options.ListenForFetching(0);
            options.ListenForFetching(0, secured: true);
        });
        app = builder.Build();
        Mailbox = app.Services.GetRequiredService<Mailbox>();
        Drills = app.Services.GetRequiredService<Drills>();
        Drills.DripEvery = TimeSpan.FromMilliseconds(1);
        Authority = app.Services.GetRequiredService<PracticeCertificates>().Authority;
        await app.StartAsync();
        var ports = app
            .Services.GetRequiredService<IServer>()
            .Features.Get<IServerAddressesFeature>()!
            .Addresses.Select(a => new Uri(a).Port)
            .ToList();
        (Port, SecuredPort, ImapPort, SecuredImapPort) = (ports[0], ports[1], ports[2], ports[3]);
    }

    public async ValueTask DisposeAsync()
    {
        await app!.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }
}
