using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class HiddenRowsTests
{
    private const string Headings = "Account|Kind|Number|Date|Due|Outstanding";

    [Theory]
    [InlineData(null, "500.00", "which is what the visible rows above it come to")]
    [InlineData(null, "555.00", null)]
    [InlineData(null, "505.00", "the rows above it come to 555.00")]
    [InlineData(true, "500.00", null)]
    [InlineData(true, "555.00", null)]
    [InlineData(true, "505.00", "the rows above it come to 555.00")]
    public void A_total_may_count_them_or_not_and_is_told_which(bool? leavesOut, string total, string? differs)
    {
        var read = Read(leavesOut, total);
        var finding = read.Findings.SingleOrDefault(f => f.Code == FindingCodes.ControlTotalDiffers);
        Assert.Equal(differs is null, finding is null);
        Assert.Contains(differs ?? "", finding?.Message ?? "", StringComparison.Ordinal);
    }

    [Fact]
    public void They_are_read_with_a_warning_until_somebody_leaves_them_out()
    {
        var read = Read(null, "555.00");
        Assert.Equal(["T-1", "T-2", "T-3"], read.Rows.Select(r => r.Number));
        Assert.Equal(
            (Severity.Warning, "2 rows are hidden in the workbook (rows 3, 4) and come to 55.00 GBP. They are read like the others."),
            Told(read)
        );

        var without = Read(true, "500.00");
        Assert.Equal(["T-1"], without.Rows.Select(r => r.Number));
        Assert.Equal((2, 55m), (without.Reader.RowsLeftOut, without.Reader.LeftOutSums.Values.Sum()));
        Assert.Equal(
            (Severity.Note, "2 rows are hidden in the workbook (rows 3, 4) and come to 55.00 GBP. They are left out."),
            Told(without)
        );
    }

    private static (Severity, string) Told(Tables.ReadFile read)
    {
        var finding = read.Findings.Single(f => f.Code == FindingCodes.RowsHidden);
        return (finding.Severity, finding.Message);
    }

    private static Tables.ReadFile Read(bool? leavesOut, string total)
    {
        var shown = Tables.Of(
            Headings,
            "AB01|Invoice|T-1|2026-09-01|2026-10-01|500.00",
            "AB01|Invoice|T-2|2026-09-01|2026-10-01|50.00",
            "BE02|Invoice|T-3|2026-09-01|2026-10-01|5.00",
            $"Total|||||{total}"
        );
        return Tables.Read(
            shown with
            {
                Rows = [.. shown.Rows.Select(r => r with { IsHidden = r.Number is 3 or 4 })],
            },
            change: ReadingChange.None with
            {
                LeavesOutHidden = leavesOut,
            }
        );
    }
}
