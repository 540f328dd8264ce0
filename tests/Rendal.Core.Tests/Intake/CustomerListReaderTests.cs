using Rendal.Core.Customers;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CustomerListReaderTests
{
    [Fact]
    public void A_list_gives_names_contacts_addresses_terms_and_language()
    {
        var list = Read(
            "Code|Name|Title|Contact|E-mail|Language|Street|Town|Country|Terms|On hold",
            "FL01|Ferry Line Aster|Mr|Rolf Brandt|accounts@ferry.example|de|41 Tenter Lane|Saltness SN1 0FL|Germany|45|yes"
        );
        var customer = Assert.Single(Cards(list));
        Assert.Equal(
            ("FL01", "Ferry Line Aster", "Mr", "Rolf Brandt", "Brandt"),
            (customer.Key, customer.Name, customer.Title, customer.Contact, customer.FamilyName)
        );
        Assert.Equal(["41 Tenter Lane", "Saltness SN1 0FL"], customer.PostalLines);
        Assert.Equal(
            ("accounts@ferry.example", "de", "Germany", true),
            (customer.Email, customer.Language, customer.Country, customer.OnHold)
        );
        Assert.Equal(new PaymentTerms(45), customer.Terms);
        Assert.Empty(list.Findings.Listed());
    }

    [Fact]
    public void Title_lines_above_the_headings_and_blank_rows_are_passed_over()
    {
        var list = Read(
            "Tarnbrook Linen Hire",
            "Customers at 31 October",
            "",
            "Customer no|Customer name|E-mail",
            "AB01|Abbot’s Table|a@abbot.example",
            "||",
            "BE02|Beacon Lodge|b@beacon.example"
        );
        Assert.Equal(["AB01", "BE02"], list.Customers.Select(c => c.Key));
    }

    [Fact]
    public void Headings_are_known_in_other_languages()
    {
        var german = Assert.Single(
            Cards(
                Read(
                    "Kundennummer|Firma|Anrede|Ansprechpartner|E-Mail-Adresse|Straße|PLZ|Ort|Zahlungsziel",
                    "10|Gasthof Krone|Frau|Anke Weber|krone@gasthof.example|Markt 1|80331|München|14"
                )
            )
        );
        Assert.Equal(("10", "Gasthof Krone", "Frau", "Anke Weber"), (german.Key, german.Name, german.Title, german.Contact));
        Assert.Equal(["Markt 1", "München 80331"], german.PostalLines);
        Assert.Equal(new PaymentTerms(14), german.Terms);

        var french = Assert.Single(
            Cards(Read("Code client|Raison sociale|Courriel|Rue|Ville", "A1|Auberge du Phare|phare@auberge.example|3 rue du Port|Calais"))
        );
        Assert.Equal(("A1", "Auberge du Phare", "phare@auberge.example"), (french.Key, french.Name, french.Email));
    }

    [Fact]
    public void The_error_of_a_formula_is_no_value_and_a_row_without_its_code_is_nobodys()
    {
        var lines = Tables.Of("Code|Name|E-mail", "AB01|Abbot’s Table|a@abbot.example", "BE02|Beacon Lodge|b@beacon.example");
        var table = lines with
        {
            Rows =
            [
                .. lines.Rows.Select(r =>
                    r.Number == 2 ? r with { Cells = r.Cells.SetItem(2, Cell.OfError("#N/A")) }
                    : r.Number == 3 ? r with { Cells = r.Cells.SetItem(0, Cell.OfError("#REF!")) }
                    : r
                ),
            ],
        };
        var list = CustomerListReader.Read(table, CardReading.Of(table, ReadingChange.None)!);
        Assert.Equal(("AB01", ""), (Assert.Single(Cards(list)).Key, Cards(list)[0].Email));
        Assert.Equal([(3, Severity.Error), (2, Severity.Warning)], list.Findings.Listed().Select(f => (f.Source.Row, f.Severity)));
    }

    [Fact]
    public void Of_two_headings_for_the_name_the_first_is_the_code()
    {
        var customer = Assert.Single(Cards(Read("Customer|Name|E-mail", "AB01|Abbot’s Table|a@abbot.example")));
        Assert.Equal(("AB01", "Abbot’s Table"), (customer.Key, customer.Name));
    }

    [Fact]
    public void Where_there_are_no_codes_the_name_is_the_key()
    {
        var customer = Assert.Single(Cards(Read("Name|E-mail", "Abbot’s Table|a@abbot.example")));
        Assert.Equal(("Abbot’s Table", "Abbot’s Table"), (customer.Key, customer.Name));
    }

    [Fact]
    public void A_code_that_stands_twice_counts_once_and_is_a_finding()
    {
        var list = Read("Code|Name", "AB01|Abbot’s Table", "AB01|Abbot’s Bar");
        Assert.Equal("Abbot’s Table", Assert.Single(Cards(list)).Name);
        var finding = Assert.Single(list.Findings.Listed());
        Assert.Equal((FindingCodes.SameRowTwice, 3, "AB01"), (finding.Code, finding.Source.Row, finding.Customer));
    }

    [Fact]
    public void A_row_of_nobody_and_a_bad_address_are_findings_and_the_rest_is_read()
    {
        var list = Read("Code|Name|E-mail", "||lost@nowhere.example", "BE02|Beacon Lodge|office@@beacon; b@beacon.example");
        Assert.Equal("BE02", Assert.Single(list.Customers).Key);
        Assert.Equal(
            [(FindingCodes.NoCustomer, 2), (FindingCodes.BadAddress, 3)],
            list.Findings.Listed().Select(f => (f.Code, f.Source.Row))
        );
    }

    [Theory]
    [InlineData("yes", true)]
    [InlineData("X", true)]
    [InlineData("stop", true)]
    [InlineData("", false)]
    [InlineData("no", false)]
    [InlineData("Nein", false)]
    [InlineData("0", false)]
    public void On_hold_is_whatever_is_not_a_no(string written, bool onHold) =>
        Assert.Equal(onHold, Assert.Single(Cards(Read("Code|Name|On hold", $"AB01|Abbot’s Table|{written}"))).OnHold);

    [Fact]
    public void A_value_that_is_not_understood_is_a_finding_and_leaves_the_card_as_it_is()
    {
        var list = Read("Code|Name|Language|Terms|Delivery|Minimum balance", "AB01|Abbot’s Table|Klingon|soon|by pigeon|lots");
        Assert.Equal(
            [
                ("Delivery", FindingCodes.ValueUnknown),
                ("Language", FindingCodes.ValueUnknown),
                ("Minimum balance", FindingCodes.ValueUnknown),
                ("Terms", FindingCodes.ValueUnknown),
            ],
            list.Findings.Listed().Select(f => (f.Column!, f.Code)).Order()
        );
        var card = Assert.Single(Cards(list));
        Assert.Equal(("en", null, Delivery.Email, null), (card.Language, card.Terms, card.Delivery, card.MinimumBalance));
    }

    [Fact]
    public void Everything_on_the_card_can_come_from_a_list()
    {
        var card = Assert.Single(
            Cards(
                Read(
                    "Code|Name|Contact|E-mail|Copy to|Bcc|Delivery|Terms|Head office|Unit|Minimum balance|Salutation|Notes|Loading bay",
                    "AB01|Abbot’s Table|Owen Farrow|a@abbot.example; b@abbot.example|c@abbot.example|d@abbot.example|both|"
                        + "EOM + 14|AB00|North laundry|25.50|Dear Owen|rings on Fridays|B2"
                )
            )
        );
        Assert.Equal(
            [
                ("Owen Farrow", "a@abbot.example", ContactRole.To),
                ("", "b@abbot.example", ContactRole.To),
                ("", "c@abbot.example", ContactRole.Copy),
                ("", "d@abbot.example", ContactRole.BlindCopy),
            ],
            card.Contacts.Select(c => (c.Name, c.Address, c.Role))
        );
        Assert.Equal(
            (Delivery.Both, new PaymentTerms(14, FromMonthEnd: true), "AB00", "North laundry", 25.50m),
            (card.Delivery, card.Terms, card.HeadOffice, card.Unit, card.MinimumBalance)
        );
        Assert.Equal(("Dear Owen", "rings on Fridays", "B2"), (card.Salutation, card.Notes, card.Extra["Loading bay"]));
    }

    [Fact]
    public void A_code_with_any_column_beside_it_is_a_list_of_extra_columns()
    {
        var list = Read("Customer code|Loading bay", "AB01|B2");
        Assert.Equal("B2", Assert.Single(list.Customers).Extra["Loading bay"]);
    }

    [Fact]
    public void Rows_that_the_workbook_hides_are_told()
    {
        var table = Tables.Of("Code|Name", "AB01|Abbot’s Table", "CD02|Cinder Inn");
        table = table with { Rows = [.. table.Rows.Select(r => r.Number == 3 ? r with { IsHidden = true } : r)] };
        var finding = Assert.Single(CustomerListReader.Read(table, CardReading.Of(table, ReadingChange.None)!).Findings.Listed());
        Assert.Equal((FindingCodes.RowsHidden, Severity.Warning, 3), (finding.Code, finding.Severity, finding.Source.Row));
        Assert.Equal("One row is hidden in the workbook (row 3). It is read like the others.", finding.Message);
    }

    [Fact]
    public void A_file_without_such_headings_is_no_customer_list() =>
        Assert.Null(CardReading.Of(Tables.Of([.. Enumerable.Repeat("one|two|three", 150)]), ReadingChange.None));

    private static IReadOnlyList<Customer> Cards(CustomerList list) =>
        [.. list.Customers.Select(c => CardMerge.Merge(null, c, list.Reading, emptyClears: false, []))];

    private static CustomerList Read(params string[] lines)
    {
        var table = Tables.Of(lines);
        var reading = CardReading.Of(table, ReadingChange.None);
        Assert.NotNull(reading);
        Assert.Empty(reading.Lacks());
        return CustomerListReader.Read(table, reading);
    }
}
