using Rendal.Core.Dispatch;

namespace Rendal.Core.Tests.Dispatch;

public class PaceTests
{
    [Theory]
    [InlineData(5, 10, 30)]
    [InlineData(60, 5, 720)]
    [InlineData(60, 0.2, 3_600)]
    [InlineData(0, 10, 0)]
    public void It_is_told_by_the_time_it_took(int taken, double seconds, int aMinute) =>
        Assert.Equal(aMinute, Pace.AMinute(taken, TimeSpan.FromSeconds(seconds)));
}
