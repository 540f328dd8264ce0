using CsCheck;
using Rendal.Core.Layouts;

namespace Rendal.Core.Tests.Layouts;

public class BarCodeTests
{
    [Fact]
    public void Code_39_has_start_and_stop_and_a_narrow_space_between_characters()
    {
        // A = wnnnnwnnw after and before * = nwnnwnwnn.
        Assert.Equal(
            "1w11w1w11 1 w1111w11w 1 1w11w1w11".Replace(" ", "", StringComparison.Ordinal),
            Written(new BarCode(BarCodeKind.Code39, "A"))
        );
        Assert.Equal((9 * 42) + 41, new BarCode(BarCodeKind.Code39, new string('7', 40)).Widths().Count);
    }

    [Theory]
    // Start B is 104; A is 33 and B is 34: 104 + 33 + 2 × 34 = 205, and 205 modulo 103 is 102.
    [InlineData("AB", "211214 111323 131123 411131 2331112")]
    // Start C is 105; pairs of digits are their own values: 105 + 12 + 2 × 34 = 185, and 185 modulo 103 is 82.
    [InlineData("1234", "211232 112232 131123 121241 2331112")]
    public void Code_128_has_start_text_check_and_stop(string text, string widths) =>
        Assert.Equal(widths.Replace(" ", "", StringComparison.Ordinal), Written(new BarCode(BarCodeKind.Code128, text)));

    [Fact]
    public void Every_character_of_code_128_is_eleven_modules_wide_with_an_even_number_of_bar_modules() =>
        Gen.Char[' ', '~']
            .Array[1, BarCode.Longest]
            .Sample(text =>
            {
                var widths = new BarCode(BarCodeKind.Code128, new string(text)).Widths();
                var characters = widths.Take(widths.Count - 7).Chunk(6).ToList();
                Assert.All(characters, c => Assert.Equal(11, c.Sum()));
                // The standard's own check of a table: the bars of each character come to an even number of modules.
                Assert.All(characters, c => Assert.Equal(0, (c[0] + c[2] + c[4]) % 2));
                Assert.Equal(13, widths.Skip(widths.Count - 7).Sum());
            });

    [Fact]
    public void Pairs_of_digits_make_a_code_shorter() =>
        Assert.True(
            new BarCode(BarCodeKind.Code128, "123456789012").Widths().Count
                < new BarCode(BarCodeKind.Code128, "ABCDEFGHIJKL").Widths().Count - 24
        );

    [Theory]
    [InlineData(BarCodeKind.Code39, "AB01", null)]
    [InlineData(BarCodeKind.Code39, "ab01", "has “a”, which Code 39 has not")]
    [InlineData(BarCodeKind.Code39, "A*B", "has “*”, which Code 39 has not")]
    [InlineData(BarCodeKind.Code128, "ab01 £", "has “£”, which Code 128 has not")]
    [InlineData(BarCodeKind.Code128, "", "is empty")]
    [InlineData(BarCodeKind.Code128, "12345678901234567890123456789012345678901", "has 41 characters; a bar code has 40 at most")]
    public void What_cannot_be_a_bar_code_says_why(BarCodeKind kind, string text, string? problem)
    {
        Assert.Equal(problem, BarCode.Problem(kind, text));
        if (problem is not null)
        {
            Assert.Throws<ArgumentException>(() => new BarCode(kind, text).Widths());
        }
    }

    private static string Written(BarCode code) =>
        string.Concat(code.Widths().Select(w => w == 2.5f ? "w" : ((int)w).ToString(System.Globalization.CultureInfo.InvariantCulture)));
}
