using System.Net;
using System.Text.Json;
using Npgsql;
using Rendal.Core.Dispatch;

namespace Rendal.Web.Tests.Rounds;

/// <summary>Whatever state a parcel came into, a person can lead it on. Nothing is sent here, so that each state holds still.</summary>
public class WaysOutTests
{
    private const string Row = "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example";

    /// <summary>What stands for a parcel of another round, which is prepared.</summary>
    private const string Elsewhere = "another round";

    /// <summary>What a worker does by itself, while there is one.</summary>
    private static readonly (string From, string To)[] Workers =
    [
        ("released", "sending"),
        ("to-be-retried", "sending"),
        ("sending", "sent"),
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Each_state_of_a_parcel_is_left_by_a_person_towards_sent_or_another_round()
    {
        await using var rendal = new RunningRendal(sends: false);
        await rendal.InitializeAsync();
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, Row);
        var round = (await desk.PrepareAsync()).Id();
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels").Single().Id();
        await (await desk.ReleaseAsync(round, 1)).JsonAsync();
        await using var owner = NpgsqlDataSource.Create(rendal.OwnersDatabase);
        await TriedAsync(owner, desk.Book, parcel);

        var states = Enum.GetValues<ParcelState>()
            .Select(s => (State: s.Code(), Problem: ""))
            .Append((State: "held", Problem: "It could not be made."))
            .ToList();
        var edges = new List<(string From, string To)>();
        foreach (var (state, problem) in states)
        {
            foreach (
                var act in new Func<Task<HttpResponseMessage>>[]
                {
                    () => PostAsync($"/parcels/{parcel}/retry"),
                    () => PostAsync($"/parcels/{parcel}/unsure", new { went = true }),
                    () => PostAsync($"/parcels/{parcel}/unsure", new { went = false }),
                    () => PostAsync($"/rounds/{round}/stop"),
                    () => PostAsync($"/rounds/{round}/exported-went"),
                    () => PostAsync($"/dispatch/{parcel}/repeat"),
                    () => PostAsync($"/rounds/{round}/rest"),
                }
            )
            {
                await using (
                    var set = owner.CreateCommand(
                        "update parcel set state = $3, problem = $4, worker = case when $3 = 'sending' then 1 end where "
                            + "book_id = $1 and id = $2"
                    )
                )
                {
                    set.Parameters.AddRange(
                        new[] { desk.Book, parcel, state, (object)problem }.Select(v => new NpgsqlParameter { Value = v }).ToArray()
                    );
                    Assert.Equal(1, await set.ExecuteNonQueryAsync(Cancel));
                }

                var before = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
                using var answer = await act();
                Assert.True(answer.IsSuccessStatusCode || answer.StatusCode == HttpStatusCode.Conflict, $"{state}: {answer.StatusCode}");
                if (answer.IsSuccessStatusCode)
                {
                    // What can be done is what the pages are told that can be.
                    var asked = answer.RequestMessage!.RequestUri!.AbsolutePath;
                    Assert.True(
                        !asked.EndsWith("/retry", StringComparison.Ordinal)
                            || before.List("parcels").Single().GetProperty("canBeRetried").GetBoolean()
                    );
                    Assert.True(!asked.EndsWith("/rest", StringComparison.Ordinal) || before.GetProperty("rest").GetInt32() == 1);
                    edges.Add((Named(state, problem), await NowAsync(await answer.Content.ReadAsStringAsync(Cancel))));
                }
            }
        }

        foreach (var (state, problem) in states)
        {
            Assert.Contains(edges, e => e.From == Named(state, problem) && e.To != e.From);
            Assert.True(
                Leads(Named(state, problem), [.. edges, .. Workers], []),
                $"nothing leads on from “{Named(state, problem)}”: {string.Join(", ", edges.Distinct())}"
            );
        }

        // What a person alone can do leads on as well: no state hangs on a worker.
        Assert.Contains(edges, e => e is { From: "sending", To: "prepared" });
        Assert.Contains(edges, e => e is { From: "held: It could not be made.", To: "released" });

        Task<HttpResponseMessage> PostAsync(string path, object? body = null) =>
            System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(desk.Browser, desk.Api + path, body ?? new { }, Cancel);

        async Task<string> NowAsync(string answer)
        {
            var made =
                answer.Length > 0
                && JsonDocument.Parse(answer).RootElement is { ValueKind: JsonValueKind.Object } view
                && (view.TryGetProperty("id", out var id) || view.TryGetProperty("round", out id))
                    ? id.GetInt64()
                    : round;
            var view2 = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{made}");
            var one = view2.List("parcels").Single();
            Assert.True(made == round || one.Text("status") == "prepared", one.Text("status"));
            return made == round ? Named(one.Text("status"), one.Text("problem")) : Elsewhere;
        }
    }

