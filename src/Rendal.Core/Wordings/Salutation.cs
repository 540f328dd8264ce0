using Rendal.Core.Customers;

namespace Rendal.Core.Wordings;

/// <summary>How a contact is addressed in a letter.</summary>
public static class Salutation
{
    private static readonly HashSet<string> GermanWomen = new(StringComparer.OrdinalIgnoreCase) { "Frau", "Ms", "Mrs", "Miss" };
    private static readonly HashSet<string> GermanMen = new(StringComparer.OrdinalIgnoreCase) { "Herr", "Herrn", "Mr" };

    /// <summary>
    /// The opening without the comma: <c>Dear Ms Caldera</c>, <c>Sehr geehrte Frau Weber</c>, <c>Sehr geehrter Herr Weber</c>, <c>Bonjour
    /// Madame Roux</c>. A contact without a title is addressed by the full name in every language (<c>Guten Tag Kim Weber</c>), so that
    /// nobody is called he or she by guess. What the card says for itself counts before all that. Empty where no contact is named.
    /// </summary>
    public static string Of(Customer customer, Language language)
    {
        if (customer.Salutation.Length > 0)
        {
            return customer.Salutation;
        }

        if (customer.Contact.Length == 0)
        {
            return "";
        }

        var title = customer.Title;
        var formal = $"{title} {customer.FamilyName}";
        return language.Code switch
        {
            "de" when GermanWomen.Contains(title) => $"Sehr geehrte Frau {customer.FamilyName}",
            "de" when GermanMen.Contains(title) => $"Sehr geehrter Herr {customer.FamilyName}",
            "de" => $"Guten Tag {customer.Contact}",
            "fr" => $"Bonjour {(title.Length > 0 ? formal : customer.Contact)}",
            "es" => $"Buenos días, {(title.Length > 0 ? formal : customer.Contact)}",
            "it" => $"Buongiorno {(title.Length > 0 ? formal : customer.Contact)}",
            "nl" => $"Geachte {(title.Length > 0 ? formal : customer.Contact)}",
            _ => $"Dear {(title.Length > 0 ? formal : customer.Contact)}",
        };
    }
}
