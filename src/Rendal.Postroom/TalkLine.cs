using System.Text;

namespace Rendal.Postroom;

/// <summary>Reads lines and writes answers on one connection. The stream below can be exchanged, as STARTTLS wants it.</summary>
internal sealed class TalkLine(Stream stream)
{
    private const int LongestCommand = 2_048;
    private readonly byte[] buffer = new byte[16 * 1024];
    private Stream stream = stream;
    private int start;
    private int end;

    /// <summary>What is written to and read from, encrypted or not.</summary>
    public Stream Stream => stream;

    /// <summary>
    /// Goes on over another stream. What was read beyond the last line is thrown away: it came before the line was secured (RFC 3207,
    /// section 4.2).
    /// </summary>
    public void Exchange(Stream secured)
    {
        stream = secured;
        start = end = 0;
    }

    /// <summary>The next line without its end; null  where the other side closed.</summary>
    /// <exception cref="InvalidDataException">The line is longer than a command may be.</exception>
    public async Task<string?> ReadCommandAsync(CancellationToken cancel)
    {
        var line = new MemoryStream();
        return await ReadLineAsync(line, LongestCommand, cancel) ? Encoding.UTF8.GetString(line.GetBuffer(), 0, (int)line.Length) : null;
    }

    /// <summary>
    /// The message up to the line with a single dot, dots at line starts taken out (RFC 5321, section 4.5.2). Null where the other side
    /// closed before. Beyond <paramref name="most"/> bytes the rest is read and thrown away, and the result is longer than
    /// <paramref name="most"/>.
    /// </summary>
    public async Task<MemoryStream?> ReadDataAsync(int most, CancellationToken cancel)
    {
        var data = new MemoryStream();
        var line = new MemoryStream();
        while (true)
        {
            line.SetLength(0);
            if (!await ReadLineAsync(line, most + 3, cancel))
            {
                return null;
            }

            var bytes = line.GetBuffer().AsMemory(0, (int)line.Length);
            if (bytes.Length == 1 && bytes.Span[0] == '.')
            {
                return data;
            }

            if (data.Length <= most)
            {
                data.Write(bytes.Length > 0 && bytes.Span[0] == '.' ? bytes.Span[1..] : bytes.Span);
                data.Write("\r\n"u8);
            }
        }
    }

    /// <summary>Reads a part of what comes and throws it away.</summary>
    public async Task ReadSomeAsync(CancellationToken cancel)
    {
        start = 0;
        end = start < end ? 0 : await stream.ReadAsync(buffer, cancel);
    }

    /// <summary>Writes one line, with its end.</summary>
    public async Task WriteAsync(string answer, CancellationToken cancel) =>
        await stream.WriteAsync(Encoding.UTF8.GetBytes(answer + "\r\n"), cancel);

    /// <summary>Writes bytes as they are.</summary>
    public async Task WriteAsync(ReadOnlyMemory<byte> bytes, CancellationToken cancel) => await stream.WriteAsync(bytes, cancel);

    /// <summary>Writes an answer byte by byte.</summary>
    public async Task DripAsync(string answer, TimeSpan every, CancellationToken cancel)
    {
        foreach (var one in Encoding.UTF8.GetBytes(answer + "\r\n"))
        {
            await Task.Delay(every, cancel);
            await stream.WriteAsync(new[] { one }, cancel);
        }
    }

    private async Task<bool> ReadLineAsync(MemoryStream line, int longest, CancellationToken cancel)
    {
        while (true)
        {
            var at = buffer.AsSpan(start, end - start).IndexOf((byte)'\n');
            var take = at < 0 ? end - start : at + 1;
            await line.WriteAsync(buffer.AsMemory(start, take), cancel);
            start += take;
            if (at >= 0)
            {
                var length = (int)line.Length - 1;
                line.SetLength(length > 0 && line.GetBuffer()[length - 1] == '\r' ? length - 1 : length);
                return true;
            }

            if (line.Length > longest)
            {
                throw new InvalidDataException("The line is too long.");
            }

            start = 0;
            end = await stream.ReadAsync(buffer, cancel);
            if (end == 0)
            {
                return false;
            }
        }
    }
}
