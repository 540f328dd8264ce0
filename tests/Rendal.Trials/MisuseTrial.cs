using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Npgsql;
using Rendal.Postroom;
using Rendal.Store.Cluster;
using Rendal.Web.Postroom;

namespace Rendal.Trials;

/// <summary>What is done to an installation that sends.</summary>
internal enum Misuse
{
    /// <summary>The program is killed and started again.</summary>
    Kill,

    /// <summary>The program is stopped by Ctrl-C and started again.</summary>
    Stop,

    /// <summary>The database server is killed; who runs it starts it again.</summary>
    KillDatabase,

    /// <summary>The database server is restarted by its administrator.</summary>
    RestartDatabase,

    /// <summary>The folder is copied while it is used, and the copy is started beside it.</summary>
    CopyFolder,

    /// <summary>The keys are deleted, and the program is killed and started again.</summary>
    LoseKeys,

    /// <summary>The disk of the database is full for a while.</summary>
    FillDisk,

    /// <summary>A second process sends along, and is killed.</summary>
    SecondProcess,

    /// <summary>A person stops the round.</summary>
    StopRound,
}

/// <summary>What came of it.</summary>
/// <param name="Parcels">How many parcels were released.</param>
/// <param name="Standings">How many stand how at the end.</param>
/// <param name="MostAttempts">The most tries that one parcel had.</param>
/// <param name="Untrue">What the log says and is not so, or the other way round. Nothing may be.</param>
internal sealed record MisuseResult(
    int Parcels,
    IReadOnlyDictionary<string, int> Standings,
    int MostAttempts,
    IReadOnlyList<string> Untrue
);

/// <summary>Does to an installation of its own what people and machines do in a week, each thing while a round is under way.</summary>
/// <param name="random">Tells the order and the moments.</param>
/// <param name="ports">Finds free ones.</param>
internal sealed class MisuseTrial(Random random, Func<int> ports) : IAsyncDisposable
{
    /// <summary>How many parcels each round has.</summary>
    public const int Customers = 24;

    private const string Password = "launder-and-press";
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(5);
    private static readonly string[] UnderWay = ["released", "sending", "to-be-retried"];

    private readonly string folder = Directory.CreateTempSubdirectory("rendal-misuse-").FullName;
    private readonly List<string> untrue = [];
    private (int Web, int Mail, int Imap) at;
    private RendalProcess rendal = null!;
    private HttpClient browser = null!;
    private string api = "";
    private long book;

    /// <summary>Does everything once, in some order.</summary>
    public async Task<MisuseResult> RunAsync(CancellationToken cancel)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(Patience);
        at = (ports(), ports(), ports());
        await StartAsync(limit.Token);
        await MakeBookAsync(limit.Token);
        var misuses = Enum.GetValues<Misuse>();
        random.Shuffle(misuses);
        foreach (var misuse in misuses)
        {
            var round = await ReleaseAsync(misuse.ToString(), limit.Token);
            await Task.Delay(random.Next(0, 1_500), limit.Token);
            await DoAsync(misuse, round, limit.Token);
        }

