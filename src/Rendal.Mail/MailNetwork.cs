using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;

namespace Rendal.Mail;

/// <summary>
/// Which mail servers may be talked to. Whoever fills in an account chooses the host; what lies in the network of this machine
/// is nothing of theirs, unless whoever runs it has allowed it. It is asked with the addresses that are then connected to, so
/// that a name that is looked up twice cannot lead elsewhere the second time.
/// </summary>
public sealed class MailNetwork
{
    // Loopback, private, shared, link-local, test and multicast networks (IANA special-purpose address registries).
    private static readonly IPNetwork[] Inner =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.168.0.0/16",
            "198.18.0.0/15",
            "224.0.0.0/4",
            "240.0.0.0/4",
            "::/128",
            "::1/128",
            "64:ff9b::/96",
            "64:ff9b:1::/48",
            "100::/64",
            "2002::/16",
            "fc00::/7",
            "fe80::/10",
            "fec0::/10",
            "ff00::/8",
        }.Select(n => IPNetwork.Parse(n)),
    ];

    private readonly bool all;
    private readonly IReadOnlyList<int> practice;
    private readonly HashSet<string> hosts = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<IPNetwork> networks = [];

    private MailNetwork(bool all, IReadOnlyList<int> practice, X509Certificate2Collection? authorities) =>
        (this.all, this.practice, Authorities) = (all, practice, authorities);

    /// <summary>Authorities whose certificates are trusted beside those that the machine trusts; null for none.</summary>
    public X509Certificate2Collection? Authorities { get; }

    /// <summary>Every server: for who chooses the servers themselves.</summary>
    public static MailNetwork Everywhere(X509Certificate2Collection? authorities = null) => new(true, [], authorities);

    /// <summary>Servers beyond the network of this machine, those that are allowed, and the practice server.</summary>
    /// <param name="allowed">Names, addresses (<c>10.0.0.5</c>) and networks (<c>10.0.0.0/24</c>) of servers within it.</param>
    /// <param name="practice">The ports on this machine where the practice server listens.</param>
    /// <param name="authorities">Authorities that are trusted beside those that the machine trusts; null for none.</param>
    public static MailNetwork Beyond(IEnumerable<string> allowed, IReadOnlyList<int> practice, X509Certificate2Collection? authorities)
    {
        var network = new MailNetwork(false, practice, authorities);
        foreach (var one in allowed)
        {
            if (IPNetwork.TryParse(one, out var of))
            {
                network.networks.Add(of);
            }
            else if (IPAddress.TryParse(one, out var address))
            {
                network.networks.Add(new IPNetwork(address, address.AddressFamily == AddressFamily.InterNetwork ? 32 : 128));
            }
            else
            {
                network.hosts.Add(one);
            }
        }

        return network;
    }

    /// <summary>The addresses of a server that may be talked to.</summary>
    /// <exception cref="SocketException">There is no server of this name.</exception>
    /// <exception cref="HostNotAllowed">It lies in the network of this machine, and nobody has allowed it.</exception>
    public async Task<IPAddress[]> AddressesAsync(string host, int port, CancellationToken cancel)
    {
        var found = IPAddress.TryParse(host, out var itself) ? [itself] : await Dns.GetHostAddressesAsync(host, cancel);
        return all || hosts.Contains(host) || Array.TrueForAll(found, address => MayBe(address, port))
            ? found
            : throw new HostNotAllowed(host);
    }

    private bool MayBe(IPAddress given, int port)
    {
        var address = given.IsIPv4MappedToIPv6 ? given.MapToIPv4() : given;
        return !Inner.Any(n => n.Contains(address))
            || networks.Exists(n => n.Contains(address))
            || (IPAddress.IsLoopback(address) && practice.Contains(port));
    }
}
