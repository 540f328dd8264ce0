using System.Collections.Frozen;
using Rendal.Core.Customers;
using Rendal.Core.Texts;

namespace Rendal.Core.Wordings;

/// <summary>How a contact is addressed in a letter.</summary>
public sealed class Salutation
{
    private const string FamilyName = "family name";

    private static readonly FrozenDictionary<string, Salutation> ByLanguage = Language
        .All.Select(l => (l.Code, Salutation: new Salutation(TextFile.Read(l.Code, "salutation.txt"))))
        .ToFrozenDictionary(s => s.Code, s => s.Salutation, StringComparer.Ordinal);

    // Those of women, and those of men, in all languages; a language that speaks to both in the same words lists none.
    private static readonly IReadOnlyList<FrozenSet<string>> Titles =
    [
        .. ByLanguage
            .Values.SelectMany(s => s.byTitle.Index())
            .GroupBy(t => t.Index, t => t.Item.Titles)
            .Select(g => g.SelectMany(titles => titles).ToFrozenSet(StringComparer.OrdinalIgnoreCase)),
    ];

    private readonly string withTitle;
    private readonly string withName;
    private readonly IReadOnlyList<(IReadOnlySet<string> Titles, string Words)> byTitle;

    private Salutation(TextFile text)
    {
        withName = text["With name", "name"];
        withTitle = text.Optional("With title", "title", FamilyName) ?? withName;
        byTitle =
        [
            .. new[] { ("Titles of women", "To a woman"), ("Titles of men", "To a man") }
                .Select(k => (Titles: text.Optional(k.Item1), Words: text.Optional(k.Item2, FamilyName)))
                .Where(k => k is { Titles: not null, Words: not null })
                .Select(k => ((IReadOnlySet<string>)k.Titles!.Split(", ").ToFrozenSet(StringComparer.OrdinalIgnoreCase), k.Words!)),
        ];
        text.End();
    }

    /// <summary>Whether two titles are both of women, or both of men, in whatever language each is: <c>Mrs</c> and <c>Frau</c>.</summary>
    internal static bool AreAlike(string a, string b) => Titles.Any(t => t.Contains(a) && t.Contains(b));

    /// <summary>Whether a word is a title by which people are addressed, in any language: <c>Mrs</c>.</summary>
    internal static bool IsTitle(string word) => Titles.Any(t => t.Contains(word));

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

        var salutation = ByLanguage[language.Code];
        var title = customer.Title;
        var words = salutation.byTitle.FirstOrDefault(b => b.Titles.Contains(title)).Words
            ?? (title.Length > 0 ? salutation.withTitle : salutation.withName);
        return TextFile.Fill(words, ("title", title), (FamilyName, customer.FamilyName), ("name", customer.Contact));
    }
}
