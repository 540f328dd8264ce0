using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CarriedDownTests
{
    [Fact]
    public void A_customer_named_once_is_carried_down_to_the_rows_below()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "H1|Inn|T-1|01/10/2026|1.00",
                "||T-2|02/10/2026|2.00",
                "||T-3|03/10/2026|3.00",
                "H2|Mill|T-4|04/10/2026|4.00",
                "||T-5|05/10/2026|5.00"
            )
        );
        Assert.True(read.Reading.CarriesDown);
        Assert.Equal("3 of 5 rows name none", read.Reading.CarryReason);
        Assert.Equal(
            [("H1", "Inn"), ("H1", "Inn"), ("H1", "Inn"), ("H2", "Mill"), ("H2", "Mill")],
            read.Rows.Select(r => (r.Customer, r.CustomerName))
        );
        Assert.Contains("3 rows", Assert.Single(read.Findings, f => f.Code == FindingCodes.CustomerCarriedDown).Message);
    }

    [Fact]
    public void A_line_of_its_own_names_the_customer_of_the_rows_below()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "H1|Inn|||",
                "||T-1|01/10/2026|1.00",
                "||T-2|02/10/2026|2.00",
                "H2|Mill|||",
                "||T-3|03/10/2026|3.00"
            )
        );
        Assert.Equal(["H1", "H1", "H2"], read.Rows.Select(r => r.Customer));
        Assert.Equal(3, read.Reader.RowsRead);
    }

    [Fact]
    public void A_line_that_only_has_a_name_stands_for_the_code_that_stands_beside_it_elsewhere()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "|Inn|||",
                "||T-1|01/10/2026|1.00",
                "||T-2|02/10/2026|2.00",
                "H1|Inn|T-3|03/10/2026|3.00"
            )
        );
        Assert.Equal(["H1", "H1", "H1"], read.Rows.Select(r => r.Customer));
    }

    [Theory]
    [InlineData("Customer: H1 Inn at Kell", "H1", "Inn at Kell")]
    [InlineData("H1 – Inn at Kell", "H1", "Inn at Kell")]
    [InlineData("H1|Inn at Kell", "H1", "Inn at Kell")]
    [InlineData("Customer|H1 Inn at Kell", "H1", "Inn at Kell")]
    [InlineData("Inn at Kell", "Inn at Kell", "Inn at Kell")]
    public void Where_no_column_is_for_customers_a_line_above_the_rows_names_one(string line, string customer, string name)
    {
        var read = Tables.Read(Tables.Of("Number|Date|Due|Balance", line, "T-1|01/10/2026||1.00", "T-2|02/10/2026||2.00"));
        Assert.Equal([(customer, name), (customer, name)], read.Rows.Select(r => (r.Customer, r.CustomerName)));
    }

    [Fact]
    public void A_few_rows_without_customer_are_errors_and_go_to_nobody()
    {
        var rows = Enumerable.Range(1, 9).Select(i => $"H{i}|Inn|T-{i}|01/10/2026|1.00").Append("||T-10|01/10/2026|1.00");
        var read = Tables.Read(Tables.Of(["Account|Name|Number|Date|Balance", .. rows]));
        Assert.False(read.Reading.CarriesDown);
        Assert.Equal(11, Assert.Single(read.Findings, f => f.Code == FindingCodes.NoCustomer).Source.Row);
    }

    [Fact]
    public void Below_a_customers_total_the_next_one_has_to_be_named()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "H1|Inn|T-1|01/10/2026|1.00",
                "||T-2|02/10/2026|2.00",
                "Total||||3.00",
                "||T-3|03/10/2026|4.00"
            )
        );
        Assert.Equal(["H1", "H1"], read.Rows.Select(r => r.Customer));
        Assert.Equal(5, Assert.Single(read.SetAside).Source.Row);
    }

    [Fact]
    public void A_person_may_say_otherwise()
    {
        var table = Tables.Of(
            "Account|Name|Number|Date|Balance",
            "H1|Inn|T-1|01/10/2026|1.00",
            "||T-2|02/10/2026|2.00",
            "||T-3|03/10/2026|3.00"
        );
        var read = Tables.Read(table, change: new ReadingChange { CarriesDown = false });
        Assert.Equal(2, read.SetAside.Count);
        Assert.Equal("set by you", read.Reading.CarryReason);
    }

    [Fact]
    public void Headings_that_stand_again_on_each_page_are_no_rows()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "H1|Inn|T-1|01/10/2026|1.00",
                "Account|Name|Number|Date|Balance",
                "H2|Mill|T-2|02/10/2026|2.00"
            )
        );
        Assert.Equal((2, 2), (read.Reader.RowsRead, read.Rows.Count));
    }

    [Fact]
    public void Totals_of_customers_of_units_and_of_all_agree_together()
    {
        var read = Tables.Read(
            Tables.Of(
                "Account|Name|Number|Date|Balance",
                "H1|Inn|T-1|01/10/2026|1.00",
                "Total Inn||||1.00",
                "H2|Mill|T-2|02/10/2026|2.00",
                "Total Mill||||2.00",
                "Total North||||3.00",
                "H3|Bay|T-3|02/10/2026|4.00",
                "Total Bay||||4.00",
                "Total South||||4.00",
                "Grand total||||7.00"
            )
        );
        Assert.DoesNotContain(read.Findings, f => f.Code == FindingCodes.ControlTotalDiffers);
        Assert.All(read.Reader.Checks, c => Assert.True(c.Agrees));
        Assert.Equal(6, read.Reader.Checks.Count);
    }

    [Fact]
    public void A_total_that_a_person_typed_in_is_compared()
    {
        var table = Tables.Of("Account|Name|Number|Date|Balance", "H1|Inn|T-1|01/10/2026|1.00");
        var agrees = Tables.Read(table, change: new ReadingChange { Totals = new Dictionary<string, decimal> { ["GBP"] = 1.00m } });
        Assert.True(Assert.Single(agrees.Reader.Checks).Agrees);
        var differs = Tables.Read(table, change: new ReadingChange { Totals = new Dictionary<string, decimal> { ["GBP"] = 1.10m } });
        Assert.EndsWith("a difference of 0.10.", Assert.Single(differs.Findings, f => f.Code == FindingCodes.ControlTotalDiffers).Message);
    }
}
