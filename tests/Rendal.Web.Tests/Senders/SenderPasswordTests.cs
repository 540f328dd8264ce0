using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Tests;
using Rendal.Store.Senders;
using Rendal.Web.Hosting;
using static Rendal.Web.Tests.Senders.SenderRequests;

namespace Rendal.Web.Tests.Senders;

/// <summary>Passwords of mail accounts: where they are kept, and whom they are given to.</summary>
public class SenderPasswordTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private SenderSecrets Secrets => rendal.App.Services.GetRequiredService<SenderSecrets>();

    private NpgsqlDataSource Source => rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

    [Fact]
    public async Task A_password_is_kept_encrypted_never_shown_and_stays_when_none_is_given()
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var shown = await (await PutAsync(desk, "ledger@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", null)).JsonAsync();
        Assert.True(shown.GetProperty("hasPassword").GetBoolean());
        Assert.DoesNotContain("secret", shown.GetRawText());

        var stored = Assert.Single(await new SenderStore(Source, desk.Book).ListAsync(0, Cancel));
        Assert.DoesNotContain("secret", Encoding.Latin1.GetString(stored.ProtectedPassword!));
        Assert.Equal("a very secret one", Secrets.AccountOf(desk.Book, "Etc/UTC", stored)?.Password);
        Assert.Null(Secrets.AccountOf(desk.Book, "Etc/UTC", stored with { Host = "mail.elsewhere.example" }));
    }

    [Theory]
    [InlineData("mail.elsewhere.example", 587, "starttls")]
    [InlineData("mail.tarnbrook.example", 25, "starttls")]
    [InlineData("mail.tarnbrook.example", 587, "tls")]
    [InlineData("127.0.0.1", 587, "none")]
    public async Task A_kept_password_goes_to_no_other_server_than_it_was_given_for(string host, int port, string security)
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var says = $"The password was given for mail.tarnbrook.example, port 587. Type it again for {host}, port {port}.";
        var kept = await PutAsync(desk, "accounts@tarnbrook.example", host, port, security, null);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, says), (kept.StatusCode, await kept.DetailAsync()));
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var tried = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/senders/{sender}/try",
            Account("accounts@tarnbrook.example", host, port, security, null),
            Cancel
        );
        Assert.Equal(says, await tried.DetailAsync());

        // Even where the row is changed behind the back of the application, nothing else can be made of it.
        await using var move = Source.CreateCommand("update sender set host = $2, port = $3, security = $4 where book_id = $1");
        foreach (var value in new object[] { desk.Book, host, port, security })
        {
            move.Parameters.Add(new() { Value = value });
        }

        await move.ExecuteNonQueryAsync(Cancel);
        Assert.Null(Secrets.AccountOf(desk.Book, "Etc/UTC", Assert.Single(await new SenderStore(Source, desk.Book).ListAsync(0, Cancel))));
    }

    [Fact]
    public async Task The_password_of_a_sender_is_not_given_to_a_mailbox_nor_that_of_a_mailbox_to_another_server()
    {
        using var desk = await Desk.AtAsync(rendal);
        await (
            await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")
        ).JsonAsync();
        var replies =
            $"{desk.Api}/senders/{(await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id()}/replies";
        Task<HttpResponseMessage> PutMailboxAsync(string host, string? password) =>
            desk.Browser.PutAsJsonAsync(
                replies,
                new
                {
                    host,
                    port = 993,
                    security = "tls",
                    userName = "accounts",
                    password,
                },
                Cancel
            );
        Assert.Equal("Give the password of the mailbox.", await (await PutMailboxAsync("imap.tarnbrook.example", null)).DetailAsync());
        await (await PutMailboxAsync("imap.tarnbrook.example", "another secret")).JsonAsync();
        await (await PutMailboxAsync("imap.tarnbrook.example", null)).JsonAsync();
        Assert.Equal(
            "The password was given for imap.tarnbrook.example, port 993. Type it again for imap.elsewhere.example, port 993.",
            await (await PutMailboxAsync("imap.elsewhere.example", null)).DetailAsync()
        );
    }

    [Fact]
    public async Task A_password_whose_key_is_lost_pauses_the_sender_once_and_goes_on_when_it_is_typed_again()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Invoice,T-2,2026-09-01,2026-10-01,10.00,b@beacon.example"
        );
        await (await PutAsync(desk, "accounts@tarnbrook.example", "127.0.0.1", 1, "none", "x")).JsonAsync();
        var round = await desk.PrepareAsync();
        await using (var lose = Source.CreateCommand("update sender set password = 'what no key opens' where book_id = $1"))
        {
            lose.Parameters.Add(new() { Value = desk.Book });
            Assert.Equal(1, await lose.ExecuteNonQueryAsync(Cancel));
        }

        Assert.False(
            (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().GetProperty("hasPassword").GetBoolean()
        );
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        var stopped = await Eventually.BecomesAsync(
            () => desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}"),
            r => r.Text("senderPaused").Length > 0 && r.List("parcels").All(p => p.Text("status") != "sending")
        );

        Assert.Equal(SenderSecrets.CannotBeRead, stopped.Text("senderPaused"));
        Assert.All(stopped.List("parcels"), p => Assert.Equal(("released", ""), (p.Text("status"), p.Text("answer"))));
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray());
        var practice = rendal.App.Services.GetRequiredService<HostParts>();
        await (
            await PutAsync(desk, "accounts@practice.example", "127.0.0.1", practice.MailPort, "none", "typed again", $"book-{desk.Book}")
        ).JsonAsync();
        await Eventually.HoldsAsync(async () =>
            (await desk.SettledAsync(round.Id())).List("parcels").All(p => p.Text("status") == "sent")
        );

        Assert.Equal(2, rendal.Mailbox.Of($"book-{desk.Book}").Count);
    }
}
