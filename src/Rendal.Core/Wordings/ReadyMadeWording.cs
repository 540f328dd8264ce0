using Rendal.Core.Templates;
using Rendal.Core.Texts;

namespace Rendal.Core.Wordings;

/// <summary>A wording to begin from.</summary>
/// <param name="Purpose">What it is for, one of <see cref="Purposes.All"/>.</param>
/// <param name="Wording">The wording.</param>
public sealed record ReadyMadeWording(string Purpose, Wording Wording)
{
    private const string Folder = "wordings";

    private static readonly string[] Written =
    [
        Purposes.Statement,
        Purposes.OfLevel(1),
        Purposes.OfLevel(2),
        Purposes.OfLevel(3),
        Purposes.Confirmation,
        Purposes.InvoiceList,
    ];

    /// <summary>
    /// In each language that has them (English, German, French and Spanish): for statements, three reminders of growing firmness,
    /// confirmations of balance and lists of invoices.
    /// </summary>
    public static IReadOnlyList<ReadyMadeWording> All { get; } =
    [
        .. Language
            .All.Where(l => TextFile.Exists(l.Code, $"{Folder}/{Purposes.Statement}.txt"))
            .SelectMany(l => Written.Select(purpose => Read(purpose, l.Code))),
    ];

    /// <summary>The one for a purpose in a language; null where there is none.</summary>
    public static Wording? Find(string purpose, string language) =>
        All.FirstOrDefault(r => r.Purpose == purpose && r.Wording.Language == language)?.Wording;

    private static ReadyMadeWording Read(string purpose, string language)
    {
        var text = TextFile.Read(language, $"{Folder}/{purpose}.txt");
        var wording = new Wording(text["Name"], language, text.Fragment("Subject"), text.Paragraphs);
        text.End();
        return new(purpose, wording);
    }
}
