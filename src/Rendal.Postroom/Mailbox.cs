using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using MimeKit;

namespace Rendal.Postroom;

/// <summary>
/// Keeps what the postroom received in a folder: each message as <c>.eml</c>, byte for byte, with its envelope as
/// <c>.json</c> beside it. Safe to be used by many connections at once, and by several processes on one folder.
/// </summary>
public sealed class Mailbox
{
    // A message of which only the bytes are there is on its way; one that is no longer than this was cut off.
    private static readonly TimeSpan LongestComing = TimeSpan.FromMinutes(1);

    // The times of a folder have coarser steps than its changes.
    private static readonly TimeSpan Step = TimeSpan.FromMilliseconds(50);

    private readonly string folder;
    private readonly ConcurrentDictionary<long, ReceivedMessage> messages = new();
    private readonly Lock looking = new();
    private DateTime lookedAt;
    private IReadOnlyList<long> coming = [];
    private long last;

    /// <summary>Opens the mailbox in a folder, which is made where it is missing.</summary>
    public Mailbox(string folder)
    {
        this.folder = folder;
        Directory.CreateDirectory(folder);
        Look();
    }

    /// <summary>The messages of an account, the newest first.</summary>
    public IReadOnlyList<ReceivedMessage> Of(string account)
    {
        Look();
        return [.. messages.Values.Where(m => m.Account == account).OrderByDescending(m => m.Id)];
    }

    /// <summary>The number that the next message gets, unless another process takes it.</summary>
    public long Next => Interlocked.Read(ref last) + 1;

    /// <summary>What came for an account itself, the oldest first: reports, and what went to an address that it sends under.</summary>
    /// <remarks>What has a higher number than a message that is not kept yet is not among them: who fetches goes by the numbers.</remarks>
    public IReadOnlyList<ReceivedMessage> For(string account)
    {
        var all = Of(account);
        var own = all.Select(m => m.From).Where(from => from.Length > 0).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var before = coming.DefaultIfEmpty(long.MaxValue).Min();
        return [.. all.Where(m => m.Id < before && (m.From.Length == 0 || m.Recipients.Any(own.Contains))).Reverse()];
    }

    /// <summary>How often a message came, by its Message-ID. More than once is what must never be.</summary>
    public IReadOnlyDictionary<string, int> Deliveries(string account) =>
        Of(account)
            .Where(m => m.MessageId.Length > 0)
            .GroupBy(m => m.MessageId, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);

    /// <summary>A message of an account; null where there is none of this number.</summary>
    public ReceivedMessage? Find(string account, long id)
    {
        Look();
        return messages.TryGetValue(id, out var message) && message.Account == account ? message : null;
    }

    /// <summary>The message as it came over the line, with the dots of the transfer taken out.</summary>
    public byte[] Bytes(ReceivedMessage message) => File.ReadAllBytes(PathOf(message.Id, "eml"));

    /// <summary>Takes a message in. It is on disk when this returns.</summary>
    public ReceivedMessage Add(string account, string from, IReadOnlyList<string> recipients, byte[] bytes, DateTimeOffset now)
    {
        using var stream = new MemoryStream(bytes);
        var parsed = MimeMessage.Load(stream);
        var id = Keep(bytes);
        var message = new ReceivedMessage(
            id,
            account,
            now,
            from,
            recipients,
            parsed.Subject ?? "",
            parsed.MessageId ?? "",
            parsed.Attachments.Count(),
            bytes.Length
        );
        File.WriteAllBytes(PathOf(id, "part"), JsonSerializer.SerializeToUtf8Bytes(message));
        File.Move(PathOf(id, "part"), PathOf(id, "json"));
        messages[id] = message;
        return message;
    }

    /// <summary>Throws away all messages of an account.</summary>
    public void Clear(string account)
    {
        // A number is never given twice, even when the messages are gone: who fetches goes by them.
        var all = Of(account);
        File.WriteAllText(LastNumber, Interlocked.Read(ref last).ToString(CultureInfo.InvariantCulture));
        foreach (var message in all)
        {
            messages.TryRemove(message.Id, out _);
            File.Delete(PathOf(message.Id, "json"));
            File.Delete(PathOf(message.Id, "eml"));
        }
    }

    /// <summary>Writes the bytes of a message under a number that no other has.</summary>
    private long Keep(byte[] bytes)
    {
        // Another process may have thrown away messages with higher numbers than this one knows of.
        Pass(NotedNumber());
        while (true)
        {
            var id = Interlocked.Increment(ref last);
            try
            {
                using var file = new FileStream(PathOf(id, "eml"), FileMode.CreateNew);
                file.Write(bytes);
                return id;
            }
            catch (IOException) when (File.Exists(PathOf(id, "eml")))
            {
                // Another process was quicker.
            }
        }
    }

    /// <summary>Looks what is in the folder, where something was put in or taken out since.</summary>
    private void Look()
    {
        lock (looking)
        {
            var changed = Directory.GetLastWriteTimeUtc(folder);
            if (changed < lookedAt && coming.Count == 0)
            {
                return;
            }

            var (known, now) = (messages.Keys.ToList(), DateTime.UtcNow);
            var kept = Numbers("json").ToHashSet();
            foreach (var id in kept.Where(id => !messages.ContainsKey(id)))
            {
                Take(id);
            }

            foreach (var gone in known.Where(id => !kept.Contains(id)))
            {
                messages.TryRemove(gone, out _);
            }

            var bytes = Numbers("eml").ToList();
            coming =
            [
                .. bytes.Where(id =>
                    !kept.Contains(id) && !messages.ContainsKey(id) && now - File.GetLastWriteTimeUtc(PathOf(id, "eml")) < LongestComing
                ),
            ];
            Pass(Math.Max(kept.Concat(bytes).DefaultIfEmpty().Max(), NotedNumber()));
            lookedAt = now - Step;
        }
    }

    private long NotedNumber() =>
        File.Exists(LastNumber)
        && long.TryParse(File.ReadAllText(LastNumber), NumberStyles.None, CultureInfo.InvariantCulture, out var noted)
            ? noted
            : 0;

    /// <summary>Gives no number up to this one any more.</summary>
    private void Pass(long number)
    {
        for (
            var seen = Interlocked.Read(ref last);
            seen < number && Interlocked.CompareExchange(ref last, number, seen) != seen;
            seen = Interlocked.Read(ref last)
        )
        {
            // Another connection took a number meanwhile.
        }
    }

    private void Take(long id)
    {
        try
        {
            messages[id] = JsonSerializer.Deserialize<ReceivedMessage>(File.ReadAllBytes(PathOf(id, "json")))!;
        }
        catch (FileNotFoundException)
        {
            // Thrown away in this moment.
        }
    }

    private IEnumerable<long> Numbers(string ending) =>
        Directory
            .EnumerateFiles(folder, $"*.{ending}")
            .Select(f =>
                long.TryParse(Path.GetFileNameWithoutExtension(f), NumberStyles.None, CultureInfo.InvariantCulture, out var id) ? id : 0
            )
            .Where(id => id > 0);

    private string LastNumber => Path.Combine(folder, "last-number");

    private string PathOf(long id, string ending) =>
        Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{id:0000000000}.{ending}"));
}
