using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.Store.Senders;
using Rendal.Web.Senders;

namespace Rendal.Web.Tests.Senders;

public class SenderTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private NpgsqlDataSource Source => rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

    [Fact]
    public async Task A_new_book_practises_with_the_postroom()
    {
        using var desk = await Desk.AtAsync(rendal);
        var sender = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray());
        Assert.True(sender.GetProperty("isPractice").GetBoolean());
        Assert.True(sender.GetProperty("hasPassword").GetBoolean());
    }

    [Theory]
    [InlineData("accounts@tarnbrook.example", "mail.tarnbrook.example", 25, "none", "Without security mail can only go to this machine. Choose STARTTLS (port 587) or TLS (port 465) for mail.tarnbrook.example.")]
    [InlineData("two@a.example; b@b.example", "mail.tarnbrook.example", 587, "starttls", "“two@a.example; b@b.example” is not one e-mail address.")]
    [InlineData("accounts@tarnbrook.example", " ", 587, "starttls", "Say the mail server’s name and its port.")]
    [InlineData("accounts@tarnbrook.example", "mail.tarnbrook.example", 0, "tls", "Say the mail server’s name and its port.")]
    [InlineData("accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "hope", "Choose how the line is secured.")]
    public async Task An_account_that_cannot_be_right_is_refused_with_the_remedy(string address, string host, int port, string security, string says)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await PutAsync(desk, address, host, port, security, "secret");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(says, await answer.DetailAsync());
    }

    [Fact]
    public async Task A_password_is_kept_encrypted_never_shown_and_stays_when_none_is_given()
    {
        using var desk = await Desk.AtAsync(rendal);
        await (await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 587, "starttls", "a very secret one")).JsonAsync();
        var shown = await (await PutAsync(desk, "accounts@tarnbrook.example", "mail.tarnbrook.example", 465, "tls", null)).JsonAsync();
        Assert.True(shown.GetProperty("hasPassword").GetBoolean());
        Assert.DoesNotContain("secret", shown.GetRawText());

        var stored = Assert.Single(await new SenderStore(Source, desk.Book).ListAsync(Cancel)).ProtectedPassword!;
        Assert.DoesNotContain("secret", Encoding.Latin1.GetString(stored));
        Assert.Equal("a very secret one", rendal.App.Services.GetRequiredService<SenderSecrets>().Unprotect(stored));
    }

    [Fact]
    public async Task A_refused_sign_in_stops_the_sender_until_it_is_put_right()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await using (var forget = Source.CreateCommand("update sender set password = null where book_id = $1"))
        {
            forget.Parameters.Add(new() { Value = desk.Book });
            Assert.Equal(1, await forget.ExecuteNonQueryAsync(Cancel));
        }

        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        var stopped = await desk.SettledAsync(round.Id());
        Assert.StartsWith("The mail server refused the sign-in: 535 5.7.8", stopped.Text("senderPaused"));
        Assert.Equal("to-be-retried", stopped.List("parcels").Single().Text("standing"));
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));

        var practice = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single();
        await (await PutAsync(desk, "accounts@practice.example", "127.0.0.1", practice.GetProperty("port").GetInt32(), "none", "right again", $"book-{desk.Book}")).JsonAsync();
        while ((await desk.SettledAsync(round.Id())).List("parcels").Single().Text("standing") != "sent")
        {
            await Task.Delay(100, Cancel);
        }

        Assert.Single(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    private static async Task<HttpResponseMessage> PutAsync(Desk desk, string address, string host, int port, string security, string? password, string userName = "accounts")
    {
        var sender = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().First().Id();
        return await desk.Browser.PutAsJsonAsync($"{desk.Api}/senders/{sender}", new { name = "Tarnbrook", address, host, port, security, userName, password }, Cancel);
    }
}
