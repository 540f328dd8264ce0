using System.Net;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using System.Text;

namespace Rendal.Mail.Tests;

/// <summary>Fetching what came back, from the real postroom.</summary>
public class ReplyMailboxTests(RunningPostroom postroom) : IClassFixture<RunningPostroom>
{
    private static readonly DateOnly Since = DateOnly.FromDateTime(DateTime.UtcNow).AddDays(-30);

    private readonly string name = $"account-{Guid.NewGuid():N}";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_came_back_is_fetched_once_in_order_and_the_mailbox_stays_as_it_is()
    {
        postroom.Mailbox.Add(name, "accounts@tarnbrook.example", ["kell@inn.example"], Mail("Statement"), DateTimeOffset.UtcNow);
        Report("first");
        Report("second");
        var (place, subjects) = await LookAsync(Account(), null);
        Assert.Equal(["first", "second"], subjects);
        (place, subjects) = await LookAsync(Account(), place);
        Assert.Empty(subjects);
        Report("third");
        Assert.Equal(["third"], (await LookAsync(Account(), place)).Subjects);
        Assert.Equal(4, postroom.Mailbox.Of(name).Count);
    }

    [Fact]
    public async Task With_numbers_that_are_worth_another_thing_it_begins_anew_and_what_is_older_than_the_day_is_left()
    {
        postroom.Mailbox.Add(name, "", ["accounts@tarnbrook.example"], Mail("long ago"), DateTimeOffset.UtcNow.AddDays(-31));
        Report("lately");
        var place = (await LookAsync(Account(), null)).Place;
        Assert.Equal(["lately"], (await LookAsync(Account(), place with { Validity = place.Validity + 1 })).Subjects);
        Assert.Empty((await LookAsync(Account(), place)).Subjects);
    }

    [Fact]
    public async Task Numbers_go_on_when_the_mailbox_was_emptied()
    {
        Report("before");
        var place = (await LookAsync(Account(), null)).Place;
        postroom.Mailbox.Clear(name);
        Report("after");
        Assert.Equal(["after"], (await LookAsync(Account(), place)).Subjects);
    }

    [Fact]
    public async Task What_is_not_reached_in_time_is_left_for_the_next_look()
    {
        foreach (var subject in new[] { "first", "second", "third" })
        {
            Report(subject);
        }

        var longest = TimeSpan.FromSeconds(2);
        var taken = 0;
        var look = await ReplyMailbox.LookAsync(
            Account(),
            null,
            Since,
            TimeSpan.FromSeconds(30),
            longest,
            MailNetwork.Everywhere(),
            async _ =>
            {
                taken++;
                await Task.Delay(longest + TimeSpan.FromSeconds(1), Cancel);
            },
            Cancel
        );
        Assert.Equal((1, 2), (taken, look.Left));
        Assert.Equal(["second", "third"], (await LookAsync(Account(), look.Place)).Subjects);
    }

    [Fact]
    public async Task A_server_that_says_nothing_is_not_waited_for()
    {
        using var silent = new TcpListener(IPAddress.Loopback, 0);
        silent.Start();
        var account = Account() with { Port = ((IPEndPoint)silent.LocalEndpoint).Port };
        var away = await Assert.ThrowsAsync<MailboxUnreachable>(() =>
            ReplyMailbox.LookAsync(
                account,
                null,
                Since,
                TimeSpan.FromMinutes(1),
                TimeSpan.FromSeconds(2),
                MailNetwork.Everywhere(),
                _ => Task.CompletedTask,
                Cancel
            )
        );
        Assert.Equal("127.0.0.1 did not get on in the 2 seconds that it is given. It is asked again by itself.", away.Message);
    }

