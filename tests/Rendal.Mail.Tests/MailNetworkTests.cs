namespace Rendal.Mail.Tests;

public class MailNetworkTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("127.0.0.1")]
    [InlineData("127.8.8.8")]
    [InlineData("localhost")]
    [InlineData("0.0.0.0")]
    [InlineData("10.0.0.5")]
    [InlineData("172.16.4.1")]
    [InlineData("192.168.1.10")]
    [InlineData("169.254.169.254")]
    [InlineData("100.64.0.1")]
    [InlineData("::1")]
    [InlineData("::ffff:127.0.0.1")]
    [InlineData("::ffff:10.0.0.5")]
    [InlineData("fe80::1")]
    [InlineData("fd00::1")]
    [InlineData("64:ff9b::a00:5")]
    public async Task What_lies_in_the_machines_own_network_is_not_talked_to(string host)
    {
        var network = MailNetwork.Beyond([], [2525], null);
        Assert.Contains(
            "RENDAL_MAIL_HOSTS",
            (await Assert.ThrowsAsync<HostNotAllowed>(() => network.AddressesAsync(host, 25, Cancel))).Message,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("203.0.113.7")]
    [InlineData("8.8.4.4")]
    [InlineData("2001:db8::25")]
    public async Task What_lies_beyond_is(string host) =>
        Assert.Single(await MailNetwork.Beyond([], [2525], null).AddressesAsync(host, 25, Cancel));

    [Fact]
    public async Task What_is_allowed_is_and_the_practice_server_at_its_ports_alone()
    {
        var network = MailNetwork.Beyond(["10.0.0.0/24", "192.168.1.10", "localhost"], [2525, 2143], null);
        foreach (
            var (host, port) in new[]
            {
                ("10.0.0.77", 25),
                ("192.168.1.10", 587),
                ("localhost", 25),
                ("127.0.0.1", 2525),
                ("127.0.0.1", 2143),
            }
        )
        {
            Assert.NotEmpty(await network.AddressesAsync(host, port, Cancel));
        }

        foreach (var (host, port) in new[] { ("10.0.1.1", 25), ("192.168.1.11", 25), ("127.0.0.1", 2526) })
        {
            await Assert.ThrowsAsync<HostNotAllowed>(() => network.AddressesAsync(host, port, Cancel));
        }
    }

    [Fact]
    public async Task A_sender_whose_server_may_not_be_talked_to_waits_and_says_why()
    {
        await using var deliverer = new Deliverer(
            new MailAccount("127.0.0.1", 25, LineSecurity.None, "", ""),
            TimeSpan.FromSeconds(5),
            MailNetwork.Beyond([], [], null)
        );
        var outcome = await deliverer.CarryAsync(
            "Subject: x\r\n\r\nx\r\n"u8.ToArray(),
            "a@inn.example",
            ["b@inn.example"],
            () => Task.CompletedTask,
            Cancel
        );
        Assert.Equal(Core.Dispatch.OutcomeKind.Unreachable, outcome.Kind);
        Assert.Contains("lies in the network of the machine that Rendal runs on", outcome.Answer, StringComparison.Ordinal);
    }
}
