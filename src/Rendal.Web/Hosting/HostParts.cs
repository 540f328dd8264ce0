using System.Net;
using System.Security.Cryptography.X509Certificates;
using Rendal.Mail;

namespace Rendal.Web.Hosting;

/// <summary>What a host is built from.</summary>
/// <param name="Database">The connection string.</param>
/// <param name="Data">The folder for keys and the postroom.</param>
/// <param name="Port">The port for browsers; 0 takes a free one.</param>
/// <param name="MailPort">The postroom's port on 127.0.0.1; 0 takes a free one.</param>
/// <param name="ImapPort">The port on 127.0.0.1 where what came back to the postroom is fetched; 0 takes a free one.</param>
/// <param name="Role">What of the work it does.</param>
/// <param name="WebRoot">The folder of the built front end; null where there is none.</param>
/// <param name="FirstRunKey">The key that the first person needs; null where nobody can be the first.</param>
internal sealed record HostParts(
    string Database,
    string Data,
    int Port,
    int MailPort,
    int ImapPort,
    Role Role,
    string? WebRoot,
    string? FirstRunKey
)
{
    /// <summary>The address that it listens on for browsers.</summary>
    public IPAddress Listen { get; init; } = IPAddress.Loopback;

    /// <summary>The path below which it is served, as <c>/rendal</c>; empty where it has its host to itself.</summary>
    public string PathBase { get; init; } = "";

    /// <summary>Authorities whose certificates mail servers may have, beside those that the machine trusts; null for none.</summary>
    public X509Certificate2Collection? MailAuthorities { get; init; }

    /// <summary>Mail servers within the network of this machine that may be talked to: names, addresses and networks.</summary>
    public IReadOnlyList<string> MailHosts { get; init; } = [];

    /// <summary>Addresses and networks of proxies whose word is taken for where a request came from and over what.</summary>
    public IReadOnlyList<string> Proxies { get; init; } = [];

    /// <summary>The names by which browsers may reach it, beside this machine's own.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>Which mail servers may be talked to.</summary>
    public MailNetwork Mail => MailNetwork.Beyond(MailHosts, [MailPort, ImapPort], MailAuthorities);

    /// <summary>What tells the time.</summary>
    public TimeProvider Clock { get; init; } = TimeProvider.System;
}
