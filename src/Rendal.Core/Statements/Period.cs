namespace Rendal.Core.Statements;

/// <summary>A span of days, both ends included.</summary>
/// <param name="From">The first day.</param>
/// <param name="To">The last day.</param>
public readonly record struct Period(DateOnly From, DateOnly To)
{
    /// <summary>The calendar month of a day: 1 to 28 February 2026 for 14 February 2026.</summary>
    public static Period MonthOf(DateOnly day)
    {
        var first = new DateOnly(day.Year, day.Month, 1);
        return new Period(first, first.AddMonths(1).AddDays(-1));
    }

    /// <summary>The calendar month before that of a day: December 2025 for 31 January 2026.</summary>
    public static Period LastMonth(DateOnly day) => MonthOf(MonthOf(day).From.AddDays(-1));

    /// <summary>The calendar quarter of a day: July to September for 31 August.</summary>
    public static Period QuarterOf(DateOnly day)
    {
        var first = new DateOnly(day.Year, ((day.Month - 1) / 3 * 3) + 1, 1);
        return new Period(first, first.AddMonths(3).AddDays(-1));
    }

    /// <summary>The calendar quarter before that of a day: October to December 2025 for 1 January 2026.</summary>
    public static Period LastQuarter(DateOnly day) => QuarterOf(QuarterOf(day).From.AddDays(-1));
}
