using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Store.Books;

namespace Rendal.Store.Tests.Books;

public class DayOfABookTests
{
    [Theory]
    [InlineData("UTC", 2026, 11, 2, "2026-11-02T00:00:00Z")]
    [InlineData("Pacific/Kiritimati", 2026, 11, 2, "2026-11-01T10:00:00Z")]
    // Clocks are put forward at midnight: the day begins at one.
    [InlineData("Asia/Beirut", 2026, 3, 29, "2026-03-28T22:00:00Z")]
    // Clocks are put back at one: midnight comes twice, and the day begins with the first.
    [InlineData("America/Havana", 2026, 11, 1, "2026-11-01T04:00:00Z")]
    public void A_day_begins_with_its_first_moment_by_the_clock_of_the_book(string zone, int year, int month, int day, string start)
    {
        var book = new Book(
            1,
            Currency.Of("GBP"),
            30,
            zone,
            StatementRules.Default,
            new Firm("Tarnbrook Linen Hire", ["14 Tenter Lane"], [], []),
            new Dictionary<ContentKind, long>()
        );
        var (of, first) = (new DateOnly(year, month, day), DateTimeOffset.Parse(start, System.Globalization.CultureInfo.InvariantCulture));
        Assert.Equal(first, book.StartOf(of));
        Assert.Equal((of, of.AddDays(-1)), (book.DayOf(first), book.DayOf(first.AddTicks(-1))));
    }
}
