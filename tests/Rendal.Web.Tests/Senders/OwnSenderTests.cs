using System.Net;
using System.Net.Http.Json;
using Microsoft.Extensions.DependencyInjection;

namespace Rendal.Web.Tests.Senders;

/// <summary>Senders that are somebody’s own.</summary>
public class OwnSenderTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_belongs_to_the_book_stays_the_books_and_what_is_a_colleagues_is_told_as_that()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("second@tarnbrook.example", isMine: false), Cancel)
        ).JsonAsync();
        foreach (var sender in (await colleague.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().ToList())
        {
            var refused = await colleague.PutAsJsonAsync(
                $"{desk.Api}/senders/{sender.Id()}",
                Account("accounts@tarnbrook.example", isMine: true),
                Cancel
            );
            Assert.Equal(
                "This sender belongs to the book, and everybody who has it sends by it. Add another one to have one of your own.",
                await refused.DetailAsync()
            );
        }

        await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
        ).JsonAsync();
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        var parcel = round.List("parcels").Single().Id();
        Assert.Equal(
            "Tarnbrook Linen Hire <odile@tarnbrook.example>",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Text("from")
        );
        Assert.Equal("a colleague’s sender", (await colleague.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Text("from"));
        var summary = await colleague.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/summary", new { parcels = (long[]?)null, count = 1 });
        Assert.Equal(("a colleague’s sender", ""), (summary.Text("sender"), summary.Text("server")));
    }

    [Fact]
    public async Task A_sender_of_ones_own_is_there_for_nobody_else_and_goes_first_for_oneself()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        var shared = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var own = await (
            await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
        ).JsonAsync();
        Assert.Equal([own.Id(), shared], (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Select(s => s.Id()));
        Assert.Equal([shared], (await colleague.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Select(s => s.Id()));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await colleague.PutAsJsonAsync($"{desk.Api}/senders/{own.Id()}", Account("odile@tarnbrook.example", isMine: false), Cancel)
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await colleague.PostAsJsonAsync(
                    $"{desk.Api}/senders/{own.Id()}/try",
                    Account("odile@tarnbrook.example", isMine: false),
                    Cancel
                )
            ).StatusCode
        );
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.GetAsync($"{desk.Api}/senders/{own.Id()}/replies", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await colleague.DeleteAsync($"{desk.Api}/senders/{own.Id()}/replies", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await colleague.PostAsync($"{desk.Api}/senders/{own.Id()}/replies/fetch", null, Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task A_round_under_somebodys_own_sender_is_released_by_them_or_under_another_one()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var colleague = await desk.ColleagueAsync(rendal);
        var shared = (await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().Single().Id();
        var own = (
            await (
                await desk.Browser.PostAsJsonAsync($"{desk.Api}/senders", Account("odile@tarnbrook.example", isMine: true), Cancel)
            ).JsonAsync()
        ).Id();
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        Assert.Equal(own, round.GetProperty("settings").GetProperty("senderId").GetInt64());
        var api = $"{desk.Api}/rounds/{round.Id()}";
        var refused = await ReleaseAsync();
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "This round goes by a sender that is somebody’s own. Choose another one under “Goes by”, or let them release it."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );

        var settings = System.Text.Json.Nodes.JsonNode.Parse(round.GetProperty("settings").GetRawText())!;
        settings["name"] = "Looked through by a colleague";
        await (await PutAsync()).JsonAsync();
        settings["senderId"] = shared;
        await (await PutAsync()).JsonAsync();
        settings["senderId"] = own;
        Assert.Equal(HttpStatusCode.NotFound, (await PutAsync()).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await ReleaseAsync()).StatusCode);
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));

        async Task<HttpResponseMessage> PutAsync() =>
            await colleague.PutAsJsonAsync($"{api}?revision={await desk.RevisionAsync(round.Id())}", settings, Cancel);

        async Task<HttpResponseMessage> ReleaseAsync() =>
            await colleague.PostAsJsonAsync(
                $"{api}/release",
                new
                {
                    parcels = (long[]?)null,
                    revision = await desk.RevisionAsync(round.Id()),
                    seen = (await desk.SummaryAsync(round.Id())).Text("seen"),
                },
                Cancel
            );
    }

    private static object Account(string address, bool isMine) =>
        new
        {
            name = "Tarnbrook Linen Hire",
            address,
            replyTo = "",
            copyToSelf = false,
            host = "mail.tarnbrook.example",
            port = 587,
            security = "starttls",
            userName = "odile",
            password = (string?)null,
            aMinute = (int?)null,
            aDay = (int?)null,
            largestBytes = (int?)null,
            isMine,
        };
}