        await ThroughAsync(limit.Token);
        return await CompareAsync(limit.Token);
    }

    public async ValueTask DisposeAsync()
    {
        browser?.Dispose();
        await (rendal?.DisposeAsync() ?? ValueTask.CompletedTask);
        Directory.Delete(folder, recursive: true);
    }

    private async Task DoAsync(Misuse misuse, long round, CancellationToken cancel)
    {
        switch (misuse)
        {
            case Misuse.Kill:
                await rendal.KillAsync();
                await StartAsync(cancel);
                break;
            case Misuse.Stop:
                await rendal.StopAsync();
                await StartAsync(cancel);
                break;
            case Misuse.KillDatabase:
                await RunAsync("kill", "-KILL", File.ReadLines(Path.Combine(folder, "postgresql", "postmaster.pid")).First());
                break;
            case Misuse.RestartDatabase:
                await using (var cluster = await ClusterAsync(cancel))
                {
                    await cluster.RestartAsync();
                }

                break;
            case Misuse.CopyFolder:
                await CopyAsync(cancel);
                break;
            case Misuse.LoseKeys:
                await rendal.KillAsync();
                Directory.Delete(Path.Combine(folder, "keys"), recursive: true);
                await StartAsync(cancel);
                break;
            case Misuse.FillDisk:
                await FillDiskAsync(cancel);
                break;
            case Misuse.SecondProcess:
                await using (
                    var second = await RendalProcess.StartAsync(folder, (ports(), ports(), ports()), cancel, "worker")
                        ?? throw new InvalidOperationException("The second process did not join.")
                )
                {
                    await Task.Delay(random.Next(0, 1_000), cancel);
                    await second.KillAsync();
                }

                break;
            default:
                using (var answer = await browser.PostAsync($"{api}/rounds/{round}/stop", null, cancel))
                {
                    answer.EnsureSuccessStatusCode();
                }

                break;
        }
    }

    /// <summary>What is copied sends nothing of its own accord, and does nothing to what it was copied from.</summary>
    private async Task CopyAsync(CancellationToken cancel)
    {
        var copy = folder + "-copy";
        try
        {
            await RunAsync("cp", "-a", folder, copy);
            var before = new Mailbox(Path.Combine(copy, "postroom")).Of(BookAccounts.Name(book)).Count;

            // A copy of a database that was being written may not start; then it says so and sends nothing either.
            await using (var other = await RendalProcess.StartAsync(copy, (ports(), ports(), ports()), cancel))
            {
                await Task.Delay(other is null ? 0 : 2_000, cancel);
            }

            if (new Mailbox(Path.Combine(copy, "postroom")).Of(BookAccounts.Name(book)).Count != before)
            {
                untrue.Add("the copied folder sent what the first one sends");
            }
        }
        finally
        {
            Directory.Delete(copy, recursive: true);
        }
    }

    /// <summary>What PostgreSQL says when its disk is full, at the very write that comes before the first byte of a message.</summary>
    private async Task FillDiskAsync(CancellationToken cancel)
    {
        await using var owner = await OwnerAsync(cancel);
        await RunSqlAsync(
            owner,
            "create function disk_full() returns trigger language plpgsql as $$ begin raise exception using errcode = "
                + "'53100', message = 'could not extend file: No space left on device'; end $$",
            cancel
        );
        await RunSqlAsync(owner, "create trigger disk_full before insert on message for each row execute function disk_full()", cancel);
        await Task.Delay(random.Next(500, 2_000), cancel);
        await RunSqlAsync(owner, "drop function disk_full() cascade", cancel);
    }

    private async Task StartAsync(CancellationToken cancel)
    {
        browser?.Dispose();
        await (rendal?.DisposeAsync() ?? ValueTask.CompletedTask);
        rendal = await RendalProcess.StartAsync(folder, at, cancel) ?? throw new InvalidOperationException("Rendal did not start.");
        browser = rendal.Browser();
        if (book != 0)
        {
            using var answer = await browser.PostAsJsonAsync("/api/session", new { name = "odile", password = Password }, cancel);
            answer.EnsureSuccessStatusCode();
        }
    }

    private async Task MakeBookAsync(CancellationToken cancel)
    {
        await PostAsync(
            "/api/first-run",
            new
            {
                key = rendal.FirstRunKey,
                name = "odile",
                password = Password,
                book = new
                {
                    name = "Tarnbrook Linen Hire",
                    currency = "GBP",
                    addressLines = new[] { "14 Tenter Lane" },
                    contactLines = Array.Empty<string>(),
                    paymentLines = new[] { "By transfer" },
                    timeZone = "Europe/London",
                },
            },
            cancel
        );
        book = (long)(await browser.GetFromJsonAsync<JsonNode>("/api/session", cancel))!["books"]![0]!["id"]!;
        api = $"/api/books/{book}";
        using var form = new MultipartFormDataContent();
        var lines = Enumerable
            .Range(0, Customers)
            .Select(c => $"C{c:000},Invoice,T-{c},2026-09-01,2026-10-01,{c + 10}.50,c{c}@inn.example");
        var file = new ByteArrayContent(
            Encoding.UTF8.GetBytes(string.Join('\n', lines.Prepend("Code,Kind,Number,Date,Due,Outstanding,E-mail")))
        );
        file.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        form.Add(file, "file", "ledger.csv");
        using var begun = await browser.PostAsync($"{api}/intakes?kind=ledger", form, cancel);
        await PostAsync($"{api}/intakes/{(await begun.Content.ReadFromJsonAsync<JsonNode>(cancel))!["id"]}/keep", new { }, cancel);
        var wording = (await browser.GetFromJsonAsync<JsonNode>($"{api}/wordings", cancel))!["wordings"]![0]!;
        using var worded = await browser.PutAsJsonAsync(
            $"{api}/wordings/{wording["id"]}",
            new
            {
                version = (long)wording["version"]!,
                name = "Plain",
                language = "en",
                subject = "Statement",
                body = "<p>Your statement is enclosed.</p>",
            },
            cancel
        );
        worded.EnsureSuccessStatusCode();

        // Slow enough for a round to be under way whatever is done, and fast enough for all of them to end.
        var sender = (await browser.GetFromJsonAsync<JsonArray>($"{api}/senders", cancel))![0]!;
        (sender["aMinute"], sender["password"]) = (900, null);
        using var slowed = await browser.PutAsJsonAsync($"{api}/senders/{sender["id"]}", sender, cancel);
        slowed.EnsureSuccessStatusCode();
    }

    /// <summary>Makes a round of all customers and releases it.</summary>
    private async Task<long> ReleaseAsync(string name, CancellationToken cancel)
    {
        var round = (long)(await PostAsync($"{api}/rounds", new { name, asOf = "2026-10-31" }, cancel))!["id"]!;
        var summary = (await PostAsync($"{api}/rounds/{round}/summary", new { parcels = (long[]?)null }, cancel))!;
        await PostAsync(
            $"{api}/rounds/{round}/release",
            new
            {
                parcels = (long[]?)null,
                revision = (long)summary["revision"]!,
                seen = (string)summary["seen"]!,
            },
            cancel
        );
        return round;
    }

    /// <summary>Waits until nothing is under way any more.</summary>
    private async Task ThroughAsync(CancellationToken cancel)
    {
        while (true)
        {
            try
            {
                await using var owner = await OwnerAsync(cancel);
                await using var left = owner.CreateCommand("select count(*) from parcel where state = any ($1)");
                left.Parameters.Add(new() { Value = UnderWay });
                if ((long)(await left.ExecuteScalarAsync(cancel))! == 0)
                {
                    return;
                }
            }
            catch (NpgsqlException e) when (e.IsTransient)
            {
                // The last misuse was done to the database, and it is on its way back.
            }

            await Task.Delay(500, cancel);
        }
    }

    /// <summary>Compares what the log says with what arrived.</summary>
    private async Task<MisuseResult> CompareAsync(CancellationToken cancel)
    {
        var parcels = new List<(string State, string Problem, int Attempts, bool Accepted, bool Otherwise, string? Message)>();
        await using (var owner = await OwnerAsync(cancel))
        await using (
            var command = owner.CreateCommand(
                """
                select p.state, p.problem, (select count(*) from delivery_attempt t where t.parcel_id = p.id)::int,
                    exists (select from delivery_attempt t where t.parcel_id = p.id and t.outcome = 'accepted'),
                    exists (select from delivery_attempt t where t.parcel_id = p.id
                        and (t.ended_at is null or t.outcome not in ('accepted', 'try-later', 'unreachable', 'stopped', 'unanswered'))),
                    m.message_id
                from parcel p left join message m on m.book_id = p.book_id and m.parcel_id = p.id
                """
            )
        )
        await using (var reader = await command.ExecuteReaderAsync(cancel))
        {
            while (await reader.ReadAsync(cancel))
            {
                parcels.Add(
                    (
                        reader.GetString(0),
                        reader.GetString(1),
                        reader.GetInt32(2),
                        reader.GetBoolean(3),
                        reader.GetBoolean(4),
                        reader.IsDBNull(5) ? null : reader.GetString(5)
                    )
                );
            }
        }

        await rendal.StopAsync();
        var arrived = new Mailbox(Path.Combine(folder, "postroom")).Deliveries(BookAccounts.Name(book));
        foreach (var (state, problem, tries, accepted, otherwise, message) in parcels)
        {
            var times = message is null ? 0 : arrived.GetValueOrDefault(message);
            Demand(times <= 1, $"{message} arrived {times} times");
            Demand(
                accepted == (state == "sent"),
                $"{message} is {state}, and the log says {(accepted ? "" : "not ")}that it was accepted"
            );
            Demand(state != "sent" || times == 1, $"{message} counts as sent and is not there");
            Demand(times == 0 || state is "sent" or "unsure", $"{message} arrived and counts as {state}");
            Demand(!otherwise, $"a try of {message} ended in a way that nothing did");
            Demand(
                state is "sent" or "unsure" or "prepared" || (state == "held" && problem.Length > 0),
                $"{message} is {state} without a reason"
            );
        }

        Demand(arrived.Keys.All(m => parcels.Any(p => p.Message == m)), "a message arrived that is nobody’s");
        Demand(!File.Exists(Path.Combine(folder, "postgresql", "postmaster.pid")), "PostgreSQL was left running");
        return new MisuseResult(
            parcels.Count,
            parcels.GroupBy(p => p.State).ToDictionary(g => g.Key, g => g.Count()),
            parcels.Max(p => p.Attempts),
            untrue
        );

        void Demand(bool so, string otherwise)
        {
            if (!so)
            {
                untrue.Add(otherwise);
            }
        }
    }

    private async Task<JsonNode?> PostAsync(string path, object body, CancellationToken cancel)
    {
        while (true)
        {
            using var answer = await browser.PostAsJsonAsync(path, body, cancel);
            var text = await answer.Content.ReadAsStringAsync(cancel);
            if (answer.StatusCode == HttpStatusCode.ServiceUnavailable)
            {
                // The database is away: as the pages do, the same is asked again.
                await Task.Delay(200, cancel);
                continue;
            }

            return answer.IsSuccessStatusCode
                ? text.Length == 0
                    ? null
                    : JsonNode.Parse(text)
                : throw new InvalidOperationException($"{path}: {answer.StatusCode} {text}");
        }
    }

    private async Task<LocalCluster> ClusterAsync(CancellationToken cancel)
    {
        while (true)
        {
            if (await LocalCluster.FindRunningAsync(folder, cancel) is { } cluster)
            {
                return cluster;
            }

            await Task.Delay(200, cancel);
        }
    }

    private async Task<NpgsqlDataSource> OwnerAsync(CancellationToken cancel)
    {
        await using var cluster = await ClusterAsync(cancel);
        return NpgsqlDataSource.Create((await cluster.DatabaseAsync("rendal", cancel)).Owner);
    }

    private static async Task RunSqlAsync(NpgsqlDataSource source, string sql, CancellationToken cancel)
    {
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(cancel);
    }

    private static async Task RunAsync(string program, params string[] arguments)
    {
        using var process = Process.Start(program, arguments);
        await process.WaitForExitAsync();
    }
}
