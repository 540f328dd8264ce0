using Rendal.Core.Money;

namespace Rendal.Core.Tests.Money;

public class CurrencyTests
{
    [Theory]
    [InlineData("GBP", 2)]
    [InlineData("JPY", 0)]
    [InlineData("KRW", 0)]
    [InlineData("KWD", 3)]
    [InlineData("BHD", 3)]
    [InlineData("JOD", 3)]
    [InlineData("OMR", 3)]
    [InlineData("TND", 3)]
    public void Minor_unit_is_that_of_the_standard(string code, int decimals) => Assert.Equal(decimals, Currency.Of(code).Decimals);

    [Theory]
    [InlineData(" gbp ", "GBP")]
    [InlineData("€", "EUR")]
    [InlineData("£", "GBP")]
    public void Reads_codes_in_any_case_and_signs(string text, string code)
    {
        Assert.True(Currency.TryParse(text, out var currency));
        Assert.Equal(code, currency.Code);
    }

    [Theory]
    [InlineData("$")]
    [InlineData("XXZ")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_no_currency_is_not_read_as_one(string? text) => Assert.False(Currency.TryParse(text, out _));

    [Fact]
    public void Halves_are_rounded_away_from_zero()
    {
        Assert.Equal(2.35m, Currency.Of("GBP").Round(2.345m));
        Assert.Equal(-2.35m, Currency.Of("GBP").Round(-2.345m));
        Assert.Equal(11m, Currency.Of("JPY").Round(10.5m));
    }

    [Fact]
    public void Plain_has_the_decimals_of_the_currency()
    {
        Assert.Equal("-1240.00", Currency.Of("GBP").Plain(-1240m));
        Assert.Equal("1240", Currency.Of("JPY").Plain(1240m));
        Assert.Equal("1.500", Currency.Of("KWD").Plain(1.5m));
    }

    [Fact]
    public void One_that_was_never_set_rounds_nothing_silently() =>
        Assert.Throws<InvalidOperationException>(() => default(Currency).Round(1.25m));
}
