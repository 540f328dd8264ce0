using Rendal.Files.Workbooks;

namespace Rendal.Files.Tests.Workbooks;

public sealed class ExcelCellFormatTests
{
    [Theory]
    [InlineData("#,##0.00", 1234.5, "1,234.50")]
    [InlineData("#,##0.00_);[Red](#,##0.00)", -1234.5, "(1,234.50)")]
    [InlineData("\"£\"#,##0.00", 1234.5, "£1,234.50")]
    [InlineData("[$€-407] #,##0.00", 12, "€ 12.00")]
    [InlineData("_-* #,##0.00 €_-", 80, "80.00 €")]
    [InlineData("0%", 0.2, "20%")]
    [InlineData("#,##0,", 12345, "12")]
    [InlineData("0.00;-0.00;\"nil\"", 0, "nil")]
    [InlineData(";;;", 12.5, "12.5")]
    public void A_number_is_shown_as_its_cell_shows_it(string format, double number, string shown) =>
        Assert.Equal(shown, ExcelCellFormat.Of(format)?.Show((decimal)number));

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("General")]
    [InlineData("dd/mm/yyyy")]
    [InlineData("[h]:mm")]
    [InlineData("# ?/?")]
    [InlineData("[")]
    public void Where_it_is_shown_plainly_there_is_none(string? format) => Assert.Null(ExcelCellFormat.Of(format));

    [Fact]
    public void No_format_of_the_length_that_is_read_fails_or_shows_more_than_can_be_looked_at()
    {
        string[] formats =
        [
            new('0', 255),
            new('#', 255),
            "0." + new string('0', 250),
            "0E+" + new string('0', 250),
            new(',', 255),
            "0" + new string(',', 254),
            "0" + new string('%', 254),
            new('_', 255),
            new('*', 255),
            "[>=99999999999999999999999999]0;[<1E400]0",
            "[Color99]0",
            "\"" + new string('x', 254),
            "@",
            "0;0;0;0;0;0",
            "\\",
        ];
        decimal[] numbers = [0, 1, -1, 0.01m, 1234.5m, decimal.MaxValue / 2, -0.0000000000000000000000000001m];
        foreach (var format in formats)
        {
            Assert.All(numbers, n => Assert.InRange(ExcelCellFormat.Of(format)?.Show(n).Length ?? 1, 1, 1_000));
        }
    }
}
