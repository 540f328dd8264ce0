using Rendal.Core.Customers;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CardsFromRowsTests
{
    private const string Headings = "Account|Name|Kind|Number|Date|Due|Balance|E-mail";

    [Fact]
    public void Who_has_no_card_gets_one_with_what_the_rows_say()
    {
        var card = Assert.Single(Told([], "H014|Inn at Kell|Invoice|T-1|2026-08-31|2026-09-30|100.00|a@kell.example"));
        Assert.Equal(("H014", "Inn at Kell", "a@kell.example", true), (card.Key, card.Name, card.Email, card.FromLedger));
    }

    [Fact]
    public void A_card_keeps_its_addresses_and_gets_those_of_the_rows_where_it_has_none()
    {
        var row = "H014|Inn at Kell|Invoice|T-1|2026-08-31|2026-09-30|100.00|new@kell.example";
        var listed = new Customer { Key = "H014", Name = "Kell Inn Ltd" };
        Assert.Equal(listed with { Contacts = Contacts("new@kell.example") }, Assert.Single(Told([listed], row)), Same);
        Assert.Empty(Told([listed with { Contacts = Contacts("old@kell.example") }], row));
    }

    [Fact]
    public void Only_the_name_of_a_card_that_rows_made_follows_the_rows()
    {
        var row = "H014|Inn at Kell|Invoice|T-1|2026-08-31|2026-09-30|100.00|";
        var card = new Customer { Key = "H014", Name = "H014" };
        Assert.Empty(Told([card], row));
        Assert.Equal("Inn at Kell", Assert.Single(Told([card with { FromLedger = true }], row)).Name);
        Assert.Empty(Told([card with { FromLedger = true, Name = "Inn at Kell" }], row));
    }

    private static IReadOnlyList<Customer> Told(Customer[] cards, params string[] rows) =>
        CardsFromRows.Told(
            Tables.Read(Tables.Of([Headings, .. rows])).Reader.Customers.Values,
            cards.ToDictionary(c => c.Key, StringComparer.Ordinal)
        );

    private static Contact[] Contacts(string address) =>
        [.. CardText.With(new Customer { Key = "H014", Name = "H014" }, CardField.Email, address).Contacts];

    private static bool Same(Customer? a, Customer? b) =>
        (a?.Key, a?.Name, a?.Email, a?.FromLedger) == (b?.Key, b?.Name, b?.Email, b?.FromLedger);
}
