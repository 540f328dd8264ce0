using System.Net;

namespace Rendal.Web.Tests.Today;

public class TodayTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_largest_overdue_are_told_in_one_currency_and_who_was_written_to_is_not_waited_for_any_more()
    {
        using var desk = await Desk.AtAsync(rendal);
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.GetAsync($"{desk.Api}/today", Cancel)).StatusCode);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-07-01,2026-08-01,GBP,100.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-2,2026-07-01,2026-08-02,GBP,160.05,b@beacon.example",
            "CA01,Carrow House,Invoice,T-3,2026-08-01,2026-09-01,EUR,940.00,c@carrow.example"
        );
        var today = await desk.Browser.GetJsonAsync($"{desk.Api}/today");
        Assert.Equal(["GBP", "EUR"], today.List("currencies").Select(c => c.GetString()));
        Assert.Equal(
            [("Beacon Lodge", "160.05"), ("Abbot’s Table", "100.00")],
            today.List("largest").Select(l => (l.Text("name"), l.Text("overdue")))
        );
        Assert.Equal((2, "260.05"), (today.GetProperty("notWrittenCount").GetInt32(), today.Text("notWrittenSum")));
        Assert.Equal(
            ["CA01"],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/today?currency=EUR")).List("largest").Select(l => l.Text("customer"))
        );

        var round = await desk.PrepareAsync();
        await desk.ReleaseAsync(round.Id(), 3);
        await desk.SettledAsync(round.Id());
        Assert.Equal(0, (await desk.Browser.GetJsonAsync($"{desk.Api}/today")).GetProperty("notWrittenCount").GetInt32());
    }
}
