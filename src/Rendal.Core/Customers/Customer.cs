using System.Text.Json.Serialization;
using Rendal.Core.Statements;

namespace Rendal.Core.Customers;

/// <summary>How a customer gets what is sent.</summary>
public enum Delivery
{
    /// <summary>By e-mail.</summary>
    Email,

    /// <summary>On paper.</summary>
    Post,

    /// <summary>By e-mail and on paper.</summary>
    Both,

    /// <summary>Not at all.</summary>
    Nothing,
}

/// <summary>Who owes, and how they are written to: the customer's card.</summary>
public sealed record Customer
{
    /// <summary>The code, or the name where the firm uses no codes; the same as on the ledger rows.</summary>
    public required string Key { get; init; }

    /// <summary>The name as it stands on letters.</summary>
    public required string Name { get; init; }

    /// <summary>Who is written to, the one that is addressed first.</summary>
    public IReadOnlyList<Contact> Contacts { get; init; } = [];

    /// <summary>
    /// How the letter opens, in the customer's own words, without the comma: <c>Dear Ines</c>. Empty to make it from title and name.
    /// </summary>
    public string Salutation { get; init; } = "";

    /// <summary>How the customer gets what is sent; by e-mail unless the card says otherwise.</summary>
    public Delivery Delivery { get; init; }

    /// <summary>Street, town and so on, one line each, without the name and without the country.</summary>
    public IReadOnlyList<string> PostalLines { get; init; } = [];

    /// <summary>The country as it stands on letters; empty for the firm's own.</summary>
    public string Country { get; init; } = "";

    /// <summary>Code of the language that the customer is written to in; <c>en</c> by default.</summary>
    public string Language { get; init; } = "en";

    /// <summary>The customer’s own terms, by which a due date is worked out for a row without one; null for the book’s.</summary>
    public PaymentTerms? Terms { get; init; }

    /// <summary>The key of the customer's head office; empty where it has none.</summary>
    public string HeadOffice { get; init; } = "";

    /// <summary>Of a head office: who of it and its branches gets the statements.</summary>
    public GroupStatements Groups { get; init; }

    /// <summary>What the customer's statements list; null for what the book says.</summary>
    public StatementForm? Form { get; init; }

    /// <summary>The business unit that serves the customer; empty where none is named.</summary>
    public string Unit { get; init; } = "";

    /// <summary>
    /// The least balance, in the currency of the statement, that the customer is written to about; null for the round's.
    /// </summary>
    public decimal? MinimumBalance { get; init; }

    /// <summary>Whether nothing is to be sent to this customer for the time being.</summary>
    public bool OnHold { get; init; }

    /// <summary>
    /// The wording of this customer's statements instead of the round's; null for the round's. Reminders have those of their level.
    /// </summary>
    public long? OwnWording { get; init; }

    /// <summary>
    /// The layout that this customer's statements have instead of the book's; null for the book's. Reminders have those of their level.
    /// </summary>
    public long? OwnLayout { get; init; }

    /// <summary>What is to be remembered of the customer; stands on no letter.</summary>
    public string Notes { get; init; } = "";

    /// <summary>Columns of customer lists without a meaning for the rules, by heading as it stands.</summary>
    public IReadOnlyDictionary<string, string> Extra { get; init; } = new Dictionary<string, string>();

    /// <summary>Whether the customer was made from ledger rows alone and is on no customer list.</summary>
    public bool FromLedger { get; init; }

    /// <summary>The full name of the contact that is addressed; empty where none is named.</summary>
    [JsonIgnore]
    public string Contact => Contacts.Count > 0 ? Contacts[0].Name : "";

    /// <summary>The title of the contact that is addressed, as <c>Dr</c>; empty where it has none, or none is named.</summary>
    [JsonIgnore]
    public string Title => Contacts.Count > 0 ? Contacts[0].Title : "";

    /// <summary>The addresses of the contacts that messages are to, as written, with semicolons between.</summary>
    [JsonIgnore]
    public string Email => string.Join("; ", Contacts.Where(c => c.Role == ContactRole.To && c.Address.Length > 0).Select(c => c.Address));

    /// <summary>The contact's family name: the last word of <see cref="Contact"/>.</summary>
    [JsonIgnore]
    public string FamilyName => Contact.Split(' ', StringSplitOptions.RemoveEmptyEntries).LastOrDefault("");

    /// <summary>The contact's first name: the first word of <see cref="Contact"/>; empty where that is one word.</summary>
    [JsonIgnore]
    public string FirstName => Contact.Split(' ', StringSplitOptions.RemoveEmptyEntries) is [var first, _, ..] ? first : "";

    /// <summary>
    /// Whether a round of a kind can reach the customer: by post, or because there is a good address of a contact who gets it, and the
    /// customer wants messages.
    /// </summary>
    public bool IsReachedBy(RoundKind kind) =>
        GoesByPost || (Delivery is Delivery.Email or Delivery.Both && Recipients.Of(this, kind).To.Count > 0);

    /// <summary>Whether what is sent goes to the customer on paper: it is wanted so, and there is a postal address.</summary>
    [JsonIgnore]
    public bool GoesByPost => Delivery is Delivery.Post or Delivery.Both && PostalLines.Any(l => !string.IsNullOrWhiteSpace(l));
}
