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
    }

    /// <summary>The messages of an account, the newest first.</summary>
    public IReadOnlyList<ReceivedMessage> Of(string account) =>
        [.. messages.Values.Where(m => m.Account == account).OrderByDescending(m => m.Id)];

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
        var id = Interlocked.Increment(ref last);
        using var stream = new MemoryStream(bytes);
        var parsed = MimeMessage.Load(stream);
        var message = new ReceivedMessage(id, account, now, from, recipients, parsed.Subject ?? "", parsed.MessageId ?? "", parsed.Attachments.Count(), bytes.Length);
        File.WriteAllBytes(PathOf(id, "eml"), bytes);
        File.WriteAllBytes(PathOf(id, "json"), JsonSerializer.SerializeToUtf8Bytes(message));
        messages[id] = message;
        return message;
    }

    /// <summary>Throws away all messages of an account.</summary>
    public void Clear(string account)
    {
        foreach (var message in Of(account))
        {
            messages.TryRemove(message.Id, out _);
            File.Delete(PathOf(message.Id, "json"));
            File.Delete(PathOf(message.Id, "eml"));
        }
    }

    private string PathOf(long id, string ending) => Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"{id:0000000000}.{ending}"));
}
