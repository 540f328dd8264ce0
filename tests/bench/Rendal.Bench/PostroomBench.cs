using System.Diagnostics;
using System.Text;
using Rendal.Postroom;

namespace Rendal.Bench;

/// <summary>
/// The postroom with 10,000 messages in it against the same postroom empty: what it takes in, and how long its page waits.
/// </summary>
internal static class PostroomBench
{
    private const int Held = 10_000;
    private const int Sample = 500;
    private const string Account = "book-1";

    private static readonly byte[] Enclosure = new byte[30_000];

    public static IReadOnlyList<Measurement> Run()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-bench-postroom").FullName;
        try
        {
            var mailbox = new Mailbox(folder);
            Take(mailbox, Sample);
            var empty = Take(mailbox, Sample);
            Take(mailbox, Held - (2 * Sample));
            var full = Take(mailbox, Sample);
            var watch = Stopwatch.StartNew();
            for (var i = 0; i < 20; i++)
            {
                _ = (mailbox.Of(Account).Take(300).ToList(), mailbox.Deliveries(Account));
            }

            return
            [
                new Measurement(
                    $"a message of 40 kB taken in by the postroom when it holds {Held:N0}",
                    $"{full:0.00} ms",
                    $"when it is empty {empty:0.00} ms",
                    full / empty,
                    "≤ 1.2"
                ),
                new Measurement(
                    $"its list of {Held:N0} messages with their deliveries counted",
                    $"{watch.Elapsed.TotalMilliseconds / 20:0} ms",
                    "–",
                    null,
                    "≤ 100 ms"
                ),
            ];
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>Takes messages in and tells how many milliseconds each took.</summary>
    private static double Take(Mailbox mailbox, int count)
    {
        var watch = Stopwatch.StartNew();
        for (var i = 0; i < count; i++)
        {
            mailbox.Add(Account, "accounts@tarnbrook.example", [$"office{i}@inn.example"], Message(), DateTimeOffset.UnixEpoch);
        }

        return watch.Elapsed.TotalMilliseconds / count;
    }

    private static byte[] Message() =>
        Encoding.ASCII.GetBytes(
            "From: accounts@tarnbrook.example\r\nTo: office@inn.example\r\nSubject: Statement\r\nMessage-ID: "
                + $"<{Guid.NewGuid():N}@tarnbrook.example>\r\nMIME-Version: 1.0\r\nContent-Type: application/pdf; "
                + "name=statement.pdf\r\nContent-Disposition: attachment; filename=statement.pdf\r\nContent-Transfer-Encoding: "
                + $"base64\r\n\r\n{Convert.ToBase64String(Enclosure, Base64FormattingOptions.InsertLineBreaks)}\r\n"
        );
}
