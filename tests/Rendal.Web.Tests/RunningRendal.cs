using System.Net;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Core.Tests;
using Rendal.Postroom;
using Rendal.Store.Cluster;
using Rendal.Store.Migrations;
using Rendal.Store.People;
using Rendal.Trials;
using Rendal.Web.Hosting;

[assembly: AssemblyFixture(typeof(Rendal.Web.Tests.RunningRendal))]

namespace Rendal.Web.Tests;

/// <summary>The whole application with a PostgreSQL and a postroom of its own, reached over HTTP as a browser does.</summary>
public sealed class RunningRendal : IAsyncLifetime
{
    private readonly bool sends;

    public RunningRendal()
        : this(sends: true) { }

    internal RunningRendal(bool sends) => this.sends = sends;

    public const string FirstRunKey = "first-run-key";

    public const string Password = "launder-and-press";

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-web-").FullName;
    private LocalCluster? cluster;

    public WebApplication App { get; private set; } = null!;

    /// <summary>Whether nobody is there yet.</summary>
    internal bool IsNew { get; init; }

    /// <summary>What the administrator allows of the machine's own network.</summary>
    internal IReadOnlyList<string> MailHosts { get; init; } = ["127.0.0.1"];

    /// <summary>The authorities that are trusted beside the machine's.</summary>
    internal System.Security.Cryptography.X509Certificates.X509Certificate2Collection? MailAuthorities { get; init; }

    /// <summary>The proxies that the administrator trusts.</summary>
    internal IReadOnlyList<string> Proxies { get; init; } = [];

    /// <summary>The path below which it is served.</summary>
    internal string PathBase { get; init; } = "";

    /// <summary>The folder of its pages; null for none.</summary>
    internal string? WebRoot { get; init; }

    internal TimeProvider Clock { get; init; } = TimeProvider.System;

    /// <summary>The connection string of the role that the tables belong to.</summary>
    internal string OwnersDatabase { get; private set; } = "";

    public Uri Address { get; private set; } = null!;

    internal Mailbox Mailbox => App.Services.GetRequiredService<Mailbox>();

    public async ValueTask InitializeAsync()
    {
        cluster = await LocalCluster.StartAsync(folder, forTests: true, CancellationToken.None);
        var database = await cluster.DatabaseAsync("rendal", CancellationToken.None);
        await Schema.UpgradeAsync(database);
        OwnersDatabase = database.Owner;
        App = await StartedAsync(database.Application);
        Address = new Uri(App.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First());
        if (IsNew)
        {
            return;
        }

        using var browser = Browser();
        var first = await browser.PostAsJsonAsync(
            "/api/first-run",
            new
            {
                key = FirstRunKey,
                name = "odile",
                password = Password,
                book = Firm("Tarnbrook Linen Hire"),
            }
        );
        Assert.Equal(HttpStatusCode.NoContent, first.StatusCode);
    }

    /// <summary>A browser that nobody has signed in with. It sends the header that Rendal's own pages send.</summary>
    public HttpClient Browser(bool ownPages = true)
    {
        var client = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = Address,
            Timeout = TimeSpan.FromMinutes(5),
        };
        if (ownPages)
        {
            client.DefaultRequestHeaders.Add("X-Rendal", "1");
        }

        return client;
    }

    /// <summary>A browser in which odile, the first person, has signed in.</summary>
    public async Task<HttpClient> SignedInAsync()
    {
        var browser = Browser();
        await Eventually.HoldsAsync(
            async () =>
            {
                // Many tests sign in at once, as one person in as many new browsers: that is slowed down, and waited for.
                using var answer = await browser.PostAsJsonAsync("/api/session", new { name = "odile", password = Password });
                if (answer.StatusCode == HttpStatusCode.TooManyRequests)
                {
                    await Task.Delay(answer.Headers.RetryAfter!.Delta!.Value);
                    return false;
                }

                Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
                return true;
            },
            "signed in"
        );
        return browser;
    }

    /// <summary>A browser in which somebody has signed in who has no book.</summary>
    public async Task<HttpClient> StrangerAsync()
    {
        var name = $"stranger {Guid.NewGuid():N}";
        await App
            .Services.GetRequiredService<PersonStore>()
            .AddAsync(
                name,
                App.Services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password),
                CancellationToken.None
            );
        var browser = Browser();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await browser.PostAsJsonAsync("/api/session", new { name, password = Password })).StatusCode
        );
        return browser;
    }

    public static object Firm(string name) =>
        new
        {
            name,
            currency = "GBP",
            addressLines = new[] { "14 Tenter Lane" },
            contactLines = Array.Empty<string>(),
            paymentLines = new[] { "By transfer" },
            timeZone = "Europe/London",
        };

    /// <summary>Stops the database, whoever is connected, by the signal that PostgreSQL knows for it.</summary>
    internal async Task StopDatabaseAsync()
    {
        var server = int.Parse(
            File.ReadLines(Path.Combine(folder, "postgresql", "postmaster.pid")).First(),
            System.Globalization.CultureInfo.InvariantCulture
        );
        using (var signal = System.Diagnostics.Process.Start("kill", ["-INT", $"{server}"]))
        {
            await signal.WaitForExitAsync();
        }

        await Eventually.HoldsAsync(() => !File.Exists(Path.Combine(folder, "postgresql", "postmaster.pid")));
    }

    /// <summary>Stops the database, whoever is connected, and starts it again at the same port.</summary>
    internal async Task RestartDatabaseAsync() => await cluster!.RestartAsync();

    public async ValueTask DisposeAsync()
    {
        // What was started is stopped, also when the rest of the beginning failed.
        await (App?.StopAsync() ?? Task.CompletedTask);
        await (App?.DisposeAsync() ?? ValueTask.CompletedTask);
        await (cluster?.DisposeAsync() ?? ValueTask.CompletedTask);
        Directory.Delete(folder, recursive: true);
    }

    /// <summary>
    /// The application on ports that are free. Another program may take one between its being found and being used; then others are.
    /// </summary>
    private async Task<WebApplication> StartedAsync(string database)
    {
        for (var left = 5; ; left--)
        {
            var app = RendalHost.Build(
                new HostParts(database, folder, 0, FreePort.Find(), FreePort.Find(), sends ? Role.All : Role.Web, WebRoot, FirstRunKey)
                {
                    PathBase = PathBase,
                    MailHosts = MailHosts,
                    MailAuthorities = MailAuthorities,
                    Proxies = Proxies,
                    Clock = Clock,
                }
            );
            try
            {
                await app.StartAsync();
                return app;
            }
            catch (IOException e) when (e.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException && left > 0)
            {
                await app.DisposeAsync();
            }
        }
    }
}
