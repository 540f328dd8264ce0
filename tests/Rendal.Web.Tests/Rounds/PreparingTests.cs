using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.Core.Tests;
using Rendal.Store.Rounds;

namespace Rendal.Web.Tests.Rounds;

/// <summary>How far making up a round has come, and what is left where that was stopped.</summary>
public class PreparingTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        "Code,Kind,Number,Date,Due,Outstanding,E-mail",
        "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
    ];

    private NpgsqlDataSource Source => rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whoever_listens_hears_how_far_it_has_come_and_gets_the_round_at_the_end()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync([
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            .. Enumerable.Range(0, 5_000).Select(i => $"C{i},Invoice,T-{i},2026-09-01,2026-10-01,10.00,c{i}@inn.example"),
        ]);
        var made = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "October",
                asOf = "2026-10-31",
                prepared = false,
            }
        );
        Assert.Equal((true, 0), (made.GetProperty("isBehind").GetBoolean(), made.List("parcels").Count()));
        using var request = new HttpRequestMessage(HttpMethod.Post, $"{desk.Api}/rounds/{made.Id()}/prepare");
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("text/event-stream"));
        var answer = await desk.Browser.SendAsync(request, Cancel);
        var events = (await answer.Content.ReadAsStringAsync(Cancel)).Split("\n\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.All(events[..^1], e =>
            Assert.Matches("^event: progress\ndata: {\"stage\":\"(choosing from the ledger|making up parcels|keeping the parcels)\",", e)
        );
        var round = JsonDocument.Parse(events[^1]["event: done\ndata: ".Length..]).RootElement;
        Assert.Equal(
            (false, 5_000),
            (round.GetProperty("isBehind").GetBoolean(), round.List("groups").Sum(g => g.GetProperty("count").GetInt32()))
        );
    }

    [Fact]
    public async Task Who_goes_away_while_it_is_made_up_stops_it_and_what_was_there_before_stays()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = (await desk.PrepareAsync()).Id();
        await (await desk.PutCardAsync("AB01", "Abbot’s Table", "other@abbot.example")).JsonAsync();

        // The row of the round is taken, so that the parcels cannot be kept before whoever asked has gone.
        await using var connection = await Source.OpenConnectionAsync(Cancel);
        await using var transaction = await connection.BeginTransactionAsync(Cancel);
        await using var taken = new NpgsqlCommand("select from round where book_id = $1 and id = $2 for update", connection)
        {
            Parameters =
            {
                new() { Value = desk.Book },
                new() { Value = round },
            },
        };
        await taken.ExecuteNonQueryAsync(Cancel);
        using var request = new HttpRequestMessage(HttpMethod.Post, $"{desk.Api}/rounds/{round}/prepare");
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("text/event-stream"));
        var answer = await desk.Browser.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, Cancel);
        await WaitingAsync(1);
        answer.Dispose();
        await WaitingAsync(0);
        await transaction.RollbackAsync(Cancel);
        var now = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}");
        Assert.Equal((true, 2), (now.GetProperty("isBehind").GetBoolean(), now.List("parcels").Count()));
        Assert.DoesNotContain("other@abbot.example", now.GetRawText(), StringComparison.Ordinal);

        async Task WaitingAsync(int sessions)
        {
            await using var waiting = Source.CreateCommand(
                "select count(*) from pg_locks where not granted and pid <> pg_backend_pid() and locktype = 'transactionid' "
                    + "and pid in (select pid from pg_stat_activity where query like '%prepared_at_change from round%')"
            );
            await Eventually.HoldsAsync(async () => (long)(await waiting.ExecuteScalarAsync(Cancel))! == sessions);
        }
    }

    [Fact]
    public async Task A_round_that_was_changed_and_not_prepared_since_says_so_and_nothing_of_it_is_released_before_it_is()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var rounds = new RoundStore(Source, desk.Book);
        var stored = (await rounds.FindAsync(round.Id(), Cancel))!;
        var (summary, person) = (await desk.SummaryAsync(round.Id()), await PersonAsync(desk));

        // As it is when the process ends, or somebody stops it, between the change and making up the parcels.
        await new RoundChanges(Source, desk.Book).ChangeSettingsAsync(
            round.Id(),
            stored.Revision,
            stored.Settings with
            {
                Choice = stored.Choice with { LeastBalance = 15 },
            },
            person,
            Cancel
        );
        Assert.True((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).GetProperty("isBehind").GetBoolean());
        var refused = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/release",
            new
            {
                parcels = (long[]?)null,
                revision = stored.Revision + 1,
                seen = summary.Text("seen"),
                seenChanges = true,
            },
            Cancel
        );
        Assert.Equal(
            (
                HttpStatusCode.Conflict,
                "The parcels are not made up for what was chosen or decided since. Prepare it anew and look through it again."
            ),
            (refused.StatusCode, await refused.DetailAsync())
        );

        // The summary of what would be released makes them up first.
        Assert.Equal(1, (await desk.SummaryAsync(round.Id())).GetProperty("parcels").GetInt32());
        var now = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}");
        Assert.Equal((false, "BE02"), (now.GetProperty("isBehind").GetBoolean(), Assert.Single(now.List("parcels")).Text("customer")));
    }

    [Theory]
    [InlineData("")]
    [InlineData("ZZ99")]
    public async Task Nothing_is_decided_about_a_customer_who_is_not_there(string customer)
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        var round = await desk.PrepareAsync();
        var refused = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/rounds/{round.Id()}/decisions?revision=1000",
            new
            {
                customers = new[] { customer },
                decision = "held",
                reason = "",
            },
            Cancel
        );
        Assert.Equal((HttpStatusCode.NotFound, "This customer is not there."), (refused.StatusCode, await refused.DetailAsync()));
    }

    private async Task<long> PersonAsync(Desk desk)
    {
        await using var maker = Source.CreateCommand("select made_by from book where id = $1");
        maker.Parameters.Add(new() { Value = desk.Book });
        return (long)(await maker.ExecuteScalarAsync(Cancel))!;
    }
}
