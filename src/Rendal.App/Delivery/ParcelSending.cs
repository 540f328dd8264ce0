using System.Collections.Concurrent;
using System.Diagnostics.CodeAnalysis;
using Microsoft.Extensions.Logging;
using Npgsql;
using Rendal.App.Senders;
using Rendal.Core.Dispatch;
using Rendal.Mail;
using Rendal.Store.Dispatch;

namespace Rendal.App.Delivery;

/// <summary>
/// Sends the parcels of one worker, several at the same time: messages are made as many at a time as there are
/// processors, and carried over a few connections to each server.
/// </summary>
public sealed partial class ParcelSending : IAsyncDisposable
{
    // These go to their end when a round is paused: those that are carried, and those whose turn is next.
    private const int BegunAtOnce = 3 * DelivererPool.ToAServer;

    private static readonly TimeSpan DatabaseAgain = TimeSpan.FromMilliseconds(250);

    [SuppressMessage(
        "Usage",
        "CA2213",
        Justification = "A SemaphoreSlim whose wait handle nobody asks for has nothing to be disposed of."
    )]
    private readonly SemaphoreSlim begun = new(BegunAtOnce);
    private readonly DispatchQueue queue;
    private readonly long worker;
    private readonly EndOfDataNotes notes;
    private readonly TimeProvider clock;
    private readonly ILogger log;
    private readonly ConcurrentDictionary<long, BoundedPool<MessageMaker>> makers = [];
    private readonly Func<BoundedPool<MessageMaker>> makersOfABook;
    private readonly SenderSecrets secrets;
    private readonly DelivererPool deliverers;

    /// <summary>Makes it for one worker.</summary>
    /// <param name="queue">Where parcels are claimed.</param>
    /// <param name="worker">The worker's number.</param>
    /// <param name="notes">Where it is noted that the end of a message is given.</param>
    /// <param name="source">The database.</param>
    /// <param name="secrets">The senders' passwords.</param>
    /// <param name="network">Which mail servers may be talked to.</param>
    /// <param name="clock">The time.</param>
    /// <param name="log">What went wrong.</param>
    public ParcelSending(
        DispatchQueue queue,
        long worker,
        EndOfDataNotes notes,
        NpgsqlDataSource source,
        SenderSecrets secrets,
        MailNetwork network,
        TimeProvider clock,
        ILogger log
    )
    {
        (this.queue, this.worker, this.notes, this.clock, this.log) = (queue, worker, notes, clock, log);
        makersOfABook = () => new BoundedPool<MessageMaker>(Environment.ProcessorCount, () => new MessageMaker(source, notes, clock, log));
        (this.secrets, deliverers) = (secrets, new DelivererPool(network));
    }

    /// <summary>
    /// Sends a parcel to its end. A try that has begun is not broken off when the program stops: that takes seconds, and leaves
    /// nothing unsure.
    /// </summary>
    /// <param name="parcel">The parcel, claimed by the worker.</param>
    /// <param name="stop">The program stops: no more is claimed beside it, and no try begins.</param>
    public async Task SendAsync(ClaimedParcel parcel, CancellationToken stop)
    {
        if (parcel.Message is not null)
        {
            await SendAsync(new MadeUp(parcel, null, null), stop);
            return;
        }

        IReadOnlyList<MadeUp> all;
        List<ClaimedParcel> claimed = [parcel];
        try
        {
            all = await makers.GetOrAdd(parcel.Book, _ => makersOfABook()).UseAsync(maker => maker.MakeAsync(parcel, NextAsync, stop));
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested)
        {
            foreach (var one in claimed)
            {
                await queue.GiveBackAsync(one, worker, CancellationToken.None);
            }

            return;
        }

        foreach (var made in all)
        {
            await SendAsync(made, stop);
        }

        async Task<ClaimedParcel?> NextAsync()
        {
            var next = stop.IsCancellationRequested
                ? null
                : (await queue.ClaimAsync(worker, 1, [], clock.GetUtcNow(), CancellationToken.None)).SingleOrDefault();
            if (next is not null)
            {
                claimed.Add(next);
            }

            return next;
        }
    }

    /// <summary>
    /// Lets go of what is only of use while there is something to send. Nothing is being sent. A round may be stopped and released again,
    /// a letterhead be changed, before something is.
    /// </summary>
    public async Task RestAsync()
    {
        await deliverers.DisposeAsync();
        foreach (var maker in makers.Values.SelectMany(m => m.Idle))
        {
            maker.Dispose();
        }

        makers.Clear();
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await deliverers.DisposeAsync();
        foreach (var maker in makers.Values.SelectMany(m => m.Idle))
        {
            maker.Dispose();
        }
    }

