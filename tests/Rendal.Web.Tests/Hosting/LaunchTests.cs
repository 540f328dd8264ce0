using System.Net;
using System.Net.Sockets;
using Rendal.Store.Cluster;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Web.Tests.Hosting;

/// <summary>What keeps the program from starting is said in one line, with what to do.</summary>
public sealed class LaunchTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("rendal-launch-").FullName;

    [Fact]
    public async Task A_taken_port_is_named_with_the_option_to_name_another()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;
        Assert.Equal(
            $"Port {port} is taken by another program. Name another one by --port.",
            await RefusalAsync(Options() with { Port = port })
        );
        Assert.Equal(
            $"Port {port} is taken by another program. Name another one by --mail-port.",
            await RefusalAsync(Options() with { MailPort = port })
        );
    }

    [Theory]
    [InlineData(
        "Host=127.0.0.1;Port=1;Username=x;Database=x",
        "The database cannot be used: Failed to connect to 127.0.0.1:1. Look at RENDAL_DATABASE_URL."
    )]
    [InlineData("postgres at home", "RENDAL_DATABASE_URL is not understood: ")]
    public async Task A_database_that_cannot_be_used_points_to_the_setting(string url, string says)
    {
        var refusal = await RefusalAsync(Options() with { Database = new DatabaseAccess(url, url) });
        Assert.StartsWith(says, refusal);
        Assert.DoesNotContain('\n', refusal);
    }

    [Fact]
    public async Task A_folder_that_cannot_be_used_points_to_the_option()
    {
        var file = Path.Combine(folder, "letter.txt");
        await File.WriteAllTextAsync(file, "somebody's letter", TestContext.Current.CancellationToken);
        var refusal = await RefusalAsync(Options() with { Data = Path.Combine(file, "data") });
        Assert.StartsWith($"The folder {file}/data cannot be used: ", refusal);
        Assert.EndsWith("Name another one by --data.", refusal);
    }

    [Fact]
    public async Task Ports_of_the_postroom_are_free_unless_another_process_on_the_same_data_serves_it()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var options = Options() with { MailPort = ((IPEndPoint)taken.LocalEndpoint).Port };
        Assert.Equal(
            $"Port {options.MailPort} is taken by another program. Name another one by --mail-port.",
            await RefusalAsync(options)
        );

        Directory.CreateDirectory(Path.Combine(folder, "postroom"));
        using var serving = new FileStream(
            Path.Combine(folder, "postroom", "serving"),
            FileMode.Create,
            FileAccess.ReadWrite,
            FileShare.None
        );
        Assert.StartsWith("The database cannot be used: ", await RefusalAsync(options), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("The command is “start” or “demo”; see ./rendal --help.", "begin")]
    [InlineData("--speed is not understood here; see ./rendal start --help.", "start", "--speed", "9")]
    [InlineData("--port is not understood here; see ./rendal start --help.", "start", "--port")]
    [InlineData("--port 70000: a port from 1 to 65535 is wanted.", "start", "--port", "70000")]
    [InlineData("--role cook: one of web, worker, all is wanted.", "start", "--role", "cook")]
    public void An_option_that_is_not_understood_is_named(string says, params string[] arguments) =>
        Assert.Equal(says, Assert.Throws<StartRefused>(() => RendalOptions.Parse(arguments)).Message);

    [Theory]
    [InlineData(
        "RENDAL_LISTEN",
        "everywhere",
        "RENDAL_LISTEN everywhere: an address of this machine is wanted, such as 127.0.0.1 or 0.0.0.0."
    )]
    [InlineData("RENDAL_PATH_BASE", "rendal", "RENDAL_PATH_BASE rendal: a path is wanted, such as /rendal.")]
    [InlineData("RENDAL_PATH_BASE", "/a\"b", "RENDAL_PATH_BASE /a\"b: a path is wanted, such as /rendal.")]
    public void A_setting_that_is_not_understood_is_named(string name, string value, string says) =>
        Assert.Equal(says, Assert.Throws<StartRefused>(() => With(name, value)).Message);

    [Theory]
    [InlineData("RENDAL_LISTEN", "[::]", "::", "")]
    [InlineData("RENDAL_LISTEN", "10.1.2.3", "10.1.2.3", "")]
    [InlineData("RENDAL_PATH_BASE", "/", "127.0.0.1", "")]
    [InlineData("RENDAL_PATH_BASE", "/firm/rendal/", "127.0.0.1", "/firm/rendal")]
    public void Where_it_is_served_is_read_from_the_environment(string name, string value, string listen, string pathBase)
    {
        var options = With(name, value);
        Assert.Equal((listen, pathBase), (options.Listen.ToString(), options.PathBase));
    }

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Fact]
    public async Task A_worker_without_a_rendal_to_help_says_so()
    {
        var refusal = await RefusalAsync(Options() with { Role = Role.Worker, Database = null });
        Assert.StartsWith($"No Rendal runs with the data in {folder} whose messages could be sent.", refusal, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Authorities_that_cannot_be_read_are_named()
    {
        var file = Path.Combine(folder, "authorities.pem");
        Assert.StartsWith(
            $"RENDAL_MAIL_AUTHORITIES: {file} cannot be read",
            await RefusalAsync(Options() with { MailAuthorities = file }),
            StringComparison.Ordinal
        );
        await File.WriteAllTextAsync(file, "nothing of the kind", TestContext.Current.CancellationToken);
        Assert.Equal(
            $"RENDAL_MAIL_AUTHORITIES: there is no certificate in {file}.",
            await RefusalAsync(Options() with { MailAuthorities = file })
        );
    }

    private static async Task<string> RefusalAsync(RendalOptions options) =>
        (await Assert.ThrowsAsync<StartRefused>(() => Launch.RunAsync(options))).Message;

    private static RendalOptions With(string name, string value)
    {
        try
        {
            Environment.SetEnvironmentVariable(name, value);
            return RendalOptions.Parse(["start"]);
        }
        finally
        {
            Environment.SetEnvironmentVariable(name, null);
        }
    }

    private RendalOptions Options() =>
        new()
        {
            Demo = false,
            Port = FreePort.Find(),
            MailPort = FreePort.Find(),
            ImapPort = FreePort.Find(),
            Data = folder,
            Listen = IPAddress.Loopback,
            PathBase = "",
            Role = Role.All,
            Database = new DatabaseAccess("Host=127.0.0.1;Port=1;Username=x;Database=x", "Host=127.0.0.1;Port=1;Username=x;Database=x"),
            MailAuthorities = null,
            WebRoot = null,
        };
}
