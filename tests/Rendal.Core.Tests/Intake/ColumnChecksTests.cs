using System.Globalization;
using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;

namespace Rendal.Core.Tests.Intake;

/// <summary>What a column is was found out by the first rows; where it turns out otherwise further down, that is said.</summary>
public sealed class ColumnChecksTests
{
    private const int Below = 40;

    [Fact]
    public void Amounts_that_change_places_below_the_first_rows_are_a_finding() =>
        Assert.Equal(
            "From row 5002 on, in 40 rows below each other, “Open” is more than “Amount” or has another sign; in the rows before that "
                + "it is not so.",
            Differs(i => (Row(i), Row(i, open: "100.10", amount: "60.05")))
        );

    [Fact]
    public void Dates_that_change_places_are_a_finding() =>
        Assert.StartsWith(
            "From row 5002 on, in 40 rows below each other, “Due” is before “Date”;",
            Differs(i => (Row(i), Row(i, date: "2026-09-30", due: "2026-08-31"))),
            StringComparison.Ordinal
        );

    [Fact]
    public void Numbers_in_the_column_of_codes_are_a_finding() =>
        Assert.StartsWith(
            "From row 5002 on, in 40 rows below each other, “Account” is written as “Number” is above;",
            Differs(i => (Row(i), Row(i, account: $"T-{i}", number: $"H{i % 7}"))),
            StringComparison.Ordinal
        );

    [Fact]
    public void A_row_now_and_then_is_none() => Assert.Null(Differs(i => (Row(i), i % 9 == 0 ? Row(i, open: "300.00") : Row(i))));

    [Fact]
    public void What_was_so_in_the_first_rows_already_is_none() =>
        Assert.Null(
            Differs(i =>
                (i % 40 == 0 ? Row(i, date: "2026-09-30", due: "2026-08-31") : Row(i), Row(i, date: "2026-09-30", due: "2026-08-31"))
            )
        );

    private static string Row(
        int i,
        string? account = null,
        string? number = null,
        string date = "2026-08-31",
        string due = "2026-09-30",
        string? amount = null,
        string? open = null
    )
    {
        var full = amount ?? string.Create(CultureInfo.InvariantCulture, $"{100 + (i % 50)}.10");
        var left = open ?? (i % 3 == 0 ? string.Create(CultureInfo.InvariantCulture, $"{20 + (i % 40)}.05") : full);
        return string.Create(CultureInfo.InvariantCulture, $"{account ?? $"H{i % 7}"}|{number ?? $"T-{i}"}|{date}|{due}|{full}|{left}");
    }

    /// <summary>The finding of a file whose rows are one sort in the sample and another below it; null where there is none.</summary>
    private static string? Differs(Func<int, (string First, string Later)> row)
    {
        var lines = Enumerable
            .Range(1, SampleRows.MostRows + Below)
            .Select(i => i <= SampleRows.MostRows ? row(i).First : row(i).Later)
            .Prepend("Account|Number|Date|Due|Amount|Open");
        var table = Tables.Of([.. lines]);
        var recognised = Recognition.Recognise(table, Tables.Settings, ReadingChange.None)!;
        Assert.Empty(recognised.Reading.Lacks());
        var reader = new LedgerReader(table, recognised, Tables.Settings);
        Assert.Equal(SampleRows.MostRows + Below, reader.Rows().Count());
        return reader.Findings.Listed().FirstOrDefault(f => f.Code == FindingCodes.ColumnDiffers)?.Message;
    }
}
