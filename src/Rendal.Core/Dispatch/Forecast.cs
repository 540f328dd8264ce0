namespace Rendal.Core.Dispatch;

/// <summary>When the messages that are left will go, as far as the sender's allowance tells.</summary>
/// <param name="Today">How many go today.</param>
/// <param name="Later">How many go on the days after.</param>
/// <param name="LastDay">The day on which the last goes.</param>
/// <param name="TodayTakes">How long those of today take at the least; null where there is no allowance a minute.</param>
public sealed record Forecast(int Today, int Later, DateOnly LastDay, TimeSpan? TodayTakes)
{
    /// <summary>
    /// Tells it: with 300 left, 120 a minute and 500 a day of which 400 are used up, 100 go today within 50 seconds, and 200 tomorrow.
    /// </summary>
    /// <param name="left">How many messages are left.</param>
    /// <param name="aMinute">The allowance a minute; null for none.</param>
    /// <param name="aDay">The allowance a day; null for none.</param>
    /// <param name="begunToday">How many of the day's are used up.</param>
    /// <param name="today">The day.</param>
    public static Forecast Of(int left, int? aMinute, int? aDay, int begunToday, DateOnly today)
    {
        var now = aDay is { } most ? Math.Min(left, Math.Max(0, most - begunToday)) : left;
        var later = left - now;
        return new Forecast(
            now,
            later,
            later == 0 ? today : today.AddDays((later + aDay!.Value - 1) / aDay.Value),
            aMinute is { } pace ? TimeSpan.FromMinutes((double)now / pace) : null
        );
    }
}
