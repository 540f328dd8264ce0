using System.Net;
using Rendal.Trials.Hostile;

namespace Rendal.Web.Tests.Hosting;

/// <summary>
/// Files that are made to do harm are refused with a reason, or read, and keep nobody else waiting. How long each takes is measured by
/// <c>./rendal bench --hostile</c>.
/// </summary>
public sealed class HostileTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public static TheoryData<string> Names() => [.. HostileFiles.All.Select(f => f.Name)];

    [Theory]
    [MemberData(nameof(Names))]
    public async Task A_hostile_file_is_refused_with_a_reason_or_read(string name)
    {
        var file = HostileFiles.All.Single(f => f.Name == name);
        using var desk = await Desk.AtAsync(rendal);
        var (status, says) = await new HostileTrial(desk.Browser, desk.Api).GiveAsync(file, Cancel);
        Assert.True(status is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{status}: {says[..Math.Min(says.Length, 500)]}");
        if (file.Says is null)
        {
            Assert.True(status == HttpStatusCode.OK, $"{status}: {says[..Math.Min(says.Length, 500)]}");
        }
        else if (file.Says.Length > 0)
        {
            Assert.Contains(file.Says, says, StringComparison.Ordinal);
        }

        Assert.True(says.Length < 4_000_000, $"the answer has {says.Length} characters");

        // Whatever came of it, the book can be worked with.
        foreach (var list in new[] { "/wordings", "/layouts", "/rounds", "/customers", "/intakes" })
        {
            Assert.Equal(HttpStatusCode.OK, (await desk.Browser.GetAsync(desk.Api + list, Cancel)).StatusCode);
        }
    }

    [Fact]
    public async Task While_one_book_is_full_of_long_words_another_looks_and_sends()
    {
        using var hostile = await Desk.AtAsync(rendal);
        using var desk = await Desk.AtAsync(rendal);
        const string headings = "Code,Kind,Number,Date,Due,Outstanding,E-mail";
        await hostile.TakeInAsync([
            headings,
            .. Enumerable
                .Range(1, 30_000)
                .Select(i => $"AB0{i % 3},Invoice,T-{i}-{new string('9', 250)},2026-09-01,2026-10-01,10.00,a{i % 3}@abbot.example"),
        ]);
        await desk.TakeInAsync(headings, "BE02,Invoice,T-1,2026-09-01,2026-10-01,10.00,b@beacon.example");
        var slow = await hostile.PrepareAsync();
        await (await hostile.ReleaseAsync(slow.Id(), slow.List("parcels").Count(p => p.Text("status") == "prepared"))).JsonAsync();
        var looking = slow.List("parcels")
            .Select(p => hostile.Browser.GetAsync($"{hostile.Api}/parcels/{p.Id()}/document", Cancel))
            .ToList();
        var round = await desk.PrepareAsync();
        var parcel = round.List("parcels").Single().Id();
        Assert.Equal(HttpStatusCode.OK, (await desk.Browser.GetAsync($"{desk.Api}/parcels/{parcel}/document", Cancel)).StatusCode);
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));
        Assert.Equal(
            HttpStatusCode.OK,
            (await hostile.Browser.PostAsync($"{hostile.Api}/rounds/{slow.Id()}/stop", null, Cancel)).StatusCode
        );
        await Task.WhenAll(looking);

        // Each of the others is in a state that a person can leave: sent, stopped, or set aside with its reason.
        foreach (var one in (await hostile.SettledAsync(slow.Id())).List("parcels"))
        {
            Assert.Contains(one.Text("status"), new[] { "sent", "prepared", "held", "needs-you" });
            Assert.True(one.Text("status") != "held" || one.Text("problem").Length > 0);
        }
    }
}
