using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Money;

namespace Rendal.Core.Tests.Intake.Columns;

/// <summary>What a column is shows in its heading, in its values, and in what fits together.</summary>
public sealed class ColumnAssignmentTests
{
    private static readonly ReadingSettings Settings = new(Currency.Of("GBP"));

    [Fact]
    public void Headings_in_two_lines_are_read_together()
    {
        var reading = Read(
            "Fattura||Emessa|Cliente||Amount|Tipo",
            "n.|Intestatario|il|n.|Insoluto|USD|mov.",
            "55582|Kell Lodge|2026-10-22|C-0101|1270.83|1664.79|Fattura",
            "55600|Kell Lodge|2026-04-02|C-0101|2097.27|2747.42|Fattura",
            "55635|Kell Lodge|2026-07-17|C-0101|-1385.59|-1815.12|Pagamento",
            "55665|Manor Stell|2026-07-01|C-0102|-1.87|-421.43|Nota credito"
        );
        Assert.Equal(2, reading.HeadingRow);
        Assert.Equal("Cliente n.", reading.Of(ColumnMeaning.CustomerCode)?.Heading);
        Assert.Equal("Insoluto", reading.Of(ColumnMeaning.Outstanding)?.Heading);
    }

    [Fact]
    public void A_first_line_of_headings_over_two_columns_alone_belongs_to_the_second()
    {
        var reading = Read(
            "Tarnbrook Linen Hire",
            "||||||||Fällig|||Amount|",
            "Soll|Haben|Montant USD|Kundennummer|Pedido|MwSt-Satz|Belegdatum|Rechnungsnummer|am|Remise|Week|USD|CAP",
            "1.689,81||2213.65|C-0101|PO32815|20|20/06/2026|INV57881|20/07/2026|33.80|25|2.213,65|54125",
            "842,17||1103.24|C-0102|PO33536|20|18/08/2026|INV57909|01/09/2026|16.84|33|1.103,24|54126",
            "537,89||704.64|C-0102|PO33655|20|10/05/2026|INV57944|09/06/2026|10.76|19|704,64|54126",
            "|24,13|31.61|C-0102|PO54705|20|02/05/2026|INV58015|01/06/2026|0.48|18|31,61|54126"
        );
        Assert.Equal("Fällig am", reading.Of(ColumnMeaning.DueDate)?.Heading);
    }

    [Fact]
    public void A_file_without_headings_is_read_by_its_values()
    {
        var reading = Read(
            "H014|Inn at Kell|T-20811|31/08/2026|30/09/2026|500.00",
            "H014|Inn at Kell|T-20812|14/09/2026|14/10/2026|120.50",
            "H020|Old Mill House|C-00403|09/09/2026|09/10/2026|-35.00",
            "H020|Old Mill House|T-20900|20/09/2026|20/10/2026|80.25"
        );
        Assert.Equal(0, reading.HeadingRow);
        Assert.Equal(
            [
                ColumnMeaning.CustomerCode,
                ColumnMeaning.CustomerName,
                ColumnMeaning.Number,
                ColumnMeaning.Date,
                ColumnMeaning.DueDate,
                ColumnMeaning.Outstanding,
            ],
            reading.Columns.Select(c => c.Meaning)
        );
    }

