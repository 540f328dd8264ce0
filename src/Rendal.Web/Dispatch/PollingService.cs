using Npgsql;

namespace Rendal.Web.Dispatch;

/// <summary>
/// Looks again and again whether there is something to do, as long as the program runs. Any number of these may run on any number of
/// machines.
/// </summary>
/// <param name="what">What it does, as the subject of a sentence.</param>
/// <param name="again">How long it waits between two looks.</param>
/// <param name="clock">The clock.</param>
/// <param name="log">The log.</param>
internal abstract partial class PollingService(string what, TimeSpan again, TimeProvider clock, ILogger log) : BackgroundService
{
    /// <summary>Does what there is to do now.</summary>
    protected abstract Task LookAsync(CancellationToken stop);

    /// <inheritdoc/>
    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await LookAsync(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
            catch (NpgsqlException e)
            {
                // What was claimed is due again later, what was not is claimed when the database is back.
                DatabaseUnreachable(log, what, e.Message);
            }
            catch (Exception e) when (!stoppingToken.IsCancellationRequested)
            {
                // A fault of ours must not end the watch, let alone the whole program.
                Unexpected(log, e, what);
            }

            await Task.Delay(again, clock, stoppingToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "{What} waits, as the database cannot be reached or written: {Reason}")]
    private static partial void DatabaseUnreachable(ILogger log, string what, string reason);

    [LoggerMessage(Level = LogLevel.Error, Message = "{What} failed")]
    private static partial void Unexpected(ILogger log, Exception fault, string what);
}
