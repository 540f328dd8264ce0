namespace Rendal.Core.Intake;

/// <summary>What a column of a customer list is to the customer's card.</summary>
public enum CardField
{
    /// <summary>Nothing to the rules; kept on the card under its heading.</summary>
    Extra,

    /// <summary>The customer's code.</summary>
    Code,

    /// <summary>The customer's name.</summary>
    Name,

    /// <summary>The full name of the contact that is addressed.</summary>
    Contact,

    /// <summary>The title of that contact.</summary>
    Title,

    /// <summary>How the letter opens.</summary>
    Salutation,

    /// <summary>Addresses that messages are to.</summary>
    Email,

    /// <summary>Addresses for copies.</summary>
    CopyEmail,

    /// <summary>Addresses for blind copies.</summary>
    BlindCopyEmail,

    /// <summary>A line of the postal address; several columns make several lines.</summary>
    Address,

    /// <summary>The town.</summary>
    Town,

    /// <summary>The postcode.</summary>
    Postcode,

    /// <summary>The country.</summary>
    Country,

    /// <summary>E-mail, post, both or nothing.</summary>
    Delivery,

    /// <summary>The language.</summary>
    Language,

    /// <summary>The terms.</summary>
    Terms,

    /// <summary>The code of the head office.</summary>
    HeadOffice,

    /// <summary>The business unit.</summary>
    Unit,

    /// <summary>The least balance that the customer is written to about.</summary>
    MinimumBalance,

    /// <summary>A word that marks the customer as on hold; empty where it is not.</summary>
    Hold,

    /// <summary>What is to be remembered.</summary>
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
