using Rendal.Trials.Fuzz;

namespace Rendal.Web.Tests.Hosting;

/// <summary>Requests of every kind of wrong. The whole of it, with 50,000, is <c>./rendal bench --fuzz</c>.</summary>
public sealed class FuzzTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    public async Task No_request_is_answered_by_an_error_of_the_program_or_shows_another_book(int seed)
    {
        using var others = await Desk.AtAsync(rendal);
        await others.TakeInAsync("Code,Name,Number,Date,Due,Outstanding", $"ZZ01,{Marker},{Marker}-1,2026-09-01,2026-10-01,10.00");
        using var stranger = await rendal.StrangerAsync();
        var made = await stranger.PostJsonAsync("/api/books", RunningRendal.Firm("Fuzz"));
        var desk = new Desk(stranger, made.Id());
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Delivery round",
            "AB01,Inn at Kell,Invoice,T-1,2026-09-01,2026-10-01,120.50,a@inn.example,N7",
            "BE02,Bell Inn,Invoice,T-2,2026-09-02,2026-10-02,80.00,b@inn.example,N8"
        );
        await desk.PrepareAsync();
        var result = await new ApiFuzz(stranger, desk.Book, others.Book, Marker, new Random(seed)).RunAsync(1_500, Cancel);
        Assert.True(result.Faults.Count == 0, string.Join("\n", result.Faults.Take(20)));
        Assert.InRange(result.ByStatus.GetValueOrDefault(200) + result.ByStatus.GetValueOrDefault(204), 100, 1_500);

        // Whatever was stored by then, the book can be worked with.
        foreach (var list in new[] { "/wordings", "/layouts", "/rounds", "/customers", "/senders", "/intakes", "/dispatch" })
        {
            Assert.Equal(System.Net.HttpStatusCode.OK, (await stranger.GetAsync(desk.Api + list, Cancel)).StatusCode);
        }
    }

    private const string Marker = "Foreign-8f1c";
}
