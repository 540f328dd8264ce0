using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Rendal.Core.Tests;

namespace Rendal.Web.Tests;

/// <summary>A book of its own for one test, with a bookkeeper at it.</summary>
internal sealed record Desk(HttpClient Browser, long Book) : IDisposable
{
    /// <summary>The columns of the ledgers that most tests take in.</summary>
    public const string Headings = "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public string Api => $"/api/books/{Book}";

    public static async Task<Desk> AtAsync(RunningRendal rendal)
    {
        var browser = await rendal.SignedInAsync();
        return new Desk(browser, (await browser.PostJsonAsync("/api/books", RunningRendal.Firm($"Firm {Guid.NewGuid():N}"))).Id());
    }

    /// <summary>The browser of somebody else who was given the book.</summary>
    public async Task<HttpClient> ColleagueAsync(RunningRendal rendal)
    {
        var given = await Browser.PostJsonAsync($"{Api}/people", new { name = $"colleague-{Guid.NewGuid():N}" });
        var browser = rendal.Browser();
        var joined = await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
            browser,
            "/api/invitations/join",
            new { key = given.Text("key"), password = "a colleague's" },
            Cancel
        );
        Assert.Equal(System.Net.HttpStatusCode.NoContent, joined.StatusCode);
        return browser;
    }

    public async Task<HttpResponseMessage> UploadAsync(string name, byte[] content, string kind = "ledger")
    {
        using var form = new MultipartFormDataContent();
        var file = new ByteArrayContent(content);
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(file, "file", name);
        return await Browser.PostAsync($"{Api}/intakes?kind={kind}", form, Cancel);
    }

    /// <summary>Uploads lines to be looked at, and gives the number of the intake.</summary>
    public async Task<long> BeginAsync(string kind, params string[] lines) =>
        (
            await (
                await UploadAsync(kind == "ledger" ? "ledger.csv" : "list.csv", Encoding.UTF8.GetBytes(string.Join('\n', lines)), kind)
            ).JsonAsync()
        ).Id();

    /// <summary>Looks at an intake.</summary>
    public Task<JsonElement> LookAsync(long intake) => Browser.GetJsonAsync($"{Api}/intakes/{intake}");

    /// <summary>Takes a ledger in and keeps it.</summary>
    public Task<long> TakeInAsync(params string[] lines) => KeepAsync("ledger", lines);

    /// <summary>Takes a ledger or a customer list in and keeps it.</summary>
    public async Task<long> KeepAsync(string kind, params string[] lines)
    {
        var intake = await BeginAsync(kind, lines);
        await Browser.PostJsonAsync($"{Api}/intakes/{intake}/keep", new { });
        return intake;
    }

    /// <summary>Puts a customer's card right.</summary>
    public async Task<HttpResponseMessage> PutCardAsync(
        string key,
        string name,
        string address,
        string contact = "",
        string title = "",
        bool onHold = false,
        string delivery = "email",
        decimal? minimum = null,
        string headOffice = "",
        string notes = "",
        string groups = "branches",
        string? form = null,
        string language = "en",
        long? ownLayout = null,
        long? ownWording = null,
        string[]? postalLines = null,
        string country = "",
        params object[] more
    )
    {
        using var known = await Browser.GetAsync($"{Api}/customers/card?key={Uri.EscapeDataString(key)}", Cancel);
        var version = known.IsSuccessStatusCode ? (await known.JsonAsync()).GetProperty("version").GetInt64() : 0;
        return await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
            Browser,
            $"{Api}/customers/card?key={Uri.EscapeDataString(key)}",
            new
            {
                version,
                name,
                contacts = more.Prepend(
                    new
                    {
                        name = contact,
                        title,
                        address,
                        role = "to",
                        rounds = Array.Empty<string>(),
                    }
                ),
                salutation = "",
                delivery,
                postalLines = postalLines ?? [],
                country,
                language,
                terms = (object?)null,
                headOffice,
                groups,
                form,
                unit = "",
                minimumBalance = minimum,
                onHold,
                ownWording,
                ownLayout,
                notes,
            },
            Cancel
        );
    }

    /// <summary>Prepares a round at the end of October 2026, with a wording that leaves no slot empty.</summary>
    public async Task<JsonElement> PrepareAsync()
    {
        await WriteAsync(
            "<p>Please find what is open:</p><p><span data-slot=\"statement.table\"></span></p>",
            "Statement of <span data-slot=\"customer.name\"></span>"
        );
        return await Browser.PostJsonAsync($"{Api}/rounds", new { name = "October", asOf = "2026-10-31" });
    }

    /// <summary>Writes the wording that statements go with.</summary>
    public async Task<JsonElement> WriteAsync(string body, string subject = "Statement") =>
        await (await PutWordingAsync(body, subject)).JsonAsync();

    /// <summary>The same, with the answer where it may be refused.</summary>
    public async Task<HttpResponseMessage> PutWordingAsync(string body, string subject = "Statement")
    {
        var wordings = (await Browser.GetJsonAsync($"{Api}/wordings")).List("wordings");
        var wording = wordings.OrderBy(w => w.Text("name") != "Plain").First();
        return await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
            Browser,
            $"{Api}/wordings/{wording.Id()}",
            new
            {
                version = wording.GetProperty("version").GetInt64(),
                name = "Plain",
                language = "en",
                subject,
                body,
            },
            Cancel
        );
    }

    /// <summary>Makes a round like an earlier one, at the end of November 2026.</summary>
    public Task<JsonElement> CopyAsync(JsonElement round) =>
        Browser.PostJsonAsync(
            $"{Api}/rounds",
            new
            {
                name = "November",
                asOf = "2026-11-30",
                copyOf = round.Id(),
            }
        );

    /// <summary>The message of a parcel as it is read in the workbench.</summary>
    public async Task<string> MessageAsync(long parcel) => Untraced(await TracedAsync(parcel));

    /// <summary>The same with where its values are from.</summary>
    public async Task<string> TracedAsync(long parcel) => (await Browser.GetJsonAsync($"{Api}/parcels/{parcel}")).Text("message");

    /// <summary>Looks at the summary of a round, which must be about so many parcels, and releases what it shows.</summary>
    public async Task<HttpResponseMessage> ReleaseAsync(
        long round,
        int count,
        string? at = null,
        string channel = "mail",
        bool despiteLedger = false
    )
    {
        var summary = await SummaryAsync(round);
        Assert.Equal(count, summary.GetProperty("parcels").GetInt32());
        return await ReleaseSeenAsync(round, summary, at, channel, despiteLedger, seenChanges: true);
    }

    /// <summary>A message without where its values are from.</summary>
    public static string Untraced(string message) =>
        Regex.Replace(message, "<span data-from=\"[^\"]+\">([^<]*)</span>| data-from=\"[^\"]+\"", "$1");

    /// <summary>What is about to be released.</summary>
    public Task<JsonElement> SummaryAsync(long round) =>
        Browser.PostJsonAsync($"{Api}/rounds/{round}/summary", new { parcels = (long[]?)null });

    /// <summary>What is said to who releases without having seen what the summary says to have changed.</summary>
    public async Task<string> UnseenAsync(long round)
    {
        var summary = await SummaryAsync(round);
        var refused = await ReleaseSeenAsync(round, summary);
        Assert.Equal(
            (HttpStatusCode.Conflict, $"{summary.Text("changed")} Look at it, or say that you have seen it."),
            (refused.StatusCode, await refused.DetailAsync())
        );
        return summary.Text("changed");
    }

    /// <summary>Somebody has looked through a round, or at one parcel of it.</summary>
    public async Task LookAtAsync(long round, long? parcel = null)
    {
        var preparedAt = (await Browser.GetJsonAsync($"{Api}/rounds/{round}")).Text("preparedAt");
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                    Browser,
                    $"{Api}/rounds/{round}/looked-at",
                    new { preparedAt, parcel },
                    Cancel
                )
            ).StatusCode
        );
    }

    /// <summary>Releases what a summary showed.</summary>
    public async Task<HttpResponseMessage> ReleaseSeenAsync(
        long round,
        JsonElement summary,
        string? at = null,
        string channel = "mail",
        bool despiteLedger = false,
        bool seenChanges = false
    ) =>
        await System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
            Browser,
            $"{Api}/rounds/{round}/release",
            new
            {
                parcels = (long[]?)null,
                revision = summary.GetProperty("revision").GetInt64(),
                seen = summary.Text("seen"),
                at,
                channel,
                despiteLedger,
                seenChanges,
            },
            Cancel
        );

    /// <summary>The revision of a round now.</summary>
    public async Task<long> RevisionAsync(long round) =>
        (await Browser.GetJsonAsync($"{Api}/rounds/{round}")).GetProperty("revision").GetInt64();

    /// <summary>The round once none of its parcels is on its way any more.</summary>
    public async Task<JsonElement> SettledAsync(long round)
    {
        return await Eventually.BecomesAsync(
            () => Browser.GetJsonAsync($"{Api}/rounds/{round}"),
            view => view.List("parcels").All(p => p.Text("status") is not ("released" or "sending"))
        );
    }

    public void Dispose() => Browser.Dispose();
}
