using Rendal.Core.Dispatch;

namespace Rendal.Mail.Tests;

public class DelivererTests(RunningPostroom postroom) : IClassFixture<RunningPostroom>
{
    private static readonly Draft Draft = new(
        "Tarnbrook Linen Hire",
        "accounts@tarnbrook.example",
        ["kell@inn.example", "office@inn.example"],
        [],
        "Statement for October: Łabędź",
        "<p>Dear Ms Caldera,</p>\n<p>.a dot begins this line</p>",
        "en",
        [new Enclosure("Łabędź statement.pdf", "application/pdf", [.. Enumerable.Range(0, 40_000).Select(i => (byte)(i * 31))])],
        new DateTimeOffset(2026, 10, 31, 9, 0, 0, TimeSpan.Zero)
    );

    [Fact]
    public async Task What_a_server_says_is_told_without_what_cannot_be_read_or_kept()
    {
        await using var server = new ScriptedServer(line =>
            line.Split(' ', ':')[0] switch
            {
                "EHLO" => "250 mx.inn.example",
                "RCPT" when line.Contains("office", StringComparison.Ordinal) => "550 5.1.1 no\0body\u001b[31m here",
                "DATA" => "354 go on",
                "QUIT" => "221 bye",
                _ => "250 2.0.0 ke\0pt",
            }
        );
        await using var deliverer = new Deliverer(
            new MailAccount("127.0.0.1", server.Port, LineSecurity.None, "", ""),
            TimeSpan.FromSeconds(10),
            MailNetwork.Everywhere()
        );
        var (_, bytes) = MessageBuilder.Make(Draft);
        var outcome = await deliverer.CarryAsync(
            bytes,
            "accounts@tarnbrook.example",
            Draft.To,
            () => Task.CompletedTask,
            TestContext.Current.CancellationToken
        );
        Assert.Equal((OutcomeKind.Accepted, "250 2.0.0 kept"), (outcome.Kind, outcome.Answer));
        Assert.Equal(["250 2.0.0 kept", "550 5.1.1 nobody[31m here"], outcome.Recipients.Select(r => r.Answer));
    }

    [Fact]
    public async Task What_arrives_is_what_was_recorded_byte_for_byte()
    {
        var (id, bytes) = MessageBuilder.Make(Draft);
        await using var deliverer = new Deliverer(Account("exact"), TimeSpan.FromSeconds(10), MailNetwork.Everywhere());
        for (var i = 0; i < 3; i++)
        {
            var outcome = await deliverer.CarryAsync(
                bytes,
                "accounts@tarnbrook.example",
                Draft.To,
                () => Task.CompletedTask,
                TestContext.Current.CancellationToken
            );
            Assert.Equal(OutcomeKind.Accepted, outcome.Kind);
            Assert.Contains("250 2.0.0 kept", outcome.Answer);
            Assert.Equal(Draft.To, outcome.Recipients.Where(r => r.Accepted).Select(r => r.Address));
        }

        var received = postroom.Mailbox.Of("exact");
        Assert.Equal(3, received.Count);
        Assert.All(received, message =>
        {
            Assert.Equal(bytes, postroom.Mailbox.Bytes(message));
            Assert.Equal(id, message.MessageId);
            Assert.Equal(Draft.To, message.Recipients);
        });
    }

    [Fact]
    public async Task The_end_is_marked_when_the_server_has_all_but_the_end()
    {
        var (_, bytes) = MessageBuilder.Make(Draft);
        await using var deliverer = new Deliverer(Account("marked"), TimeSpan.FromSeconds(10), MailNetwork.Everywhere());
        var keptBeforeEnd = -1;
        await deliverer.CarryAsync(
            bytes,
            "a@tarnbrook.example",
            ["b@inn.example"],
            () =>
            {
                keptBeforeEnd = postroom.Mailbox.Of("marked").Count;
                return Task.CompletedTask;
            },
            TestContext.Current.CancellationToken
        );
        Assert.Equal(0, keptBeforeEnd);
        Assert.Single(postroom.Mailbox.Of("marked"));
    }

