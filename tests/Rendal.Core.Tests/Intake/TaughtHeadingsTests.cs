using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public sealed class TaughtHeadingsTests
{
    private static readonly string[] First =
    [
        "Acct ID|Trx|Posted|Quex|Zorb",
        "H1|T-1001|2026-09-01|100.10|31.17",
        "H1|T-1002|2026-09-02|80.20|190.40",
        "H2|T-1003|2026-09-03|20.50|75.33",
    ];

    // The same two columns, which could both be the amount, in a file that is otherwise another.
    private static readonly string[] Next =
    [
        "Zorb|Client|Document|Issued|Quex|Week",
        "11.17|Inn at Kell|T-2001|2026-10-01|100.10|40",
        "95.40|Inn at Kell|T-2002|2026-10-02|80.20|40",
        "45.33|Bay View|T-2003|2026-10-03|20.50|40",
    ];

    [Fact]
    public void What_a_person_said_of_a_heading_holds_in_every_other_file()
    {
        Assert.NotNull(Read(Next, TaughtHeadings.None).Question);
        var saved = Saved(new() { [3] = ColumnMeaning.Extra, [4] = ColumnMeaning.Outstanding });
        var reading = Read(Next, TaughtHeadings.Of([saved]));
        Assert.Null(reading.Question);
        Assert.Equal("Zorb", reading.Of(ColumnMeaning.Outstanding)?.Heading);
        Assert.Equal("as you said in another file", reading.Of(ColumnMeaning.Outstanding)?.Reason);
        Assert.Equal(ColumnMeaning.Extra, reading.Columns[4].Meaning);
    }

    [Fact]
    public void What_was_only_found_out_teaches_nothing() =>
        Assert.Equal(["zorb"], TaughtHeadings.Of([Saved(new() { [4] = ColumnMeaning.Outstanding })]).Meanings.Keys);

    [Fact]
    public void What_was_said_last_counts()
    {
        var taught = TaughtHeadings.Of([Saved(new() { [4] = ColumnMeaning.Amount }), Saved(new() { [4] = ColumnMeaning.Outstanding })]);
        Assert.Equal(ColumnMeaning.Amount, taught.MeaningOf("ZORB"));
    }

    [Fact]
    public void A_reading_that_is_used_again_is_still_one_that_a_person_said()
    {
        var saved = Saved(new() { [4] = ColumnMeaning.Outstanding });
        var again = saved.For(Tables.Of(First), out _);
        var kept = SavedReading.Of(Recognition.Outline(Tables.Of(First), again)!, again);
        Assert.Equal(["Zorb"], kept.Columns.Where(c => c.IsSaid).Select(c => c.Heading));
    }

    private static SavedReading Saved(Dictionary<int, ColumnMeaning> said)
    {
        var change = ReadingChange.None with { Meanings = said };
        return SavedReading.Of(Recognition.Outline(Tables.Of(First), change)!, change);
    }

    private static Reading Read(string[] lines, TaughtHeadings taught) =>
        Recognition.Outline(Tables.Of(lines), ReadingChange.None with { Taught = taught })!;
}
