using System.Globalization;
using CsCheck;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;

namespace Rendal.Core.Tests.Intake;

public class LedgerReaderTests
{
    private const string Headings = "Account|Name|Kind|Number|Date|Due|Currency|Amount|Balance|E-mail|Van";

    [Fact]
    public void A_row_is_read_with_its_source_and_extra_columns()
    {
        var row = Assert.Single(Read("H014|Inn at Kell|INV|T-1|31/08/2026|30/09/2026|GBP|1,500.00|500.00|kell@inn.example|N3").Rows);
        Assert.Equal("H014", row.Customer);
        Assert.Equal(ItemKind.Invoice, row.Kind);
        Assert.Equal(new DateOnly(2026, 8, 31), row.Date);
        Assert.Equal(new DateOnly(2026, 9, 30), row.Due);
        Assert.Equal(1500m, row.Original);
        Assert.Equal(500m, row.Open);
        Assert.Equal("N3", row.Extra["Van"]);
        Assert.Equal(new SourceRef("ledger.csv", null, 2), row.Source);
    }

    [Theory]
    [InlineData("H1|Inn|INV|T-1|31/02/2026||GBP|1.00|1.00||", FindingCodes.DateUnreadable, "Date")]
    [InlineData("H1|Inn|INV|T-1|01/10/2026|31/09/2026|GBP|1.00|1.00||", FindingCodes.DateUnreadable, "Due")]
    [InlineData("H1|Inn|INV|T-1|||GBP|1.00|1.00||", FindingCodes.DateMissing, "Date")]
    [InlineData("H1|Inn|INV|T-1|01/10/2026||GBP|1.00|twelve||", FindingCodes.AmountUnreadable, "Balance")]
    [InlineData("H1|Inn|INV|T-1|01/10/2026||GBP|1.00|||", FindingCodes.AmountMissing, "Balance")]
    [InlineData("||INV|T-1|01/10/2026||GBP|1.00|1.00||", FindingCodes.NoCustomer, "Account")]
    [InlineData("H1|Inn|INV|T-1|01/10/2026||GPB|1.00|1.00||", FindingCodes.CurrencyUnknown, "Currency")]
    public void A_row_that_cannot_be_used_is_set_aside_with_its_place(string line, string code, string column)
    {
        var read = Read(line);
        Assert.Empty(read.Rows);
        Assert.Equal(2, Assert.Single(read.SetAside).Source.Row);
        var finding = Assert.Single(read.Findings, f => f.Severity == Severity.Error);
        Assert.Equal((code, column, 2), (finding.Code, finding.Column, finding.Source.Row));
        Assert.Equal((1, 0, 1), (read.Reader.RowsRead, read.Reader.RowsKept, read.Reader.RowsSetAside));
    }

    [Fact]
    public void A_row_set_aside_still_tells_its_amount()
    {
        var aside = Assert.Single(Read("H1|Inn|INV|T-1|31/02/2026||GBP|1.00|12.50||").SetAside);
        Assert.Equal(("H1", Ledgers.Pounds, 12.5m), (aside.Customer, aside.Currency!.Value, aside.Amount));
    }

    [Fact]
    public void The_due_date_is_derived_from_the_terms_and_counted_once()
    {
        var read = Read("H1|Inn|INV|T-1|01/10/2026||GBP|1.00|1.00||", "H1|Inn|INV|T-2|02/10/2026||GBP|1.00|1.00||");
        Assert.Equal([new DateOnly(2026, 10, 31), new DateOnly(2026, 11, 1)], read.Rows.Select(r => r.Due));
        var finding = Assert.Single(read.Findings, f => f.Code == FindingCodes.DueDateDerived);
        Assert.Equal(Severity.Note, finding.Severity);
        Assert.Contains("2 rows", finding.Message);
    }

    [Fact]
    public void Unsigned_credits_take_their_sign_from_the_kind()
    {
        var read = Read(
            "H1|Inn|INV|1|01/10/2026||GBP|9.00|9.00||",
            "H1|Inn|CRN|2|01/10/2026||GBP|2.00|2.00||",
            "H1|Inn|Payment|3|01/10/2026||GBP|3.00|3.00||"
        );
        Assert.Equal([9m, -2m, -3m], read.Rows.Select(r => r.Open));
        Assert.DoesNotContain(read.Findings, f => f.Severity == Severity.Error);
    }

