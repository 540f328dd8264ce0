using CsCheck;
using Rendal.Core.Layouts;
using Rendal.Files.Pdf;

namespace Rendal.Files.Tests.Pdf;

public sealed class SepaCodeTests
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
            SepaCode.Text(Transfer)
        );

    [Theory]
    [InlineData("")]
    [InlineData("none yet")]
    public void What_is_empty_at_the_end_is_left_away_and_a_BIC_that_is_none_is_left_empty(string bic) =>
        Assert.Equal(
            "BCD\n002\n1\nSCT\n\nTarnbrook Linen Hire\nDE89370400440532013000\nEUR0.01",
            SepaCode.Text(Transfer with { Bic = bic, Amount = 0.01m, Remittance = "" })
        );

    [Fact]
    public void An_amount_or_account_that_no_transfer_can_have_is_refused()
    {
        Assert.ThrowsAny<Exception>(() => SepaCode.Text(Transfer with { Amount = 0m }));
        Assert.ThrowsAny<Exception>(() => SepaCode.Text(Transfer with { Amount = 1_000_000_000m }));
        Assert.ThrowsAny<Exception>(() => SepaCode.Text(Transfer with { Iban = "DE00" }));
    }

    [Fact]
    public void Whatever_names_say_the_code_keeps_its_lines() =>
        Gen.Select(Gen.String[1, 200], Gen.String[0, 300])
            .Where((name, _) => !string.IsNullOrWhiteSpace(name))
            .Sample(
                (name, remittance) =>
                {
                    var lines = SepaCode.Text(Transfer with { Name = name, Remittance = remittance }).Split('\n');
                    Assert.InRange(lines.Length, 8, 11);
                    Assert.Equal(("BCD", "DE89370400440532013000", "EUR1234.50"), (lines[0], lines[6], lines[7]));
                }
            );
}
