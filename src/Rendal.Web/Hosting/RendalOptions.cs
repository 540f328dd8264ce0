using System.Globalization;
using System.Net;
using System.Text.RegularExpressions;
using Rendal.Store.Cluster;

namespace Rendal.Web.Hosting;

/// <summary>What of the work this process does.</summary>
internal enum Role
{
    /// <summary>Answers browsers and sends.</summary>
    All,

    /// <summary>Answers browsers only.</summary>
    Web,

    /// <summary>Sends only.</summary>
    Worker,
}

/// <summary>How this process runs: from the command line, then the environment (<c>RENDAL_…</c>), then the defaults.</summary>
internal sealed partial record RendalOptions
{
    /// <summary>What <c>--help</c> prints.</summary>
    public const string Help = """
        ./rendal start [--port 8420] [--mail-port 2525] [--data DIR] [--role web|worker|all]
        ./rendal demo  [--port 8420] [--mail-port 2525] [--data DIR]

          --port        the port that the browser goes to                     (RENDAL_PORT)
          --mail-port   the port on 127.0.0.1 of the postroom                 (RENDAL_MAIL_PORT)
          --data        the folder for the database, keys and postroom        (RENDAL_DATA)
          --role        what this process does: all by default                (RENDAL_ROLE)

        RENDAL_DATABASE_URL names a PostgreSQL server of your own instead of the private one,
        for example  Host=db.example;Username=rendal;Password=…;Database=rendal
        RENDAL_DATABASE_OWNER_URL names the same database as another role, to which its tables then belong, so that
        the first can add to the record of what went out and not alter it. It is used to bring the tables up to date.

        RENDAL_MAIL_AUTHORITIES names a file (PEM) of authorities whose certificates mail servers may have,
        beside those that the machine trusts.
        RENDAL_MAIL_HOSTS names mail servers in this machine's own network that may be talked to: names, addresses
        and networks, with commas between them, for example  mail.firm.example,10.0.0.0/24
        RENDAL_LISTEN names the address that browsers are listened to on: 127.0.0.1 by default, 0.0.0.0 or [::] for all.
        What it sends there is not encrypted; a proxy before it does that.
        RENDAL_PATH_BASE names the path below which a proxy serves it, for example  /rendal
        RENDAL_PROXIES names the addresses and networks of proxies that are trusted to say where a request came from.
        RENDAL_HOSTS names the hosts by which browsers reach Rendal through them, for example  rendal.firm.example
        """;

    /// <summary>Whether the sample firm is made on the first start.</summary>
    public required bool Demo { get; init; }

    /// <summary>The port that browsers go to; 0 for one that is free.</summary>
    public required int Port { get; init; }

    /// <summary>The address that browsers are listened to on.</summary>
    public required IPAddress Listen { get; init; }

    /// <summary>The path below which it is served; empty where it has its host to itself.</summary>
    public required string PathBase { get; init; }

    /// <summary>The port of the postroom for messages that are sent (SMTP); 0 for one that is free.</summary>
    public required int MailPort { get; init; }

    /// <summary>The port of the postroom for mailboxes that are read (IMAP); 0 for one that is free.</summary>
    public required int ImapPort { get; init; }

    /// <summary>The folder of database, keys and postroom.</summary>
    public required string Data { get; init; }

    /// <summary>What this process does of serving browsers and sending.</summary>
    public required Role Role { get; init; }

    /// <summary>The database that somebody else runs; null for our own.</summary>
    public required DatabaseAccess? Database { get; init; }

    /// <summary>A file (PEM) of authorities that mail servers may have certificates of; null for those that the machine trusts.</summary>
    public required string? MailAuthorities { get; init; }

    /// <summary>Mail servers in the machine's own network that may be talked to.</summary>
    public IReadOnlyList<string> MailHosts { get; init; } = [];

    /// <summary>Proxies that are trusted.</summary>
    public IReadOnlyList<string> Proxies { get; init; } = [];

    /// <summary>The hosts by which browsers reach it, beside the machine's own.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>The folder of the built interface; null for the one beside the program.</summary>
    public required string? WebRoot { get; init; }

