using System.Globalization;
using Rendal.Core.Statements;

namespace Rendal.Core.Tests.Statements;

public class PeriodTests
{
    [Theory]
    [InlineData("2026-02-14", "2026-02-01", "2026-02-28")]
    [InlineData("2028-02-29", "2028-02-01", "2028-02-29")]
    [InlineData("2026-12-31", "2026-12-01", "2026-12-31")]
    public void The_month_of_a_day(string day, string from, string to) =>
        Assert.Equal(Of(from, to), Period.MonthOf(DateOnly.Parse(day, CultureInfo.InvariantCulture)));

    [Theory]
    [InlineData("2026-01-31", "2025-12-01", "2025-12-31")]
    [InlineData("2026-03-31", "2026-02-01", "2026-02-28")]
    public void The_month_before(string day, string from, string to) =>
        Assert.Equal(Of(from, to), Period.LastMonth(DateOnly.Parse(day, CultureInfo.InvariantCulture)));

    [Theory]
    [InlineData("2026-08-31", "2026-07-01", "2026-09-30", "2026-04-01", "2026-06-30")]
    [InlineData("2026-01-01", "2026-01-01", "2026-03-31", "2025-10-01", "2025-12-31")]
    public void Quarters(string day, string from, string to, string lastFrom, string lastTo)
    {
        Assert.Equal(Of(from, to), Period.QuarterOf(DateOnly.Parse(day, CultureInfo.InvariantCulture)));
        Assert.Equal(Of(lastFrom, lastTo), Period.LastQuarter(DateOnly.Parse(day, CultureInfo.InvariantCulture)));
    }

    private static Period Of(string from, string to) =>
        new(DateOnly.Parse(from, CultureInfo.InvariantCulture), DateOnly.Parse(to, CultureInfo.InvariantCulture));
}
