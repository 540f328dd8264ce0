using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using MimeKit;
using Rendal.Core.Tests;

namespace Rendal.Web.Tests.Rounds;

/// <summary>A few parcels are sent to oneself first, and nothing of that is taken for what a customer got.</summary>
public class RehearsalTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-01,2026-10-01,20.00,b@beacon.example",
        "CA01,Carding Inn,Invoice,T-4,2026-09-01,2026-10-01,30.00,c@carding.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_is_rehearsed_goes_to_the_address_alone_as_it_would_go_and_counts_for_nothing()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var offered = await OfferedAsync(desk, round);
        Assert.Equal(2, offered.List("picked").Count());
        await RehearsedAsync(desk, round, [.. offered.List("picked").Select(p => p.GetProperty("parcel").GetInt64())]);
        var rehearsal = await SentAsync(desk, round);
        Assert.Equal(["Abbot’s Table", "Beacon Lodge"], rehearsal.List("parcels").Select(p => p.Text("name")));
        Assert.Equal("joan@tarnbrook.example", rehearsal.Text("address"));

        var delivered = rendal.Mailbox.Of($"book-{desk.Book}");
        Assert.All(delivered, m => Assert.Equal(["joan@tarnbrook.example"], m.Recipients));
        var rehearsed = await MessagesAsync(desk);
        Assert.Equal(
            ["Rehearsal: Statement of Abbot’s Table", "Rehearsal: Statement of Beacon Lodge"],
            rehearsed.Select(m => m.Subject).Order(StringComparer.Ordinal)
        );

        // No customer was written to, no round is listed beside the one, and the log says what it was.
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=AB01")).List("claims"));
        Assert.Equal([round], (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds")).List("rounds").Select(r => r.Id()));
        var log = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?round={round}")).EnumerateArray().ToList();
        Assert.Equal([true, true], log.Select(e => e.GetProperty("isRehearsal").GetBoolean()));
        var again = await desk.Browser.PostAsJsonAsync($"{desk.Api}/dispatch/{log[0].GetProperty("parcel")}/repeat", new { }, Cancel);
        Assert.Equal(HttpStatusCode.Conflict, again.StatusCode);
        var view = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
        Assert.Equal(JsonValueKind.Null, view.GetProperty("releasedAt").ValueKind);

        // Then it goes, and is to the byte of its words and files what was rehearsed.
        Assert.Equal((2, 0), Rehearsed(await desk.SummaryAsync(round)));
        await (await desk.ReleaseAsync(round, 2)).JsonAsync();
        await desk.SettledAsync(round);
        var real = (await MessagesAsync(desk)).Where(m => m.Subject?.StartsWith("Rehearsal", StringComparison.Ordinal) != true).ToList();
        Assert.Equal(2, real.Count);
        foreach (var message in real)
        {
            var before = rehearsed.Single(m => m.Subject == $"Rehearsal: {message.Subject}");
            Assert.Equal(before.HtmlBody!.Replace("Rehearsal: ", "", StringComparison.Ordinal), message.HtmlBody);
            Assert.Equal(Enclosed(before), Enclosed(message));
            Assert.NotEqual("joan@tarnbrook.example", message.To.ToString());
        }
    }

    [Fact]
    public async Task A_rehearsal_hides_nobody_from_a_round_of_those_not_written_to_and_reminds_of_nothing()
    {
        using var desk = await DeskAsync();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", "Ines Caldera", "Ms")).JsonAsync();
        var reminders = (
            await desk.Browser.PostJsonAsync(
                $"{desk.Api}/rounds",
                new
                {
                    name = "Reminders",
                    asOf = "2026-10-31",
                    about = "reminders",
                }
            )
        ).Id();
        await RehearsedAsync(desk, reminders, null);
        Assert.Equal(["Abbot’s Table"], (await SentAsync(desk, reminders)).List("parcels").Select(p => p.Text("name")));
        var next = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Again",
                asOf = "2026-11-30",
                about = "reminders",
            }
        );
        Assert.All(next.List("parcels").Where(p => p.Text("problem").Length == 0), p =>
            Assert.Equal(1, p.GetProperty("reminderLevel").GetInt32())
        );
        var statements = await desk.PrepareAsync();
        var changed = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/rounds/{statements.Id()}?revision={statements.GetProperty("revision")}",
            RoundTests.Changed(statements, s => s["notWithinDays"] = 30),
            Cancel
        );
        Assert.Equal(3, (await changed.JsonAsync()).List("parcels").Count());
    }

    [Fact]
    public async Task Who_has_looked_at_a_rehearsal_is_noted_with_what_it_was_and_a_change_since_is_told()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await RehearsedAsync(desk, round, null);
        var rehearsal = await SentAsync(desk, round);
        var looked = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round}/rehearsals/{rehearsal.Id()}/looked-at",
            new { parcel = rehearsal.List("parcels").First().GetProperty("parcel").GetInt64() },
            Cancel
        );
        Assert.Equal(HttpStatusCode.NoContent, looked.StatusCode);
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "other@abbot.example")).JsonAsync();
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        var parcels = (await OfferedAsync(desk, round)).List("rehearsals").Single().List("parcels").ToList();
        Assert.Equal([1, 0], parcels.Select(p => p.List("lookedAtBy").Count()));
        Assert.Equal([false, true], parcels.Select(p => p.GetProperty("isAsNow").GetBoolean()));
        Assert.Equal((1, 0), Rehearsed(await desk.SummaryAsync(round)));
        using var other = await DeskAsync();
        var strange = await other.Browser.PostAsJsonAsync(
            $"{other.Api}/rounds/{round}/rehearsals/{rehearsal.Id()}/looked-at",
            new { parcel = (long?)null },
            Cancel
        );
        Assert.Equal(HttpStatusCode.NotFound, strange.StatusCode);
    }

    [Theory]
    [InlineData("", "“” is not one e-mail address.")]
    [InlineData("a@b.example, c@d.example", "“a@b.example, c@d.example” is not one e-mail address.")]
    public async Task A_rehearsal_goes_to_one_address(string address, string detail)
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var refused = await RehearseAsync(desk, round, null, address);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, detail), (refused.StatusCode, await refused.DetailAsync()));
    }

    [Fact]
    public async Task What_needs_somebody_first_or_was_released_is_not_rehearsed()
    {
        using var desk = await DeskAsync();
        var view = await desk.PrepareAsync();
        var (round, bad) = (view.Id(), view.List("parcels").Single(p => p.Text("customer") == "CA01").Id());
        var refused = await RehearseAsync(desk, round, [bad], "joan@tarnbrook.example");
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains("what needs you has to be put right first", await refused.DetailAsync(), StringComparison.Ordinal);
        await (await desk.ReleaseAsync(round, 2)).JsonAsync();
        await desk.SettledAsync(round);
        Assert.Equal(HttpStatusCode.Conflict, (await RehearseAsync(desk, round, null, "joan@tarnbrook.example")).StatusCode);
        Assert.DoesNotContain(rendal.Mailbox.Of($"book-{desk.Book}"), m => m.Recipients.Contains("joan@tarnbrook.example"));
    }

    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        await (await desk.PutCardAsync("CA01", "Carding Inn", "c@carding.example; c@@carding.example")).JsonAsync();
        return desk;
    }

    private static (int, int) Rehearsed(JsonElement summary) =>
        (summary.GetProperty("rehearsed").GetInt32(), summary.GetProperty("lookedAt").GetInt32());

    private static Task<JsonElement> OfferedAsync(Desk desk, long round) =>
        desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/rehearsals");

    private static async Task RehearsedAsync(Desk desk, long round, long[]? parcels)
    {
        var answer = await RehearseAsync(desk, round, parcels, "joan@tarnbrook.example");
        Assert.True(answer.StatusCode == HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task<HttpResponseMessage> RehearseAsync(Desk desk, long round, long[]? parcels, string address) =>
        await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round}/rehearsals?revision={await desk.RevisionAsync(round)}",
            new { parcels, address },
            Cancel
        );

    /// <summary>The only rehearsal of a round once all of its messages were sent.</summary>
    private static async Task<JsonElement> SentAsync(Desk desk, long round)
    {
        return await Eventually.BecomesAsync(
            async () => (await OfferedAsync(desk, round)).List("rehearsals").Single(),
            rehearsal => rehearsal.List("parcels").All(p => p.Text("status") == "sent")
        );
    }

    private async Task<List<MimeMessage>> MessagesAsync(Desk desk)
    {
        var messages = new List<MimeMessage>();
        foreach (var message in rendal.Mailbox.Of($"book-{desk.Book}"))
        {
            using var raw = new MemoryStream(rendal.Mailbox.Bytes(message));
            messages.Add(await MimeMessage.LoadAsync(raw, Cancel));
        }

        return messages;
    }

    private static string Enclosed(MimeMessage message)
    {
        using var bytes = new MemoryStream();
        message.BodyParts.OfType<MimePart>().First(p => p.IsAttachment).Content!.DecodeTo(bytes);
        return Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(bytes.ToArray()));
    }
}
