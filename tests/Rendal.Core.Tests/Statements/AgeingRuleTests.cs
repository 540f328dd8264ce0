using Rendal.Core.Statements;

namespace Rendal.Core.Tests.Statements;

public class AgeingRuleTests
{
    [Theory]
    [InlineData(-5, 0)]
    [InlineData(0, 0)]
    [InlineData(1, 1)]
    [InlineData(30, 1)]
    [InlineData(31, 2)]
    [InlineData(60, 2)]
    [InlineData(61, 3)]
    [InlineData(90, 3)]
    [InlineData(91, 4)]
    public void Days_fall_into_bands_by_their_upper_edges(int days, int band) => Assert.Equal(band, AgeingRule.Default.BandOf(days));

    [Fact]
    public void Bands_tell_the_days_they_span()
    {
        Assert.Equal(["", "1–30", "31–60", "61–90", "90+"], Enumerable.Range(0, 5).Select(AgeingRule.Default.Span));
        Assert.Equal(["", "1–7", "7+"], Enumerable.Range(0, 3).Select(new AgeingRule([7]).Span));
    }

    [Fact]
    public void Edges_have_to_grow()
    {
        Assert.Throws<ArgumentException>(() => new AgeingRule([30, 30]));
        Assert.Throws<ArgumentException>(() => new AgeingRule([]));
        Assert.Throws<ArgumentException>(() => new AgeingRule([0, 30]));
    }
}
