using CsCheck;
using Rendal.Core.Intake;
using Rendal.Core.Wordings;

namespace Rendal.Core.Tests.Intake;

public class WrittenDateTests
{
    [Theory]
    [InlineData("2026-10-31")]
    [InlineData("2026-10-31T00:00:00")]
    [InlineData("2026-10-31 00:00")]
    [InlineData("2026/10/31")]
    [InlineData("20261031")]
    [InlineData("31/10/2026")]
    [InlineData("31.10.2026")]
    [InlineData("31-10-26")]
    [InlineData("31 10 2026")]
    [InlineData("31 Oct 2026")]
    [InlineData("31-Oct-26")]
    [InlineData("31st October 2026")]
    [InlineData("Oct 31, 2026")]
    [InlineData("31. Oktober 2026")]
    [InlineData("31 octobre 2026")]
    [InlineData("31 de octubre de 2026")]
    [InlineData("31 ottobre 2026")]
    [InlineData("31 okt. 2026")]
    [InlineData("46326")]
    public void Reads_the_notations_of_the_trade(string text)
    {
        Assert.True(WrittenDate.TryTake(text, out var date));
        Assert.True(date.TryDay(DateOrder.DayFirst, out var day));
        Assert.Equal(new DateOnly(2026, 10, 31), day);
    }

    [Theory]
    [InlineData("31/02/2026")]
    [InlineData("31 February 2026")]
    [InlineData("2026-02-30")]
    [InlineData("00/10/2026")]
    [InlineData("31/09/2026")]
    public void A_day_that_does_not_exist_is_refused_in_every_order(string text)
    {
        Assert.True(WrittenDate.TryTake(text, out var date));
        foreach (var order in Enum.GetValues<DateOrder>())
        {
            Assert.False(date.TryDay(order, out _));
        }
    }

    [Theory]
    [InlineData("")]
    [InlineData("soon")]
    [InlineData("31/10")]
    [InlineData("10.5")]
    [InlineData("1234")]
    [InlineData("31 Foo 2026")]
    [InlineData("31/10/2026/1")]
    public void What_is_no_date_is_not_read_as_one(string text) => Assert.False(WrittenDate.TryTake(text, out _));

    [Theory]
    [InlineData("01/02/79", 2079)]
    [InlineData("01/02/80", 1980)]
    [InlineData("01/02/00", 2000)]
    [InlineData("01/02/99", 1999)]
    public void Two_figure_years_turn_at_eighty(string text, int year)
    {
        Assert.True(WrittenDate.TryTake(text, out var date));
        Assert.True(date.TryDay(DateOrder.DayFirst, out var day));
        Assert.Equal(year, day.Year);
    }

    [Theory]
    [InlineData("Mai", 5)]
    [InlineData("März", 3)]
    [InlineData("Mrz", 3)]
    [InlineData("Sept", 9)]
    [InlineData("févr", 2)]
    [InlineData("août", 8)]
    [InlineData("enero", 1)]
    [InlineData("dic", 12)]
    [InlineData("mei", 5)]
    public void Month_names_of_six_languages_are_known(string month, int number)
    {
        Assert.True(WrittenDate.TryTake($"3 {month} 2026", out var date));
        Assert.True(date.TryDay(DateOrder.DayFirst, out var day));
        Assert.Equal(number, day.Month);
    }

    [Fact]
    public void Year_first_is_never_forced_on_a_year_in_four_figures_at_the_end()
    {
        Assert.True(WrittenDate.TryTake("03/04/2026", out var date));
        Assert.False(date.TryDay(DateOrder.YearFirst, out _));
    }

    [Fact]
    public void Any_day_written_in_any_notation_is_read_back()
    {
        Gen.Select(Gen.Int[1, 36_524], Gen.Int[0, 8], Gen.Int[0, Language.All.Count - 1])
            .Sample(
                (number, form, language) =>
                {
                    var day = new DateOnly(1980, 1, 1).AddDays(number);
                    var inv = System.Globalization.CultureInfo.InvariantCulture;
                    var (text, order) = form switch
                    {
                        0 => (day.ToString("yyyy-MM-dd", inv), DateOrder.DayFirst),
                        1 => (day.ToString("dd/MM/yyyy", inv), DateOrder.DayFirst),
                        2 => (day.ToString("M-d-yyyy", inv), DateOrder.MonthFirst),
                        3 => (day.ToString("d.M.yy", inv), DateOrder.DayFirst),
                        4 => (day.ToString("yy/MM/dd", inv), DateOrder.YearFirst),
                        5 => (day.ToString("yyyyMMdd", inv), DateOrder.DayFirst),
                        6 => (day.ToString("MMM d, yyyy", inv), DateOrder.MonthFirst),
                        7 => ((day.DayNumber - new DateOnly(1899, 12, 30).DayNumber).ToString(inv), DateOrder.DayFirst),
                        _ => (Language.All[language].Write(day), DateOrder.DayFirst),
                    };
                    if (form is 3 or 4 && day.Year > 2079)
                    {
                        return;
                    }

                    Assert.True(WrittenDate.TryTake(text, out var date), text);
                    Assert.True(date.TryDay(order, out var read), text);
                    Assert.Equal(day, read);
                },
                iter: 20_000
            );
    }
}
