using System.IO.Compression;
using System.Text;

namespace Rendal.Mail;

/// <summary>Writes many messages into one file, for other mail programs.</summary>
public static class MessageFiles
{
    /// <summary>Writes them as <c>.eml</c> into a ZIP.</summary>
    /// <param name="stream">Where to.</param>
    /// <param name="messages">Each with the name of its file, which must be unique.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task WriteZipAsync(
        Stream stream,
        IAsyncEnumerable<(string FileName, byte[] Bytes)> messages,
        CancellationToken cancel
    )
    {
        using var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        await foreach (var (name, bytes) in messages.WithCancellation(cancel))
        {
            await using var entry = await zip.CreateEntry(name).OpenAsync(cancel);
            await entry.WriteAsync(bytes, cancel);
        }
    }

    /// <summary>
    /// Writes them as one mbox (RFC 4155), in the form in which a line that begins with <c>From </c>, or with <c>&gt;</c> before
    /// it, gets one more <c>&gt;</c>, so that all can be read back as they were.
    /// </summary>
    /// <param name="stream">Where to.</param>
    /// <param name="messages">The messages.</param>
    /// <param name="now">The moment that stands at each.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task WriteMboxAsync(Stream stream, IAsyncEnumerable<byte[]> messages, DateTimeOffset now, CancellationToken cancel)
    {
        var between = Encoding.ASCII.GetBytes(
            "From rendal@localhost "
                + $"{now.UtcDateTime.ToString("ddd MMM d HH:mm:ss yyyy", System.Globalization.CultureInfo.InvariantCulture)}\n"
        );
        await foreach (var bytes in messages.WithCancellation(cancel))
        {
            await stream.WriteAsync(between, cancel);
            await stream.WriteAsync(Quoted(bytes), cancel);
            await stream.WriteAsync("\n"u8.ToArray(), cancel);
        }
    }

    private static byte[] Quoted(byte[] message)
    {
        var quoted = new MemoryStream(message.Length + 100);
        foreach (var line in Encoding.Latin1.GetString(message).ReplaceLineEndings("\n").TrimEnd('\n').Split('\n'))
        {
            var text = line.TrimStart('>').StartsWith("From ", StringComparison.Ordinal) ? ">" + line : line;
            quoted.Write(Encoding.Latin1.GetBytes(text + "\n"));
        }

        return quoted.ToArray();
    }
}