    [Fact]
    public void Signed_credits_stand_as_written()
    {
        Assert.Equal(
            [-2m, -3m],
            Read("H1|Inn|CRN|2|01/10/2026||GBP|-2.00|-2.00||", "H1|Inn|CRN|3|01/10/2026||GBP|(3.00)|(3.00)||").Rows.Select(r => r.Open)
        );
    }

    [Fact]
    public void Where_both_occur_the_fewer_are_to_be_decided()
    {
        var read = Read(
            "H1|Inn|CRN|1|01/10/2026||GBP|1|-1.00||",
            "H1|Inn|CRN|2|01/10/2026||GBP|2|-2.00||",
            "H2|Mill|CRN|3|01/10/2026||GBP|3|3.00||"
        );
        Assert.Equal([-1m, -2m], read.Rows.Select(r => r.Open));
        Assert.Equal(4, Assert.Single(read.Findings, f => f.Code == FindingCodes.SignUnclear && f.Column == "Balance").Source.Row);
    }

    [Fact]
    public void On_a_tie_all_of_them_are_to_be_decided()
    {
        var read = Read("H1|Inn|CRN|1|01/10/2026||GBP||-1.00||", "H1|Inn|CRN|3|01/10/2026||GBP||3.00||");
        Assert.Empty(read.Rows);
        Assert.Equal(2, read.Findings.Count(f => f.Code == FindingCodes.SignUnclear));
    }

    [Fact]
    public void An_unknown_kind_goes_by_its_sign_with_a_finding()
    {
        var read = Read("H1|Inn|Laundry bag|1|01/10/2026||GBP|9.00|9.00||", "H1|Inn|Laundry bag|2|01/10/2026||GBP|-2.00|-2.00||");
        Assert.Equal([ItemKind.Invoice, ItemKind.CreditNote], read.Rows.Select(r => r.Kind));
        Assert.Equal(2, read.Findings.Count(f => f.Code == FindingCodes.KindUnknown));
    }

    [Fact]
    public void A_row_that_stands_twice_is_counted_and_named()
    {
        var read = Read("H1|Inn|INV|T-1|01/10/2026||GBP|9.00|9.00||", "H1|Inn|INV|T-1|01/10/2026||GBP|9.00|9.00||");
        Assert.Equal(2, read.Rows.Count);
        Assert.Contains("row 2", Assert.Single(read.Findings, f => f.Code == FindingCodes.SameRowTwice).Message);
    }

    [Fact]
    public void A_row_stands_twice_whichever_way_its_amount_is_written() =>
        Gen.Select(Gen.Long[-99_999_999_999, 99_999_999_999], Gen.Int[0, 1], Gen.Int[0, 1])
            .Sample(
                (tenths, zeros, more) =>
                {
                    var amount = tenths / 10m;
                    string Line(decimal value, int noughts) =>
                        "H1|Inn|Invoice|T-1|01/10/2026||GBP|"
                        + $"{value.ToString("0.0", CultureInfo.InvariantCulture)}{new string('0', noughts)}|"
                        + $"{value.ToString("0.0", CultureInfo.InvariantCulture)}|";
                    Assert.Single(Read(Line(amount, zeros), Line(amount, more)).Findings, f => f.Code == FindingCodes.SameRowTwice);
                    Assert.DoesNotContain(Read(Line(amount, zeros), Line(amount + 0.1m, more)).Findings, f =>
                        f.Code == FindingCodes.SameRowTwice
                    );
                },
                iter: 300
            );

    [Fact]
    public void Total_lines_are_kept_out_and_checked()
    {
        var read = Read(
            "H1|Inn|INV|1|01/10/2026||GBP|9.00|9.00||",
            "|Total Inn||||||||9.00||".Replace("||||||||", "||||||| "),
            "H2|Mill|INV|2|01/10/2026||GBP|1.00|1.00||",
            "Grand total||||||||11.00||"
        );
        Assert.Equal(2, read.Rows.Count);
        Assert.Equal(2, read.Reader.TotalLineCount);
        var finding = Assert.Single(read.Findings, f => f.Code == FindingCodes.ControlTotalDiffers);
        Assert.Equal(5, finding.Source.Row);
        Assert.Contains("11.00", finding.Message);
    }

