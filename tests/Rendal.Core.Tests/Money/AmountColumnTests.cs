using Rendal.Core.Money;

namespace Rendal.Core.Tests.Money;

public class AmountColumnTests
{
    [Fact]
    public void One_clear_value_decides_for_the_whole_column()
    {
        var column = Of("1,234", "5,678", "12,5");
        Assert.Equal(DecimalMark.Comma, column.Decide(DecimalMark.Point));
        Assert.False(column.RestsOnSetting);
        Assert.Equal("decimal comma: “12,5” in row 4", column.Reason(DecimalMark.Point));
    }

    [Fact]
    public void Where_every_value_could_be_either_the_setting_decides()
    {
        var column = Of("1,234", "5,678");
        Assert.Equal(DecimalMark.Comma, column.Decide(DecimalMark.Comma));
        Assert.Equal(DecimalMark.Point, column.Decide(DecimalMark.Point));
        Assert.True(column.RestsOnSetting);
    }

    [Fact]
    public void Whole_amounts_rest_on_nothing()
    {
        Assert.False(Of("120", "7").RestsOnSetting);
    }

    [Fact]
    public void The_more_outvote_the_fewer()
    {
        Assert.Equal(DecimalMark.Point, Of("1.50", "2.50", "3,50").Decide(DecimalMark.Comma));
    }

    private static AmountColumn Of(params string[] values)
    {
        var column = new AmountColumn();
        for (var i = 0; i < values.Length; i++)
        {
            column.Show(values[i], i + 2);
        }

        return column;
    }
}