    [Fact]
    public void What_lies_between_zero_and_the_amount_is_what_is_outstanding_whatever_it_is_called()
    {
        var reading = Read(
            "Acct ID|Trx|Posted|Zorb|Quex",
            "H1|T-1001|2026-09-01|100.00|100.00",
            "H1|T-1002|2026-09-02|80.00|30.00",
            "H2|T-1003|2026-09-03|-20.50|-20.50",
            "H2|T-1004|2026-09-04|75.25|75.25",
            "H3|T-1005|2026-09-05|60.00|12.10"
        );
        Assert.Equal("Quex", reading.Of(ColumnMeaning.Outstanding)?.Heading);
        Assert.Contains("lies between zero and “Zorb”", reading.Of(ColumnMeaning.Outstanding)?.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void A_due_date_is_on_or_after_the_date_and_says_by_how_much()
    {
        var reading = Read(
            "Acct ID|Trx|Gnarl|Posted|Amt",
            "H1|T-1001|2026-10-01|2026-09-01|100.10",
            "H1|T-1002|2026-10-02|2026-09-02|80.20",
            "H2|T-1003|2026-10-03|2026-09-03|20.50",
            "H2|T-1004|2026-10-04|2026-09-04|75.25"
        );
        Assert.Equal("Gnarl", reading.Of(ColumnMeaning.DueDate)?.Heading);
        Assert.Contains(
            "every value is on or after “Posted”; most are 30 days later",
            reading.Of(ColumnMeaning.DueDate)?.Reason,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_running_balance_is_not_what_is_outstanding_of_the_row()
    {
        var reading = Read(
            "Acct ID|Trx|Posted|Amt|Bal.",
            "H1|T-1001|2026-09-01|100.10|100.10",
            "H1|T-1002|2026-09-02|80.20|180.30",
            "H1|T-1003|2026-09-03|-20.30|160.00",
            "H1|T-1004|2026-09-04|75.25|235.25",
            "H1|T-1005|2026-09-05|60.00|295.25"
        );
        Assert.Null(reading.Of(ColumnMeaning.Outstanding));
        Assert.Equal("Amt", reading.Of(ColumnMeaning.Amount)?.Heading);
    }

    [Fact]
    public void Between_two_columns_that_are_as_good_it_is_asked_and_nothing_is_guessed()
    {
        string[] file =
        [
            "Acct ID|Trx|Posted|Quex|Zorb",
            "H1|T-1001|2026-09-01|100.10|31.17",
            "H1|T-1002|2026-09-02|80.20|190.40",
            "H2|T-1003|2026-09-03|20.50|75.33",
            "H2|T-1004|2026-09-04|75.25|12.80",
        ];
        var reading = Read(file);
        Assert.NotNull(reading.Question);
        Assert.Contains(reading.Lacks(), l =>
            l.Contains("“Quex”", StringComparison.Ordinal) && l.Contains("“Zorb”", StringComparison.Ordinal)
        );

        // One word from a person settles it, whichever of the two meanings it is.
        foreach (var meaning in new[] { ColumnMeaning.Outstanding, ColumnMeaning.Amount })
        {
            var settled = Settled(file, (4, meaning));
            Assert.Empty(settled.Lacks());
            Assert.Equal("Zorb", settled.Of(meaning)?.Heading);
        }
    }

    [Fact]
    public void What_fits_as_open_is_asked_about_though_the_file_adds_up_the_full_amounts()
    {
        var reading = Read(
            "Acct ID|Trx|Posted|Amt|Zorb",
            "H1|T-1001|2026-09-01|100.10|100.10",
            "H1|T-1002|2026-09-02|80.20|30.05",
            "Total|||180.30|",
            "H2|T-1003|2026-09-03|20.50|20.50",
            "H2|T-1004|2026-09-04|75.25|12.80",
            "Total|||95.75|"
        );
        Assert.True(reading.Question is not null || reading.Of(ColumnMeaning.Outstanding)?.Heading == "Zorb");
    }

    [Fact]
    public void Where_a_person_said_one_of_debit_and_credit_the_running_balance_is_still_none_of_the_amounts()
    {
        string[] file =
        [
            "Account|Number|Date|Debit|Credit|Balance",
            "H1|T-1001|2026-09-01|100.10||100.10",
            "H1|T-1002|2026-09-02||80.20|19.90",
        ];
        Assert.Null(Settled(file, (3, ColumnMeaning.Debit)).Of(ColumnMeaning.Outstanding));
        Assert.Null(Settled(file, (3, ColumnMeaning.Debit), (4, ColumnMeaning.Credit)).Of(ColumnMeaning.Outstanding));
    }

    [Fact]
    public void Debit_and_credit_are_never_both_filled_whatever_they_are_called()
    {
        var reading = Read(
            "Acct ID|Trx|Posted|Dr amt|Cr amt",
            "H1|T-1001|2026-09-01|100.10|",
            "H1|T-1002|2026-09-02||80.20",
            "H2|T-1003|2026-09-03|20.50|",
            "H2|T-1004|2026-09-04|75.25|"
        );
        Assert.Equal("Dr amt", reading.Of(ColumnMeaning.Debit)?.Heading);
        Assert.Equal("Cr amt", reading.Of(ColumnMeaning.Credit)?.Heading);
    }

    [Fact]
    public void A_column_that_fits_as_what_is_open_is_not_passed_over_for_its_heading()
    {
        var reading = Read(
            "Resta por pagar|Fecha vto.|Imp. factura|Doc. n.º|Empresa|Fecha asiento",
            "-234,81|2026-08-08|-234,81|T-48546|Hostel Beacon|2026-07-25",
            "346,48|2026-11-06|346,48|T-48550|Hostel Beacon|2026-10-23",
            "1.130,57|2026-07-18|1.130,57|T-48557|Hostel Beacon|2026-07-04",
            "930,86|2026-07-28|1.026,34|T-48619|Hostel Beacon|2026-07-14",
            "803,56|2026-10-18|803,56|T-48657|Beacon Spa|2026-10-04",
            "2.036,66|2026-11-06|2.036,66|T-48688|Beacon Spa|2026-10-23"
        );
        Assert.True(reading.Question is not null || reading.Columns.Any(c => c.Meaning.IsAmount() && c.Confidence != Confidence.Sure));
    }

    private static Reading Read(params string[] lines) => Recognition.Recognise(Table(lines), Settings, ReadingChange.None)!.Reading;

    private static Reading Settled(string[] lines, params (int Column, ColumnMeaning Meaning)[] said) =>
        Recognition
            .Recognise(Table(lines), Settings, ReadingChange.None with { Meanings = said.ToDictionary(s => s.Column, s => s.Meaning) })!
            .Reading;

    private static LedgerTable Table(params string[] lines) =>
        new("ledger.csv", null, [.. lines.Select((l, i) => new FileRow(i + 1, [.. l.Split('|').Select(Cell.Of)]))]);
}
