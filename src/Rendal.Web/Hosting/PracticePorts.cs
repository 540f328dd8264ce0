using System.Globalization;
using Rendal.Web.Postroom;

namespace Rendal.Web.Hosting;

/// <summary>
/// The ports of the postroom, noted in the folder of the data: of several processes one serves it, and the others talk to that one.
/// </summary>
internal static class PracticePorts
{
    /// <summary>Notes the ports of the postroom that begins to listen.</summary>
    public static void Note(HostParts parts)
    {
        Directory.CreateDirectory(Path.Combine(parts.Data, "postroom"));
        File.WriteAllText(FileIn(parts.Data), string.Create(CultureInfo.InvariantCulture, $"{parts.MailPort} {parts.ImapPort}"));
    }

    /// <summary>The ports that a process counts as the postroom's.</summary>
    public static (int Mail, int Imap) Of(RendalOptions options) =>
        (options.Role == Role.Worker || PostroomServer.IsServed(options.Data))
        && File.Exists(FileIn(options.Data))
        && File.ReadAllText(FileIn(options.Data)).Split(' ') is [var mail, var imap]
        && int.TryParse(mail, NumberStyles.None, CultureInfo.InvariantCulture, out var smtp)
        && int.TryParse(imap, NumberStyles.None, CultureInfo.InvariantCulture, out var fetching)
            ? (smtp, fetching)
            : (options.MailPort, options.ImapPort);

    private static string FileIn(string data) => Path.Combine(data, "postroom", "ports");
}
