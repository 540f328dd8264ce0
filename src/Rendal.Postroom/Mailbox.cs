using System.Collections.Concurrent;
using System.Globalization;
using System.Text.Json;
using MimeKit;

namespace Rendal.Postroom;

/// <summary>
/// Keeps what the postroom received in a folder: each message as <c>.eml</c>, byte for byte, with its envelope as
/// <c>.json</c> beside it. Safe to be used by many connections at once.
/// </summary>
public sealed class Mailbox
{
    private readonly string folder;
    private readonly ConcurrentDictionary<long, ReceivedMessage> messages = new();

    // Numbers that are given to messages which are not kept yet: what has a higher one is not shown to who goes by numbers.
    private readonly ConcurrentDictionary<long, bool> coming = new();
    private long last;

    /// <summary>Opens the mailbox in a folder, which is made where it is missing.</summary>
    public Mailbox(string folder)
    {
        this.folder = folder;
        Directory.CreateDirectory(folder);
        foreach (var file in Directory.EnumerateFiles(folder, "*.json"))
        {
            var message = JsonSerializer.Deserialize<ReceivedMessage>(File.ReadAllBytes(file))!;
            messages[message.Id] = message;
            last = Math.Max(last, message.Id);
        }

        // A number is never given twice, even when the messages are gone: who fetches goes by them.
        if (File.Exists(LastNumber))
        {
            last = Math.Max(last, long.Parse(File.ReadAllText(LastNumber), CultureInfo.InvariantCulture));
        }
    }

    /// <summary>The messages of an account, the newest first.</summary>
    public IReadOnlyList<ReceivedMessage> Of(string account) =>
        [.. messages.Values.Where(m => m.Account == account).OrderByDescending(m => m.Id)];

    /// <summary>The number that the next message gets.</summary>
    public long Next => Interlocked.Read(ref last) + 1;

    /// <summary>What came for an account itself, the oldest first: reports, and what went to an address that it sends under.</summary>
    public IReadOnlyList<ReceivedMessage> For(string account)
    {
        var all = Of(account);
        var own = all.Select(m => m.From).Where(from => from.Length > 0).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var before = coming.Keys.DefaultIfEmpty(long.MaxValue).Min();
        return [.. all.Where(m => m.Id < before && (m.From.Length == 0 || m.Recipients.Any(own.Contains))).Reverse()];
    }

    /// <summary>How often a message came, by its Message-ID. More than once is what must never be.</summary>
    public IReadOnlyDictionary<string, int> Deliveries(string account) =>
        messages.Values.Where(m => m.Account == account && m.MessageId.Length > 0).GroupBy(m => m.MessageId, StringComparer.Ordinal).ToDictionary(g => g.Key, g => g.Count(), StringComparer.Ordinal);

    /// <summary>A message of an account; null where there is none of this number.</summary>
    public ReceivedMessage? Find(string account, long id) => messages.TryGetValue(id, out var message) && message.Account == account ? message : null;

    /// <summary>The message as it came over the line, with the dots of the transfer taken out.</summary>
    public byte[] Bytes(ReceivedMessage message) => File.ReadAllBytes(PathOf(message.Id, "eml"));

    /// <summary>Takes a message in. It is on disk when this returns.</summary>
    public ReceivedMessage Add(string account, string from, IReadOnlyList<string> recipients, byte[] bytes, DateTimeOffset now)
    {
        using var stream = new MemoryStream(bytes);
        var parsed = MimeMessage.Load(stream);
        var id = NewNumber();
        var message = new ReceivedMessage(id, account, now, from, recipients, parsed.Subject ?? "", parsed.MessageId ?? "", parsed.Attachments.Count(), bytes.Length);
        File.WriteAllBytes(PathOf(id, "eml"), bytes);
        File.WriteAllBytes(PathOf(id, "json"), JsonSerializer.SerializeToUtf8Bytes(message));
        messages[id] = message;
        coming.TryRemove(id, out _);
        return message;
    }

    /// <summary>Throws away all messages of an account.</summary>
    public void Clear(string account)
    {
        File.WriteAllText(LastNumber, Interlocked.Read(ref last).ToString(CultureInfo.InvariantCulture));
        foreach (var message in Of(account))
        {
            messages.TryRemove(message.Id, out _);
            File.Delete(PathOf(message.Id, "json"));
            File.Delete(PathOf(message.Id, "eml"));
        }
    }

    private long NewNumber()
    {
        lock (coming)
        {
            var id = Interlocked.Increment(ref last);
            coming[id] = true;
            return id;
        }
    }

    private string LastNumber => Path.Combine(folder, "last-number");

    private string PathOf(long id, string ending) => Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{id:0000000000}.{ending}"));
}
