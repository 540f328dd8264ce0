using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

/// <summary>Several tables below each other are read as one, whatever order their columns are in.</summary>
public sealed class MovedColumnsTests
{
    [Fact]
    public void Values_stand_under_the_first_headings_and_say_that_they_were_moved()
    {
        var rows = Aligned("Account|Number|Date|Open", "H1|T-1|2026-09-01|10.00", "Number|Open|Date|Account", "T-2|20.00|2026-09-02|H2");
        Assert.Equal(["H2", "T-2", "2026-09-02", "20.00"], rows[3].Cells.Select(c => c.Text));
        Assert.Equal([false, false, true, true], rows.Select(r => r.IsMoved));
    }

    [Fact]
    public void A_column_of_its_own_stands_behind_the_others_and_none_is_lost()
    {
        var rows = Aligned(
            "Account|Number|Date|Open",
            "H1|T-1|2026-09-01|10.00",
            "Number|Week|Open|Date|Account",
            "T-2|36|20.00|2026-09-02|H2|over the edge"
        );
        Assert.Equal(["H2", "T-2", "2026-09-02", "20.00", "36", "over the edge"], rows[3].Cells.Select(c => c.Text));
    }

    [Fact]
    public void The_same_headings_in_the_same_places_move_nothing_and_take_a_move_back()
    {
        var rows = Aligned(
            "Account|Number|Date|Open",
            "H1|T-1|2026-09-01|10.00",
            "Number|Account|Date|Open",
            "T-2|H2|2026-09-02|20.00",
            "Account|Number|Date|Open",
            "H3|T-3|2026-09-03|30.00"
        );
        Assert.Equal(["H1", "H2", "H3"], new[] { rows[1], rows[3], rows[5] }.Select(r => r[0].Text));
        Assert.False(rows[5].IsMoved);
    }

    [Fact]
    public void A_row_that_only_says_one_of_the_headings_is_an_item()
    {
        var rows = Aligned("Kind|Account|Number|Date|Open", "Account|H1|Number|2026-09-01|10.00", "Number|H1|T-2|2026-09-01|10.00");
        Assert.DoesNotContain(rows, r => r.IsMoved);
    }

    private static List<FileRow> Aligned(params string[] lines) => [.. MovedColumns.Aligned(Tables.Of(lines).Rows)];
}