    /// <summary>Reads the command line and the environment.</summary>
    /// <exception cref="StartRefused">Something of it is unknown or wrong.</exception>
    public static RendalOptions Parse(string[] args)
    {
        var demo = args.FirstOrDefault() switch
        {
            "demo" => true,
            "start" => false,
            _ => throw new StartRefused("The command is “start” or “demo”; see ./rendal --help."),
        };
        var given = new Dictionary<string, string>();
        for (var i = 1; i < args.Length; i += 2)
        {
            if (args[i] is not ("--port" or "--mail-port" or "--imap-port" or "--data" or "--role") || i + 1 == args.Length)
            {
                throw new StartRefused($"{args[i]} is not understood here; see ./rendal {args[0]} --help.");
            }

            given[args[i]] = args[i + 1];
        }

        string? Setting(string option, string variable) => given.TryGetValue(option, out var value) ? value : Variable(variable);
        return new RendalOptions
        {
            Demo = demo,
            Port = PortOf(Setting("--port", "RENDAL_PORT") ?? "8420", "--port"),
            Listen = AddressOf(Variable("RENDAL_LISTEN") ?? "127.0.0.1"),
            PathBase = PathOf(Variable("RENDAL_PATH_BASE") ?? ""),
            MailPort = PortOf(Setting("--mail-port", "RENDAL_MAIL_PORT") ?? "2525", "--mail-port"),
            ImapPort = PortOf(Setting("--imap-port", "RENDAL_IMAP_PORT") ?? "2143", "--imap-port"),
            Data = Path.GetFullPath(Setting("--data", "RENDAL_DATA") ?? DefaultData(demo)),
            Role = Setting("--role", "RENDAL_ROLE") switch
            {
                null or "all" => Role.All,
                "web" => Role.Web,
                "worker" => Role.Worker,
                var other => throw new StartRefused($"--role {other}: one of web, worker, all is wanted."),
            },
            Database =
                Variable("RENDAL_DATABASE_URL") is { } url ? new DatabaseAccess(Variable("RENDAL_DATABASE_OWNER_URL") ?? url, url)
                : Variable("RENDAL_DATABASE_OWNER_URL") is null ? null
                : throw new StartRefused(
                    "RENDAL_DATABASE_OWNER_URL is given without RENDAL_DATABASE_URL, which says as what role Rendal works."
                ),
            MailAuthorities = Variable("RENDAL_MAIL_AUTHORITIES"),
            MailHosts = List("RENDAL_MAIL_HOSTS"),
            Proxies = List("RENDAL_PROXIES"),
            Hosts = List("RENDAL_HOSTS"),
            WebRoot = Environment.GetEnvironmentVariable("RENDAL_WEB_ROOT"),
        };
    }

    private static string[] List(string name) => (Variable(name) ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries);

    private static string? Variable(string name) => Environment.GetEnvironmentVariable(name) is { Length: > 0 } set ? set : null;

    /// <summary>A folder that the database's unprivileged user can reach: /var/lib for root, the user's own data folder else.</summary>
    private static string DefaultData(bool demo)
    {
        var home =
            Environment.IsPrivilegedProcess ? "/var/lib"
            : Environment.GetEnvironmentVariable("XDG_DATA_HOME") is { Length: > 0 } xdg ? xdg
            : Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".local", "share");
        return Path.Combine(home, demo ? "rendal-demo" : "rendal");
    }

    private static IPAddress AddressOf(string text) =>
        IPAddress.TryParse(text.Trim('[', ']'), out var address)
            ? address
            : throw new StartRefused($"RENDAL_LISTEN {text}: an address of this machine is wanted, such as 127.0.0.1 or 0.0.0.0.");

    private static string PathOf(string text) =>
        text is "" or "/" ? ""
        : PathBaseForm().IsMatch(text) ? text.TrimEnd('/')
        : throw new StartRefused($"RENDAL_PATH_BASE {text}: a path is wanted, such as /rendal.");

    [GeneratedRegex("^(/[A-Za-z0-9._~-]+)+/?$")]
    private static partial Regex PathBaseForm();

    private static int PortOf(string text, string option) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var port) && port is > 0 and < 65536
            ? port
            : throw new StartRefused($"{option} {text}: a port from 1 to 65535 is wanted.");
}

/// <summary>Why the application cannot start: one line for a person.</summary>
internal sealed class StartRefused(string message) : Exception(message);
