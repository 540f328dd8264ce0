using System.Text.RegularExpressions;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Statements;
using Rendal.Html;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Layouts;

public class StatementDocumentTests
{
    private static readonly Firm Tarnbrook = new("Tarnbrook Linen Hire", ["1 Mill Lane"], [], ["Quote your account"]);

    [Fact]
    public void The_items_stand_in_the_customers_language()
    {
        var document = Of(
            new Customer
            {
                Key = "D1",
                Name = "Gasthof <Krone> & Co",
                Language = "de",
                Contacts = [new Contact { Name = "Anke Weber", Title = "Frau" }],
                PostalLines = ["Am Markt 1"],
                Country = "Germany",
            },
            "EUR"
        );
        Assert.Equal("Kontoauszug", document.Title);
        Assert.Equal(["Gasthof <Krone> & Co", "Frau Anke Weber", "Am Markt 1", "Germany"], document.AddressLines);
        Assert.Equal(
            ["T-1", "Rechnung", "31.08.2026", "30.09.2026", "31", "1.500,00", "1.500,00"],
            document.Sections[0].Rows.Single(r => r[0] == "T-1")
        );
        Assert.Equal("1.440,00\u00A0€", document.Sections[0].Total);
        Assert.Equal(
            ["nicht fällig", "1–30 Tage", "31–60 Tage", "61–90 Tage", "90+ Tage", "Guthaben"],
            document.Sections[0].Ages.Select(a => a.Label)
        );
    }

    [Fact]
    public void Each_cell_of_a_traced_table_tells_its_row_and_field_and_nothing_else_differs()
    {
        var document = Of(new Customer { Key = "A", Name = "A" }, "GBP");
        var traced = StatementTable.Html(document, traced: true);
        Assert.Equal(StatementTable.Html(document), Regex.Replace(traced, " data-from=\"[^\"]+\"", ""));
        var part = document.Sections[0].Parts[0];
        foreach (var (r, row) in part.Rows.Index())
        {
            Assert.Contains($"data-from=\"row {part.ReadFrom[r]} number\">{row[0]}<", traced);
        }

        Assert.Contains("data-from=\"slot statement.total\">", traced);
    }

    [Theory]
    [InlineData("row 12 due")]
    [InlineData("row 7 extra:Delivery round \"N1\"")]
    [InlineData("card name")]
    [InlineData("slot column.Delivery round")]
    public void Where_a_value_is_from_is_read_as_it_is_written(string written) => Assert.Equal(written, Origin.Parse(written)?.ToString());

    [Theory]
    [InlineData("")]
    [InlineData("row 0 due")]
    [InlineData("row twelve due")]
    [InlineData("row 12")]
    [InlineData("card")]
    [InlineData("file 12 due")]
    public void What_says_nothing_of_where_a_value_is_from_is_none(string written) => Assert.Null(Origin.Parse(written));

    [Fact]
    public void A_credit_has_no_due_date_and_a_true_minus()
    {
        var document = Of(new Customer { Key = "A", Name = "A" }, "GBP");
        Assert.Equal(
            ["C-1", "Credit note", "9 Sep 2026", "", "", "\u221260.00", "\u221260.00"],
            document.Sections[0].Rows.Single(r => r[0] == "C-1")
        );
    }

    [Fact]
    public void The_table_of_the_message_escapes_every_value()
    {
        var row = Row("A", 10m, "2026-10-01", number: "<img src=x>");
        var document = StatementDocument.Of(
            new Customer { Key = "A", Name = "A" },
            [Statement.Of("A", Pounds, [new OpenItem(row, 10m)], new(2026, 10, 31), AgeingRule.Default)],
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn
        );
        Assert.Contains("&lt;img src=x&gt;", StatementTable.Html(document));
        Assert.DoesNotContain("<img", StatementTable.Html(document));
    }

    private static StatementDocument Of(Customer customer, string currency)
    {
        var of = Rendal.Core.Money.Currency.Of(currency);
        var rows = new[]
        {
            Row(customer.Key, 1500m, "2026-08-31", "2026-09-30", "T-1", of),
            Row(customer.Key, -60m, "2026-09-09", number: "C-1", currency: of),
        };
        var statement = Statement.Of(customer.Key, of, rows.Select(r => new OpenItem(r, r.Open)), new(2026, 10, 31), AgeingRule.Default);
        return StatementDocument.Of(customer, [statement], AgeingRule.Default, Tarnbrook, LayoutReader.BuiltIn);
    }

