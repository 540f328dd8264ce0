using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
using Rendal.Core.Budgets;
using Rendal.Trials;
using Rendal.Trials.Hostile;

namespace Rendal.Bench;

/// <summary>
/// Gives hostile files to a Rendal in a process of its own, while somebody else looks at documents of another book and sends its parcels.
/// </summary>
internal static class HostileBench
{
    public const string Option = "--hostile";

    private const string Password = "launder-and-press";
    private const string Read = "read";
    private const string Refused = "refused, with the reason";
    private const int Customers = 400;
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);
    private static readonly TimeSpan LongestLook = TimeSpan.FromMilliseconds(500);
    private static readonly TimeSpan LongestStop = TimeSpan.FromSeconds(5);
    private const long MostMemory = 500L << 20;

    /// <returns>0 where each file took no longer and no more than it may, nobody else was kept waiting, and their parcels went out; else
    /// 1.</returns>
    public static async Task<int> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("rendal-hostile-").FullName;
        try
        {
            await using var rendal = await RendalProcess.StartAsync(
                folder,
                (FreePort.Find(), FreePort.Find(), FreePort.Find()),
                CancellationToken.None
            ) ?? throw new InvalidOperationException("Rendal did not start.");
            using var browser = rendal.Browser();
            await PostAsync(
                browser,
                "/api/first-run",
                new
                {
                    key = rendal.FirstRunKey,
                    name = "odile",
                    password = Password,
                    book = Firm("Other"),
                }
            );
            var other = await BookAsync(browser, 0);
            await PostAsync(browser, "/api/books", Firm("Hostile"));
            var hostile = await BookAsync(browser, 1);
            await PostAsync(browser, "/api/books", Firm("Long words"));
            var wordy = await BookAsync(browser, 2);
            var (round, parcels) = await RoundAsync(browser, other);

            // What is made once for the whole program is made before it is measured.
            await LookAsync(browser, other, parcels[0]);
            var sent = await SentAsync(browser, other, round);
            var lines = new List<Line>();
            foreach (var file in HostileFiles.All)
            {
                Console.Error.WriteLine(file.Name);
                var made = file with { Make = Once(file.Make()) };
                lines.Add(await MeasureAsync(file.Name, file.Place.ToString().ToLowerInvariant(), Longest, async () =>
                    {
                        var (status, _) = await new HostileTrial(browser, hostile).GiveAsync(made, CancellationToken.None);
                        return status is not (HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity) ? $"{status}"
                            : status == HttpStatusCode.OK && file.Says is not { Length: > 0 } ? Read
                            : Refused;
                    }));
            }

            // Whoever is full of long words looks at each of their documents at once, and sends them.
            var words = await LongWordsAsync(browser, wordy);
            lines.Add(
                await MeasureAsync(
                    "a round of three customers with 10,000 items of 250 letters each, looked at while it goes out",
                    "round",
                    Limits.Document.Time,
                    async () =>
                    {
                        var looks = await Task.WhenAll(
                            words.Select(async p =>
                            {
                                using var answer = await browser.GetAsync($"{wordy}/parcels/{p}/document");
                                return answer.StatusCode;
                            })
                        );
                        return Array.TrueForAll(looks, l => l == HttpStatusCode.OK) ? Read
                            : Array.TrueForAll(looks, l => l is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity) ? Refused
                            : string.Join(", ", looks);
                    }
                )
            );
            var through = await SentAsync(browser, other, round) - sent;
            var stopped = await rendal.StopAsync();
            var page = Page(lines, through, stopped);
            Console.WriteLine(page);
            await File.WriteAllTextAsync("docs/hostile.md", page);
            return
                through > 0
                && stopped <= LongestStop
                && lines.All(l => l.Took <= l.Most && l.Memory <= MostMemory && l.Look <= LongestLook && l.Answer is Read or Refused)
                ? 0
                : 1;

            async Task<Line> MeasureAsync(string name, string to, TimeSpan most, Func<Task<string>> give)
            {
                File.WriteAllText($"/proc/{rendal.Id}/clear_refs", "5");
                var before = Memory(rendal.Id, "VmRSS:");
                using var over = new CancellationTokenSource();
                var looking = LookOnAsync(browser, other, parcels, over.Token);
                var watch = Stopwatch.StartNew();
                var answer = await give();
                var took = watch.Elapsed;
                await over.CancelAsync();
                return new Line(name, to, answer, took, most, Memory(rendal.Id, "VmHWM:") - before, await looking);
            }
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

    /// <summary>A round of three customers whose documents are as much work as there is, on its way.</summary>
    /// <returns>Its parcels.</returns>
    private static async Task<long[]> LongWordsAsync(HttpClient browser, string api)
    {
        await TakeInAsync(
            browser,
            api,
            Enumerable
                .Range(1, 30_000)
                .Select(i => $"AB0{i % 3},Invoice,T-{i}-{new string('9', 250)},2026-09-01,2026-10-01,10.00,a{i % 3}@abbot.example")
        );
        var view = await PostAsync(browser, $"{api}/rounds", new { name = "October", asOf = "2026-10-31" });
        await ReleaseAsync(browser, $"{api}/rounds/{view.GetProperty("id")}");
        return [.. view.GetProperty("parcels").EnumerateArray().Select(p => p.GetProperty("id").GetInt64())];
    }

    /// <summary>Releases what is ready of a round.</summary>
    private static async Task ReleaseAsync(HttpClient browser, string round)
    {
        var summary = await PostAsync(browser, $"{round}/summary", new { parcels = (long[]?)null });
        await PostAsync(
            browser,
            $"{round}/release",
            new
            {
                parcels = (long[]?)null,
                revision = summary.GetProperty("revision").GetInt64(),
                seen = summary.GetProperty("seen").GetString(),
            }
        );
    }

    /// <summary>Takes a ledger in, and words that leave no slot empty.</summary>
    private static async Task TakeInAsync(HttpClient browser, string api, IEnumerable<string> lines)
    {
        using var form = new MultipartFormDataContent();
        var file = new ByteArrayContent(
            Encoding.UTF8.GetBytes(string.Join('\n', lines.Prepend("Code,Kind,Number,Date,Due,Outstanding,E-mail")))
        );
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(file, "file", "ledger.csv");
        using var begun = await browser.PostAsync($"{api}/intakes?kind=ledger", form);
        await PostAsync(
            browser,
            $"{api}/intakes/{(await begun.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id")}/keep?sure=true",
            new { }
        );
        var wording = (await browser.GetFromJsonAsync<JsonElement>($"{api}/wordings")).GetProperty("wordings")[0];
        using var worded = await browser.PutAsJsonAsync(
            $"{api}/wordings/{wording.GetProperty("id")}",
            new
            {
                version = wording.GetProperty("version").GetInt64(),
                name = "Plain",
                language = "en",
                subject = "Statement",
                body = "<p>Your statement is enclosed.</p>",
            }
        );
        worded.EnsureSuccessStatusCode();
    }

    /// <summary>A round whose parcels go out slowly, so that some do while each file is given in.</summary>
    private static async Task<(long Round, long[] Parcels)> RoundAsync(HttpClient browser, string api)
    {
        await TakeInAsync(
            browser,
            api,
            Enumerable
                .Range(0, Customers)
                .SelectMany(c =>
                    Enumerable.Range(0, 5).Select(i => $"C{c:000},Invoice,T-{c}-{i},2026-09-01,2026-10-01,{c + 10}.50,c{c}@inn.example")
                )
        );
        var sender = System.Text.Json.Nodes.JsonNode.Parse(
            (await browser.GetFromJsonAsync<JsonElement>($"{api}/senders"))[0].GetRawText()
        )!;
        (sender["aMinute"], sender["password"]) = (120, null);
        using var slowed = await browser.PutAsJsonAsync($"{api}/senders/{sender["id"]}", sender);
        slowed.EnsureSuccessStatusCode();
        var view = await PostAsync(browser, $"{api}/rounds", new { name = "October", asOf = "2026-10-31" });
        var round = view.GetProperty("id").GetInt64();
        await ReleaseAsync(browser, $"{api}/rounds/{round}");
        return (round, [.. view.GetProperty("parcels").EnumerateArray().Select(p => p.GetProperty("id").GetInt64())]);
    }

    private static async Task<int> SentAsync(HttpClient browser, string api, long round) =>
        (await browser.GetFromJsonAsync<JsonElement>($"{api}/rounds/{round}"))
            .GetProperty("groups")
            .EnumerateArray()
            .Where(g => g.GetProperty("status").GetString() == "sent")
            .Sum(g => g.GetProperty("count").GetInt32());

    private static async Task<string> BookAsync(HttpClient browser, int index) =>
        $"/api/books/{(await browser.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("books").EnumerateArray().Select(b => b.GetProperty("id").GetInt64()).Order().ElementAt(index)}";

    private static async Task<JsonElement> PostAsync(HttpClient browser, string path, object body)
    {
        using var answer = await browser.PostAsJsonAsync(path, body);
        answer.EnsureSuccessStatusCode();
        return answer.StatusCode == HttpStatusCode.NoContent ? default : await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static object Firm(string name) =>
        new
        {
            name,
            currency = "GBP",
            addressLines = new[] { "14 Tenter Lane" },
            contactLines = Array.Empty<string>(),
            paymentLines = new[] { "By transfer" },
            timeZone = "Europe/London",
        };

    /// <summary>A figure of a process's memory (proc(5)), in bytes.</summary>
    private static long Memory(int process, string what) =>
        long.Parse(
            File.ReadLines($"/proc/{process}/status")
                .First(l => l.StartsWith(what, StringComparison.Ordinal))
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1],
            CultureInfo.InvariantCulture
        ) * 1024;

    private static string Page(IReadOnlyList<Line> lines, int through, TimeSpan stopped)
    {
        var megabytes = MostMemory >> 20;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"""
            # Hostile files

            Written by `./rendal bench {Option}` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores,
            {RuntimeInformation.FrameworkDescription}. Each file is given in as a person would: taken in, looked at, and kept where it
            can be. Meanwhile somebody else looks at documents of another book, and a round of that book goes out at two parcels a second:
            {through} of {Customers} went while these files were given in. A file may take {Longest.TotalSeconds} s and {megabytes} MB
            beyond what the program had before it, a document {Limits.Document.Time.TotalSeconds} s; the slowest look beside it
            {LongestLook.TotalMilliseconds} ms.

            | file | to | answer | took | memory | slowest look of another book |
            | --- | --- | --- | --- | --- | --- |
            {string.Join(
                '\n',
                lines.Select(l =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"| {l.Name} | {l.To} | {l.Answer} | {l.Took.TotalSeconds:0.00} s | {Math.Max(0, l.Memory) >> 20} MB | {l.Look.TotalMilliseconds:0} ms |"
                    )
                )
            )}

            Stopped in the middle of that, it ended after {stopped.TotalSeconds:0.0} s; it may take {LongestStop.TotalSeconds} s.

            """
        );
    }

    private sealed record Line(string Name, string To, string Answer, TimeSpan Took, TimeSpan Most, long Memory, TimeSpan Look);
}
