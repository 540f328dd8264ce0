using System.Text;

namespace Rendal.Mail.Tests;

public class MessageFilesTests
{
    [Fact]
    public async Task What_looks_like_the_beginning_of_a_message_in_an_mbox_is_read_back_as_it_was()
    {
        string[] bodies = ["From here on\n>From there\nend", "second", ""];
        using var file = new MemoryStream();
        await MessageFiles.WriteMboxAsync(
            file,
            bodies
                .Select((b, i) => Encoding.ASCII.GetBytes($"From: a@b.example\r\nSubject: {i}\r\n\r\n{b.ReplaceLineEndings("\r\n")}\r\n"))
                .ToAsyncEnumerable(),
            DateTimeOffset.UnixEpoch,
            TestContext.Current.CancellationToken
        );
        var text = Encoding.ASCII.GetString(file.ToArray());
        Assert.Equal(
            3,
            text.Split('\n').Count(l => l.StartsWith("From rendal@localhost Thu Jan 1 00:00:00 1970", StringComparison.Ordinal))
        );
        Assert.Contains("\n>From here on\n>>From there\n", text, StringComparison.Ordinal);
        file.Position = 0;
        Assert.Equal(["0", "1", "2"], BounceReader.Open(file).Select(m => m.Message.Subject));
    }
}