    [Fact]
    public void Two_names_under_one_code_and_two_codes_under_one_address_are_findings()
    {
        var read = Read(
            "H1|Hotel Łabędź|INV|1|01/10/2026||GBP|9.00|9.00|a@b.example|",
            "H1|Hotel Labedz|INV|2|01/10/2026||GBP|9.00|9.00|A@B.example|",
            "H2|HOTEL ŁABĘDŹ!|INV|3|01/10/2026||GBP|9.00|9.00|a@b.example; x@y|"
        );
        Assert.Single(read.Findings, f => f.Code == FindingCodes.CodeWithTwoNames);
        Assert.Single(read.Findings, f => f.Code == FindingCodes.AddressOfTwoCustomers);
        Assert.Contains("“x@y”", Assert.Single(read.Findings, f => f.Code == FindingCodes.BadAddress).Message);
    }

    [Fact]
    public void Without_codes_names_are_folded_and_a_known_code_is_found_by_name()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Date|Balance",
                "H1|Abbot’s Table|2026-10-01|1.00",
                "|ABBOTS  TABLE|2026-10-01|2.00",
                "|Old Mill|2026-10-01|3.00",
                "|old mill.|2026-10-01|4.00"
            )
        );
        Assert.Equal(["H1", "H1", "Old Mill", "Old Mill"], read.Rows.Select(r => r.Customer));
    }

    [Fact]
    public void Debit_and_credit_are_netted()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Date|Debit|Credit",
                "H1|2026-10-01|9.00|",
                "H1|2026-10-02||4.00",
                "H1|2026-10-03|9.00|4.00",
                "H1|2026-10-04||"
            )
        );
        Assert.Equal([9m, -4m, 5m], read.Rows.Select(r => r.Open));
        Assert.Single(read.Findings, f => f.Code == FindingCodes.DebitAndCredit);
        Assert.Single(read.Findings, f => f.Code == FindingCodes.AmountMissing);
    }

    [Fact]
    public void An_amount_finer_than_the_minor_unit_is_rounded_with_a_finding()
    {
        var read = Read("H1|Inn|INV|1|01/10/2026||GBP|1.005|1.005||");
        Assert.Equal(1.01m, Assert.Single(read.Rows).Open);
        Assert.Equal(2, read.Findings.Count(f => f.Code == FindingCodes.AmountFinerThanUnit));
    }

    [Fact]
    public void A_value_that_contradicts_the_columns_mark_is_an_error_on_its_row()
    {
        var read = Read(
            "H1|Inn|INV|1|01/10/2026||GBP|1.50|1.50||",
            "H1|Inn|INV|2|01/10/2026||GBP|2.50|2.50||",
            "H1|Inn|INV|3|01/10/2026||GBP|2.50|3,50||"
        );
        Assert.Equal(2, read.Rows.Count);
        Assert.Equal(
            (4, "Balance"),
            (Assert.Single(read.Findings, f => f.Code == FindingCodes.AmountUnreadable) is var f ? (f.Source.Row, f.Column!) : default)
        );
    }

    [Fact]
    public void Shuffling_rows_and_columns_changes_nothing_but_row_numbers()
    {
        var lines = new[]
        {
            "H1|Inn|INV|1|01/10/2026||GBP|9.00|9.00||",
            "H1|Inn|CRN|2|13/10/2026||GBP|2.00|2.00||x",
            "H2|Mill|INV|3|05/10/2026|31/12/2026|EUR|1,009.00|9.00|a@b.example|",
            "H3|Bay|Payment|4|01/10/2026||GBP|7.00|7.00||",
        };
        var expected = Known(Read(lines).Rows);
        var order = Gen.Select(Gen.Shuffle(Enumerable.Range(0, 4).ToArray()), Gen.Shuffle(Enumerable.Range(0, 11).ToArray()));
        order.Sample(
            (rows, columns) =>
            {
                string Turn(string line) => string.Join('|', columns.Select(c => line.Split('|')[c]));
                var table = Tables.Of([Turn(Headings), .. rows.Select(r => Turn(lines[r]))]);
                Assert.Equal(expected, Known(Tables.Read(table).Rows));
            },
            iter: 200
        );

        static List<string> Known(IEnumerable<LedgerRow> rows) =>
            [
                .. rows.Select(r =>
                        $"{r.Customer} {r.Kind} {r.Number} {r.Date} {r.Due} {r.Currency} {r.Original} {r.Open} {r.Email} "
                        + $"{string.Join(',', r.Extra.Values)}"
                    )
                    .Order(),
            ];
    }

    private static Tables.ReadFile Read(params string[] lines) => Tables.Read(Tables.Of([Headings, .. lines]));
}
