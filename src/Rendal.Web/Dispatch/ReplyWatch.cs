using Npgsql;
using Rendal.Store.Returned;

namespace Rendal.Web.Dispatch;

/// <summary>Looks through the mailboxes of senders every ten minutes. Any number of these may run on any number of machines.</summary>
internal sealed partial class ReplyWatch(ReplyMailboxStore mailboxes, ReplyFetching fetching, TimeProvider clock, ILogger<ReplyWatch> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);
    private static readonly TimeSpan LookAgain = TimeSpan.FromSeconds(20);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                while (await mailboxes.ClaimDueAsync(clock.GetUtcNow(), Every, stoppingToken) is { } mailbox)
                {
                    await fetching.FetchAsync(mailbox, null, stoppingToken);
                }
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (NpgsqlException e)
            {
                // The database is away; what was claimed is due again in ten minutes.
                DatabaseAway(log, e.Message);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                // A fault of ours must not end fetching, let alone the whole program.
                Unexpected(log, e);
            }

            await Task.Delay(LookAgain, clock, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "What came back cannot be fetched, as the database cannot be reached or written: {Reason}")]
    private static partial void DatabaseAway(ILogger log, string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "Fetching what came back failed")]
    private static partial void Unexpected(ILogger log, Exception fault);
}
