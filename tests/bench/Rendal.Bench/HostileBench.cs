using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
using Rendal.Trials;
using Rendal.Trials.Hostile;

namespace Rendal.Bench;

/// <summary>Gives hostile files to a Rendal in a process of its own, while somebody else looks at documents of another book and sends its parcels.</summary>
internal static class HostileBench
{
    public const string Option = "--hostile";

    private const string Password = "launder-and-press";
    private const int Customers = 400;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan LongestLook = TimeSpan.FromMilliseconds(500);
    private const long MostMemory = 500L << 20;

    /// <returns>0 where each file took no longer and no more than it may, nobody else was kept waiting, and their parcels went out; else 1.</returns>
    public static async Task<int> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-hostile-").FullName;
        try
        {
            await using var rendal = await RendalProcess.StartAsync(folder, (FreePort(), FreePort(), FreePort()), CancellationToken.None) ?? throw new InvalidOperationException("Rendal did not start.");
            using var browser = rendal.Browser();
            await PostAsync(browser, "/api/first-run", new { key = rendal.FirstRunKey, name = "odile", password = Password, book = Firm("Other") });
            var other = await BookAsync(browser, 0);
            await PostAsync(browser, "/api/books", Firm("Hostile"));
            var hostile = await BookAsync(browser, 1);
            var (round, parcels) = await RoundAsync(browser, other);

            // What is made once for the whole program is made before it is measured.
            await LookAsync(browser, other, parcels[0]);
            var sent = await SentAsync(browser, other, round);
            var lines = new List<(HostileFile File, TimeSpan Took, long Memory, TimeSpan Look, HttpStatusCode Status)>();
            foreach (var file in HostileFiles.All)
            {
                Console.Error.WriteLine(file.Name);
                var made = file with { Make = Once(file.Make()) };
                File.WriteAllText($"/proc/{rendal.Id}/clear_refs", "5");
                var before = Memory(rendal.Id, "VmRSS:");
                using var over = new CancellationTokenSource();
                var looking = LookOnAsync(browser, other, parcels, over.Token);
                var watch = Stopwatch.StartNew();
                var (status, _) = await new HostileTrial(browser, hostile).GiveAsync(made, CancellationToken.None);
                var took = watch.Elapsed;
                await over.CancelAsync();
                lines.Add((file, took, Memory(rendal.Id, "VmHWM:") - before, await looking, status));
            }

            var through = await SentAsync(browser, other, round) - sent;
            var page = Page(lines, through);
            Console.WriteLine(page);
            await File.WriteAllTextAsync("docs/hostile.md", page);
            return through > 0 && lines.All(l => l.Took <= Longest && l.Memory <= MostMemory && l.Look <= LongestLook && l.Status is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity) ? 0 : 1;
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static Func<byte[]> Once(byte[] bytes) => () => bytes;

    /// <summary>Looks at one document after the other until the file is through; at one at the least.</summary>
    /// <returns>How long the slowest took.</returns>
    private static async Task<TimeSpan> LookOnAsync(HttpClient browser, string api, long[] parcels, CancellationToken over)
    {
        var slowest = TimeSpan.Zero;
        for (var i = 0; i == 0 || !over.IsCancellationRequested; i++)
        {
            var took = await LookAsync(browser, api, parcels[i % parcels.Length]);
            slowest = took > slowest ? took : slowest;
            await Task.Delay(50, CancellationToken.None);
        }

        return slowest;
    }

    private static async Task<TimeSpan> LookAsync(HttpClient browser, string api, long parcel)
    {
        var watch = Stopwatch.StartNew();
        using var answer = await browser.GetAsync($"{api}/parcels/{parcel}/document");
        answer.EnsureSuccessStatusCode();
        await answer.Content.ReadAsByteArrayAsync();
        return watch.Elapsed;
    }

    /// <summary>A round whose parcels go out slowly, so that some do while each file is given in.</summary>
    private static async Task<(long Round, long[] Parcels)> RoundAsync(HttpClient browser, string api)
    {
        using var form = new MultipartFormDataContent();
        var lines = Enumerable.Range(0, Customers).SelectMany(c => Enumerable.Range(0, 5).Select(i => $"C{c:000},Invoice,T-{c}-{i},2026-09-01,2026-10-01,{c + 10}.50,c{c}@inn.example"));
        var file = new ByteArrayContent(Encoding.UTF8.GetBytes(string.Join('\n', lines.Prepend("Code,Kind,Number,Date,Due,Outstanding,E-mail"))));
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(file, "file", "ledger.csv");
        using var begun = await browser.PostAsync($"{api}/intakes?kind=ledger", form);
        await PostAsync(browser, $"{api}/intakes/{(await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id")}/keep", new { });
        var wording = (await browser.GetFromJsonAsync<JsonElement>($"{api}/wordings")).GetProperty("wordings")[0];
        using var worded = await browser.PutAsJsonAsync($"{api}/wordings/{wording.GetProperty("id")}", new { version = wording.GetProperty("version").GetInt64(), name = "Plain", language = "en", subject = "Statement", body = "<p>Your statement is enclosed.</p>" });
        worded.EnsureSuccessStatusCode();
        var sender = System.Text.Json.Nodes.JsonNode.Parse((await browser.GetFromJsonAsync<JsonElement>($"{api}/senders"))[0].GetRawText())!;
        (sender["aMinute"], sender["password"]) = (120, null);
        using var slowed = await browser.PutAsJsonAsync($"{api}/senders/{sender["id"]}", sender);
        slowed.EnsureSuccessStatusCode();
        var view = await PostAsync(browser, $"{api}/rounds", new { name = "October", asOf = "2026-10-31" });
        var round = view.GetProperty("id").GetInt64();
        await PostAsync(browser, $"{api}/rounds/{round}/release", new { parcels = (long[]?)null, count = Customers });
        return (round, [.. view.GetProperty("parcels").EnumerateArray().Select(p => p.GetProperty("id").GetInt64())]);
    }

