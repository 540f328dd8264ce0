using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using MimeKit;
using Rendal.Core.Tests;
using Rendal.Web.Tests.Layouts;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Rounds;

/// <summary>What was looked at is what goes, whoever changes what in between.</summary>
public class SealTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Words_that_were_edited_after_the_round_was_prepared_are_told_and_not_released_unseen()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var shown = await desk.SummaryAsync(round);
        await desk.WriteAsync("<p>Please pay today.</p>");

        var refused = await desk.ReleaseSeenAsync(round, shown, seenChanges: true);
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "Since this round was prepared, the wording (2 parcels) changed. Prepare it anew and look through it again."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );
        Assert.Equal("Since this round was looked through, the wording (2 parcels) changed.", await desk.UnseenAsync(round));
        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        await desk.SettledAsync(round);
        Assert.Equal(2, rendal.Mailbox.Of($"book-{desk.Book}").Count);
    }

    [Fact]
    public async Task All_that_changed_is_told_in_one_sentence()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await LetterheadAsync(desk, "By transfer to account 11111111");
        await IdentityAsync(desk, "Tarnbrook accounts");
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "other@abbot.example")).JsonAsync();

        Assert.Equal(
            "Since this round was looked through, the recipients (one parcel), the card (one parcel), the letterhead (2 "
                + "parcels) and the sender (2 parcels) changed.",
            await desk.UnseenAsync(round)
        );
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    [Fact]
    public async Task A_parcel_follows_what_it_is_made_from_and_is_marked_until_it_was_looked_at()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await LetterheadAsync(desk, "By transfer to account 11111111");
        Assert.True((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).GetProperty("isBehind").GetBoolean());
        var parcels = (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { })).List("parcels").ToList();
        Assert.All(parcels, p => Assert.Equal(["the letterhead"], p.List("changed").Select(c => c.GetString())));
        Assert.Equal(["AB01", "BE02", "AB01"], await NextChangedAsync(desk, round, -1, 0, 1));

        await desk.LookAtAsync(round, parcels[0].Id());
        var view = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
        Assert.Equal(
            ("Since this round was looked through, the letterhead (one parcel) changed.", false),
            (view.Text("changed"), view.GetProperty("isBehind").GetBoolean())
        );
        Assert.Equal(["BE02", "BE02"], await NextChangedAsync(desk, round, 0, 1));

        // What people choose themselves they see: it marks nothing, and what is marked stays so.
        view = await RoundTests.ChangeAsync(desk, view, s => s["name"] = "The round of October");
        Assert.Equal([0, 2], view.List("parcels").Select(p => p.List("changed").Count()));
        await desk.LookAtAsync(round);
        Assert.Equal("", (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).Text("changed"));
        Assert.Equal([null], await NextChangedAsync(desk, round, -1));
    }

    [Fact]
    public async Task What_was_looked_at_before_it_was_prepared_anew_is_not_seen_now()
    {
        using var desk = await DeskAsync();
        var round = await desk.PrepareAsync();
        await LetterheadAsync(desk, "By transfer to account 11111111");
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { });
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}/looked-at",
                    new { preparedAt = round.Text("preparedAt"), parcel = (long?)null },
                    Cancel
                )
            ).StatusCode
        );
        Assert.Equal("Since this round was looked through, the letterhead (2 parcels) changed.", await desk.UnseenAsync(round.Id()));
    }

    [Fact]
    public async Task Who_comes_into_a_round_or_falls_out_of_it_by_itself_is_told()
    {
        using var desk = await DeskAsync();
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "")).JsonAsync();
        var round = (await desk.PrepareAsync()).Id();
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "b@beacon.example")).JsonAsync();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "")).JsonAsync();
        Assert.Equal(
            "Since this round was looked through, one parcel came into it; one parcel fell out of it.",
            await desk.UnseenAsync(round)
        );
        Assert.Equal(
            [("BE02", "new in this round")],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}"))
                .List("parcels")
                .Select(p => (p.Text("customer"), p.List("changed").Single().GetString()))
        );
        await (await desk.ReleaseAsync(round, 1)).JsonAsync();
        await desk.SettledAsync(round);
        Assert.Equal(["b@beacon.example"], rendal.Mailbox.Of($"book-{desk.Book}").SelectMany(m => m.Recipients));
    }

    [Fact]
    public async Task Notes_on_a_card_change_nothing_that_goes()
    {
        using var desk = await DeskAsync();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example")).JsonAsync();
        var round = (await desk.PrepareAsync()).Id();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", notes: "rings on Fridays")).JsonAsync();

        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round, 2)).StatusCode);
    }

    [Fact]
    public async Task What_a_second_person_chose_or_held_meanwhile_is_not_released_by_who_saw_something_else()
    {
        using var desk = await DeskAsync();
        var round = await desk.PrepareAsync();
        await RoundTests.ChangeAsync(desk, round, s => s["leastBalance"] = 15);
        var seen = await desk.SummaryAsync(round.Id());
        Assert.Equal(1, seen.GetProperty("parcels").GetInt32());

        // The same number of parcels, and another customer.
        await RoundTests.ChangeAsync(desk, round, s => s["leastBalance"] = 0);
        await DecideAsync(desk, round.Id(), "BE02", "held");
        Assert.Equal(1, (await desk.SummaryAsync(round.Id())).GetProperty("parcels").GetInt32());
        var refused = await desk.ReleaseSeenAsync(round.Id(), seen);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Matches(
            @"^\w+ changed the round at \d\d:\d\d:\d\d, \w+ decided about Beacon Lodge at \d\d:\d\d:\d\d since you were shown what would be released\. Prepare it anew and look through it again\.$",
            await refused.DetailAsync()
        );
        Assert.Empty(rendal.Mailbox.Of($"book-{desk.Book}"));
    }

    [Fact]
    public async Task What_was_released_goes_with_the_letterhead_and_the_sender_that_were_looked_at()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await PauseAsync(desk, round, true);
        var looked = await DocumentAsync(desk, round);
        await (await desk.ReleaseAsync(round, 2)).JsonAsync();
        await LetterheadAsync(desk, "By transfer to account 99999999");
        await IdentityAsync(desk, "Somebody else");
        Assert.Equal(looked, await DocumentAsync(desk, round));

        await PauseAsync(desk, round, false);
        await desk.SettledAsync(round);
        var (_, pdf) = Assert.Single(await LayoutDesk.EnclosedAsync(desk, "AB01"));
        Assert.Equal(looked, TextOf(pdf));
        using var raw = new MemoryStream(
            rendal.Mailbox.Bytes(rendal.Mailbox.Of($"book-{desk.Book}").First(m => m.Recipients.Contains("a@abbot.example")))
        );
        Assert.NotEqual("Somebody else", (await MimeMessage.LoadAsync(raw, Cancel)).From.Mailboxes.Single().Name);
    }

    [Fact]
    public async Task A_round_that_is_stopped_before_anything_left_is_changed_and_goes_in_the_new_words()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await PauseAsync(desk, round, true);
        await (await desk.ReleaseAsync(round, 2)).JsonAsync();
        var stopped = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/stop", new { });
        Assert.Equal((2, true), (stopped.GetProperty("parcels").GetInt32(), stopped.GetProperty("isTakenBack").GetBoolean()));
        await desk.WriteAsync("<p>Please pay today.</p>");
        await DecideAsync(desk, round, "BE02", "removed");
        Assert.Equal(
            "Since this round was looked through, the wording (one parcel) changed; one parcel fell out of it.",
            await desk.UnseenAsync(round)
        );
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels").Single();
        Assert.Contains(
            "Please pay today.",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel.Id()}")).Text("message"),
            StringComparison.Ordinal
        );
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray());

        await (await desk.ReleaseAsync(round, 1)).JsonAsync();
        await desk.SettledAsync(round);
        Assert.Equal(["a@abbot.example"], rendal.Mailbox.Of($"book-{desk.Book}").SelectMany(m => m.Recipients));
        await SaysAsync(desk, "Please pay today.");
    }

    [Fact]
    public async Task What_of_a_round_was_stopped_after_a_part_went_goes_with_a_new_one_and_never_in_the_old_words()
    {
        using var desk = await DeskAsync();
        var round = await desk.PrepareAsync();
        foreach (var (parcel, at) in round.List("parcels").Zip(new[] { null, "2099-07-01T08:00" }))
        {
            long[] parcels = [parcel.Id()];
            var summary = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/summary", new { parcels });
            await (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round.Id()}/release",
                    new
                    {
                        parcels,
                        revision = summary.GetProperty("revision").GetInt64(),
                        seen = summary.Text("seen"),
                        at,
                    },
                    Cancel
                )
            ).JsonAsync();
        }

        await Eventually.HoldsAsync(() => rendal.Mailbox.Of($"book-{desk.Book}").Count > 0);

        Assert.False(
            (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/stop", new { })).GetProperty("isTakenBack").GetBoolean()
        );
        rendal.Mailbox.Clear($"book-{desk.Book}");
        await desk.WriteAsync("<p>Please pay today.</p>");
        Assert.Equal(
            "Since this round was prepared, the wording (one parcel) changed. A part of it was let go already: make a round "
                + "of the rest, which is prepared anew, and look through that.",
            await RefusedAsync(desk, round.Id(), 1)
        );

        var rest = (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/rest", new { })).Id();
        await (await desk.ReleaseAsync(rest, 1)).JsonAsync();
        await desk.SettledAsync(rest);
        await SaysAsync(desk, "Please pay today.");
    }

    [Fact]
    public async Task What_is_left_of_a_round_keeps_what_was_decided_about_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([.. Ledger, "BE02,Beacon Lodge,Invoice,T-3,2026-09-02,2026-10-02,30.00,b@beacon.example"]);
        var round = (await desk.PrepareAsync()).Id();
        await DecideAsync(desk, round, "BE02", "held");
        var item = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/accounts/BE02")).List("items").First().Text("key");
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/rounds/{round}/items?revision={await desk.RevisionAsync(round)}",
                    new
                    {
                        customer = "BE02",
                        item,
                        decision = "out",
                        reason = "short delivery",
                    },
                    Cancel
                )
            ).StatusCode
        );
        var before = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/left-out"))
            .EnumerateArray()
            .Select(l => (l.Text("customer"), l.Text("reason")))
            .ToList();
        Assert.NotEmpty(before);
        await (await desk.ReleaseAsync(round, 1)).JsonAsync();
        await desk.SettledAsync(round);

        var rest = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/rest", new { });
        Assert.All(rest.List("parcels"), p => Assert.Equal(("BE02", "held"), (p.Text("customer"), p.Text("status"))));
        Assert.Subset(
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{rest.Id()}/left-out"))
                .EnumerateArray()
                .Select(l => (l.Text("customer"), l.Text("reason")))
                .ToHashSet(),
            before.ToHashSet()
        );
    }

    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        return desk;
    }

    private static async Task<List<string?>> NextChangedAsync(Desk desk, long round, params int[] after)
    {
        var found = new List<string?>();
        foreach (var place in after)
        {
            found.Add(
                (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/parcels/next-changed?after={place}"))
                    .GetProperty("customer")
                    .GetString()
            );
        }

        return found;
    }

    /// <summary>Looks whether all that was delivered says something.</summary>
    private async Task SaysAsync(Desk desk, string text)
    {
        var delivered = rendal.Mailbox.Of($"book-{desk.Book}");
        Assert.NotEmpty(delivered);
        foreach (var message in delivered)
        {
            using var raw = new MemoryStream(rendal.Mailbox.Bytes(message));
            Assert.Contains(text, (await MimeMessage.LoadAsync(raw, Cancel)).TextBody, StringComparison.Ordinal);
        }
    }

    private static async Task<string> RefusedAsync(Desk desk, long round, int count)
    {
        var answer = await desk.ReleaseAsync(round, count);
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        return (await answer.DetailAsync())!;
    }

    private static async Task LetterheadAsync(Desk desk, string howToPay)
    {
        var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/firm",
            new
            {
                name = "Tarnbrook Linen Hire",
                addressLines = new[] { "14 Tenter Lane" },
                contactLines = Array.Empty<string>(),
                paymentLines = new[] { howToPay },
                footLines = Array.Empty<string>(),
            },
            Cancel
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task IdentityAsync(Desk desk, string name)
    {
        var sender = JsonNode.Parse((await desk.Browser.GetJsonAsync($"{desk.Api}/senders")).EnumerateArray().First().GetRawText())!;
        (sender["name"], sender["password"]) = (name, null);
        var answer = await desk.Browser.PutAsJsonAsync($"{desk.Api}/senders/{sender["id"]}", sender, Cancel);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task DecideAsync(Desk desk, long round, string customer, string decision) =>
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round}/decisions?revision={await desk.RevisionAsync(round)}",
            new
            {
                customers = new[] { customer },
                decision,
                reason = "asked to",
            }
        );

    private static async Task PauseAsync(Desk desk, long round, bool paused) =>
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.PostAsJsonAsync($"{desk.Api}/rounds/{round}/pause", new { paused }, Cancel)).StatusCode
        );

    /// <summary>The text of the document for the first customer as the workbench shows it.</summary>
    private static async Task<string> DocumentAsync(Desk desk, long round)
    {
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}"))
            .List("parcels")
            .First(p => p.Text("customer") == "AB01");
        return TextOf(await desk.Browser.GetByteArrayAsync($"{desk.Api}/parcels/{parcel.Id()}/document", Cancel));
    }

    private static string TextOf(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return string.Join(' ', document.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
    }
}
