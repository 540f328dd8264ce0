using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>A round of ten thousand parcels over HTTP, from the chosen rows to the list and the first message in Chromium.</summary>
internal static class RoundBench
{
    private const int Parcels = 10_000;
    private const int Rows = 10 * Parcels;
    private const int Repeats = 3;
    private const int LookedThrough = 20;
    private const string Name = "bench";
    private const string Password = "launder-and-press";
    private const string Round = "All of them";

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        await using var rendal = await WholeRendal.StartAsync(Role.Web, Path.GetFullPath("artifacts/web"));
        var address = new Uri(
            rendal.App.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()
        );
        using var browser = new HttpClient(new HttpClientHandler { CookieContainer = new CookieContainer() })
        {
            BaseAddress = address,
            Timeout = TimeSpan.FromMinutes(5),
        };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        await PostAsync(
            browser,
            "/api/first-run",
            new
            {
                key = WholeRendal.Key,
                name = Name,
                password = Password,
                book = new
                {
                    name = "Bench",
                    currency = "GBP",
                    addressLines = new[] { "14 Tenter Lane" },
                    contactLines = Array.Empty<string>(),
                    paymentLines = new[] { "By transfer" },
                    timeZone = "Europe/London",
                },
            }
        );
        await PostAsync(browser, "/api/session", new { name = Name, password = Password });
        var book = (await browser.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("books")[0].GetProperty("id").GetInt64();
        await TakeInAsync(browser, rendal.Folder, book);

        var rounds = $"/api/books/{book}/rounds";
        var round = (await PostAsync(browser, rounds, new { name = Round, asOf = BenchLedger.AsOf })).GetProperty("id").GetInt64();
        var times = new List<double>();
        var prepared = 0;
        for (var i = 0; i < Repeats; i++)
        {
            var watch = Stopwatch.StartNew();
            prepared = (await PostAsync(browser, $"{rounds}/{round}/prepare", new { }))
                .GetProperty("groups")
                .EnumerateArray()
                .Sum(g => g.GetProperty("count").GetInt32());
            times.Add(watch.Elapsed.TotalSeconds);
        }

        if (prepared < Parcels * 9 / 10)
        {
            throw new InvalidOperationException($"Only {prepared} parcels were made: what was measured did not come out right.");
        }

        var rate = prepared / Rounds.Median(times);
        return
        [
            new Measurement(
                $"a round of {prepared:N0} parcels of {Rows:N0} rows prepared, without documents",
                $"{rate:0} a second",
                "–",
                null,
                "≥ 1,000 a second"
            ),
            .. Looked(address, book),
        ];
    }

    private static IEnumerable<Measurement> Looked(Uri address, long book)
    {
        if (
            Chromium.Run(
                "open-round.mjs",
                address.ToString().TrimEnd('/'),
                Name,
                Password,
                book.ToString(CultureInfo.InvariantCulture),
                Round,
                LookedThrough.ToString(CultureInfo.InvariantCulture)
            )
            is not { } told
        )
        {
            yield return new Measurement("its list on the screen", "–", "Chromium is not installed", null, "< 1 s");
            yield break;
        }

        yield return new Measurement("its list on the screen, from the click on the round", $"{told[0]:0} ms", "–", null, "< 1 s");
        yield return new Measurement("the first message on the screen after that", $"{told[1]:0} ms", "–", null, "< 200 ms");
        yield return new Measurement(
            $"the message of the next parcel, the middle one of {LookedThrough}",
            $"{told[2]:0} ms",
            "–",
            null,
            "< 200 ms"
        );
    }

    private static async Task TakeInAsync(HttpClient browser, string folder, long book)
    {
        var path = Path.Combine(folder, "ledger.csv");
        LedgerFiles.WriteCsv(path, Rows, Parcels);
        using var form = new MultipartFormDataContent();
        await using var content = File.OpenRead(path);
        form.Add(new StreamContent(content), "file", "ledger.csv");
        using var uploaded = await browser.PostAsync($"/api/books/{book}/intakes?kind=ledger", form);
        var intake = (await uploaded.EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt64();
        await PostAsync(browser, $"/api/books/{book}/intakes/{intake}/keep", new { });
    }

    private static async Task<JsonElement> PostAsync(HttpClient browser, string path, object content)
    {
        using var answer = await browser.PostAsJsonAsync(path, content);
        answer.EnsureSuccessStatusCode();
        return answer.StatusCode == HttpStatusCode.NoContent ? default : await answer.Content.ReadFromJsonAsync<JsonElement>();
    }
}