    /// <summary>Has a parcel been offered to a server that wanted it later: its round stays released.</summary>
    private static async Task TriedAsync(NpgsqlDataSource owner, long book, long parcel)
    {
        await using var command = owner.CreateCommand(
            "insert into delivery_attempt (book_id, parcel_id, worker, started_at, ended_at, outcome, answer) values ($1, $2, 1, "
                + "now(), now(), 'try-later', '451 4.3.0 later')"
        );
        command.Parameters.AddRange(new[] { book, parcel }.Select(v => new NpgsqlParameter { Value = v }).ToArray());
        Assert.Equal(1, await command.ExecuteNonQueryAsync(Cancel));
    }

    [Fact]
    public async Task Before_a_round_is_released_each_of_its_parcels_can_be_held_and_let_go_again()
    {
        await using var rendal = new RunningRendal(sends: false);
        await rendal.InitializeAsync();
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, Row);
        var round = (await desk.PrepareAsync()).Id();
        foreach (var (decision, status) in new (string?, string)[] { ("held", "held"), (null, "prepared") })
        {
            await desk.Browser.PostJsonAsync(
                $"{desk.Api}/rounds/{round}/decisions?revision={await desk.RevisionAsync(round)}",
                new
                {
                    customers = new[] { "AB01" },
                    decision,
                    reason = "",
                }
            );
            Assert.Equal(status, (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels").Single().Text("status"));
        }

        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round, 1)).StatusCode);
    }

    [Fact]
    public async Task What_is_left_of_a_round_goes_with_one_new_round_and_only_once()
    {
        await using var rendal = new RunningRendal(sends: false);
        await rendal.InitializeAsync();
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            Row,
            Row.Replace("AB01", "BE02", StringComparison.Ordinal).Replace("T-1", "T-2", StringComparison.Ordinal)
        );
        var prepared = await desk.PrepareAsync();
        var round = prepared.Id();
        await (await desk.ReleaseAsync(round, 2)).JsonAsync();
        await using (var owner = NpgsqlDataSource.Create(rendal.OwnersDatabase))
        {
            await TriedAsync(owner, desk.Book, prepared.List("parcels").First().Id());
        }

        await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round}/stop", null, Cancel)).JsonAsync();
        Assert.Equal(2, (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).GetProperty("rest").GetInt32());
        var both = await Task.WhenAll(
            Enumerable.Range(0, 2).Select(_ => desk.Browser.PostAsync($"{desk.Api}/rounds/{round}/rest", null, Cancel))
        );
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(a => a.StatusCode).Order());
        var rest = await both.Single(a => a.IsSuccessStatusCode).JsonAsync();
        Assert.Equal(["AB01", "BE02"], rest.List("parcels").Select(p => p.Text("customer")).Order());
        var gone = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
        Assert.Equal(0, gone.GetProperty("rest").GetInt32());
        Assert.All(gone.List("parcels"), p => Assert.Equal(("held", "it goes with another round"), (p.Text("status"), p.Text("problem"))));
    }

    [Fact]
    public async Task A_round_from_a_ledger_that_is_the_ledger_no_longer_is_released_only_by_who_says_so()
    {
        await using var rendal = new RunningRendal(sends: false);
        await rendal.InitializeAsync();
        using var desk = await Desk.AtAsync(rendal);
        var first = await desk.TakeInAsync(Desk.Headings, Row);
        var round = (await desk.PrepareAsync()).Id();
        Assert.Equal("", await DoubtAsync());
        var second = await desk.TakeInAsync(Desk.Headings, Row.Replace("10.00", "7.00", StringComparison.Ordinal));
        Assert.Equal("This round is from ledger.csv, and a newer file, ledger.csv, is the ledger now.", await DoubtAsync());
        using (var refused = await desk.ReleaseAsync(round, 1))
        {
            Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
            Assert.Contains("is the ledger now", await refused.DetailAsync(), StringComparison.Ordinal);
        }

        await (await desk.Browser.PostAsync($"{desk.Api}/intakes/{second}/undo", null, Cancel)).JsonAsync();
        Assert.Equal("", await DoubtAsync());
        await (await desk.Browser.PostAsync($"{desk.Api}/intakes/{first}/undo", null, Cancel)).JsonAsync();
        Assert.Equal("This round is from ledger.csv, which was undone since.", await DoubtAsync());
        Assert.Equal(HttpStatusCode.Conflict, (await desk.ReleaseAsync(round, 1)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await desk.ReleaseAsync(round, 1, despiteLedger: true)).StatusCode);

        async Task<string> DoubtAsync() => (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).Text("ledgerDoubt");
    }

    private static string Named(string state, string problem) => problem.Length == 0 ? state : $"{state}: {problem}";

    private static bool Leads(string from, IReadOnlyCollection<(string From, string To)> edges, HashSet<string> been) =>
        from is "sent" or Elsewhere || (been.Add(from) && edges.Any(e => e.From == from && Leads(e.To, edges, been)));
}
