using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CustomerListReaderTests
{
    [Fact]
    public void A_list_gives_names_contacts_addresses_terms_and_language()
    {
        var list = Read("Code|Name|Title|Contact|E-mail|Language|Street|Town|Country|Terms|On hold", "FL01|Ferry Line Aster|Mr|Rolf Brandt|accounts@ferry.example|de|41 Tenter Lane|Saltness SN1 0FL|Germany|45|yes");
        var (customer, terms) = Assert.Single(list.Customers);
        Assert.Equal(("FL01", "Ferry Line Aster", "Mr", "Rolf Brandt", "Brandt"), (customer.Key, customer.Name, customer.Title, customer.Contact, customer.FamilyName));
        Assert.Equal(["41 Tenter Lane", "Saltness SN1 0FL"], customer.PostalLines);
        Assert.Equal(("accounts@ferry.example", "de", "Germany", true), (customer.Email, customer.Language, customer.Country, customer.OnHold));
        Assert.Equal(45, terms);
        Assert.Empty(list.Findings);
    }

    [Fact]
    public void Title_lines_above_the_headings_and_blank_rows_are_passed_over()
    {
        var list = Read("Tarnbrook Linen Hire", "Customers at 31 October", "", "Customer no|Customer name|E-mail", "AB01|Abbot’s Table|a@abbot.example", "||", "BE02|Beacon Lodge|b@beacon.example");
        Assert.Equal(["AB01", "BE02"], list.Customers.Select(c => c.Customer.Key));
    }

    [Fact]
    public void Headings_are_known_in_other_languages()
    {
        var german = Assert.Single(Read("Kundennummer|Firma|Anrede|Ansprechpartner|E-Mail-Adresse|Straße|PLZ|Ort|Zahlungsziel", "10|Gasthof Krone|Frau|Anke Weber|krone@gasthof.example|Markt 1|80331|München|14").Customers);
        Assert.Equal(("10", "Gasthof Krone", "Frau", "Anke Weber"), (german.Customer.Key, german.Customer.Name, german.Customer.Title, german.Customer.Contact));
        Assert.Equal(["Markt 1", "München 80331"], german.Customer.PostalLines);
        Assert.Equal(14, german.TermsDays);

        var french = Assert.Single(Read("Code client|Raison sociale|Courriel|Rue|Ville", "A1|Auberge du Phare|phare@auberge.example|3 rue du Port|Calais").Customers);
        Assert.Equal(("A1", "Auberge du Phare", "phare@auberge.example"), (french.Customer.Key, french.Customer.Name, french.Customer.Email));
    }

    [Fact]
    public void Of_two_headings_for_the_name_the_first_is_the_code()
    {
        var customer = Assert.Single(Read("Customer|Name|E-mail", "AB01|Abbot’s Table|a@abbot.example").Customers).Customer;
        Assert.Equal(("AB01", "Abbot’s Table"), (customer.Key, customer.Name));
    }

    [Fact]
    public void Where_there_are_no_codes_the_name_is_the_key()
    {
        var customer = Assert.Single(Read("Name|E-mail", "Abbot’s Table|a@abbot.example").Customers).Customer;
        Assert.Equal(("Abbot’s Table", "Abbot’s Table"), (customer.Key, customer.Name));
    }

    [Fact]
    public void A_code_that_stands_twice_counts_once_and_is_a_finding()
    {
        var list = Read("Code|Name", "AB01|Abbot’s Table", "AB01|Abbot’s Bar");
        Assert.Equal("Abbot’s Table", Assert.Single(list.Customers).Customer.Name);
        var finding = Assert.Single(list.Findings);
        Assert.Equal((FindingCodes.SameRowTwice, 3, "AB01"), (finding.Code, finding.Source.Row, finding.Customer));
    }

    [Fact]
    public void A_row_of_nobody_and_a_bad_address_are_findings_and_the_rest_is_read()
    {
        var list = Read("Code|Name|E-mail", "||lost@nowhere.example", "BE02|Beacon Lodge|office@@beacon; b@beacon.example");
        Assert.Equal("BE02", Assert.Single(list.Customers).Customer.Key);
        Assert.Equal([(FindingCodes.NoCustomer, 2), (FindingCodes.BadAddress, 3)], list.Findings.Select(f => (f.Code, f.Source.Row)));
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
        Assert.Equal(onHold, Assert.Single(Read("Code|Name|On hold", $"AB01|Abbot’s Table|{written}").Customers).Customer.OnHold);

    [Theory]
    [InlineData("30", 30)]
    [InlineData("0", 0)]
    [InlineData("3650", 3650)]
    [InlineData("3651", null)]
    [InlineData("soon", null)]
    [InlineData("-5", null)]
    public void Terms_are_whole_days_up_to_ten_years(string written, int? days) => Assert.Equal(days, Assert.Single(Read("Code|Name|Terms", $"AB01|Abbot’s Table|{written}").Customers).TermsDays);

    [Fact]
    public void A_language_that_is_not_known_is_English() =>
        Assert.Equal("en", Assert.Single(Read("Code|Name|Language", "AB01|Abbot’s Table|Klingon").Customers).Customer.Language);

    [Fact]
    public void A_file_without_such_headings_is_no_customer_list() => Assert.Null(CustomerListReader.Read(Tables.Of([.. Enumerable.Repeat("one|two|three", 150)])));

    private static CustomerList Read(params string[] lines)
    {
        var list = CustomerListReader.Read(Tables.Of(lines));
        Assert.NotNull(list);
        return list;
    }
}
