using System.Net;
using System.Text.Json;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace Rendal.Web.Tests.RealServers;

/// <summary>
/// A round through postfix and dovecot: signed in by SASL, secured by STARTTLS under an authority of their own, refused, returned,
/// answered.
/// </summary>
public class RealServersTests
{
    private static readonly string[] Customers = ["kell", "gone", "reject", "away", "full", "alias", "refused", "grey"];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_parcel_of_a_round_comes_to_its_right_end()
    {
        Assert.SkipWhen(MailHouse.Lacking is not null, MailHouse.Lacking ?? "");
        await using var house = await MailHouse.StartAsync(Cancel);
        await using var rendal = new RunningRendal { MailHosts = ["localhost"], MailAuthorities = house.Authorities };
        await rendal.InitializeAsync();
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([
            Desk.Headings,
            .. Customers.Select(c => $"{c},{c} of the house,Invoice,T-{c},2026-09-01,2026-10-01,10.00,{c}@house.example"),
            "two,Two of the house,Invoice,T-two,2026-09-01,2026-10-01,10.00,anna@house.example",
        ]);
        await (await desk.PutCardAsync("two", "Two of the house", "anna@house.example; gone@house.example")).JsonAsync();
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/senders/{sender}",
                new
                {
                    name = "Tarnbrook Linen Hire",
                    address = "accounts@tarnbrook.example",
                    replyTo = "",
                    copyToSelf = true,
                    host = "localhost",
                    port = house.SmtpPort,
                    security = "starttls",
                    userName = MailHouse.UserName,
                    password = MailHouse.Password,
                    aMinute = (int?)null,
                    aDay = (int?)null,
                    largestBytes = (int?)null,
                },
                Cancel
            )
        ).JsonAsync();
        await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/senders/{sender}/replies",
                new
                {
                    host = "localhost",
                    port = house.ImapPort,
                    security = "starttls",
                    userName = MailHouse.UserName,
                    password = MailHouse.Password,
                },
                Cancel
            )
        ).JsonAsync();

        var round = (await desk.PrepareAsync()).Id();
        await (await desk.ReleaseAsync(round, Customers.Length + 1)).JsonAsync();
        await desk.SettledAsync(round);
        await house.DeliveredAsync(Cancel);
        await AnswerAsync(house, await MessageIdAsync(desk, "kell"));
        await house.DeliveredAsync(Cancel);

        var fetched = await (await desk.Browser.PostAsync($"{desk.Api}/senders/{sender}/replies/fetch", null, Cancel)).JsonAsync();
        Assert.Equal("", fetched.Text("trouble"));
        var parcels = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}"))
            .List("parcels")
            .ToDictionary(p => p.Text("customer"));
        Assert.Equal(
            [
                ("alias", "returned"),
                ("away", "sent"),
                ("full", "returned"),
                ("gone", "returned"),
                ("grey", "to-be-retried"),
                ("kell", "sent"),
                ("refused", "refused"),
                ("reject", "returned"),
                ("two", "returned"),
            ],
            parcels.Select(p => (p.Key, p.Value.Text("status"))).OrderBy(p => p.Key, StringComparer.Ordinal)
        );
        Assert.Contains("5.1.1", parcels["gone"].Text("answer"), StringComparison.Ordinal);
        Assert.Contains("We take statements on paper only.", parcels["reject"].Text("answer"), StringComparison.Ordinal);
        Assert.Contains("Quota exceeded", parcels["full"].Text("answer"), StringComparison.Ordinal);
        Assert.Equal(
            "550 5.1.1 <refused@house.example>: Recipient address rejected: no such person in this house",
            parcels["refused"].Text("answer")
        );

        Assert.Equal(
            [
                ("alias", "alias@house.example"),
                ("full", "full@house.example"),
                ("gone", "gone@house.example"),
                ("refused", "refused@house.example"),
                ("reject", "reject@house.example"),
                ("two", "gone@house.example"),
            ],
            await BadAsync(desk)
        );
        Assert.Equal("automatic-reply", (await HistoryAsync(desk, "away")).List("returned").Single().Text("kind"));
        Assert.Empty((await HistoryAsync(desk, "kell")).List("returned"));
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/returned/unclear")).EnumerateArray());
    }

    private static async Task<string> MessageIdAsync(Desk desk, string customer) =>
        (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?search={customer}%20of"))
            .EnumerateArray()
            .Single(e => e.Text("customer") == customer)
            .Text("messageId");

    /// <summary>A person's answer, in words that sound like a server's.</summary>
    private static async Task AnswerAsync(MailHouse house, string about)
    {
        var answer = new MimeMessage
        {
            Subject = "Undelivered linen: delivery failed",
            InReplyTo = about,
            Body = new TextPart("plain") { Text = "550 sheets of <kell@house.example> were undelivered.\n" },
        };
        answer.From.Add(new MailboxAddress("Postmaster", "kell@house.example"));
        answer.To.Add(new MailboxAddress("", "accounts@tarnbrook.example"));
        using var client = new SmtpClient
        {
            CheckCertificateRevocation = false,
            ServerCertificateValidationCallback = (_, _, _, _) => true,
        };
        await client.ConnectAsync("localhost", house.SmtpPort, SecureSocketOptions.StartTls, Cancel);
        await client.SendAsync(answer, Cancel);
        await client.DisconnectAsync(true, Cancel);
    }

    private static async Task<List<(string Customer, string Address)>> BadAsync(Desk desk)
    {
        var bad = new List<(string, string)>();
        foreach (var customer in Customers.Append("two").Order(StringComparer.Ordinal))
        {
            bad.AddRange((await HistoryAsync(desk, customer)).List("returnedAddresses").Select(a => (customer, a.Text("address"))));
        }

        return bad;
    }

    private static Task<JsonElement> HistoryAsync(Desk desk, string customer) =>
        desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key={WebUtility.UrlEncode(customer)}");
}
