using System.Net;
using System.Text.Json;
using Rendal.Core.Tests;
using Rendal.Postroom;
using Rendal.Trials;
using Rendal.Web.Postroom;

namespace Rendal.Web.Tests.Hosting;

/// <summary>Any number of processes serve the same people: nothing that a request needs lives in the memory of one.</summary>
public sealed class SeveralProcessesTests : IAsyncLifetime
{
    private const int Customers = 60;

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-several-").FullName;
    private readonly (int Mail, int Imap) practice = (FreePort.Find(), FreePort.Find());
    private readonly List<RendalProcess> processes = [];
    private readonly AtRandom lines = new();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Two_web_processes_and_two_workers_share_a_journey_and_one_that_is_killed_loses_only_its_open_requests()
    {
        var first = await StartAsync("web");
        var others = await Task.WhenAll(StartAsync("web"), StartAsync("worker"), StartAsync("worker"));
        var second = others[0];
        using var browser = new HttpClient(lines) { BaseAddress = new Uri("http://127.0.0.1/") };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        using (
            var made = await browser.PostAsync(
                "/api/first-run",
                Body(
                    new
                    {
                        key = first.FirstRunKey,
                        name = "odile",
                        password = "launder-and-press",
                        book = RunningRendal.Firm("Tarnbrook Linen Hire"),
                    }
                ),
                Cancel
            )
        )
        {
            Assert.Equal(HttpStatusCode.NoContent, made.StatusCode);
        }

        using (
            var late = await browser.PostAsync(
                "/api/first-run",
                Body(
                    new
                    {
                        key = second.FirstRunKey,
                        name = "second",
                        password = "launder-and-press",
                        book = RunningRendal.Firm("Another"),
                    }
                ),
                Cancel
            )
        )
        {
            Assert.Equal(HttpStatusCode.Forbidden, late.StatusCode);
        }

        var desk = new Desk(browser, (await browser.GetJsonAsync("/api/session")).List("books").Single().Id());

        // From the file to its rows: each is looked at by whichever process is asked, in the way that was found by another.
        var intake = await desk.BeginAsync(
            "ledger",
            [
                .. Enumerable
                    .Range(0, Customers)
                    .Select(c =>
                        $"{(c % 2 == 0 ? $"C{c:000}" : "")},Invoice,T-{c},2026-09-01,2026-10-01,{c + 10}.50,{(c % 2 == 0 ? $"c{c}@inn.example" : "")}"
                    )
                    .Prepend("Code,Kind,Number,Date,Due,Outstanding,E-mail"),
            ]
        );
        for (var i = 0; i < 4; i++)
        {
            await desk.LookAsync(intake);
            var rows = await browser.GetJsonAsync($"{desk.Api}/intakes/{intake}/rows?from=2&count=4");
            Assert.Equal(["item", "item", "item", "item"], rows.List("rows").Select(r => r.Text("role")));
        }

        await browser.PostJsonAsync($"{desk.Api}/intakes/{intake}/keep", new { });
        var round = (await desk.PrepareAsync()).Id();
        var parcels = (await browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels").ToList();
        Assert.Equal(Customers / 2, parcels.Count);
        var looked = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => desk.MessageAsync(parcels[0].Id())));
        Assert.Single(looked.Distinct());

        // A drill that is begun at one process is met wherever the postroom is served.
        await browser.PostJsonAsync(
            $"{desk.Api}/postroom/drills",
            new
            {
                step = "recipient",
                act = "answer",
                answer = "550 5.1.1 nobody of this name",
                to = "c2@inn.example",
                left = (int?)null,
            }
        );

        // The one that serves the postroom is killed among many requests: those that it had are lost, and no other is.
        var (asked, lost) = (0, 0);
        using var over = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
        var asking = Enumerable.Range(0, 4).Select(_ => AskAsync()).ToList();
        await Eventually.HoldsAsync(() => Volatile.Read(ref asked) >= 40);

        lines.Remove(first);
        await first.KillAsync();
        var before = Volatile.Read(ref asked);
        await Eventually.HoldsAsync(() => Volatile.Read(ref asked) >= before + 40);

