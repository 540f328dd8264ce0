using CsCheck;
using Rendal.Core.Layouts;

namespace Rendal.Core.Tests.Layouts;

public sealed class SepaTransferTests
{
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

    [Theory]
    [InlineData("COBADEFFXXX", true)]
    [InlineData("cobadeff", true)]
    [InlineData("COBADEF", false)]
    [InlineData("COBA DEFF", false)]
    [InlineData("COBADEFFXXX\n", false)]
    [InlineData("", false)]
    public void A_BIC_is_told_by_its_form(string text, bool isBic) => Assert.Equal(isBic, SepaTransfer.IsBic(text));

    [Fact]
    public void Whatever_names_say_they_stand_on_one_line_and_are_not_cut_within_a_character() =>
        Gen.Select(Gen.String[0, 200], Gen.String[0, 300])
            .Sample(
                (name, remittance) =>
                {
                    var transfer = new SepaTransfer(name, "", "", 1m, remittance);
                    Assert.True(transfer.NameInCode.Length <= 70 && transfer.RemittanceInCode.Length <= 140);
                    Assert.DoesNotContain('\n', transfer.NameInCode + transfer.RemittanceInCode);
                    Assert.DoesNotContain(transfer.NameInCode.EnumerateRunes(), r =>
                        r == System.Text.Rune.ReplacementChar && !name.Contains('\uFFFD') && name.All(c => !char.IsSurrogate(c))
                    );
                }
            );
}