    [Theory]
    [InlineData("en", "Subtotal", "Total of all accounts", "£115.00")]
    [InlineData("de", "Zwischensumme", "Saldo aller Konten", "115,00\u00A0£")]
    public void A_head_office_reads_its_branches_one_after_the_other_with_a_sum_each(
        string language,
        string subtotal,
        string grandTotal,
        string total
    )
    {
        var parts = new[] { ("B2", 15m), ("B1", 100m) }
            .Select(b =>
                Statement.Of(
                    b.Item1,
                    Pounds,
                    [new OpenItem(Row(b.Item1, b.Item2, "2026-10-01"), b.Item2)],
                    new(2026, 10, 31),
                    AgeingRule.Default
                )
            )
            .ToList();
        var document = StatementDocument.Of(
            new Customer
            {
                Key = "H",
                Name = "Head",
                Language = language,
            },
            [Statement.Gather("H", parts)],
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn,
            nameOf: key => key == "B1" ? "Inn <one>" : key
        );
        var section = Assert.Single(document.Sections);
        Assert.Equal(["Inn <one> (B1)", "B2"], section.Parts.Select(p => p.Heading));
        Assert.All(section.Parts, p => Assert.Equal(subtotal, p.TotalLabel));
        Assert.Equal((grandTotal, total), (section.TotalLabel, section.Total));

        var html = StatementTable.Html(document);
        Assert.Contains("Inn &lt;one&gt; (B1)", html, StringComparison.Ordinal);
        Assert.True(html.IndexOf(section.Parts[0].Total, StringComparison.Ordinal) < html.IndexOf("B2", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("en", "Brought forward", "Debit|Credit|Balance", "100.00|82.00", "£82.00")]
    [InlineData("de", "Saldovortrag", "Soll|Haben|Saldo", "100,00|82,00", "82,00\u00A0£")]
    public void A_brought_forward_statement_lists_movements_with_the_balance_after_each(
        string language,
        string opening,
        string headings,
        string balances,
        string total
    )
    {
        var rows = new[] { Row("A", 100m, "2026-09-02", number: "T-1"), Row("A", -18m, "2026-10-03", number: "P-1") };
        var choice = new Rendal.Core.Rounds.Choice { AsOf = new(2026, 10, 31), Form = StatementForm.BroughtForward };
        var round = Rendal.Core.Rounds.Choosing.Choose(
            rows,
            [],
            choice,
            SettlementRule.Oldest,
            StatementRules.Default,
            _ => new Rendal.Core.Rounds.Reachability(false, true, null)
        );
        var document = StatementDocument.Of(
            new Customer
            {
                Key = "A",
                Name = "A",
                Language = language,
            },
            round.Statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn
        );
        var section = Assert.Single(document.Sections);
        Assert.Equal(headings, string.Join('|', document.Columns.Skip(3).Select(c => c.Heading)));
        Assert.Equal(opening, section.Rows.First()[1]);
        Assert.Equal(balances, string.Join('|', section.Rows.Select(r => r[5])));
        Assert.Equal(total, section.Total);
    }

    [Theory]
    [InlineData("en", "Interest at 8.25% per annum on T-1, 73 days", "16.50", "To pay", "£1,016.50")]
    [InlineData("de", "Zinsen zu 8,25 % p. a. auf T-1, 73 Tage", "16,50", "Zu zahlen", "1.016,50\u00A0£")]
    public void Interest_stands_under_the_total_a_line_for_each_item_with_what_is_to_be_paid(
        string language,
        string line,
        string amount,
        string toPay,
        string total
    )
    {
        var choice = new Rendal.Core.Rounds.Choice { AsOf = new(2026, 10, 31), InterestPercent = 8.25m };
        var round = Rendal.Core.Rounds.Choosing.Choose(
            [Row("A", 1_000m, "2026-07-20", "2026-08-19", "T-1")],
            [],
            choice,
            SettlementRule.None,
            StatementRules.Default,
            _ => new Rendal.Core.Rounds.Reachability(false, true, null)
        );
        var document = StatementDocument.Of(
            new Customer
            {
                Key = "A",
                Name = "A",
                Language = language,
            },
            round.Statements,
            AgeingRule.Default,
            Tarnbrook,
            LayoutReader.BuiltIn,
            interestPercent: 8.25m
        );
        Assert.Equal([new TotalLine(line, amount), new TotalLine(toPay, total)], Assert.Single(document.Sections).Interest);
        Assert.Contains(System.Net.WebUtility.HtmlEncode(line), StatementTable.Html(document), StringComparison.Ordinal);
    }
}