    [Theory]
    [InlineData(LineSecurity.StartTls)]
    [InlineData(LineSecurity.Tls)]
    public async Task The_line_is_secured_and_the_certificate_looked_at(LineSecurity security)
    {
        Report("safe");
        var account = Account() with
        {
            Host = "localhost",
            Security = security,
            Port = security == LineSecurity.Tls ? postroom.SecuredImapPort : postroom.ImapPort,
        };
        Assert.Equal(["safe"], (await LookAsync(account, null, new X509Certificate2Collection(postroom.Authority))).Subjects);
        Assert.StartsWith("The certificate of localhost is signed by ", await TroubleAsync(account), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_keeps_it_from_being_read_is_said()
    {
        Assert.StartsWith(
            $"127.0.0.1 does not let {name} in. Look at",
            await TroubleAsync(Account() with { Password = "" }),
            StringComparison.Ordinal
        );
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        var port = ((IPEndPoint)free.LocalEndpoint).Port;
        free.Stop();
        Assert.StartsWith(
            $"127.0.0.1 does not answer at port {port}.",
            await TroubleAsync(Account() with { Port = port }),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "127.0.0.1 could not be read from: ",
            await TroubleAsync(Account() with { Port = postroom.Port }),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task What_it_cannot_do_is_answered_so()
    {
        using var line = new TcpClient();
        await line.ConnectAsync(IPAddress.Loopback, postroom.ImapPort, Cancel);
        using var reader = new StreamReader(line.GetStream(), Encoding.ASCII);
        await using var writer = new StreamWriter(line.GetStream(), Encoding.ASCII) { NewLine = "\r\n", AutoFlush = true };
        Assert.StartsWith("* OK ", await reader.ReadLineAsync(Cancel));
        foreach (
            var (said, answered) in new[]
            {
                ("nonsense", "* BAD a tag and a command are wanted"),
                ("a LIST \"\" \"*\"", "a NO sign in first"),
                ("b LOGIN one", "b BAD a name and a password are wanted"),
                ("c LOGIN \"Kell \\\"Inn\\\"\" secret", "c OK signed in"),
                ("d UID SEARCH ALL", "d NO open INBOX first"),
                ("e EXAMINE Sent", "e NO there is INBOX and nothing else"),
                ("f STORE 1 +FLAGS (\\Deleted)", "f NO what is here is only read"),
                ("g IDLE", "g BAD that is not a command of this server"),
            }
        )
        {
            await writer.WriteLineAsync(said.AsMemory(), Cancel);
            Assert.Equal(answered, await reader.ReadLineAsync(Cancel));
        }
    }

    private static byte[] Mail(string subject) =>
        Encoding.ASCII.GetBytes(
            $"From: mailer-daemon@mx.example\r\nSubject: {subject}\r\nMessage-ID: <{Guid.NewGuid():N}@mx.example>\r\n\r\nWords.\r\n"
        );

    private void Report(string subject) =>
        postroom.Mailbox.Add(name, "", ["accounts@tarnbrook.example"], Mail(subject), DateTimeOffset.UtcNow);

    private MailAccount Account() => new("127.0.0.1", postroom.ImapPort, LineSecurity.None, name, "practice");

    private static async Task<(ReplyPlace Place, List<string> Subjects)> LookAsync(
        MailAccount account,
        ReplyPlace? place,
        X509Certificate2Collection? authorities = null
    )
    {
        var subjects = new List<string>();
        var look = await ReplyMailbox.LookAsync(
            account,
            place,
            Since,
            TimeSpan.FromSeconds(30),
            TimeSpan.FromMinutes(1),
            MailNetwork.Everywhere(authorities),
            bytes =>
            {
                subjects.Add(Encoding.ASCII.GetString(bytes).Split("Subject: ")[1].Split("\r\n")[0]);
                return Task.CompletedTask;
            },
            Cancel
        );
        return (look.Place, subjects);
    }

    private static async Task<string> TroubleAsync(MailAccount account) =>
        (await Assert.ThrowsAsync<MailboxUnreachable>(() => LookAsync(account, null))).Message;
}
