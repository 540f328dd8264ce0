namespace Rendal.Core.Intake;

/// <summary>What a column of a customer list is to the customer's card.</summary>
public enum CardField
{
    /// <summary>Nothing to the rules; kept on the card under its heading.</summary>
    Extra,

    /// <summary>The customer's code, by which the card is found: <c>H014</c>.</summary>
    Code,

    /// <summary>The customer's name, by which the card is found where the list has no codes.</summary>
    Name,

    /// <summary>The full name of the contact that is addressed.</summary>
    Contact,

    /// <summary>The title of that contact: <c>Ms</c>, <c>Herr Dr.</c></summary>
    Title,

    /// <summary>How a letter or message opens, as it stands: <c>Dear Ms Carter</c>.</summary>
    Salutation,

    /// <summary>Addresses for e-mail that messages are to, several parted by comma or semicolon.</summary>
    Email,

    /// <summary>Addresses for e-mail that get a copy which all recipients see (CC, RFC 5322).</summary>
    CopyEmail,

    /// <summary>Addresses for e-mail that get a copy of which no other recipient knows (BCC, RFC 5322).</summary>
    BlindCopyEmail,

    /// <summary>A line of the postal address; several columns make several lines.</summary>
    Address,

    /// <summary>The town of the postal address.</summary>
    Town,

    /// <summary>The postcode: <c>KL1 4AB</c>, <c>58412</c>. Leading zeros stay.</summary>
    Postcode,

    /// <summary>The country as it is to stand in the postal address: <c>Ireland</c>.</summary>
    Country,

    /// <summary>How the customer gets what is sent: e-mail, post, both or nothing, in the words of <see cref="CardText"/>.</summary>
    Delivery,

    /// <summary>The language that the customer is written to in, by its name or its ISO 639-1 code: <c>German</c>, <c>de</c>.</summary>
    Language,

    /// <summary>The terms of payment in days: <c>30</c>, or <c>end of month + 30</c>.</summary>
    Terms,

    /// <summary>The code of the head office that the customer is a branch of; it may not be its own.</summary>
    HeadOffice,

    /// <summary>The business unit that serves the customer.</summary>
    Unit,

    /// <summary>The least balance that the customer is written to about.</summary>
    MinimumBalance,

    /// <summary>A word that marks the customer as on hold; empty where it is not.</summary>
    Hold,

    /// <summary>What is to be remembered of the customer; no customer reads it.</summary>
    Notes,
}

/// <summary>How many columns a field may have.</summary>
public static class CardFields
{
    /// <summary>
    /// Whether several columns of a list may be this: lines of an address, addresses for e-mail. Of every other field a card has one.
    /// </summary>
    public static bool MayStandOften(this CardField field) =>
        field is CardField.Extra or CardField.Address or CardField.Email or CardField.CopyEmail or CardField.BlindCopyEmail;
}
