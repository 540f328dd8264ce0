using Rendal.App.Delivery;

namespace Rendal.Web.Dispatch;

/// <summary>Tells of the rounds that have ended, beside those who send: a slow server keeps no parcel waiting.</summary>
internal sealed class RoundEndService(RoundEndNotice teller, TimeProvider clock, ILogger<RoundEndService> log)
    : PollingService("Telling of rounds that have ended", TimeSpan.FromSeconds(1), clock, log)
{
    /// <inheritdoc/>
    protected override Task LookAsync(CancellationToken stop) => teller.TellAsync(stop);
}