    [Fact]
    public async Task If_the_end_may_not_be_sent_the_server_never_has_the_message()
    {
        var (_, bytes) = MessageBuilder.Make(Draft);
        await using var deliverer = new Deliverer(Account("stopped"), TimeSpan.FromSeconds(10), MailNetwork.Everywhere());
        await Assert.ThrowsAsync<InvalidOperationException>(() =>
            deliverer.CarryAsync(
                bytes,
                "a@tarnbrook.example",
                ["b@inn.example"],
                () => throw new InvalidOperationException("taken over"),
                TestContext.Current.CancellationToken
            )
        );
        Assert.Empty(postroom.Mailbox.Of("stopped"));

        // And the deliverer goes on with the next one on a new line.
        Assert.Equal(
            OutcomeKind.Accepted,
            (
                await deliverer.CarryAsync(
                    bytes,
                    "a@tarnbrook.example",
                    ["b@inn.example"],
                    () => Task.CompletedTask,
                    TestContext.Current.CancellationToken
                )
            ).Kind
        );
        Assert.Single(postroom.Mailbox.Of("stopped"));
    }

    [Theory]
    [InlineData("büro@inn.example")]
    [InlineData("kell@gästehaus.example")]
    public async Task An_address_beyond_ascii_gets_its_message(string address)
    {
        var (_, bytes) = MessageBuilder.Make(Draft with { To = [address] });
        await using var deliverer = new Deliverer(Account("beyond"), TimeSpan.FromSeconds(10), MailNetwork.Everywhere());
        var outcome = await deliverer.CarryAsync(
            bytes,
            "a@tarnbrook.example",
            [address],
            () => Task.CompletedTask,
            TestContext.Current.CancellationToken
        );
        Assert.Equal((OutcomeKind.Accepted, address), (outcome.Kind, Assert.Single(outcome.Recipients).Address));
        var received = postroom.Mailbox.Of("beyond")[0];
        using var stream = new MemoryStream(postroom.Mailbox.Bytes(received));
        Assert.Equal(
            address,
            (await MimeKit.MimeMessage.LoadAsync(stream, TestContext.Current.CancellationToken)).To.Mailboxes.Single().Address
        );
    }

    [Fact]
    public async Task An_empty_password_is_a_refused_sign_in()
    {
        await using var deliverer = new Deliverer(
            new MailAccount("127.0.0.1", postroom.Port, LineSecurity.None, "nobody", ""),
            TimeSpan.FromSeconds(10),
            MailNetwork.Everywhere()
        );
        var outcome = await deliverer.CarryAsync(
            MessageBuilder.Make(Draft).Bytes,
            "a@tarnbrook.example",
            ["b@inn.example"],
            () => Task.CompletedTask,
            TestContext.Current.CancellationToken
        );
        Assert.Equal(OutcomeKind.SignInRefused, outcome.Kind);
        Assert.Contains("535", outcome.Answer);
    }

    [Fact]
    public async Task A_server_that_is_not_there_cannot_be_reached()
    {
        await using var deliverer = new Deliverer(
            new MailAccount("127.0.0.1", 1, LineSecurity.None, "", ""),
            TimeSpan.FromSeconds(5),
            MailNetwork.Everywhere()
        );
        var outcome = await deliverer.CarryAsync(
            MessageBuilder.Make(Draft).Bytes,
            "a@tarnbrook.example",
            ["b@inn.example"],
            () => Task.CompletedTask,
            TestContext.Current.CancellationToken
        );
        Assert.Equal(OutcomeKind.Unreachable, outcome.Kind);
        Assert.StartsWith("127.0.0.1:1 – ", outcome.Answer);
    }

    private MailAccount Account(string name) => new("127.0.0.1", postroom.Port, LineSecurity.None, name, "practice");
}