    private async Task SendAsync(MadeUp made, CancellationToken stop)
    {
        var parcel = made.Parcel;
        if (made.Problem.Length > 0)
        {
            await queue.RefuseAsync(parcel, worker, made.Problem, CancellationToken.None);
        }
        else if (await TryAsync(made, stop) is var (attempt, outcome))
        {
            await EndAsync(parcel, attempt, outcome, stop);
        }
    }

    /// <summary>
    /// Writes down how a try ended. What the server said is known here alone, so while the database is away it is kept, and written when
    /// that is back: nothing becomes unsure by it, unless the program stops meanwhile.
    /// </summary>
    private async Task EndAsync(ClaimedParcel parcel, long attempt, Outcome outcome, CancellationToken stop)
    {
        var (next, at) = (NextStep.Following(outcome, parcel.Attempts, parcel.Sender.Pauses, parcel.Taken.Count > 0), clock.GetUtcNow());
        while (true)
        {
            try
            {
                await queue.EndAttemptAsync(parcel, worker, attempt, outcome, next, at);
                return;
            }
            catch (NpgsqlException e) when (DispatchQueue.MayPass(e) && !stop.IsCancellationRequested)
            {
                OutcomeWaits(log, parcel.Parcel, e.Message);
                await Task.Delay(DatabaseAgain, stop).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            }
        }
    }

    /// <summary>Begins a try and carries it out. Null where it is not to be, or not any more.</summary>
    private async Task<(long Try, Outcome Outcome)?> TryAsync(MadeUp made, CancellationToken stop)
    {
        var parcel = made.Parcel;
        var account = parcel.Channel == Channel.Mail ? secrets.AccountOf(parcel.Book, parcel.TimeZone, parcel.Sender) : null;
        if (parcel.Channel == Channel.Mail && account is null)
        {
            // Nothing was tried, so that nothing stands in the log: the sender waits, once for all its parcels.
            await queue.PauseSenderAsync(parcel, SenderSecrets.CannotBeRead, CancellationToken.None);
            await queue.GiveBackAsync(parcel, worker, CancellationToken.None);
            return null;
        }

        // Stopping is looked at when its turn has come.
        await begun.WaitAsync(CancellationToken.None);
        try
        {
            if (
                stop.IsCancellationRequested
                || await queue.BeginAttemptAsync(parcel, worker, made.Message, made.Letter, clock.GetUtcNow()) is not { } attempt
            )
            {
                await queue.GiveBackAsync(parcel, worker, CancellationToken.None);
                return null;
            }

            return (
                attempt,
                parcel.Channel switch
                {
                    Channel.Mail => await CarryAsync(made, account!, attempt),
                    Channel.Post => new Outcome(OutcomeKind.Printed, DispatchQueue.ForThePost, []),
                    _ => new Outcome(OutcomeKind.Exported, "Made up for another mail program.", []),
                }
            );
        }
        catch (TakenOver)
        {
            ParcelTakenOver(log, parcel.Parcel);
            return null;
        }
        finally
        {
            begun.Release();
        }
    }

    private async Task<Outcome> CarryAsync(MadeUp made, MailAccount account, long attempt)
    {
        var parcel = made.Parcel;
        var self =
            parcel.SentAs.CopyToSelf
            && parcel.Taken.Count == 0
            && !parcel.Recipients.Contains(parcel.SentAs.Address, StringComparer.OrdinalIgnoreCase)
                ? parcel.SentAs.Address
                : null;
        List<string> recipients =
        [
            .. parcel.Recipients.Where(r => !parcel.Taken.Contains(r, StringComparer.OrdinalIgnoreCase)),
            .. self is null ? [] : new[] { self },
        ];
        try
        {
            var outcome = await deliverers.CarryAsync(
                account,
                parcel.SentAs.Address,
                made.Message?.Bytes ?? parcel.Message!,
                recipients,
                async () =>
                {
                    if (!await queue.MarkEndingAsync(parcel, worker, attempt, clock.GetUtcNow()))
                    {
                        throw new TakenOver();
                    }

                    notes.Note(attempt);
                }
            );
            return outcome.Without(self);
        }
        catch (NpgsqlException e) when (DispatchQueue.MayPass(e))
        {
            // Whether the mark was written or not: the end was not given.
            return new Outcome(
                OutcomeKind.Stopped,
                $"The database could not be written before the server had the whole message: {e.Message.ReplaceLineEndings(" ")}",
                []
            );
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "How parcel {Parcel} ended is written when the database is back: {Reason}")]
    private static partial void OutcomeWaits(ILogger log, long parcel, string reason);

    [LoggerMessage(Level = LogLevel.Warning, Message = "Parcel {Parcel} was taken over by another worker; the message was not completed")]
    private static partial void ParcelTakenOver(ILogger log, long parcel);

    private sealed class TakenOver : Exception;
}
