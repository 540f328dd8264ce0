namespace Rendal.Core.Customers;

/// <summary>Who owes, and how they are written to.</summary>
public sealed record Customer
{
    /// <summary>The code, or the name where the firm uses no codes; the same as on the ledger rows.</summary>
    public required string Key { get; init; }

    /// <summary>The name as it stands on letters.</summary>
    public required string Name { get; init; }

    /// <summary>Who is written to, for example <c>Ines Caldera</c>; empty where nobody is named.</summary>
    public string Contact { get; init; } = "";

    /// <summary>The title before the contact's family name: <c>Ms</c>, <c>Herr</c>; empty where none is known.</summary>
    public string Title { get; init; } = "";

    /// <summary>Street, town and so on, one line each, without the name and without the country.</summary>
    public IReadOnlyList<string> PostalLines { get; init; } = [];

    /// <summary>The country as it stands on letters; empty for the firm's own.</summary>
    public string Country { get; init; } = "";

    /// <summary>The addresses for statements, as written on the card.</summary>
    public string Email { get; init; } = "";

    /// <summary>Code of the language that the customer is written to in; <c>en</c> by default.</summary>
    public string Language { get; init; } = "en";

    /// <summary>Whether nothing is to be sent to this customer.</summary>
    public bool OnHold { get; init; }

    /// <summary>Whether the customer was made from ledger rows alone and is on no customer list.</summary>
    public bool FromLedger { get; init; }

    /// <summary>The contact's family name: the last word of <see cref="Contact"/>.</summary>
    public string FamilyName => Contact.Split(' ', StringSplitOptions.RemoveEmptyEntries).LastOrDefault("");
}
