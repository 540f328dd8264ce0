using System.Security.Cryptography.X509Certificates;

namespace Rendal.Web.Hosting;

/// <summary>What a host is built from.</summary>
/// <param name="Database">The connection string.</param>
/// <param name="Data">The folder for keys and the postroom.</param>
/// <param name="Port">The port for browsers on 127.0.0.1; 0 takes a free one.</param>
/// <param name="MailPort">The postroom's port on 127.0.0.1; 0 takes a free one.</param>
/// <param name="ImapPort">The port on 127.0.0.1 where what came back to the postroom is fetched; 0 takes a free one.</param>
/// <param name="Role">What of the work it does.</param>
/// <param name="WebRoot">The folder of the built front end; null where there is none.</param>
/// <param name="FirstRunKey">The key that the first person needs; null where nobody can be the first.</param>
internal sealed record HostParts(string Database, string Data, int Port, int MailPort, int ImapPort, Role Role, string? WebRoot, string? FirstRunKey)
{
    /// <summary>Authorities whose certificates mail servers may have, beside those that the machine trusts; null for none.</summary>
    public X509Certificate2Collection? MailAuthorities { get; init; }
}
