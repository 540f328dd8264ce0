using Rendal.Core.Money;
using Rendal.Core.Wordings;

namespace Rendal.Core.Tests.Wordings;

public class LanguageTests
{
    private static readonly DateOnly Day = new(2026, 10, 31);

    [Fact]
    public void Dates_are_written_in_full()
    {
        Assert.Equal("31 October 2026", Language.English.Write(Day));
        Assert.Equal("31. Oktober 2026", Language.Of("de").Write(Day));
        Assert.Equal("31 octobre 2026", Language.Of("fr").Write(Day));
        Assert.Equal("1er octobre 2026", Language.Of("fr").Write(new DateOnly(2026, 10, 1)));
        Assert.Equal("31 de octubre de 2026", Language.Of("es").Write(Day));
    }

    [Fact]
    public void Short_dates_cannot_be_read_two_ways()
    {
        Assert.Equal("31 Oct 2026", Language.English.WriteShort(Day));
        Assert.Equal("31.10.2026", Language.Of("de").WriteShort(Day));
    }

    [Fact]
    public void Amounts_are_written_with_the_marks_of_the_language()
    {
        var euro = Currency.Of("EUR");
        Assert.Equal("1,234.50", Language.English.Write(1234.5m, euro));
        Assert.Equal("1.234,50", Language.Of("de").Write(1234.5m, euro));
        Assert.Equal("1\u202F234,50", Language.Of("fr").Write(1234.5m, euro));
        Assert.Equal("\u22121,234,567.00", Language.English.Write(-1234567m, euro));
        Assert.Equal("1,235", Language.English.Write(1234.5m, Currency.Of("JPY")));
        Assert.Equal("0.00", Language.English.Write(-0.001m, euro));
    }

    [Fact]
    public void The_currency_stands_where_the_language_puts_it()
    {
        Assert.Equal("£1,234.50", Language.English.WriteWithCurrency(1234.5m, Currency.Of("GBP")));
        Assert.Equal("\u2212£12.00", Language.English.WriteWithCurrency(-12m, Currency.Of("GBP")));
        Assert.Equal("CHF\u00A05.00", Language.English.WriteWithCurrency(5m, Currency.Of("CHF")));
        Assert.Equal("1.234,50\u00A0€", Language.Of("de").WriteWithCurrency(1234.5m, Currency.Of("EUR")));
    }

    [Theory]
    [InlineData("de-AT", "de")]
    [InlineData("FR", "fr")]
    public void A_language_is_found_by_its_code(string code, string found)
    {
        Assert.True(Language.TryParse(code, out var language));
        Assert.Equal(found, language.Code);
    }
}
