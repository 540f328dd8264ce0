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
            "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-09-02,2026-10-02,20.00,b@beacon.example"
        );
        return desk;
    }
}
