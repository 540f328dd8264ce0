using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class PostalCodeTests
{
    [Theory]
    [InlineData("3 Tenter Lane|Kelby KB2 4RT", "KB24RT")]
    [InlineData("1 Quay|Marl Cross|kb9 1aa", "KB91AA")]
    [InlineData("Am Kai 5|24937 Flensburg", "24937")]
    [InlineData("12345 Long Road|Kelby KB1 2LH", "KB12LH")]
    [InlineData("14 rue du Port|F-62200 Boulogne", "62200")]
    [InlineData("Kade 3|1012 AB Amsterdam", "1012AB")]
    [InlineData("Rua da Praia 3|4000-123 Porto", "4000123")]
    [InlineData("ul. Nowa 1|00-950 Warszawa", "00950")]
    [InlineData("Hauptstrasse 12|8001 Zürich", "8001")]
    [InlineData("The Pier", "")]
    [InlineData("", "")]
    public void The_postcode_is_found_wherever_the_country_writes_it(string lines, string expected) =>
        Assert.Equal(expected, PostalCode.Of(lines.Split('|')));
}
