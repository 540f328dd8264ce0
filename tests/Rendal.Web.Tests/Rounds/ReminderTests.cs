using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Postroom;

namespace Rendal.Web.Tests.Rounds;

/// <summary>Reminders that follow each other.</summary>
public class ReminderTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,Held,E-mail",
        "AB01,Abbot’s Table,Invoice,T-1,2026-08-01,2026-09-01,GBP,100.00,,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-20,2026-10-20,GBP,60.00,,b@beacon.example",
        "CO03,Coble Inn,Invoice,T-3,2026-10-01,2026-10-31,GBP,40.00,,c@coble.example",
        "DU04,Dunlin Ferries,Invoice,T-4,2026-08-01,2026-09-01,GBP,30.00,in dispute,d@dunlin.example",
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_level_goes_to_those_it_is_due_to_in_its_own_words_and_the_next_follows_after_the_gap()
    {
        using var desk = await DeskAsync();
        var first = await RemindAsync(desk, "2026-10-31");
        Assert.Equal([("AB01", 1), ("BE02", 1)], Levels(first));
        Assert.Equal(
            [("CO03", "no-reminder-due"), ("DU04", "held-back")],
            first.List("leftOut").Select(l => (l.Text("customer"), l.Text("reason")))
        );
        Assert.Equal("0.00", first.List("proof").Single().Text("difference"));
        Assert.Contains("payment reminder, £100.00 overdue", await SubjectAsync(desk, first, "AB01"));

        var summary = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{first.Id()}/summary",
            new { parcels = (long[]?)null, count = 0 }
        );
        Assert.Equal(
            [("Reminder 1, friendly", 2)],
            summary.List("wordings").Select(w => (w.Text("name"), w.GetProperty("messages").GetInt32()))
        );
        await (await desk.ReleaseAsync(first.Id(), 2)).JsonAsync();
        Assert.All((await desk.SettledAsync(first.Id())).List("parcels"), p => Assert.Equal("sent", p.Text("status")));
        Assert.Contains(
            "escaped your attention",
            await PageAsync(desk, await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{first.Id()}"), "AB01")
        );

        // On the same day nothing more is due, whatever is prepared; what was sent is told of on the item and the card.
        var sent = Today();
        var same = await RemindAsync(desk, sent.ToString("O", CultureInfo.InvariantCulture));
        Assert.Equal([("CO03", 1)], Levels(same));
        var account = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{same.Id()}/accounts/AB01");
        Assert.Equal(
            (1, sent.ToString("O", CultureInfo.InvariantCulture)),
            (account.List("items").Single().GetProperty("reminderLevel").GetInt32(), account.List("items").Single().Text("remindedOn"))
        );
        Assert.Equal(
            1,
            (await desk.Browser.GetJsonAsync($"{desk.Api}/customers/history?key=AB01"))
                .List("claims")
                .Single()
                .GetProperty("reminderLevel")
                .GetInt32()
        );

        var second = await RemindAsync(desk, sent.AddDays(14).ToString("O", CultureInfo.InvariantCulture));
        Assert.Equal([("AB01", 2), ("BE02", 2), ("CO03", 1)], Levels(second));
        Assert.Contains("second payment reminder", await SubjectAsync(desk, second, "AB01"));
        Assert.Contains(": payment reminder, ", await SubjectAsync(desk, second, "CO03"));
    }

    [Fact]
    public async Task What_another_round_has_reminded_of_meanwhile_is_not_released_again()
    {
        using var desk = await DeskAsync();
        var one = await RemindAsync(desk, "2026-10-31");
        var other = await RemindAsync(desk, "2026-10-31");
        var shown = await desk.SummaryAsync(other.Id());
        await (await desk.ReleaseAsync(one.Id(), 2)).JsonAsync();
        Assert.Equal(HttpStatusCode.Conflict, (await desk.ReleaseSeenAsync(other.Id(), shown)).StatusCode);
        var now = await desk.SummaryAsync(other.Id());
        Assert.Equal(
            (0, "Since this round was looked through, 2 parcels fell out of it."),
            (now.GetProperty("parcels").GetInt32(), now.Text("changed"))
        );
    }

    [Fact]
    public async Task Wanting_another_level_is_counted_as_it_is_made_up()
    {
        using var desk = await DeskAsync();
        var round = await RemindAsync(desk, "2026-10-31");
        var settings = JsonNode.Parse(round.GetProperty("settings").GetRawText())!.AsObject();
        settings["reminderLevels"] = new JsonArray(2);
        var count = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/count", settings);
        Assert.Equal(0, count.GetProperty("parcels").GetInt32());
        Assert.Empty((await RoundTests.ChangeAsync(desk, round, s => s["reminderLevels"] = new JsonArray(2))).List("parcels"));
        Assert.Equal(
            3,
            (await RoundTests.ChangeAsync(desk, round, s => (s["reminderLevels"], s["leaveOutHeld"]) = (new JsonArray(1, 2), false)))
                .List("parcels")
                .Count()
        );
    }

    [Fact]
    public async Task The_levels_of_a_book_are_set_with_their_days_gaps_and_words()
    {
        using var desk = await DeskAsync();
        var last = (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings"))
            .List("wordings")
            .Single(w => w.Text("name") == "Reminder 3, final")
            .Id();
        await RulesTests.PutAsync(desk, rules =>
            (rules["levels"], rules["maySkip"]) = (new JsonArray(Level(10, 0, null), Level(40, 7, last)), true)
        );
        var round = await RemindAsync(desk, "2026-10-31");
        Assert.Equal([("AB01", 2), ("BE02", 1)], Levels(round));
        Assert.Contains("final payment reminder", await SubjectAsync(desk, round, "AB01"));
        Assert.Contains("statement at", await SubjectAsync(desk, round, "BE02"));

        // A parcel of a level that is there no more can still be looked at, and goes only once it is made up anew.
        await RulesTests.PutAsync(desk, rules => rules["levels"] = new JsonArray(Level(10, 0, null)));
        Assert.Contains("statement at", await SubjectAsync(desk, round, "AB01"));
        Assert.StartsWith("Since this round was looked through, ", await desk.UnseenAsync(round.Id()), StringComparison.Ordinal);

        var refused = await RefusedAsync(desk, rules => rules["levels"] = new JsonArray(Level(10, 0, null), Level(10, 7, null)));
        Assert.Equal("Level 2 comes at 10 days past due, not later than level 1 at 10.", refused);
        Assert.Equal(
            "The wording of a reminder level is not there any more.",
            await RefusedAsync(desk, rules => rules["levels"] = new JsonArray(Level(10, 0, 999_999)))
        );
    }

    [Fact]
    public async Task The_first_page_says_to_how_many_a_reminder_is_due()
    {
        using var desk = await DeskAsync();
        var due = (await desk.Browser.GetJsonAsync($"{desk.Api}/today")).List("reminders").Single();
        Assert.Equal(
            (1, 3, "200.00"),
            (due.GetProperty("level").GetInt32(), due.GetProperty("customers").GetInt32(), due.Text("overdue"))
        );
    }

    [Fact]
    public async Task The_first_page_follows_what_was_reminded_refused_and_changed()
    {
        using var desk = await DeskAsync();
        await RulesTests.PutAsync(desk, rules => (rules["levels"], rules["maySkip"]) = (new JsonArray(Level(10, 0, null)), true));
        Assert.Equal(3, await DueAsync());
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "b@beacon.example", onHold: true)).JsonAsync();
        Assert.Equal(2, await DueAsync());

        // Who was reminded is not due any more; whose reminder was refused is.
        var drills = rendal.App.Services.GetRequiredService<Drills>();
        drills.Begin($"book-{desk.Book}", new Drill(DrillStep.Recipient, DrillAct.Answer, "550 5.1.1 no such person", "a@abbot.example"));
        Assert.Equal("refused", await SentAsync());
        Assert.Equal(2, await DueAsync());
        drills.End($"book-{desk.Book}");
        Assert.True(
            (
                await desk.Browser.DeleteAsync($"{desk.Api}/customers/returned-address?address=a%40abbot.example", Cancel)
            ).IsSuccessStatusCode
        );
        Assert.Equal("sent", await SentAsync());
        Assert.Equal(1, await DueAsync());

        async Task<string> SentAsync()
        {
            var round = await RemindAsync(desk, "2026-10-31");
            await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
            return (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status");
        }

        async Task<int> DueAsync() =>
            (await desk.Browser.GetJsonAsync($"{desk.Api}/today")).List("reminders").Sum(r => r.GetProperty("customers").GetInt32());
    }

    [Fact]
    public async Task A_reminder_that_was_stopped_before_it_was_sent_is_still_due()
    {
        using var desk = await DeskAsync();
        await RulesTests.PutAsync(desk, rules => rules["levels"] = new JsonArray(Level(10, 0, null), Level(40, 7, null)));
        var round = await RemindAsync(desk, "2026-10-31");
        var before = Levels(round).ToList();
        var at = DateTime.UtcNow.AddDays(2).ToString("yyyy-MM-dd'T'HH:mm", System.Globalization.CultureInfo.InvariantCulture);
        await (await desk.ReleaseAsync(round.Id(), before.Count, at)).JsonAsync();
        Assert.Empty(Levels(await RemindAsync(desk, "2026-10-31")));
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/stop", new { });
        Assert.Equal(before, Levels(await RemindAsync(desk, "2026-10-31")));
    }

    [Fact]
    public async Task A_contact_who_gets_reminders_alone_gets_them_and_no_statements()
    {
        using var desk = await DeskAsync();
        await (
            await desk.PutCardAsync(
                "AB01",
                "Abbot’s Table",
                "a@abbot.example",
                contact: "Ines Caldera",
                title: "Ms",
                more: new
                {
                    name = "",
                    title = "",
                    address = "owner@abbot.example",
                    role = "copy",
                    rounds = new[] { "reminders" },
                }
            )
        ).JsonAsync();
        var reminders = await RemindAsync(desk, "2026-10-31");
        Assert.Equal(["a@abbot.example", "owner@abbot.example"], RecipientsOf(reminders, "AB01"));
        Assert.Equal(
            ["a@abbot.example"],
            RecipientsOf(await desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "Statements", asOf = "2026-10-31" }), "AB01")
        );
        await (await desk.ReleaseAsync(reminders.Id(), 2)).JsonAsync();
        var sent = (await desk.SettledAsync(reminders.Id())).List("parcels").Single(p => p.Text("customer") == "AB01");
        Assert.Contains(
            "Cc: owner@abbot.example",
            Encoding.ASCII.GetString(
                await desk.Browser.GetByteArrayAsync($"{desk.Api}/dispatch/{sent.Id()}/messages/0/message.eml", Cancel)
            ),
            StringComparison.Ordinal
        );
    }

    /// <summary>A desk with the ledger taken in, and cards that say how everybody is addressed.</summary>
    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        foreach (
            var (key, name, address) in new[]
            {
                ("AB01", "Abbot’s Table", "a@abbot.example"),
                ("BE02", "Beacon Lodge", "b@beacon.example"),
                ("CO03", "Coble Inn", "c@coble.example"),
                ("DU04", "Dunlin Ferries", "d@dunlin.example"),
            }
        )
        {
            await (await desk.PutCardAsync(key, name, address, contact: "Ines Caldera", title: "Ms")).JsonAsync();
        }

        return desk;
    }

    private static Task<JsonElement> RemindAsync(Desk desk, string asOf) =>
        desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Reminders",
                asOf,
                about = "reminders",
            }
        );

    private static JsonObject Level(int days, int gap, long? wording) =>
        new()
        {
            ["days"] = days,
            ["gap"] = gap,
            ["wording"] = wording,
        };

    private static IEnumerable<string?> RecipientsOf(JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer).List("recipients").Select(r => r.GetString());

    private static DateOnly Today() => DateOnly.FromDateTime(DateTime.UtcNow);

    private static async Task<string> RefusedAsync(Desk desk, Action<JsonObject> change)
    {
        var rules = JsonNode.Parse((await desk.Browser.GetJsonAsync(desk.Api)).GetProperty("rules").GetRawText())!.AsObject();
        change(rules);
        var answer = await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(desk.Browser, $"{desk.Api}/rules", rules, Cancel);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        return await answer.DetailAsync();
    }

    private static IEnumerable<(string Customer, int Level)> Levels(JsonElement round) =>
        round
            .List("parcels")
            .Select(p => (p.Text("customer"), p.GetProperty("reminderLevel").GetInt32()))
            .OrderBy(p => p.Item1, StringComparer.Ordinal);

    private static long ParcelOf(JsonElement round, string customer) =>
        round.List("parcels").Single(p => p.Text("customer") == customer).Id();

    private static async Task<string> SubjectAsync(Desk desk, JsonElement round, string customer) =>
        (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{ParcelOf(round, customer)}")).Text("subject");

    private static Task<string> PageAsync(Desk desk, JsonElement round, string customer) => desk.MessageAsync(ParcelOf(round, customer));
}
