using Rendal.Core.Intake;
using Rendal.Core.Money;

namespace Rendal.Core.Tests.Intake;

public class RecognitionTests
{
    [Fact]
    public void Ordinary_headings_are_known()
    {
        var reading = Recognise(
            "Customer code|Customer name|Kind|Number|Date|Due date|Currency|Amount|Outstanding|E-mail|Round",
            "A|B|INV|1|2026-10-01|2026-10-31|GBP|1.00|1.00|a@b.example|N1"
        );
        Assert.Equal(
            [
                ColumnMeaning.CustomerCode,
                ColumnMeaning.CustomerName,
                ColumnMeaning.Kind,
                ColumnMeaning.Number,
                ColumnMeaning.Date,
                ColumnMeaning.DueDate,
                ColumnMeaning.Currency,
                ColumnMeaning.Amount,
                ColumnMeaning.Outstanding,
                ColumnMeaning.Email,
                ColumnMeaning.Extra,
            ],
            reading.Columns.Select(c => c.Meaning)
        );
        Assert.Empty(reading.Lacks());
    }

    [Theory]
    [InlineData("Acct|Customer|Tp|Doc no.|Date|Due|Balance")]
    [InlineData("Kundennummer|Kunde|Belegart|Belegnr.|Belegdatum|Fälligkeit|Offen")]
    [InlineData("Code client|Nom du client|Type|N° facture|Date|Échéance|Solde")]
    [InlineData("Klantnummer|Naam|Soort|Factuurnr|Factuurdatum|Vervaldatum|Openstaand")]
    public void Headings_of_other_programs_and_languages_are_known(string headings)
    {
        Assert.Equal(
            [
                ColumnMeaning.CustomerCode,
                ColumnMeaning.CustomerName,
                ColumnMeaning.Kind,
                ColumnMeaning.Number,
                ColumnMeaning.Date,
                ColumnMeaning.DueDate,
                ColumnMeaning.Outstanding,
            ],
            Recognise(headings).Columns.Select(c => c.Meaning)
        );
    }

    [Fact]
    public void Title_lines_above_the_headings_are_passed_over()
    {
        Assert.Equal(
            4,
            Recognise(
                "Tarnbrook Linen Hire",
                "Open items at 31 October 2026",
                "",
                "Account|Name|Date|Balance",
                "A|B|2026-10-01|1.00"
            ).HeadingRow
        );
    }

    [Fact]
    public void A_heading_that_stands_twice_or_is_missing_gets_a_name_of_its_own()
    {
        var reading = Recognise("Account|Note|Note||Date|Balance");
        Assert.Equal(["Account", "Note", "Note (2)", "Column D", "Date", "Balance"], reading.Columns.Select(c => c.Heading));
    }

    [Fact]
    public void Beside_debit_and_credit_a_balance_is_the_running_one()
    {
        var reading = Recognise("Account|Date|Debit|Credit|Balance");
        Assert.False(reading.HasOutstanding);
        Assert.Equal(ColumnMeaning.Extra, reading.Columns[4].Meaning);
    }

    [Fact]
    public void Customer_alone_is_the_name_and_beside_a_name_the_code()
    {
        Assert.Equal(ColumnMeaning.CustomerName, Recognise("Customer|Date|Balance").Columns[0].Meaning);
        Assert.Equal(ColumnMeaning.CustomerCode, Recognise("Customer|Name|Date|Balance").Columns[0].Meaning);
        Assert.Equal(ColumnMeaning.CustomerName, Recognise("Account|Customer|Date|Balance").Columns[1].Meaning);
    }

    [Fact]
    public void What_the_person_sets_stands_above_what_was_recognised()
    {
        var table = Tables.Of("Account|Gesamt|Date|Balance", "A|1,234|03/04/2026|9.00");
        var change = new ReadingChange
        {
            Meanings = new Dictionary<int, ColumnMeaning> { [1] = ColumnMeaning.Outstanding, [3] = ColumnMeaning.Extra },
            Marks = new Dictionary<int, DecimalMark> { [1] = DecimalMark.Comma },
            Orders = new Dictionary<int, DateOrder> { [2] = DateOrder.MonthFirst },
        };
        var row = Assert.Single(Tables.Read(table, change: change).Rows);
        Assert.Equal(1.23m, row.Open);
        Assert.Equal(new DateOnly(2026, 3, 4), row.Date);
        Assert.Equal("9.00", row.Extra["Balance"]);
    }

    [Fact]
    public void A_file_without_headings_is_not_recognised()
    {
        Assert.Null(Recognition.Recognise(Tables.Of("A|12.00", "B|13.00"), Tables.Settings, ReadingChange.None));
    }

    [Fact]
    public void What_is_lacking_is_said_in_words()
    {
        var lacks = Recognise("Number|Due").Lacks();
        Assert.Equal(2, lacks.Count);
        Assert.Contains("whose the rows are", lacks[0]);
        Assert.Contains("amounts", lacks[1]);
    }

    [Fact]
    public void What_had_to_be_assumed_is_a_finding()
    {
        var findings = Tables.Read(Tables.Of("Account|Date|Balance", "A|03/04/2026|1,234", "A|05/06/2026|2,345")).Findings;
        Assert.Contains(findings, f => f.Code == FindingCodes.DecimalMarkAssumed && f.Column == "Balance");
        Assert.Contains(findings, f => f.Code == FindingCodes.DateOrderAssumed && f.Column == "Date");
    }

    private static Reading Recognise(params string[] lines)
    {
        var recognised = Recognition.Recognise(Tables.Of(lines), Tables.Settings, ReadingChange.None);
        Assert.NotNull(recognised);
        return recognised.Reading;
    }
}
