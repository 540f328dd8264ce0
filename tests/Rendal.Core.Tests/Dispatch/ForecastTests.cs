using CsCheck;
using Rendal.Core.Dispatch;

namespace Rendal.Core.Tests.Dispatch;

public class ForecastTests
{
    private static readonly DateOnly Today = new(2026, 10, 31);

    [Fact]
    public void Without_an_allowance_all_go_today() =>
        Assert.Equal(new Forecast(300, 0, Today, null), Forecast.Of(300, null, null, 0, Today));

    [Fact]
    public void What_the_day_does_not_allow_goes_on_the_next() =>
        Assert.Equal(new Forecast(100, 200, Today.AddDays(1), TimeSpan.FromSeconds(50)), Forecast.Of(300, 120, 500, 400, Today));

    [Theory]
    [InlineData(500, 1)]
    [InlineData(501, 2)]
    [InlineData(1000, 2)]
    public void Days_are_counted_in_full(int left, int days) =>
        Assert.Equal(Today.AddDays(days), Forecast.Of(left, null, 500, 500, Today).LastDay);

    [Fact]
    public void Every_message_goes_once_and_no_day_has_more_than_it_may() =>
        Gen.Select(Gen.Int[0, 5000], Gen.Int[1, 700], Gen.Int[0, 900])
            .Sample(
                (left, aDay, begun) =>
                {
                    var forecast = Forecast.Of(left, null, aDay, begun, Today);
                    var days = forecast.LastDay.DayNumber - Today.DayNumber;
                    return forecast.Today + forecast.Later == left
                        && forecast.Today <= Math.Max(0, aDay - begun)
                        && forecast.Later <= days * aDay
                        && (days == 0 || forecast.Later > (days - 1) * aDay);
                }
            );
}
