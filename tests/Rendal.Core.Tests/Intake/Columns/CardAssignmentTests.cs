using Rendal.Core.Intake;

namespace Rendal.Core.Tests.Intake.Columns;

/// <summary>Customer lists are read at sight as ledgers are.</summary>
public sealed class CardAssignmentTests
{
    [Theory]
    [InlineData("Acct ID|Trading name|Attn.|Mail addr.|Street addr.|City|Zip|Lang.|Pmt terms")]
    [InlineData("Kd.-Nr.|Kundenbez.|Ansprechp.|E-Mail-Adr.|Straße|Ort|Postleitz.|Sprache|Zahlungsziel")]
    [InlineData("Cpte client|Intitulé|Interlocuteur|Adr. mail|Rue|Ville|Code post.|Langue|Délai de paiement")]
    [InlineData("Cód. cliente|Razón social|Contacto|Correo|Domicilio|Población|C.P.|Idioma|Plazo")]
    [InlineData("Debnr.|Naam debiteur|Contactpers.|E-mailadres|Straat|Woonplaats|Postcode|Taal|Betalingstermijn")]
    public void Under_headings_of_any_language(string headings)
    {
        var reading = Read(
            headings,
            "H014|Inn at Kell|Ann Carter|accounts@kell.example|2 Mill Lane|Kell|58412|en|30",
            "H020|Old Mill House|Bo Lind|office@oldmill.example|1 Weir Road|Eldwick|41873|en|14",
            "H031|Bay View|Cy Marsh|bay@view.example|8 The Front|Thornby|20095|en|30"
        );
        Assert.Equal(
            [
                CardField.Code,
                CardField.Name,
                CardField.Contact,
                CardField.Email,
                CardField.Address,
                CardField.Town,
                CardField.Postcode,
                CardField.Language,
                CardField.Terms,
            ],
            reading.Columns.Select(c => c.Field)
        );
    }

    [Fact]
    public void Addresses_for_mail_are_told_by_themselves_and_so_is_what_stands_once()
    {
        var reading = Read(
            "Ref|What|Where to",
            "H014|Inn at Kell|accounts@kell.example",
            "H020|Old Mill House|office@oldmill.example",
            "H031|Bay View Hotel|bay@view.example"
        );
        Assert.Equal([CardField.Code, CardField.Name, CardField.Email], reading.Columns.Select(c => c.Field));
        Assert.Equal("by its values", reading.Columns[2].Reason);
    }

    [Fact]
    public void A_list_without_headings_begins_with_its_first_customer()
    {
        var reading = Read("H014|Inn at Kell|accounts@kell.example", "H020|Old Mill House|office@oldmill.example");
        Assert.Equal(0, reading.HeadingRow);
        Assert.Equal([CardField.Code, CardField.Name, CardField.Email], reading.Columns.Select(c => c.Field));
    }

    [Fact]
    public void What_could_be_something_else_says_what()
    {
        var reading = Read(
            "Customer|Name|Mail addr.",
            "H014|Inn at Kell|accounts@kell.example",
            "H020|Old Mill House|office@oldmill.example"
        );
        Assert.Equal([CardField.Code, CardField.Name, CardField.Email], reading.Columns.Select(c => c.Field));
        Assert.Contains(CardField.Name, reading.Columns[0].Others);
    }

    [Fact]
    public void A_heading_that_a_person_once_took_for_something_is_known_from_then_on()
    {
        var first = Tables.Of("Ref|Zorb|Quex", "H014|Inn at Kell|Ann Carter", "H020|Old Mill House|Bo Lind");
        var said = ReadingChange.None with
        {
            HeadingRow = 1,
            Fields = new Dictionary<int, CardField> { [2] = CardField.Contact },
        };
        var saved = SavedReading.Of(CardReading.Of(first, said)!, said);
        var next = Tables.Of("Customer no|Name|Town|Quex", "H014|Inn at Kell|Kell|Ann Carter", "H020|Old Mill House|Eldwick|Bo Lind");
        var reading = CardReading.Of(next, ReadingChange.None with { Taught = TaughtHeadings.Of([saved]) })!;
        Assert.Equal(CardField.Contact, reading.Columns[3].Field);
        Assert.Equal("as you said in another file", reading.Columns[3].Reason);
    }

    private static CardReading Read(params string[] lines) => CardReading.Of(Tables.Of(lines), ReadingChange.None)!;
}
