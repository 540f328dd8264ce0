using CsCheck;
using Rendal.Core.Money;

namespace Rendal.Core.Tests.Money;

public class WrittenAmountTests
{
    [Theory]
    [InlineData("1234.50", DecimalMark.Point, "1234.50")]
    [InlineData("1,234.50", DecimalMark.Point, "1234.50")]
    [InlineData("1.234,50", DecimalMark.Comma, "1234.50")]
    [InlineData("1'234.50", DecimalMark.Point, "1234.50")]
    [InlineData("1’234.50", DecimalMark.Point, "1234.50")]
    [InlineData("1 234,50", DecimalMark.Comma, "1234.50")]
    [InlineData("1\u00A0234,50", DecimalMark.Comma, "1234.50")]
    [InlineData("1\u202F234,50", DecimalMark.Comma, "1234.50")]
    [InlineData("-12.00", DecimalMark.Point, "-12.00")]
    [InlineData("\u221212.00", DecimalMark.Point, "-12.00")]
    [InlineData("12.00-", DecimalMark.Point, "-12.00")]
    [InlineData("(12.00)", DecimalMark.Point, "-12.00")]
    [InlineData("12.00 CR", DecimalMark.Point, "-12.00")]
    [InlineData("12.00 DR", DecimalMark.Point, "12.00")]
    [InlineData("£12.00", DecimalMark.Point, "12.00")]
    [InlineData("-£12.00", DecimalMark.Point, "-12.00")]
    [InlineData("(£1,012.00)", DecimalMark.Point, "-1012.00")]
    [InlineData("12,00 EUR", DecimalMark.Comma, "12.00")]
    [InlineData("EUR 12,00-", DecimalMark.Comma, "-12.00")]
    [InlineData("100 IDR", DecimalMark.Point, "100")]
    [InlineData("$1,234.00", DecimalMark.Point, "1234.00")]
    [InlineData(".50", DecimalMark.Point, "0.50")]
    [InlineData("12.", DecimalMark.Point, "12")]
    [InlineData("1.234.567", DecimalMark.Comma, "1234567")]
    public void Reads_the_notations_of_the_trade(string text, DecimalMark mark, string value)
    {
        Assert.True(WrittenAmount.TryTake(text, out var amount));
        Assert.True(amount.TryValue(mark, out var read));
        Assert.Equal(decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture), read);
    }

    [Theory]
    [InlineData("")]
    [InlineData("n/a")]
    [InlineData("--12.00")]
    [InlineData("-(12.00)")]
    [InlineData("-12.00 CR")]
    [InlineData("12.00 x")]
    [InlineData("()")]
    [InlineData("-")]
    [InlineData("1e5")]
    [InlineData("12:30")]
    public void What_is_no_amount_is_not_read_as_one(string text) => Assert.False(WrittenAmount.TryTake(text, out _));

    [Theory]
    [InlineData("12,50", DecimalMark.Point)]
    [InlineData("1.23.456", DecimalMark.Comma)]
    [InlineData("1,234 567", DecimalMark.Point)]
    [InlineData("1,234,56.00", DecimalMark.Point)]
    [InlineData("1.234.50", DecimalMark.Point)]
    public void A_value_that_contradicts_the_mark_is_not_guessed(string text, DecimalMark mark)
    {
        Assert.True(WrittenAmount.TryTake(text, out var amount));
        Assert.False(amount.TryValue(mark, out _));
    }

    [Theory]
    [InlineData("1.234,5", DecimalMark.Comma)]
    [InlineData("1,234.5", DecimalMark.Point)]
    [InlineData("12,50", DecimalMark.Comma)]
    [InlineData("1.234.567", DecimalMark.Comma)]
    [InlineData("1 234,567", DecimalMark.Comma)]
    [InlineData("0,500", DecimalMark.Comma)]
    [InlineData("12345,678", DecimalMark.Comma)]
    [InlineData("1,234", null)]
    [InlineData("1.234", null)]
    [InlineData("120", null)]
    public void Tells_what_a_value_says_of_the_mark(string text, DecimalMark? mark)
    {
        Assert.True(WrittenAmount.TryTake(text, out var amount));
        Assert.Equal(mark, amount.Evidence());
    }

    [Fact]
    public void Any_amount_written_in_any_notation_is_read_back()
    {
        var notation = Gen.Select(
            Gen.Bool,
            Gen.Int[0, 7].Select(i => new[] { "", ",", ".", "'", "’", " ", "\u00A0", "\u202F" }[i]),
            Gen.Int[0, 5]
        );
        Gen.Select(Gen.Long[-99_999_999_999, 99_999_999_999], notation)
            .Sample(
                (cents, n) =>
                {
                    var (comma, thousands, form) = n;
                    var mark = comma ? "," : ".";
                    if (thousands == mark)
                    {
                        return;
                    }

                    var value = cents / 100m;
                    var whole = Math.Truncate(Math.Abs(value))
                        .ToString("#,##0", System.Globalization.CultureInfo.InvariantCulture)
                        .Replace(",", thousands);
                    var digits = $"{whole}{mark}{Math.Abs(cents % 100):00}";
                    var text =
                        value >= 0
                            ? digits
                            : form switch
                            {
                                0 => "-" + digits,
                                1 => "\u2212" + digits,
                                2 => digits + "-",
                                3 => $"({digits})",
                                4 => digits + " CR",
                                _ => "€ -" + digits,
                            };
                    Assert.True(WrittenAmount.TryTake(text, out var amount), text);
                    Assert.True(amount.TryValue(comma ? DecimalMark.Comma : DecimalMark.Point, out var read), text);
                    Assert.Equal(value, read);
                },
                iter: 20_000
            );
    }
}
