using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;
using Rendal.Store.People;
using Rendal.Trials.Fuzz;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>Fifty thousand requests of every kind of wrong to one Rendal.</summary>
internal static class FuzzBench
{
    public const string Option = "--fuzz";

    private const int Usual = 50_000;
    private const string Marker = "Foreign-8f1c";
    private const string Password = "launder-and-press";
    private const long MostMemory = 1L << 30;

    /// <param name="requests">How many; null for 50,000.</param>
    /// <returns>0 where no answer was one that must not be; else 1.</returns>
    public static async Task<int> RunAsync(string? requests)
    {
        var count = requests is null ? Usual : int.Parse(requests, CultureInfo.InvariantCulture);
        var seed = Environment.TickCount;
        await using var rendal = await WholeRendal.StartAsync(Role.All);
        var address = new Uri(
            rendal.App.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()
        );
        using var owner = Browser(address);
        await PostAsync(
            owner,
            "/api/first-run",
            new
            {
                key = WholeRendal.Key,
                name = "odile",
                password = Password,
                book = Firm(Marker),
            }
        );
        var foreign = (await owner.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("books")[0].GetProperty("id").GetInt64();
        await TakeInAsync(owner, foreign, $"ZZ01,{Marker},Invoice,{Marker}-1,2026-09-01,2026-10-01,10.00,zz@inn.example,{Marker}");
        var people = rendal.App.Services.GetRequiredService<PersonStore>();
        await people.AddAsync(
            "fuzz",
            rendal.App.Services.GetRequiredService<PasswordHasher<Person>>().HashPassword(null!, Password),
            CancellationToken.None
        );
        using var browser = Browser(address);
        await PostAsync(browser, "/api/session", new { name = "fuzz", password = Password });
        var book = (await PostAsync(browser, "/api/books", Firm("Fuzz"))).GetProperty("id").GetInt64();
        await TakeInAsync(
            browser,
            book,
            "AB01,Inn at Kell,Invoice,T-1,2026-09-01,2026-10-01,120.50,a@inn.example,N7",
            "BE02,Bell Inn,Invoice,T-2,2026-09-02,2026-10-02,80.00,b@inn.example,N8"
        );
        await SendAsync(browser, book);
        await PostAsync(browser, $"/api/books/{book}/rounds", new { name = "October", asOf = "2026-10-31" });

        var result = await new ApiFuzz(browser, book, foreign, Marker, new Random(seed)).RunAsync(count, CancellationToken.None);
        var memory = Peak();
        var page = Page(result, memory, seed);
        Console.WriteLine(page);
        foreach (var fault in result.Faults.Take(50))
        {
            Console.Error.WriteLine($"{fault.Why}\n  {fault.Request}");
        }

        if (requests is null)
        {
            await File.WriteAllTextAsync("docs/fuzzed.md", page);
        }

        return result.Faults.Count == 0 && memory < MostMemory ? 0 : 1;
    }

    private static HttpClient Browser(Uri address)
    {
        var browser = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(5) };
        browser.DefaultRequestHeaders.Add("X-Rendal", "1");
        return browser;
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

    private static async Task TakeInAsync(HttpClient browser, long book, params string[] lines)
    {
        using var form = new MultipartFormDataContent();
        var file = new ByteArrayContent(
            Encoding.UTF8.GetBytes(string.Join('\n', lines.Prepend("Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Delivery round")))
        );
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(file, "file", "ledger.csv");
        using var answer = await browser.PostAsync($"/api/books/{book}/intakes?kind=ledger", form);
        answer.EnsureSuccessStatusCode();
        var intake = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetInt64();
        await PostAsync(browser, $"/api/books/{book}/intakes/{intake}/keep", new { });
    }

    /// <summary>Sends a round, so that there is something in the log.</summary>
    private static async Task SendAsync(HttpClient browser, long book)
    {
        var first = (await browser.GetFromJsonAsync<JsonElement>($"/api/books/{book}/wordings")).GetProperty("wordings")[0];
        var (wording, version) = (first.GetProperty("id").GetInt64(), first.GetProperty("version").GetInt64());
        using var put = await browser.PutAsJsonAsync(
            $"/api/books/{book}/wordings/{wording}",
            new
            {
                version,
                name = "Plain",
                language = "en",
                subject = "Statement",
                body = "<p>Please find what is open.</p>",
            }
        );
        put.EnsureSuccessStatusCode();
        var round = (await PostAsync(browser, $"/api/books/{book}/rounds", new { name = "September", asOf = "2026-10-31" }))
            .GetProperty("id")
            .GetInt64();
        var summary = await PostAsync(browser, $"/api/books/{book}/rounds/{round}/summary", new { parcels = (long[]?)null });
        await PostAsync(
            browser,
            $"/api/books/{book}/rounds/{round}/release",
            new
            {
                parcels = (long[]?)null,
                revision = summary.GetProperty("revision").GetInt64(),
                seen = summary.GetProperty("seen").GetString(),
            }
        );
        while (
            (await browser.GetFromJsonAsync<JsonElement>($"/api/books/{book}/rounds/{round}"))
                .GetProperty("parcels")
                .EnumerateArray()
                .Any(p => p.GetProperty("status").GetString() != "sent")
        )
        {
            await Task.Delay(100);
        }
    }

    private static async Task<JsonElement> PostAsync(HttpClient browser, string path, object body)
    {
        using var answer = await browser.PostAsJsonAsync(path, body);
        answer.EnsureSuccessStatusCode();
        return answer.Content.Headers.ContentLength is 0 or null && answer.StatusCode == System.Net.HttpStatusCode.NoContent
            ? default
            : await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    /// <summary>The most memory that this process ever had, the fuzzer and the application together (proc(5), VmHWM).</summary>
    private static long Peak() =>
        long.Parse(
            File.ReadLines("/proc/self/status")
                .First(l => l.StartsWith("VmHWM:", StringComparison.Ordinal))
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)[1],
            CultureInfo.InvariantCulture
        ) * 1024;

    private static string Page(FuzzResult result, long memory, int seed) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"""
            # Fuzzed

            Written by `./rendal bench {Option}` on {DateTime.UtcNow:d MMMM yyyy}, {Environment.ProcessorCount} cores,
                {RuntimeInformation.FrameworkDescription}, drawn from seed {seed}.
            Every request of the API document in turn, by a person with one book, with values that fit, that belong to another
            book, that are malformed, odd or huge.

            | requests | errors of the program or other faults | slowest | memory at its peak |
            | --- | --- | --- | --- |
            | {result.Requests:#,0} | {result.Faults.Count} | {result.Slowest.TotalSeconds:0.0} s | {memory >> 20} MB |

            Answers by status: {string.Join(", ", result.ByStatus.OrderBy(s => s.Key).Select(s => $"{s.Key}: {s.Value:#,0}"))}.

            Never answered with success: {(result.Never.Count == 0 ? "none" : string.Join(", ", result.Never.Select(n => $"`{n}`")))}.

            """
        );
}
