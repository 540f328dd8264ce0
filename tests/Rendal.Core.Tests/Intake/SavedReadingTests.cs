using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Tests.Intake;

public class SavedReadingTests
{
    private static readonly LedgerTable File = Tables.Of("List of October", "Konto|Was|Wann|Rest|Vermerk", "H1|XR|03/04/2026|1,234|a");

    private static readonly ReadingChange Change = new()
    {
        HeadingRow = 2,
        Opening = new FileOpening(Encoding: "windows-1252"),
        Meanings = new Dictionary<int, ColumnMeaning>
        {
            [0] = ColumnMeaning.CustomerCode,
            [1] = ColumnMeaning.Kind,
            [2] = ColumnMeaning.Date,
            [3] = ColumnMeaning.Outstanding,
        },
        Orders = new Dictionary<int, DateOrder> { [2] = DateOrder.MonthFirst },
        Marks = new Dictionary<int, DecimalMark> { [3] = DecimalMark.Comma },
        UnsignedCredits = new Dictionary<int, bool> { [3] = true },
        Kinds = new Dictionary<string, ItemKind> { ["XR"] = ItemKind.CreditNote },
    };

    [Fact]
    public void It_reads_the_next_file_the_same_way_wherever_its_columns_stand()
    {
        var saved = SavedReading.Of(Recognition.Recognise(File, Tables.Settings, Change)!.Reading, Change);
        var next = Tables.Of("Vermerk|Rest|Konto|Wann|Was", "b|5,678|H2|05/06/2026|xr");
        Assert.True(saved.Fits(next));
        var row = Assert.Single(Tables.Read(next, change: saved.For(next, out var missing)).Rows);
        Assert.Empty(missing);
        Assert.Equal(("H2", ItemKind.CreditNote, new DateOnly(2026, 5, 6), -5.68m), (row.Customer, row.Kind, row.Date!.Value, row.Open));
        Assert.Equal("b", row.Extra["Vermerk"]);
        Assert.Equal("windows-1252", saved.Opening.Encoding);
        Assert.All(Recognition.Recognise(next, Tables.Settings, saved.For(next, out _))!.Reading.Columns, c =>
            Assert.Equal("as last time", c.Reason)
        );
    }

    [Fact]
    public void What_nobody_chose_is_found_out_anew()
    {
        var saved = SavedReading.Of(
            Recognition.Recognise(Tables.Of("Account|Date|Balance", "A|03/04/2026|1,50"), Tables.Settings, ReadingChange.None)!.Reading,
            ReadingChange.None
        );
        var next = Tables.Of("Account|Date|Balance", "A|13/04/2026|1.50");
        Assert.Equal(1.50m, Assert.Single(Tables.Read(next, change: saved.For(next, out _)).Rows).Open);
    }

    [Fact]
    public void A_heading_that_is_missing_is_told()
    {
        var saved = SavedReading.Of(Recognition.Recognise(File, Tables.Settings, Change)!.Reading, Change);
        var other = Tables.Of("Konto|Wann|Rest", "H1|03/04/2026|1");
        Assert.False(saved.Fits(other));
        saved.For(Tables.Of("Account|Date|Balance", "A|1|1"), out var missing);
        Assert.Equal(["Konto", "Was", "Wann", "Rest"], missing);
    }
}
