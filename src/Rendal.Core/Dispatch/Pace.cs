namespace Rendal.Core.Dispatch;

/// <summary>How fast messages go.</summary>
public static class Pace
{
    // What went within less than a second says nothing of a minute.
    private static readonly TimeSpan Shortest = TimeSpan.FromSeconds(1);

    /// <summary>How many go a minute: 5 within 10 seconds are 30, and 60 within the first 5 seconds are 720.</summary>
    /// <param name="taken">How many went.</param>
    /// <param name="within">In what time; less than a second counts as one.</param>
    public static int AMinute(int taken, TimeSpan within) =>
        (int)Math.Round(taken * 60 / Math.Max(within.TotalSeconds, Shortest.TotalSeconds));
}
