using Rendal.App.Returned;
using Rendal.Store.Returned;

namespace Rendal.Web.Dispatch;

/// <summary>Looks through the mailboxes of senders every ten minutes.</summary>
internal sealed class ReplyMailboxService(
    ReplyMailboxStore mailboxes,
    ReplyFetching fetching,
    TimeProvider clock,
    ILogger<ReplyMailboxService> log
) : PollingService("Fetching what came back", TimeSpan.FromSeconds(20), clock, log)
{
    private static readonly TimeSpan Every = TimeSpan.FromMinutes(10);

    // A mailbox that drips must not keep the others waiting for long.
    private static readonly TimeSpan LongestLook = TimeSpan.FromMinutes(5);

    private readonly TimeProvider clock = clock;

    /// <inheritdoc/>
    protected override async Task LookAsync(CancellationToken stop)
    {
        while (await mailboxes.ClaimDueAsync(clock.GetUtcNow(), Every, stop) is { } mailbox)
        {
            await fetching.FetchAsync(mailbox, null, LongestLook, stop);
        }
    }
}
