using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Rendal.Postroom;

namespace Rendal.Mail.Tests;

/// <summary>The real postroom on a free port, with an empty mailbox.</summary>
public sealed class RunningPostroom : IAsyncLifetime
{
    private readonly string folder = Directory.CreateTempSubdirectory("rendal-postroom-").FullName;
    private WebApplication? app;

    public Mailbox Mailbox { get; private set; } = null!;

    public int Port { get; private set; }

    public async ValueTask InitializeAsync()
    {
        Mailbox = new Mailbox(folder);
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.Services.AddSingleton(Mailbox).AddSingleton(TimeProvider.System);
        builder.WebHost.ConfigureKestrel(options => options.ListenForMail(0));
        app = builder.Build();
        await app.StartAsync();
        Port = new Uri(app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.Single()).Port;
    }

    public async ValueTask DisposeAsync()
    {
        await app!.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }
}
