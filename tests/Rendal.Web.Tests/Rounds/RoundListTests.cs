namespace Rendal.Web.Tests.Rounds;

public class RoundListTests(RunningRendal rendal)
{
    [Fact]
    public async Task Rounds_come_in_parts_and_none_is_out_of_reach()
    {
        using var desk = await DeskAsync();
        var names = Enumerable.Range(1, 50).Select(i => $"Round {i}").ToList();
        foreach (var name in names)
        {
            await desk.Browser.PostJsonAsync(
                $"{desk.Api}/rounds",
                new
                {
                    name,
                    asOf = "2026-10-31",
                    prepared = false,
                }
            );
        }

        var (listed, before) = (new List<string>(), "");
        for (var hasMore = true; hasMore; )
        {
            var part = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds{before}");
            listed.AddRange(part.List("rounds").Select(r => r.Text("name")));
            (before, hasMore) = ($"?before={part.List("rounds").Last().Id()}", part.GetProperty("hasMore").GetBoolean());
        }

        Assert.Equal(names.AsEnumerable().Reverse(), listed);
    }

    [Fact]
    public async Task The_list_says_what_a_round_is_about_what_it_comes_to_and_who_made_and_released_it()
    {
        using var desk = await DeskAsync();
        var statements = await desk.PrepareAsync();
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Reminders",
                asOf = "2026-10-31",
                about = "reminders",
            }
        );
        await (await desk.ReleaseAsync(statements.Id(), 2)).JsonAsync();
        await desk.SettledAsync(statements.Id());
        var name = (await desk.Browser.GetJsonAsync("/api/session")).Text("name");
        var lines = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds?about=statements")).List("rounds").ToList();
        var line = Assert.Single(lines);
        Assert.Equal(
            ("October", "statements", name, name),
            (line.Text("name"), line.Text("about"), line.Text("madeBy"), line.Text("releasedBy"))
        );
        Assert.Equal(line.List("totals").Select(t => t.Text("amount")), statements.List("proof").Select(p => p.Text("parcels")));
        Assert.Equal(
            [("Reminders", ""), ("October", name)],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds")).List("rounds").Select(r => (r.Text("name"), r.Text("releasedBy")))
        );
    }

    [Fact]
    public async Task A_round_is_begun_like_an_earlier_one_with_its_days_moved_along_and_none_of_its_decisions()
    {
        using var desk = await DeskAsync();
        var first = await desk.PrepareAsync();
        var changed = await (
            await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/rounds/{first.Id()}?revision={first.GetProperty("revision")}",
                RoundTests.Changed(first, s => (s["datedFrom"], s["leastBalance"], s["withCredits"]) = ("2026-09-01", 5, false)),
                TestContext.Current.CancellationToken
            )
        ).JsonAsync();
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{first.Id()}/decisions?revision={await desk.RevisionAsync(first.Id())}",
            new
            {
                customers = new[] { "BE02" },
                decision = "removed",
                reason = "asked to",
            }
        );
        var copy = await desk.CopyAsync(first);
        var (was, isNow) = (changed.GetProperty("settings"), copy.GetProperty("settings"));
        Assert.Equal(("November", "2026-11-30", "2026-10-01"), (isNow.Text("name"), isNow.Text("asOf"), isNow.Text("datedFrom")));
        foreach (var same in new[] { "leastBalance", "withCredits", "wordingId", "senderId", "about" })
        {
            Assert.Equal(was.GetProperty(same).ToString(), isNow.GetProperty(same).ToString());
        }

        Assert.DoesNotContain(copy.List("leftOut"), l => l.Text("reason") == "removed-by-hand");
    }

    [Fact]
    public async Task A_round_waits_as_long_as_something_of_it_can_still_go_with_it()
    {
        using var desk = await DeskAsync();
        var all = await desk.PrepareAsync();
        Assert.Equal(["October: 2 prepared"], await WaitingAsync());
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{all.Id()}/decisions?revision={all.GetProperty("revision").GetInt64()}",
            new
            {
                customers = new[] { "BE02" },
                decision = "held",
                reason = "",
            }
        );
        await (await desk.ReleaseAsync(all.Id(), 1)).JsonAsync();
        await desk.SettledAsync(all.Id());
        Assert.Equal(["October: 1 held"], await WaitingAsync());
        Assert.Equal(
            ["October"],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch/rounds")).EnumerateArray().Select(r => r.Text("name"))
        );

        // What is left goes with another round now, and waits there alone.
        await (
            await desk.Browser.PostAsync($"{desk.Api}/rounds/{all.Id()}/rest", null, TestContext.Current.CancellationToken)
        ).JsonAsync();
        Assert.Equal(["October, the rest: 1 held"], await WaitingAsync());

        async Task<IEnumerable<string>> WaitingAsync() =>
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/waiting"))
                .EnumerateArray()
                .Select(r =>
                    $"{r.Text("name")}: "
                    + $"{string.Join(", ", r.List("groups").Select(g => $"{g.GetProperty("count").GetInt32()} {g.Text("status")}"))}"
                );
    }

    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-02,2026-10-02,20.00,b@beacon.example"
        );
        return desk;
    }
}
