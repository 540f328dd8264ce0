using System.Net.Security;
using System.Net.Sockets;
using System.Text;
using Rendal.Mail.Tests;

namespace Rendal.Postroom.Tests;

public class SmtpSessionTests(RunningPostroom postroom) : IClassFixture<RunningPostroom>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_conversation_keeps_the_message_without_the_dots_of_the_transfer()
    {
        await using var line = await ConnectAsync();
        await line.SayAsync("EHLO me", "250 AUTH PLAIN LOGIN");
        await line.SayAsync("AUTH LOGIN", "334 VXNlcm5hbWU6");
        await line.SayAsync(Base64("conversation"), "334 UGFzc3dvcmQ6");
        await line.SayAsync(Base64("x"), "235 2.7.0 signed in");
        await line.SayAsync("MAIL FROM:<a@b.example> SIZE=100", "250 2.1.0 sender noted");
        await line.SayAsync("RCPT TO:<c@d.example>", "250 2.1.5 recipient noted");
        await line.SayAsync("DATA", "354 go on, a single dot ends it");
        await line.SayAsync("Subject: Hello\r\n\r\n..dots\r\n...\r\n.", null);
        await line.SayAsync("QUIT", "221 goodbye");
        var message = Assert.Single(postroom.Mailbox.Of("conversation"));
        Assert.Equal("Hello", message.Subject);
        Assert.Equal("Subject: Hello\r\n\r\n.dots\r\n..\r\n", Encoding.ASCII.GetString(postroom.Mailbox.Bytes(message)));
    }

    [Theory]
    [InlineData("MAIL FROM:<a@b.example>", "503 not now")]
    [InlineData("EHLO me|RCPT TO:<a@b.example>", "503 say MAIL first")]
    [InlineData("EHLO me|MAIL FROM:a@b.example", "501 MAIL FROM:<address> is wanted")]
    [InlineData("EHLO me|MAIL FROM:<a@b.example>|MAIL FROM:<a@b.example>", "503 not now")]
    [InlineData("EHLO me|MAIL FROM:<a@b.example>|DATA", "503 say RCPT first")]
    [InlineData("EHLO me|MAIL FROM:<a@b.example> SIZE=99999999", "552 5.3.4 the message is larger than 26214400 bytes")]
    [InlineData("EHLO me|MAIL FROM:<a@b.example>|RSET|RCPT TO:<a@b.example>", "503 say MAIL first")]
    [InlineData("HELO", "501 say who you are")]
    [InlineData("EHLO me|AUTH PLAIN AHggAA==", "535 5.7.8 the name or the password is wrong")]
    [InlineData("EHLO me|AUTH CRAM-MD5", "504 5.5.4 PLAIN or LOGIN is wanted")]
    [InlineData("EHLO me|AUTH PLAIN %%%", "535 5.7.8 the name or the password is wrong")]
    [InlineData("TURN", "500 that is not a command of this server")]
    [InlineData("NOOP", "250 still here")]
    public async Task What_is_out_of_turn_is_answered_as_the_standard_says(string commands, string lastAnswer)
    {
        await using var line = await ConnectAsync();
        var all = commands.Split('|');
        foreach (var command in all[..^1])
        {
            await line.SayAsync(command, null);
        }

        await line.SayAsync(all[^1], lastAnswer);
    }

    [Fact]
    public void A_drill_that_cannot_be_done_is_refused_in_words()
    {
        Assert.StartsWith(
            "An answer is a code of three digits",
            new Drill(DrillStep.End, DrillAct.Answer, "come back").Problem,
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "An answer is a code of three digits",
            new Drill(DrillStep.End, DrillAct.Answer, "250 fine").Problem,
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "An answer is a code of three digits",
            new Drill(DrillStep.End, DrillAct.Answer, "451 two\r\nlines").Problem,
            StringComparison.Ordinal
        );
        Assert.Equal("Only a message that has come whole can be kept.", new Drill(DrillStep.Data, DrillAct.KeepAndCut).Problem);
        Assert.Null(new Drill(DrillStep.End, DrillAct.KeepAndCut).Problem);
        Assert.Throws<ArgumentException>(() => postroom.Drills.Begin("x", new Drill(DrillStep.End, DrillAct.Answer, "")));
    }

    [Fact]
    public void A_drill_of_one_account_is_not_met_by_another_and_ends_after_its_number()
    {
        postroom.Drills.Begin("counted", new Drill(DrillStep.End, DrillAct.Cut, Left: 2));
        Assert.Null(postroom.Drills.Meet(DrillStep.End, "other", []));
        Assert.NotNull(postroom.Drills.Meet(DrillStep.End, "counted", []));
        Assert.Equal(1, Assert.Single(postroom.Drills.Of("counted")).Left);
        Assert.NotNull(postroom.Drills.Meet(DrillStep.End, "counted", []));
        Assert.Null(postroom.Drills.Meet(DrillStep.End, "counted", []));
    }

    [Fact]
    public void Deliveries_are_counted_by_the_number_that_a_message_bears()
    {
        postroom.Mailbox.Add(
            "counting",
            "a@b.example",
            ["c@d.example"],
            "Message-ID: <one@b.example>\r\n\r\nx\r\n"u8.ToArray(),
            DateTimeOffset.UnixEpoch
        );
        postroom.Mailbox.Add(
            "counting",
            "a@b.example",
            ["c@d.example"],
            "Message-ID: <one@b.example>\r\n\r\nx\r\n"u8.ToArray(),
            DateTimeOffset.UnixEpoch
        );
        Assert.Equal(2, postroom.Mailbox.Deliveries("counting")["one@b.example"]);
    }

    [Fact]
    public async Task Commands_sent_in_one_go_are_answered_one_by_one()
    {
        await using var line = await ConnectAsync();
        await line.SayAsync("EHLO me", null);
        await line.SayAsync("MAIL FROM:<a@b.example>\r\nRCPT TO:<c@d.example>\r\nDATA", "250 2.1.0 sender noted");
        Assert.Equal("250 2.1.5 recipient noted", await line.ReadAsync());
        Assert.Equal("354 go on, a single dot ends it", await line.ReadAsync());
    }

    [Fact]
    public async Task The_line_can_be_secured_and_is_then_greeted_anew()
    {
        await using var line = await ConnectAsync();
        await line.SayAsync("EHLO me", null);
        await line.SayAsync("STARTTLS", "220 go on");
        await line.SecureAsync();
        await line.SayAsync("MAIL FROM:<a@b.example>", "503 not now");
        await line.SayAsync("EHLO me", "250 AUTH PLAIN LOGIN");
        await line.SayAsync("STARTTLS", "503 the line is secured");
    }

    [Fact]
    public async Task A_command_without_end_is_cut_off()
    {
        await using var line = await ConnectAsync();
        await line.SayAsync(new string('x', 40_000), "500 the line is too long; goodbye");
    }

    [Fact]
    public void Messages_are_kept_over_a_restart_and_each_account_sees_its_own()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-mailbox-").FullName;
        var first = new Mailbox(folder);
        first.Add("one", "a@b.example", ["c@d.example"], "Subject: A\r\n\r\nx"u8.ToArray(), DateTimeOffset.UnixEpoch);
        first.Add("two", "a@b.example", ["c@d.example"], "Subject: B\r\n\r\nx"u8.ToArray(), DateTimeOffset.UnixEpoch);
        var again = new Mailbox(folder);
        Assert.Equal("A", Assert.Single(again.Of("one")).Subject);
        Assert.Null(again.Find("one", 2));
        Assert.Equal(3, again.Add("one", "a@b.example", [], "Subject: C\r\n\r\n"u8.ToArray(), DateTimeOffset.UnixEpoch).Id);
        again.Clear("one");
        Assert.Empty(new Mailbox(folder).Of("one"));
        Assert.Single(new Mailbox(folder).Of("two"));
        Directory.Delete(folder, recursive: true);
    }

    private static string Base64(string text) => Convert.ToBase64String(Encoding.UTF8.GetBytes(text));

    private async Task<Line> ConnectAsync()
    {
        var client = new TcpClient();
        await client.ConnectAsync("127.0.0.1", postroom.Port, Cancel);
        var line = new Line(client.GetStream());
        Assert.StartsWith("220 ", await line.ReadAsync());
        return line;
    }

    private sealed class Line(Stream stream) : IAsyncDisposable
    {
        private Stream stream = stream;

        /// <summary>Says something and expects the last line of the answer.</summary>
        public async Task SayAsync(string text, string? expected)
        {
            await stream.WriteAsync(Encoding.UTF8.GetBytes(text + "\r\n"), Cancel);
            string answer;
            do
            {
                answer = await ReadAsync();
            } while (answer.Length > 3 && answer[3] == '-');
            if (expected is not null)
            {
                Assert.Equal(expected, answer);
            }
        }

        public async Task<string> ReadAsync()
        {
            var line = new StringBuilder();
            var one = new byte[1];
            while (await stream.ReadAsync(one, Cancel) == 1 && one[0] != '\n')
            {
                line.Append((char)one[0]);
            }

            return line.ToString().TrimEnd('\r');
        }

        public async Task SecureAsync()
        {
#pragma warning disable CA5359 // The certificate is signed by nobody; what is tested is that the line goes on.
            var secured = new SslStream(stream, false, (_, _, _, _) => true);
#pragma warning restore CA5359
            await secured.AuthenticateAsClientAsync("postroom.rendal.example");
            stream = secured;
        }

        public ValueTask DisposeAsync() => stream.DisposeAsync();
    }
}
