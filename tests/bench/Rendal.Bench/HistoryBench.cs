using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>
/// What a person waits for in a book with two years of history, and in a round of fifty thousand parcels: the time of each page and
/// each action, over HTTP.
/// </summary>
internal sealed class HistoryBench : IAsyncDisposable
{
    private const int Months = 24;
    private const int Customers = 10_000;
    private const int ManyCustomers = 50_000;
    private const int Repeats = 20;
    private const string Name = "bench";
    private const string Password = "launder-and-press";

    private static readonly TimeSpan Page = TimeSpan.FromMilliseconds(300);

    private readonly WholeRendal rendal;
    private readonly HttpClient browser;
    private readonly List<Measurement> measured = [];
    private readonly Dictionary<(long Round, string Customer), string> items = [];

    private HistoryBench(WholeRendal rendal)
    {
        this.rendal = rendal;
        var address = new Uri(
            rendal.App.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()
        );
        browser = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = address,
            Timeout = TimeSpan.FromMinutes(10),
        };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
    }

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        await using var bench = new HistoryBench(await WholeRendal.StartAsync(Role.Web));
        await bench.MeasureAsync();
        return bench.measured;
    }

    public async ValueTask DisposeAsync()
    {
        browser.Dispose();
        await rendal.DisposeAsync();
    }

    private async Task MeasureAsync()
    {
        await PostAsync(
            "/api/first-run",
            new
            {
                key = WholeRendal.Key,
                name = Name,
                password = Password,
                book = new
                {
                    name = "First",
                    currency = "GBP",
                    addressLines = new[] { "14 Tenter Lane" },
                    contactLines = Array.Empty<string>(),
                    paymentLines = new[] { "By transfer" },
                    timeZone = "Europe/London",
                },
            }
        );
        var maker = new HistoryMaker(rendal, 1);
        var book = await maker.MakeAsync("Two years", Months, Customers);
        await InBookAsync($"/api/books/{book}");
        var many = await maker.MakeAsync("Many", 0, ManyCustomers);
        await maker.TakeInAsync(await maker.StoresAsync(many), maker.FileOf("Many"));
        await ManyAsync($"/api/books/{many}");
    }

    /// <summary>The pages and actions of a person, beside two years of what was.</summary>
    private async Task InBookAsync(string api)
    {
        var wording = (await GetAsync($"{api}/wordings"))
            .GetProperty("wordings")
            .EnumerateArray()
            .Single(w => w.GetProperty("name").GetString() == "Plain")
            .GetProperty("id")
            .GetInt64();
        var round = (await PostAsync($"{api}/rounds", new { name = "This month", asOf = BenchLedger.AsOf })).GetProperty("id").GetInt64();
        var view = await ChangeAsync(api, round, s => s["wordingId"] = wording);
        var parcels = view.GetProperty("parcels")
            .EnumerateArray()
            .Select(p => (Id: p.GetProperty("id").GetInt64(), Customer: p.GetProperty("customer").GetString()!))
            .ToList();
        var count = Count(view);
        var old = (await GetAsync($"{api}/rounds"))
            .GetProperty("rounds")
            .EnumerateArray()
            .Select(r => r.GetProperty("id").GetInt64())
            .First(r => r != round);
        var intake = view.GetProperty("intakeId").GetInt64();
        var of = $"beside {Months} intakes and rounds: ";
        await PageAsync($"{of}today", _ => GetAsync($"{api}/today"));
        await PageAsync($"{of}the intakes", _ => GetAsync($"{api}/intakes"));
        await PageAsync($"{of}the ledger", _ => GetAsync($"{api}/ledger"));
        await PageAsync($"{of}the customers, a page", _ => GetAsync($"{api}/customers"));
        await PageAsync($"{of}the customers, searched", i => GetAsync($"{api}/customers?search=number%20{i * 37}"));
        await PageAsync($"{of}a customer’s card", i => GetAsync($"{api}/customers/card?key={parcels[i].Customer}"));
        await PageAsync($"{of}a customer’s history", i => GetAsync($"{api}/customers/history?key={parcels[i].Customer}"));
        await PageAsync($"{of}the rounds that wait", _ => GetAsync($"{api}/rounds/waiting"));
        await PageAsync($"{of}the rounds", _ => GetAsync($"{api}/rounds"));
        await PageAsync($"{of}a round of {count:N0} parcels", _ => GetAsync($"{api}/rounds/{round}"));
        await PageAsync($"{of}a round that went out", _ => GetAsync($"{api}/rounds/{old}"));
        await PageAsync($"{of}a page of its list", i => GetAsync($"{api}/rounds/{round}/parcels?from={i * count / Repeats / 200 * 200}"));
        await PageAsync($"{of}its list, searched", i => GetAsync($"{api}/rounds/{round}/parcels?find=number%20{i}"));
        await PageAsync($"{of}a page of what is left out", _ => GetAsync($"{api}/rounds/{round}/left-out"));
        await PageAsync($"{of}whether others changed it", _ => GetAsync($"{api}/rounds/{round}/revision?revision=1"));
        await PageAsync($"{of}a parcel", i => GetAsync($"{api}/parcels/{parcels[i].Id}"));
        await PageAsync($"{of}its document", async i =>
            (await browser.GetAsync($"{api}/parcels/{parcels[i].Id}/document")).EnsureSuccessStatusCode()
        );
        await PageAsync($"{of}where its figures are from", i => GetAsync($"{api}/rounds/{round}/accounts/{parcels[i].Customer}"));
        await PageAsync($"{of}the log", _ => GetAsync($"{api}/dispatch"));
        await PageAsync($"{of}the log, searched for a customer", i => GetAsync($"{api}/dispatch?search={parcels[i].Customer}"));
        await PageAsync($"{of}the log, searched for a text that is not there", i => GetAsync($"{api}/dispatch?search=not%20there%20{i}"));
        await PageAsync($"{of}what came back and is unclear", _ => GetAsync($"{api}/returned/unclear"));
        await PageAsync($"{of}wordings, layouts and senders", async _ =>
        {
            await GetAsync($"{api}/wordings");
            await GetAsync($"{api}/layouts");
            await GetAsync($"{api}/senders");
        });
        foreach (var (_, customer) in parcels.Take(Repeats))
        {
            await ItemAsync(api, round, customer);
        }

        await PageAsync(
            $"{of}one parcel held, or not any more",
            i => DecideAsync(api, round, parcels[i / 2].Customer, i % 2 == 0 ? "held" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await PageAsync(
            $"{of}a customer taken out, or put back",
            i => DecideAsync(api, round, parcels[i / 2].Customer, i % 2 == 0 ? "removed" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await PageAsync(
            $"{of}an item taken out, or put back",
            i => DecideItemAsync(api, round, parcels[i / 2].Customer, i % 2 == 0 ? "out" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await PageAsync($"{of}a parcel was looked at", i =>
            PostAsync(
                $"{api}/rounds/{round}/looked-at",
                new { preparedAt = view.GetProperty("preparedAt").GetString(), parcel = parcels[i].Id }
            )
        );
        await PageAsync($"{of}what a choice comes to", i => CountAsync(api, round, i));
        await PageAsync(
            $"{of}a choice changed over {count:N0} parcels",
            i => ChangeAsync(api, round, s => s["leastBalance"] = i),
            TimeSpan.FromSeconds(3),
            5
        );
        await PageAsync(
            $"{of}the summary before release",
            _ => PostAsync($"{api}/rounds/{round}/summary", new { parcels = (long[]?)null }),
            TimeSpan.FromSeconds(3),
            5
        );
        await ReleaseAsync(api, round, $"{of}a release", TimeSpan.FromSeconds(5));
    }

    /// <summary>A round of fifty thousand parcels.</summary>
    private async Task ManyAsync(string api)
    {
        var wording = (await GetAsync($"{api}/wordings"))
            .GetProperty("wordings")
            .EnumerateArray()
            .Single(w => w.GetProperty("name").GetString() == "Plain")
            .GetProperty("id")
            .GetInt64();
        var round = (await PostAsync($"{api}/rounds", new { name = "All of them", asOf = BenchLedger.AsOf })).GetProperty("id").GetInt64();
        await ChangeAsync(api, round, s => s["wordingId"] = wording);
        var count = Count(await GetAsync($"{api}/rounds/{round}"));
        var of = $"of {count:N0} parcels: ";
        await PageAsync($"{of}prepared", _ => PostAsync($"{api}/rounds/{round}/prepare", new { }), TimeSpan.FromSeconds(60), 1);
        await PageAsync($"{of}the round", _ => GetAsync($"{api}/rounds/{round}"));
        await PageAsync($"{of}a page of its list", i => GetAsync($"{api}/rounds/{round}/parcels?from={i * count / Repeats / 200 * 200}"));
        await PageAsync($"{of}its list, searched", i => GetAsync($"{api}/rounds/{round}/parcels?find=number%20{i}"));
        var customer = (await GetAsync($"{api}/rounds/{round}")).GetProperty("parcels")[0].GetProperty("customer").GetString()!;
        await PageAsync(
            $"{of}one parcel held, or not any more",
            i => DecideAsync(api, round, customer, i % 2 == 0 ? "held" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await PageAsync(
            $"{of}a customer taken out, or put back",
            i => DecideAsync(api, round, customer, i % 2 == 0 ? "removed" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await PageAsync(
            $"{of}an item taken out, or put back",
            i => DecideItemAsync(api, round, customer, i % 2 == 0 ? "out" : null),
            TimeSpan.FromMilliseconds(100)
        );
        await ReleaseAsync(api, round, $"{of}a release", TimeSpan.FromSeconds(20));
    }

    private async Task ReleaseAsync(string api, long round, string what, TimeSpan most)
    {
        var summary = await PostAsync($"{api}/rounds/{round}/summary", new { parcels = (long[]?)null });
        GC.Collect();
        var before = Process.GetCurrentProcess().WorkingSet64;
        await PageAsync(
            what,
            _ =>
                PostAsync(
                    $"{api}/rounds/{round}/release",
                    new
                    {
                        parcels = (long[]?)null,
                        revision = summary.GetProperty("revision").GetInt64(),
                        seen = summary.GetProperty("seen").GetString(),
                        seenChanges = true,
                    }
                ),
            most,
            1
        );
        using var process = Process.GetCurrentProcess();
        Console.Error.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  memory {before / 1e6:0} MB before, {process.WorkingSet64 / 1e6:0} MB after, "
                    + $"{process.PeakWorkingSet64 / 1e6:0} MB at its peak"
            )
        );
    }

    /// <summary>Does one thing several times over, each with another number, and notes how long 95 of 100 take at the most.</summary>
    private async Task PageAsync(string what, Func<int, Task> ask, TimeSpan? aim = null, int repeats = Repeats)
    {
        var most = aim ?? Page;
        var times = new List<double>();
        if (repeats == Repeats)
        {
            await ask(0);
        }

        for (var i = 0; i < repeats; i++)
        {
            var watch = Stopwatch.StartNew();
            await ask(i);
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        var p95 = times[(int)Math.Ceiling(times.Count * 0.95) - 1];
        var within = most < TimeSpan.FromSeconds(1) ? $"≤ {most.TotalMilliseconds:0} ms" : $"≤ {most.TotalSeconds:0} s";
        var took =
            p95 < 10_000
                ? string.Create(CultureInfo.InvariantCulture, $"{p95:0} ms")
                : string.Create(CultureInfo.InvariantCulture, $"{p95 / 1000:0.0} s");
        Console.Error.WriteLine($"  {(p95 <= most.TotalMilliseconds ? "  " : "! ")}{took}  {what}");
        measured.Add(new Measurement(what, took, "–", null, within));
    }

    private static int Count(JsonElement round) =>
        round.GetProperty("groups").EnumerateArray().Sum(g => g.GetProperty("count").GetInt32());

    private async Task CountAsync(string api, long round, int i)
    {
        var settings = JsonNode.Parse((await GetAsync($"{api}/rounds/{round}")).GetProperty("settings").GetRawText())!;
        settings["leastBalance"] = i * 10;
        await PostAsync($"{api}/rounds/{round}/count", settings);
    }

    private async Task<JsonElement> ChangeAsync(string api, long round, Action<JsonNode> change)
    {
        var view = await GetAsync($"{api}/rounds/{round}");
        var settings = JsonNode.Parse(view.GetProperty("settings").GetRawText())!;
        change(settings);
        using var answer = await browser.PutAsJsonAsync(
            $"{api}/rounds/{round}?revision={view.GetProperty("revision").GetInt64()}",
            settings
        );
        return await JsonAsync(answer);
    }

    private async Task DecideAsync(string api, long round, string customer, string? decision)
    {
        // The latest revision is the largest there can be.
        await PostAsync(
            $"{api}/rounds/{round}/decisions?revision=1000000000",
            new
            {
                customers = new[] { customer },
                decision,
                reason = "asked to",
            }
        );
    }

    private async Task DecideItemAsync(string api, long round, string customer, string? decision) =>
        await PostAsync(
            $"{api}/rounds/{round}/items?revision=1000000000",
            new
            {
                customer,
                item = await ItemAsync(api, round, customer),
                decision,
                reason = "asked to",
            }
        );

    /// <summary>An item of a customer, asked for once.</summary>
    private async Task<string> ItemAsync(string api, long round, string customer)
    {
        if (!items.TryGetValue((round, customer), out var item))
        {
            var account = await GetAsync($"{api}/rounds/{round}/accounts/{customer}");
            items[(round, customer)] = item = account.GetProperty("items")[0].GetProperty("key").GetString()!;
        }

        return item;
    }

    private async Task<JsonElement> GetAsync(string path)
    {
        using var answer = await browser.GetAsync(path);
        return await JsonAsync(answer);
    }

    private async Task<JsonElement> PostAsync(string path, object content)
    {
        using var answer = await browser.PostAsJsonAsync(path, content);
        return await JsonAsync(answer);
    }

    private static async Task<JsonElement> JsonAsync(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        return !answer.IsSuccessStatusCode
                ? throw new InvalidOperationException($"{answer.RequestMessage?.RequestUri}: {(int)answer.StatusCode} {text}")
            : text.Length == 0 ? default
            : JsonDocument.Parse(text).RootElement;
    }
}
