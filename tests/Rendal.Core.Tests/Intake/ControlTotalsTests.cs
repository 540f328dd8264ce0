using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class ControlTotalsTests
{
    private const string Headings = "Code|Name|Kind|Number|Date|Due|Balance";

    [Fact]
    public void Subtotals_and_a_grand_total_that_agree_are_kept_out_and_say_nothing()
    {
        var read = Tables.Read(
            Tables.Of(
                Headings,
                "AB01|Abbot’s Table|INV|T-1|05/10/2026|04/11/2026|670.80",
                "AB01|Abbot’s Table|INV|T-2|18/09/2026|18/10/2026|447.40",
                "|Total Abbot’s Table|||||1,118.20",
                "BE02|Beacon Lodge|INV|T-3|29/07/2026|28/08/2026|480.00",
                "|Total Beacon Lodge|||||480.00",
                "|Grand total|||||1,598.20"
            )
        );
        Assert.Equal(3, read.Rows.Count);
        Assert.Equal(3, read.Reader.TotalLineCount);
        Assert.DoesNotContain(read.Findings, f => f.Code == FindingCodes.ControlTotalDiffers);
    }

    [Fact]
    public void A_subtotal_that_disagrees_says_by_how_much()
    {
        var read = Tables.Read(
            Tables.Of(Headings, "AB01|Abbot’s Table|INV|T-1|05/10/2026|04/11/2026|670.80", "|Total Abbot’s Table|||||700.00")
        );
        var finding = Assert.Single(read.Findings, f => f.Code == FindingCodes.ControlTotalDiffers);
        Assert.Equal(("Balance", 3), (finding.Column, finding.Source.Row));
        Assert.Equal("The total line in row 3 says 700.00; the rows above it come to 670.80, a difference of 29.20.", finding.Message);
    }

    [Fact]
    public void A_row_that_is_missing_shows_in_the_grand_total()
    {
        var read = Tables.Read(
            Tables.Of(
                Headings,
                "AB01|Abbot’s Table|INV|T-1|05/10/2026|04/11/2026|670.80",
                "BE02|Beacon Lodge|INV|T-2|05/10/2026|04/11/2026|forty",
                "|Grand total|||||710.80"
            )
        );
        Assert.Single(read.SetAside);
        Assert.Contains(read.Findings, f =>
            f.Code == FindingCodes.ControlTotalDiffers && f.Message.EndsWith("a difference of 40.00.", StringComparison.Ordinal)
        );
    }
}
