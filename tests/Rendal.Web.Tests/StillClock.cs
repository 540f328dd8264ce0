namespace Rendal.Web.Tests;

/// <summary>A clock that stands still until it is put forward. What waits for a time to pass waits for that of the machine.</summary>
internal sealed class StillClock : TimeProvider
{
    private DateTimeOffset now = DateTimeOffset.UtcNow;

    public void Advance(TimeSpan by) => now += by;

    public override DateTimeOffset GetUtcNow() => now;
}
