using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Dispatch;
using Rendal.Core.Tests;
using Rendal.Postroom;
using Rendal.Trials;

namespace Rendal.Web.Tests.Dispatch;

/// <summary>
/// What goes away in the middle of a round and comes back. Each test has a Rendal of its own, whose parts it may take away.
/// </summary>
public class OutageTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task PostgreSQL_restarted_in_the_middle_of_a_round_leaves_nothing_half_done_and_sending_goes_on_by_itself()
    {
        await using var rendal = await RunningAsync();
        var round = await BegunAsync(rendal, parcels: 60);
        await rendal.RestartDatabaseAsync();
        await ThroughAsync(round);
        await AssertOnceAsync(rendal.Mailbox, round, 60);
        Assert.DoesNotContain(await round.Rounds.ParcelsAsync(round.Id, Cancel), p => p.State == ParcelState.Unsure);
    }

    [Fact]
    public async Task While_PostgreSQL_is_away_a_person_is_told_so_and_afterwards_the_same_request_is_done()
    {
        await using var rendal = await RunningAsync();
        using var desk = await Desk.AtAsync(rendal);
        await rendal.StopDatabaseAsync();
        foreach (var path in new[] { $"{desk.Api}/rounds", "/api/session", $"{desk.Api}/customers" })
        {
            using var away = await desk.Browser.GetAsync(path, Cancel);
            Assert.Equal(System.Net.HttpStatusCode.ServiceUnavailable, away.StatusCode);
            Assert.StartsWith("The database cannot be reached at the moment.", await away.DetailAsync());
        }

        Assert.Equal(
            System.Net.HttpStatusCode.ServiceUnavailable,
            (await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example")).StatusCode
        );
        await rendal.RestartDatabaseAsync();
        await Eventually.HoldsAsync(async () => (await desk.Browser.GetAsync($"{desk.Api}/rounds", Cancel)).IsSuccessStatusCode);

        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
    }

    [Fact]
    public async Task A_postroom_that_takes_nothing_for_a_while_uses_up_no_tries_and_sending_goes_on_by_itself()
    {
        await using var rendal = await RunningAsync();
        var drills = rendal.App.Services.GetRequiredService<Drills>();
        drills.Begin("", new Drill(DrillStep.Greeting, DrillAct.Answer, "421 4.3.2 closed for a minute"));
        var round = await PreparedRound.MakeAsync(rendal.App.Services, 20, Cancel);
        await round.ReleaseAsync(Cancel);
        await Eventually.HoldsAsync(async () =>
            (await round.Senders.FindAsync(round.Sender, Cancel))!.Unreachable is { Words: var words }
            && words.Contains("421 4.3.2 closed", StringComparison.Ordinal)
        );

        Assert.DoesNotContain(await round.Rounds.ParcelsAsync(round.Id, Cancel), p =>
            p.State is ParcelState.Refused or ParcelState.Unsure
        );
        drills.End("");
        await ThroughAsync(round);
        await AssertOnceAsync(rendal.Mailbox, round, 20);
        Assert.Null((await round.Senders.FindAsync(round.Sender, Cancel))!.Unreachable);
    }

    [Fact]
    public async Task A_postroom_that_is_gone_for_a_while_is_asked_again_and_sending_goes_on_by_itself()
    {
        await using var rendal = await RunningAsync();
        var round = await PreparedRound.MakeAsync(rendal.App.Services, 20, Cancel);
        var folder = Directory.CreateTempSubdirectory("rendal-postroom-").FullName;
        var port = FreePort.Find();
        var sender = (await round.Senders.FindAsync(round.Sender, Cancel))!;
        var secret = rendal.App.Services.GetRequiredService<SenderSecrets>().Protect("practice", sender.Host, port, sender.Security);
        await round.Senders.UpdateAsync(
            sender with
            {
                Port = port,
                AMinute = 300,
                ProtectedPassword = secret,
            },
            round.Person,
            DateOnly.FromDateTime(DateTime.UtcNow),
            Cancel
        );
        await using (var first = await PostroomAsync(port, folder))
        {
            await round.ReleaseAsync(Cancel);
            await Eventually.HoldsAsync(() => first.Services.GetRequiredService<Mailbox>().Of(sender.UserName).Count >= 5);
        }

        await Eventually.HoldsAsync(async () => (await round.Senders.FindAsync(round.Sender, Cancel))!.Unreachable is not null);

        Assert.DoesNotContain(await round.Rounds.ParcelsAsync(round.Id, Cancel), p => p.State is ParcelState.Refused);
        await using (var second = await PostroomAsync(port, folder))
        {
            await ThroughAsync(round);
            await AssertOnceAsync(second.Services.GetRequiredService<Mailbox>(), round, 20);
        }

        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task While_the_log_cannot_be_written_nothing_goes_out_and_then_it_goes_on()
    {
        await using var rendal = await RunningAsync();
        var source = rendal.App.Services.GetRequiredService<NpgsqlDataSource>();

        // What PostgreSQL says when its disk is full, at the very write that comes before the first byte of a message.
        await using var owner = NpgsqlDataSource.Create(rendal.OwnersDatabase);
        await RunAsync(
            owner,
            "create function disk_full() returns trigger language plpgsql as $$ begin raise exception using errcode = "
                + "'53100', message = 'could not extend file: No space left on device'; end $$"
        );
        await RunAsync(owner, "create trigger disk_full before insert on message for each row execute function disk_full()");
        var round = await PreparedRound.MakeAsync(rendal.App.Services, 20, Cancel);
        await round.ReleaseAsync(Cancel);

        // Every parcel that a worker had in its hands is given back.
        await Eventually.HoldsAsync(async () => await WasGivenBackAsync(source) || !await round.IsUnderWayAsync(Cancel));

        Assert.Empty(rendal.Mailbox.Of($"book-{round.Book}"));
        await RunAsync(owner, "drop trigger disk_full on message");
        await ThroughAsync(round);
        await AssertOnceAsync(rendal.Mailbox, round, 20);
    }

    private static async Task<RunningRendal> RunningAsync()
    {
        var rendal = new RunningRendal();
        await rendal.InitializeAsync();
        return rendal;
    }

    /// <summary>A postroom of its own, which can be closed and opened again with what it had.</summary>
    private static async Task<WebApplication> PostroomAsync(int port, string folder)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.Services.AddSingleton(TimeProvider.System).AddPostroom(folder, _ => PracticeAccounts.Anybody);
        builder.WebHost.ConfigureKestrel(options => options.ListenForMail(port));
        var app = builder.Build();
        await app.StartAsync(Cancel);
        return app;
    }

    /// <summary>A round of which some went already.</summary>
    private static async Task<PreparedRound> BegunAsync(RunningRendal rendal, int parcels)
    {
        var round = await PreparedRound.MakeAsync(rendal.App.Services, parcels, Cancel);
        await round.ReleaseAsync(Cancel);
        await Eventually.HoldsAsync(() => rendal.Mailbox.Of($"book-{round.Book}").Count >= 5);

        return round;
    }

    private static async Task ThroughAsync(PreparedRound round)
    {
        await Eventually.HoldsAsync(async () => !await UnderWayAsync());

        async Task<bool> UnderWayAsync()
        {
            try
            {
                return await round.IsUnderWayAsync(Cancel);
            }
            catch (NpgsqlException)
            {
                // The database is on its way back; whoever sends waits for it as well.
                return true;
            }
        }
    }

    private static async Task AssertOnceAsync(Mailbox mailbox, PreparedRound round, int parcels)
    {
        var all = await round.Rounds.ParcelsAsync(round.Id, Cancel);
        Assert.Equal(parcels, all.Count);
        var deliveries = mailbox.Deliveries($"book-{round.Book}");
        Assert.All(deliveries.Values, times => Assert.Equal(1, times));
        var unsure = all.Count(p => p.State == ParcelState.Unsure);
        Assert.Equal(parcels, all.Count(p => p.State == ParcelState.Sent) + unsure);
        Assert.InRange(deliveries.Count, parcels - unsure, parcels);
        Assert.InRange(unsure, 0, 2);
    }

    private static async Task<bool> WasGivenBackAsync(NpgsqlDataSource source)
    {
        await using var command = source.CreateCommand("select count(*) from parcel where state = 'released' and attempts > 0");
        return (long)(await command.ExecuteScalarAsync(Cancel))! > 0;
    }

    private static async Task RunAsync(NpgsqlDataSource source, string sql)
    {
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync(Cancel);
    }
}
