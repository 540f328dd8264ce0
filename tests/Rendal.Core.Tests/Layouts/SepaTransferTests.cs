using CsCheck;
using Rendal.Core.Layouts;

namespace Rendal.Core.Tests.Layouts;

public sealed class SepaTransferTests
{
    private static readonly SepaTransfer Transfer = new(
        "Tarnbrook Linen Hire",
        "DE89 3704 0044 0532 0130 00",
        "COBADEFFXXX",
        1_234.5m,
        "HE20 31 Oct 2026"
    );

    [Fact]
    public void The_text_of_the_code_has_the_lines_of_the_guideline() =>
        Assert.Equal(
            "BCD\n002\n1\nSCT\nCOBADEFFXXX\nTarnbrook Linen Hire\nDE89370400440532013000\nEUR1234.50\n\n\nHE20 31 Oct 2026",
            Transfer.Text()
        );

    [Fact]
    public void What_is_empty_at_the_end_is_left_away() =>
        Assert.Equal(
            "BCD\n002\n1\nSCT\n\nTarnbrook Linen Hire\nDE89370400440532013000\nEUR0.01",
            (Transfer with { Bic = "", Amount = 0.01m, Remittance = "" }).Text()
        );

    [Theory]
    [InlineData("DE89 3704 0044 0532 0130 00", true)]
    [InlineData("gb82 west 1234 5698 7654 32", true)]
    [InlineData("NO93 8601 1117 947", true)]
    [InlineData("DE89 3704 0044 0532 0130 01", false)]
    [InlineData("DE98 3704 0044 0532 0130 00", false)]
    [InlineData("", false)]
    [InlineData("3704 0044 0532 0130 00", false)]
    [InlineData("DE89 3704 0044 0532 0130 00é", false)]
    public void An_IBAN_is_told_by_its_check_digits(string text, bool isIban) => Assert.Equal(isIban, SepaTransfer.IsIban(text));

    [Fact]
    public void An_amount_or_account_that_no_transfer_can_have_is_refused()
    {
        Assert.Throws<ArgumentException>(() => (Transfer with { Amount = 0m }).Text());
        Assert.Throws<ArgumentException>(() => (Transfer with { Amount = 1_000_000_000m }).Text());
        Assert.Throws<ArgumentException>(() => (Transfer with { Iban = "DE00" }).Text());
    }

    [Fact]
    public void Whatever_names_say_the_code_keeps_its_lines_and_its_length() =>
        Gen.Select(Gen.String[0, 200], Gen.String[0, 300])
            .Sample(
                (name, remittance) =>
                {
                    var lines = (Transfer with { Name = name, Remittance = remittance }).Text().Split('\n');
                    Assert.InRange(lines.Length, 8, 11);
                    Assert.Equal(("BCD", "DE89370400440532013000", "EUR1234.50"), (lines[0], lines[6], lines[7]));
                    Assert.True(lines[5].Length <= 70 && lines[^1].Length <= 140);
                    Assert.DoesNotContain(lines[5].EnumerateRunes(), r =>
                        r == System.Text.Rune.ReplacementChar && !name.Contains('\uFFFD') && name.All(c => !char.IsSurrogate(c))
                    );
                }
            );
}
