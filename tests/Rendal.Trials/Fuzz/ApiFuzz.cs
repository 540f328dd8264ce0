using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;

namespace Rendal.Trials.Fuzz;

/// <summary>An answer that must not be.</summary>
/// <param name="Request">What was asked for.</param>
/// <param name="Why">What is wrong with the answer.</param>
internal sealed record FuzzFault(string Request, string Why);

/// <summary>What came of it.</summary>
/// <param name="Requests">How many requests were made.</param>
/// <param name="ByStatus">How many answers had which status.</param>
/// <param name="Slowest">How long the slowest took.</param>
/// <param name="Never">The requests that were never answered with success: whatever lies behind them was not reached.</param>
/// <param name="Faults">The answers that must not be.</param>
internal sealed record FuzzResult(
    int Requests,
    IReadOnlyDictionary<int, int> ByStatus,
    TimeSpan Slowest,
    IReadOnlyList<string> Never,
    IReadOnlyList<FuzzFault> Faults
);

/// <summary>
/// Asks a running Rendal for everything that its API document knows, with values that fit, that belong to another book, that
/// are malformed, odd or huge. No answer may be an error of the program, take long, or hold anything of the other book.
/// </summary>
/// <param name="browser">Somebody who is signed in and has the one book.</param>
/// <param name="book">The book that they have.</param>
/// <param name="foreign">A book that they do not have.</param>
/// <param name="marker">A text that stands everywhere in the other book and nowhere else.</param>
/// <param name="random">Draws the requests.</param>
internal sealed partial class ApiFuzz(HttpClient browser, long book, long foreign, string marker, Random random)
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(10);

    // These end the very session, or begin an installation.
    private static readonly string[] LeftOut =
    [
        "DELETE /api/session",
        "POST /api/first-run",
        "POST /api/session",
        "PUT /api/session/password",
        "DELETE /api/sessions/others",
    ];

    private readonly ApiDocument document = ApiDocument.Read();
    private readonly OddValues odd = new(random);
    private readonly Dictionary<string, List<long>> known = new(StringComparer.Ordinal);
    private readonly Dictionary<int, int> byStatus = [];
    private readonly HashSet<string> reached = new(StringComparer.Ordinal);
    private readonly List<FuzzFault> faults = [];
    private TimeSpan slowest;

    /// <summary>Makes so many requests.</summary>
    public async Task<FuzzResult> RunAsync(int requests, CancellationToken cancel)
    {
        var bodies = new BodyMaker(document, await FitBodies.OfAsync(browser, book, cancel), odd, Number, random);
        var operations = document.Operations.Where(o => !LeftOut.Contains(o.ToString())).ToList();
        for (var i = 0; i < requests; i++)
        {
            // Each in turn, so that none is left out; what they find is used by those that follow.
            await AskAsync(operations[i % operations.Count], bodies, cancel);
        }

        return new FuzzResult(
            requests,
            byStatus,
            slowest,
            [.. operations.Select(o => o.ToString()).Where(o => !reached.Contains(o))],
            faults
        );
    }

    private async Task AskAsync(ApiOperation operation, BodyMaker bodies, CancellationToken cancel)
    {
        var path = Path(operation);
        using var request = new HttpRequestMessage(new HttpMethod(operation.Method), path);
        var body = "";
        if (operation.HasFile)
        {
            request.Content = Form(out body);
        }
        else if (operation.Body is not null)
        {
            body = await UpToDateAsync(operation, path, bodies.Make(operation), cancel);
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        }

        var said = $"{operation.Method} {path} {(body.Length > 600 ? body[..600] + "…" : body)}";
        var since = Stopwatch.GetTimestamp();
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            limit.CancelAfter(3 * Longest);
            using var answer = await browser.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limit.Token);
            var isStream = answer.Content.Headers.ContentType?.MediaType == "text/event-stream";
            var text = isStream ? "" : await answer.Content.ReadAsStringAsync(limit.Token);
            Judge(said, path, answer.StatusCode, text, Stopwatch.GetElapsedTime(since));
            if (answer.IsSuccessStatusCode)
            {
                reached.Add(operation.ToString());
                Learn(operation, text);
            }
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException && !cancel.IsCancellationRequested)
        {
            faults.Add(new FuzzFault(said, $"no answer: {e.Message}"));
        }
    }

    /// <summary>
    /// A body that names the version that there is now, mostly: what is behind that check would not be reached otherwise.
    /// </summary>
    private async Task<string> UpToDateAsync(ApiOperation operation, string path, string body, CancellationToken cancel)
    {
        var of = operation.ToString() switch
        {
            "PUT /api/books/{book}/wordings/{id}" => $"/api/books/{book}/wordings",
            "PUT /api/books/{book}/customers/card" => path,
            _ => null,
        };
        if (of is null || random.Next(5) == 0)
        {
            return body;
        }

        using var answer = await browser.GetAsync(of, cancel);
        if (!answer.IsSuccessStatusCode)
        {
            return body;
        }

        using var now = JsonDocument.Parse(await answer.Content.ReadAsStringAsync(cancel));
        var version = now.RootElement.TryGetProperty("version", out var own)
            ? own.GetInt64()
            : now
                .RootElement.GetProperty("wordings")
                .EnumerateArray()
                .Where(w => path.EndsWith($"/{w.GetProperty("id").GetInt64()}", StringComparison.Ordinal))
                .Select(w => w.GetProperty("version").GetInt64())
                .FirstOrDefault();
        return Version().Replace(body, $"\"version\":{version}", 1);
    }

    private void Judge(string said, string path, HttpStatusCode status, string text, TimeSpan took)
    {
        byStatus[(int)status] = byStatus.GetValueOrDefault((int)status) + 1;
        slowest = took > slowest ? took : slowest;
        if ((int)status >= 500)
        {
            faults.Add(new FuzzFault(said, $"{(int)status} {text}"));
        }

        if (took > Longest)
        {
            faults.Add(new FuzzFault(said, $"took {took.TotalSeconds:0.0} s"));
        }

        if (
            text.Contains(marker, StringComparison.Ordinal)
            || (path.StartsWith($"/api/books/{foreign}/", StringComparison.Ordinal) && (int)status is >= 200 and < 300)
        )
        {
            faults.Add(new FuzzFault(said, "shows something of another book"));
        }
    }

    private string Path(ApiOperation operation)
    {
        var path = Place()
            .Replace(operation.Path, place =>
            {
                var name = place.Groups[1].Value;
                var isNumber = operation.Parameters.FirstOrDefault(p => p.Name == name) is not { } parameter || IsNumber(parameter.Schema);
                return name == "book" ? (random.Next(12) == 0 ? foreign : book).ToString(CultureInfo.InvariantCulture)
                    : isNumber
                        ? Number(
                                name switch
                                {
                                    "parcel" => "parcels",
                                    "choice" => "choices",
                                    "person" => "people",
                                    "index" or "version" => "few",
                                    _ => Resource(operation.Path),
                                }
                            )
                            .ToString(CultureInfo.InvariantCulture)
                    : Uri.EscapeDataString(Words(name));
            });
        var query = operation
            .Parameters.Where(p => !p.InPath && random.Next(4) > 0)
            .Select(p =>
                $"{p.Name}={Uri.EscapeDataString(IsNumber(p.Schema) && random.Next(2) == 0 ? odd.Whole().ToString(CultureInfo.InvariantCulture) : Words(p.Name))}"
            );
        return string.Join('?', new[] { path, string.Join('&', query) }.Where(p => p.Length > 0));
    }

    private string Words(string name) =>
        random.Next(3) == 0
            ? odd.Text() is { Length: < 3_000 } text
                ? text
                : "long"
            : name switch
            {
                "key" or "customer" => "AB01",
                "kind" => "ledger",
                "form" => "pdf",
                "from" or "to" or "count" or "level" => "1",
                "column" => "Delivery round",
                "order" => "name",
                "sure" or "descending" or "bothSides" => "true",
                _ => "a",
            };

    /// <summary>A number that is known to be one of a kind, mostly; else an odd one, or one of the other book.</summary>
    private long Number(string kind)
    {
        var of = known.GetValueOrDefault(kind, []);
        return random.Next(10) switch
        {
            0 => odd.Whole(),
            1 => random.Next(1, 60),
            _ when kind == "few" => random.Next(0, 4),
            _ => of.Count > 0 ? of[random.Next(of.Count)] : random.Next(1, 60),
        };
    }

    private MultipartFormDataContent Form(out string body)
    {
        var (name, bytes) = Files.Odd(random);
        body = $"(file {name}, {bytes.Length} bytes)";
        var form = new MultipartFormDataContent();
        if (random.Next(10) > 0)
        {
            var file = new ByteArrayContent(bytes);
            file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
            form.Add(file, random.Next(2) == 0 ? "file" : "files", name);
        }
        else
        {
            form.Add(new StringContent(odd.Text()), "file");
        }

        return form;
    }

    /// <summary>Remembers the numbers in an answer, by what was asked for.</summary>
    private void Learn(ApiOperation operation, string text)
    {
        if (text.Length is > 0 and < 500_000 && text[0] is '{' or '[')
        {
            using var answer = JsonDocument.Parse(text);
            Learn(answer.RootElement, Resource(operation.Path));
        }
    }

    private void Learn(JsonElement of, string kind)
    {
        if (of.ValueKind == JsonValueKind.Array)
        {
            of.EnumerateArray().Take(50).ToList().ForEach(element => Learn(element, kind));
        }
        else if (of.ValueKind == JsonValueKind.Object)
        {
            foreach (var property in of.EnumerateObject())
            {
                if (
                    property is { Name: "id" or "number", Value.ValueKind: JsonValueKind.Number }
                    && property.Value.TryGetInt64(out var id)
                )
                {
                    Add(kind, id);
                }
                else if (property.Value.ValueKind == JsonValueKind.Array)
                {
                    Learn(property.Value, property.Name);
                }
            }
        }
    }

    private void Add(string kind, long id)
    {
        var of = known.TryGetValue(kind, out var list) ? list : known[kind] = [];
        if (of.Contains(id))
        {
            return;
        }

        if (of.Count > 200)
        {
            of.RemoveAt(random.Next(of.Count));
        }

        of.Add(id);
    }

    /// <summary>What the numbers in a path are of: <c>rounds</c> of <c>/api/books/{book}/rounds/{id}/release</c>.</summary>
    private static string Resource(string path) => path.Split('/').SkipWhile(p => p != "{book}").Skip(1).FirstOrDefault() ?? "books";

    private static bool IsNumber(JsonElement schema) =>
        schema.ValueKind == JsonValueKind.Object
        && schema.TryGetProperty("type", out var type)
        && type.ToString() is var written
        && (written.Contains("integer", StringComparison.Ordinal) || written.Contains("number", StringComparison.Ordinal));

    [GeneratedRegex(@"\{([a-zA-Z]+)(?::[a-z]+)?\}")]
    private static partial Regex Place();

    [GeneratedRegex("\"version\":\\d+")]
    private static partial Regex Version();
}
