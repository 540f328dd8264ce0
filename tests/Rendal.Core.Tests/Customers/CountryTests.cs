using Rendal.Core.Customers;
using Rendal.Core.Layouts;

namespace Rendal.Core.Tests.Customers;

public class CountryTests
{
    [Theory]
    [InlineData("DE", "Deutschland", "Germany", "GERMANY ", "Allemagne", "Alemania", "de", "DEU", "Duitsland")]
    [InlineData("GB", "United Kingdom", "UK", "Vereinigtes Königreich", "Royaume-Uni", "England", "GBR")]
    [InlineData("FR", "France", "Frankreich", "F", "Francia")]
    [InlineData("NO", "Norway", "Norge", "Norwegen")]
    [InlineData("NL", "Netherlands", "The Netherlands", "Nederland", "Holland")]
    public void A_country_is_known_however_it_is_written(string code, params string[] written) =>
        Assert.All(written, w => Assert.Equal(code, Country.Code(w)));

    [Theory]
    [InlineData("Kelby KB1 2LH")]
    [InlineData("")]
    [InlineData("Elbonia")]
    public void What_is_no_country_is_none(string text) => Assert.Null(Country.Code(text));

    [Fact]
    public void Ways_to_write_what_is_not_known_differ_in_more_than_case_and_accents() =>
        Assert.Equal(Country.Key("Élbonia"), Country.Key(" ELBONIA."));

    [Fact]
    public void The_firms_own_country_is_what_its_address_ends_with()
    {
        Assert.Equal("GB", new Firm("Tarnbrook Linen Hire", ["1 Mill Lane", "Kelby KB1 2LH", "United Kingdom", ""], [], []).OwnCountry());
        Assert.Equal("", new Firm("Tarnbrook Linen Hire", ["1 Mill Lane", "Kelby KB1 2LH"], [], []).OwnCountry());
    }
}
