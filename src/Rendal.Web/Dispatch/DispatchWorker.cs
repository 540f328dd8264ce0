using Npgsql;
using Rendal.App.Delivery;
using Rendal.App.Senders;
using Rendal.Mail;
using Rendal.Store.Dispatch;
using Rendal.Web.Hosting;

namespace Rendal.Web.Dispatch;

/// <summary>Sends released parcels, a few at a time. Any number of these may run on any number of machines.</summary>
internal sealed partial class DispatchWorker(
    DispatchQueue queue,
    RoundEnds ends,
    [FromKeyedServices(DispatchQueue.Source)] NpgsqlDataSource source,
    SenderSecrets secrets,
    HostParts parts,
    MailNetwork network,
    TimeProvider clock,
    ILogger<DispatchWorker> log
) : BackgroundService
{
    // While some are carried, others are made, begun and ended. One book has half of them at the most: what is slow in it, a document or a
    // server, keeps no other book waiting.
    private const int AtOnce = 48;
    private const int OfOneBook = 24;
    private const int ClaimedTogether = 8;
    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan AMoment = TimeSpan.FromMilliseconds(1);
    private static readonly TimeSpan NoteEvery = TimeSpan.FromSeconds(1);
    private static readonly TimeSpan LookAgainWhileSending = TimeSpan.FromMilliseconds(500);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Making messages takes as many threads as there are processors for some time; what is carried must not wait for one.
        ThreadPool.GetMinThreads(out var threads, out var ports);
        ThreadPool.SetMinThreads(Math.Max(threads, Environment.ProcessorCount + AtOnce), ports);

        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await using var worker = await queue.RegisterAsync(stoppingToken);
                var given = new EndOfDataJournal(Path.Combine(parts.Data, "sending"), await queue.DatabaseAsync(stoppingToken));
                using var notes = given.Begin(worker.Number);
                await using var sending = new ParcelSending(queue, worker.Number, notes, source, secrets, network, clock, log);
                await SendAsync(worker, given, sending, stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (Exception e) when (e is NpgsqlException or IOException)
            {
                // The database is away. What this worker had claimed is seen to by whoever registers next.
                DatabaseUnreachable(log, e.Message);
                await PauseAsync(stoppingToken);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                // A fault of ours must not end sending, let alone the whole program.
                Unexpected(log, e);
                await PauseAsync(stoppingToken);
            }
        }
    }

    private async Task SendAsync(WorkerConnection worker, EndOfDataJournal given, ParcelSending sending, CancellationToken stop)
    {
        var underWay = new List<(long Book, Task Task)>();
        try
        {
            while (!stop.IsCancellationRequested)
            {
                await queue.RecoverAsync(given, clock.GetUtcNow(), stop);
                var nothingAt = await SendAllAsync(worker, sending, underWay, stop);
                await sending.RestAsync();
                await ends.NoteAsync(clock.GetUtcNow(), stop);
                await worker.WaitAsync(await UntilTurnAsync(LookAgain, nothingAt, stop), stop);
            }
        }
        finally
        {
            // What was claimed goes to its end; the fault by which this ends, if any, is told already.
            await Task.WhenAll(underWay.Select(u => u.Task)).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    /// <summary>Sends what is due until nothing is, and nothing is under way.</summary>
    /// <returns>As of when nothing was due.</returns>
    private async Task<DateTimeOffset> SendAllAsync(
        WorkerConnection worker,
        ParcelSending sending,
        List<(long Book, Task Task)> underWay,
        CancellationToken stop
    )
    {
        var noted = clock.GetTimestamp();
        (List<long> Busy, long Since) nothingBeside = ([], 0);
        while (true)
        {
            stop.ThrowIfCancellationRequested();
            var now = clock.GetUtcNow();
            var busy = underWay.CountBy(u => u.Book).Where(b => b.Value + ClaimedTogether > OfOneBook).Select(b => b.Key).ToList();

            // To find that nothing waits beside the busy books costs a look at all that waits in them.
            var isLookedFor =
                busy.Count == 0
                || !busy.SequenceEqual(nothingBeside.Busy)
                || clock.GetElapsedTime(nothingBeside.Since) >= LookAgainWhileSending;
            var claimed =
                isLookedFor && underWay.Count + ClaimedTogether <= AtOnce
                    ? await queue.ClaimAsync(worker.Number, ClaimedTogether, busy, now, stop)
                    : null;
            if (claimed is { Count: 0 })
            {
                nothingBeside = (busy, clock.GetTimestamp());
            }

            underWay.AddRange(
                claimed?.Select(parcel => (parcel.Book, Task.Run(() => sending.SendAsync(parcel, stop), CancellationToken.None))) ?? []
            );
            if (claimed is { Count: 0 } && underWay.Count == 0)
            {
                return now;
            }

            if (claimed is null or { Count: 0 })
            {
                await Task.WhenAny([
                    .. underWay.Select(u => u.Task),
                    .. claimed is null ? Array.Empty<Task>() : [Task.Delay(await UntilTurnAsync(LookAgainWhileSending, now, stop), stop)],
                ]);
                foreach (var ended in underWay.Where(u => u.Task.IsCompleted).ToList())
                {
                    underWay.Remove(ended);
                    await ended.Task;
                }

                // A round may end while others have still much to send.
                if (clock.GetElapsedTime(noted) >= NoteEvery)
                {
                    await ends.NoteAsync(clock.GetUtcNow(), stop);
                    noted = clock.GetTimestamp();
                }
            }
        }
    }

    /// <summary>
    /// How long it is until the next turn of an allowance comes that had not come when nothing was due, at most so long. One that has come
    /// since is not waited for.
    /// </summary>
    private async Task<TimeSpan> UntilTurnAsync(TimeSpan most, DateTimeOffset nothingAt, CancellationToken stop)
    {
        var turn = await queue.NextTurnAsync(nothingAt, stop) - clock.GetUtcNow();
        return turn < most ? (turn > AMoment ? turn.Value : AMoment) : most;
    }

    private static async Task PauseAsync(CancellationToken stop)
    {
        try
        {
            await Task.Delay(LookAgain, stop);
        }
        catch (OperationCanceledException)
        {
            // Stopping is seen by whoever called.
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The database cannot be reached or written, sending waits for it: {Reason}")]
    private static partial void DatabaseUnreachable(ILogger log, string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "Unexpected while sending; it goes on")]
    private static partial void Unexpected(ILogger log, Exception exception);
}
