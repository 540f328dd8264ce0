using Rendal.Core.Customers;
using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake;

public class CardMergeTests
{
    private static readonly Customer Card = new()
    {
        Key = "AB01",
        Name = "Abbot’s Table",
        Contacts =
        [
            new Contact
            {
                Name = "Owen Farrow",
                Title = "Mr",
                Address = "owen@abbot.example",
            },
            new Contact { Address = "copies@abbot.example", Role = ContactRole.Copy },
        ],
        PostalLines = ["1 Mill Race"],
        Notes = "rings on Fridays",
        Extra = new Dictionary<string, string> { ["Loading bay"] = "B2" },
    };

    [Fact]
    public void Empty_fields_leave_filled_ones_as_they_are()
    {
        var merged = Merge("Code|Name|E-mail|Street|Notes|Loading bay", "AB01|Abbot’s Table & Bar||||");
        Assert.Equal("Abbot’s Table & Bar", merged.Name);
        Assert.Equal(Card.Contacts, merged.Contacts);
        Assert.Equal(["1 Mill Race"], merged.PostalLines);
        Assert.Equal(("rings on Fridays", "B2"), (merged.Notes, merged.Extra["Loading bay"]));
    }

    [Fact]
    public void Empty_fields_clear_filled_ones_where_that_was_asked_for_and_only_those_of_the_list()
    {
        var merged = Merge("Code|Name|Street|Loading bay", "AB01|Abbot’s Table||", emptyClears: true);
        Assert.Empty(merged.PostalLines);
        Assert.Empty(merged.Extra);
        Assert.Equal(("owen@abbot.example", "rings on Fridays"), (merged.Email, merged.Notes));
    }

    [Fact]
    public void A_contact_who_is_known_by_the_address_keeps_name_and_title()
    {
        var merged = Merge("Code|Name|E-mail", "AB01|Abbot’s Table|new@abbot.example; OWEN@abbot.example");
        Assert.Equal(
            [("", "new@abbot.example"), ("Owen Farrow", "OWEN@abbot.example"), ("", "copies@abbot.example")],
            merged.Contacts.Select(c => (c.Name, c.Address))
        );
    }

    [Fact]
    public void What_was_put_right_on_the_card_stands_while_the_list_says_the_same_wrong_thing()
    {
        var corrected = new Correction
        {
            Kind = CorrectionKind.Card,
            Of = "AB01",
            Column = nameof(CardField.Email),
            Was = "owen@abot.example",
            Becomes = "owen@abbot.example",
        };
        Assert.Equal(
            "owen@abbot.example",
            Merge("Code|Name|E-mail", "AB01|Abbot’s Table|owen@abot.example", corrections: corrected).Email
        );
        Assert.Equal(
            "owen@newtable.example",
            Merge("Code|Name|E-mail", "AB01|Abbot’s Table|owen@newtable.example", corrections: corrected).Email
        );
    }

    [Fact]
    public void A_customer_known_from_the_ledger_alone_is_on_a_list_once_a_list_names_it()
    {
        var known = Card with { FromLedger = true };
        Assert.False(Merge(known, "Code|Name", "AB01|Abbot’s Table").FromLedger);
        Assert.True(Merge(known, "Code|Loading bay", "AB01|B3").FromLedger);
    }

    private static Customer Merge(string headings, string line, bool emptyClears = false, params Correction[] corrections) =>
        Merge(Card, headings, line, emptyClears, corrections);

    private static Customer Merge(Customer card, string headings, string line, bool emptyClears = false, params Correction[] corrections)
    {
        var table = Tables.Of(headings, line);
        var reading = CardReading.Of(table, ReadingChange.None)!;
        return CardMerge.Merge(card, Assert.Single(CustomerListReader.Read(table, reading).Customers), reading, emptyClears, corrections);
    }
}