    private static async Task<int> SentAsync(HttpClient browser, string api, long round) =>
        (await browser.GetFromJsonAsync<JsonElement>($"{api}/rounds/{round}")).GetProperty("parcels").EnumerateArray().Count(p => p.GetProperty("standing").GetString() == "sent");

    private static async Task<string> BookAsync(HttpClient browser, int index) =>
        $"/api/books/{(await browser.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("books").EnumerateArray().Select(b => b.GetProperty("id").GetInt64()).Order().ElementAt(index)}";

    private static async Task<JsonElement> PostAsync(HttpClient browser, string path, object body)
    {
        using var answer = await browser.PostAsJsonAsync(path, body);
        answer.EnsureSuccessStatusCode();
        return answer.StatusCode == HttpStatusCode.NoContent ? default : await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static object Firm(string name) => new { name, currency = "GBP", addressLines = new[] { "14 Tenter Lane" }, contactLines = Array.Empty<string>(), paymentLines = new[] { "By transfer" }, timeZone = "Europe/London" };

    /// <summary>A figure of a process's memory (proc(5)), in bytes.</summary>
    private static long Memory(int process, string what) =>
        long.Parse(File.ReadLines($"/proc/{process}/status").First(l => l.StartsWith(what, StringComparison.Ordinal)).Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], CultureInfo.InvariantCulture) * 1024;

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static string Page(IReadOnlyList<(HostileFile File, TimeSpan Took, long Memory, TimeSpan Look, HttpStatusCode Status)> lines, int through) =>
        string.Create(CultureInfo.InvariantCulture,
            $"""
            # Hostile files

            Written by `./rendal bench {Option}` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores, {RuntimeInformation.FrameworkDescription}.
            Each file is given in as a person would: taken in, looked at, and kept where it can be. Meanwhile somebody else looks at
            documents of another book, and a round of that book goes out at two parcels a second: {through} of {Customers} went while these files were given in.
            A file may take {Longest.TotalSeconds} s and {MostMemory >> 20} MB beyond what the program had before it; the slowest look beside it {LongestLook.TotalMilliseconds} ms.

            | file | to | answer | took | memory | slowest look of another book |
            | --- | --- | --- | --- | --- | --- |
            {string.Join('\n', lines.Select(l => string.Create(CultureInfo.InvariantCulture, $"| {l.File.Name} | {l.File.Place.ToString().ToLowerInvariant()} | {(l.Status == HttpStatusCode.OK && l.File.Says is not { Length: > 0 } ? "read" : l.Status is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity ? "refused, with the reason" : l.Status)} | {l.Took.TotalSeconds:0.00} s | {Math.Max(0, l.Memory) >> 20} MB | {l.Look.TotalMilliseconds:0} ms |")))}

            """);
}