        await over.CancelAsync();
        await Task.WhenAll(asking);
        Assert.InRange(lost, 0, asking.Count);
        await Eventually.HoldsAsync(() => PostroomServer.IsServed(folder));

        // Another takes its place, and what was decided and begun is still so.
        var third = await StartAsync("web");
        await (await desk.ReleaseAsync(round, Customers / 2)).JsonAsync();
        lines.Remove(third);
        await third.KillAsync();
        var settled = await Eventually.BecomesAsync(
            () => browser.GetJsonAsync($"{desk.Api}/rounds/{round}"),
            r => r.List("parcels").All(p => p.Text("status") is not ("to-be-retried" or "released" or "sending"))
        );

        var statuses = settled.List("parcels").ToLookup(p => p.Text("status"), p => p.Text("customer"));
        var sent = statuses["sent"].Concat(statuses["refused"]).ToList();
        Assert.True(sent.Count == Customers / 2, string.Join(", ", statuses.Select(s => $"{s.Key}: {s.Count()}")));

        // What is on record is what the postroom has: each once.
        var received = (await browser.GetJsonAsync($"{desk.Api}/postroom")).List("messages").ToList();
        Assert.Equal(
            statuses["sent"].Order(),
            received
                .Select(m =>
                    $"C{int.Parse(m.List("recipients").Single().GetString()![1..^"@inn.example".Length], System.Globalization.CultureInfo.InvariantCulture):000}"
                )
                .Order()
        );
        Assert.All(new Mailbox(Path.Combine(folder, "postroom")).Deliveries($"book-{desk.Book}").Values, times => Assert.Equal(1, times));
        var log = (await browser.GetJsonAsync($"{desk.Api}/dispatch"))
            .EnumerateArray()
            .ToLookup(e => e.Text("customer"), e => e.Text("outcome"));
        Assert.Equal(Customers / 2, log.Count);
        Assert.All(statuses["sent"], customer => Assert.Single(log[customer], outcome => outcome == "accepted"));

        async Task AskAsync()
        {
            while (!over.IsCancellationRequested)
            {
                try
                {
                    await browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
                    Interlocked.Increment(ref asked);
                }
                catch (HttpRequestException)
                {
                    Interlocked.Increment(ref lost);
                }
            }
        }
    }

    public ValueTask InitializeAsync() => ValueTask.CompletedTask;

    public async ValueTask DisposeAsync()
    {
        await Task.WhenAll(processes.Select(p => p.DisposeAsync().AsTask()));

        lines.Dispose();
        Directory.Delete(folder, recursive: true);
    }

    private static StringContent Body(object value) => new(JsonSerializer.Serialize(value), System.Text.Encoding.UTF8, "application/json");

    private async Task<RendalProcess> StartAsync(string role)
    {
        var process = await RendalProcess.StartAsync(folder, (FreePort.Find(), practice.Mail, practice.Imap), Cancel, role);
        Assert.NotNull(process);
        lock (processes)
        {
            processes.Add(process);
        }

        if (role == "web")
        {
            lines.Add(process);
        }

        return process;
    }

    /// <summary>
    /// A proxy before several processes that asks one of them at random. A browser does not tell their ports apart, and sends its cookies
    /// to each.
    /// </summary>
    private sealed class AtRandom() : DelegatingHandler(new HttpClientHandler { CookieContainer = new CookieContainer() })
    {
        private readonly Lock gate = new();
        private readonly List<RendalProcess> among = [];

        public void Add(RendalProcess process)
        {
            lock (gate)
            {
                among.Add(process);
            }
        }

        public void Remove(RendalProcess process)
        {
            lock (gate)
            {
                among.Remove(process);
            }
        }

        protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
        {
            lock (gate)
            {
                request.RequestUri = new UriBuilder(request.RequestUri!)
                {
                    Port = among[Random.Shared.Next(among.Count)].Address.Port,
                }.Uri;
            }

            return base.SendAsync(request, cancellationToken);
        }
    }
}
