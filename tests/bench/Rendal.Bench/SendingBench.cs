using System.Diagnostics;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;
using Rendal.Postroom;
using Rendal.Store.Rounds;
using Rendal.Trials;
using Rendal.Web.Hosting;

namespace Rendal.Bench;

/// <summary>
/// Parcels until the last is in the dispatch log, every step written down first, against smtp-source of Debian's postfix that pumps
/// ready-made messages of the same size into the same sink: once with messages that are on record, and once with each statement printed
/// and enclosed on the way.
/// </summary>
internal static class SendingBench
{
    private const int Messages = 3_000;
    private const int Printed = 1_000;
    private const int MessagesBefore = 300;
    private const int Sessions = 2;
    private const int MessageSize = 45_000;

    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    public static async Task<IReadOnlyList<Measurement>> RunAsync()
    {
        await using var rendal = await WholeRendal.StartAsync(Role.All);
        using var sink = Sink.Start();
        var port = sink?.Port;
        var app = rendal.App;

        // As a server that runs has done before.
        await PrintedAsync(app, port, MessagesBefore);
        var printed = await PrintedAsync(app, port, Printed);
        var (recorded, pumped) = await RecordedAsync(app, port, sink);
        var yardstick = pumped is { } p ? $"smtp-source {p:0} a second" : "smtp-source is not installed (Debian package postfix)";
        return
        [
            new Measurement(
                $"{Messages:N0} messages of {MessageSize / 1000} kB with an enclosure of 33 kB, put off by the server at "
                    + "first, sent and logged",
                $"{recorded:0} a second",
                yardstick,
                recorded / pumped,
                "≥ 0.25"
            ),
            new Measurement(
                $"{Printed:N0} of the same at the first try: the statement set, printed and enclosed on the way",
                $"{printed:0} a second",
                yardstick,
                printed / pumped,
                "–"
            ),
        ];
    }

    /// <summary>From the release: each document is set and printed when its turn comes.</summary>
    private static async Task<double> PrintedAsync(WebApplication app, int? port, int messages)
    {
        var round = await PreparedRound.MakeAsync(app.Services, messages, CancellationToken.None);
        await SendIntoAsync(round, port);
        var watch = Stopwatch.StartNew();
        await round.ReleaseAsync(CancellationToken.None);
        await UntilAllAreAsync(round, "sent", messages);
        return messages / watch.Elapsed.TotalSeconds;
    }

    /// <summary>
    /// From when what the server put off may be tried again: the messages are on record, as those are that smtp-source sends.
    /// </summary>
    private static async Task<(double Recorded, double? Pumped)> RecordedAsync(WebApplication app, int? port, Sink? sink)
    {
        var round = await PreparedRound.MakeAsync(app.Services, Messages, CancellationToken.None);
        var drills = app.Services.GetRequiredService<Drills>();
        drills.Begin("", new Drill(DrillStep.Sender, DrillAct.Answer, "451 4.7.1 Greylisted, try again later"));
        await round.ReleaseAsync(CancellationToken.None);
        await UntilAllAreAsync(round, "to-be-retried", Messages);
        drills.End("");

        await SendIntoAsync(round, port);
        List<double> pumping = [.. Pumping(sink)];
        var source = app.Services.GetRequiredService<NpgsqlDataSource>();
        await using var due = source.CreateCommand(
            $"update parcel set next_attempt_at = now() where book_id = {round.Book} and state = 'to-be-retried'"
        );
        var watch = Stopwatch.StartNew();
        await due.ExecuteNonQueryAsync();
        await using var told = source.CreateCommand($"notify {RoundStore.ReleasedChannel}");
        await told.ExecuteNonQueryAsync();
        await UntilAllAreAsync(round, "sent", Messages);
        var recorded = Messages / watch.Elapsed.TotalSeconds;

        // Before and after: a machine that is shared is not as fast at all times.
        pumping.AddRange(Pumping(sink));
        return (recorded, pumping.Count == 0 ? null : Messages / Rounds.Median(pumping));
    }

    /// <summary>Has a round go into the sink; where there is none it goes into the postroom, as it would anyway.</summary>
    private static async Task SendIntoAsync(PreparedRound round, int? port)
    {
        if (port is not { } sink)
        {
            return;
        }

        var sender = (await round.Senders.FindAsync(round.Sender, CancellationToken.None))!;
        await round.Senders.UpdateAsync(
            sender with
            {
                Port = sink,
                UserName = "",
                ProtectedPassword = null,
            },
            round.Person,
            DateOnly.FromDateTime(DateTime.UtcNow),
            CancellationToken.None
        );
    }

    private static async Task UntilAllAreAsync(PreparedRound round, string state, int parcels)
    {
        var watch = Stopwatch.StartNew();
        while (true)
        {
            if (watch.Elapsed > Longest)
            {
                throw new TimeoutException($"After {Longest.TotalMinutes:0} minutes not all parcels are {state}.");
            }

            var counts = await round.Dispatch.CountsAsync(round.Id, CancellationToken.None);
            if (counts.GetValueOrDefault(state) == parcels)
            {
                return;
            }

            if (counts.Keys.FirstOrDefault(s => s is not ("released" or "sending" or "sent" or "to-be-retried")) is { } other)
            {
                throw new InvalidOperationException($"A parcel is {other}: what was measured did not come out right.");
            }

            await Task.Delay(200, CancellationToken.None);
        }
    }

    /// <summary>The seconds that smtp-source takes, a few times; none where it is not installed.</summary>
    private static IEnumerable<double> Pumping(Sink? sink) =>
        sink is null
            ? []
            : Enumerable.Range(0, 3).Select(_ => Rounds.Seconds(() => Sink.Pump(sink.Port, Messages, Sessions, MessageSize)));
}
