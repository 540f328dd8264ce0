using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CorrectionTests
{
    private const string Headings = "Account|Name|Kind|Number|Date|Due|Balance|E-mail";
    private const string Bad = "H1|Inn|INV|T-1|31/09/2026||10.00|";
    private const string Good = "H2|Mill|INV|T-2|20/09/2026||20.00|";

    [Fact]
    public void A_value_put_right_in_one_row_counts_and_the_row_is_kept()
    {
        var read = Read([Put(Bad, "Date", "31/09/2026", "30/09/2026")], Bad, Good);
        Assert.Empty(read.SetAside);
        Assert.Equal(new DateOnly(2026, 9, 30), read.Rows[0].Date);
        Assert.DoesNotContain(read.Findings, f => f.Severity == Severity.Error);
    }

    [Fact]
    public void It_is_found_again_in_a_newer_file_wherever_the_row_stands_and_whatever_else_changed()
    {
        var newer = Bad.Replace("10.00", "4.00", StringComparison.Ordinal);
        var read = Read([Put(Bad, "Date", "31/09/2026", "30/09/2026")], Good, newer);
        Assert.Equal(("T-1", 4.00m, new DateOnly(2026, 9, 30)), (read.Rows[1].Number, read.Rows[1].Open, read.Rows[1].Date!.Value));
    }

    [Fact]
    public void Once_the_source_says_something_else_the_source_counts_and_that_is_said()
    {
        var read = Read([Put(Bad, "Date", "31/09/2026", "30/09/2026")], Bad.Replace("31/09", "29/09", StringComparison.Ordinal), Good);
        Assert.Equal(new DateOnly(2026, 9, 29), read.Rows[0].Date);
        var finding = Assert.Single(read.Findings, f => f.Code == FindingCodes.CorrectionSuperseded);
        Assert.Equal(("Date", 2), (finding.Column, finding.Source.Row));
    }

    [Fact]
    public void Once_the_source_was_put_right_the_same_way_nothing_is_said()
    {
        var read = Read([Put(Bad, "Date", "31/09/2026", "30/09/2026")], Bad.Replace("31/09", "30/09", StringComparison.Ordinal), Good);
        Assert.DoesNotContain(read.Findings, f => f.Code == FindingCodes.CorrectionSuperseded);
    }

    [Fact]
    public void The_same_value_everywhere_in_a_column_is_put_right_at_once()
    {
        var read = Read(
            [
                new Correction
                {
                    Kind = CorrectionKind.Everywhere,
                    Column = "Name",
                    Was = "Inn",
                    Becomes = "Inn at Kell",
                },
            ],
            Good,
            "H1|Inn|INV|T-1|30/09/2026||1.00|",
            "H1|Inn|INV|T-3|30/09/2026||2.00|"
        );
        Assert.Equal(["Mill", "Inn at Kell", "Inn at Kell"], read.Rows.Select(r => r.CustomerName));
    }

    [Fact]
    public void Each_row_that_is_not_what_the_file_says_is_told_with_what_made_it_so()
    {
        var date = Put(Bad, "Date", "31/09/2026", "30/09/2026");
        var joined = new Correction
        {
            Kind = CorrectionKind.CustomersJoined,
            Was = "H1",
            Becomes = "H2",
        };
        var rests = Put(Good, "Date", "01/01/2020", "02/01/2020");
        var read = Read([date, joined, rests], Bad, Good);
        Assert.Equal([new CorrectedRow(2, date), new CorrectedRow(2, joined)], read.Reader.Corrected);
    }

    [Fact]
    public void A_row_left_out_is_not_in_the_ledger_and_the_total_line_of_the_file_still_agrees()
    {
        var left = new Correction
        {
            Kind = CorrectionKind.RowLeftOut,
            Of = Key(Bad),
            Reason = "paid in cash",
        };
        var read = Read([left], Bad.Replace("31/09", "30/09", StringComparison.Ordinal), Good, "Total||||||30.00|");
        Assert.Equal("T-2", Assert.Single(read.Rows).Number);
        Assert.Equal((1, 1, 10m), (read.Reader.RowsRead, read.Reader.RowsLeftOut, read.Reader.LeftOutSums[Ledgers.Pounds]));
        Assert.DoesNotContain(read.Findings, f => f.Code == FindingCodes.ControlTotalDiffers);
    }

    [Fact]
    public void Customers_that_were_joined_are_one_and_their_names_are_no_longer_a_finding()
    {
        var joined = new Correction
        {
            Kind = CorrectionKind.CustomersJoined,
            Was = "H2",
            Becomes = "H1",
        };
        var read = Read([joined], Bad.Replace("31/09", "30/09", StringComparison.Ordinal), Good);
        Assert.Equal(["H1", "H1"], read.Rows.Select(r => r.Customer));
        Assert.DoesNotContain(read.Findings, f => f.Code == FindingCodes.CodeWithTwoNames);
    }

    [Fact]
    public void A_chain_of_joined_customers_ends_at_its_last_and_a_loop_does_not_hang()
    {
        var chain = new AppliedCorrections(new Reading(1, []), [Join("A", "B"), Join("B", "C")]);
        Assert.Equal("C", chain.CustomerOf("A"));
        var loop = new AppliedCorrections(new Reading(1, []), [Join("A", "B"), Join("B", "A")]);
        Assert.Contains(loop.CustomerOf("A"), new[] { "A", "B" });

        static Correction Join(string was, string becomes) =>
            new()
            {
                Kind = CorrectionKind.CustomersJoined,
                Was = was,
                Becomes = becomes,
            };
    }

    private static Correction Put(string row, string column, string was, string becomes) =>
        new()
        {
            Kind = CorrectionKind.Cell,
            Of = Key(row),
            Column = column,
            Was = was,
            Becomes = becomes,
        };

    private static string Key(string row)
    {
        var table = Tables.Of(Headings, row);
        return RowKey.Of(table.Rows.Last(), Recognition.Recognise(table, Tables.Settings, ReadingChange.None)!.Reading);
    }

    private static Tables.ReadFile Read(Correction[] corrections, params string[] rows) =>
        Tables.Read(Tables.Of([Headings, .. rows]), corrections: corrections);
}
