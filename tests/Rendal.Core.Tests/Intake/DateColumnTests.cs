using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class DateColumnTests
{
    [Theory]
    [InlineData(DateOrder.DayFirst, "03/04/2026", "23/10/2026")]
    [InlineData(DateOrder.MonthFirst, "03/04/2026", "10/23/2026")]
    [InlineData(DateOrder.DayFirst, "23/10/2026", "24/10/2026", "10/25/2026")]
    public void The_values_decide_and_the_more_outvote_the_fewer(DateOrder expected, params string[] values)
    {
        foreach (var setting in new[] { DateOrder.DayFirst, DateOrder.MonthFirst })
        {
            Assert.Equal(expected, Of(values).Decide(setting));
        }
    }

    [Fact]
    public void Where_nothing_decides_the_setting_does_and_says_so()
    {
        var column = Of("03/04/2026", "05/06/2026");
        Assert.Equal(DateOrder.MonthFirst, column.Decide(DateOrder.MonthFirst));
        Assert.True(column.RestsOnSetting);
        Assert.Equal("day first, as set", column.Reason(DateOrder.DayFirst));
    }

    [Fact]
    public void Clear_dates_rest_on_nothing()
    {
        Assert.False(Of("2026-04-03", "4 May 2026", "04/04/2026").RestsOnSetting);
    }

    private static DateColumn Of(params string[] values)
    {
        var column = new DateColumn();
        for (var i = 0; i < values.Length; i++)
        {
            column.Show(values[i], i + 2);
        }

        return column;
    }
}
