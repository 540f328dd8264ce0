using Rendal.Core.Templates;
using Rendal.Core.Texts;

namespace Rendal.Core.Wordings;

/// <summary>A wording to begin from.</summary>
/// <param name="Purpose">What it is for, one of <see cref="Purposes.All"/>; empty where it is picked by hand.</param>
/// <param name="Wording">The wording.</param>
public sealed record ReadyMadeWording(string Purpose, Wording Wording)
{
    private const string Folder = "wordings";

    private static readonly (string Purpose, string File)[] Written =
    [
        .. new[]
        {
            Purposes.Statement,
            Purposes.OfLevel(1),
            Purposes.OfLevel(2),
            Purposes.OfLevel(3),
            Purposes.Confirmation,
            Purposes.InvoiceList,
        }.Select(purpose => (purpose, purpose)),
        ("", "supplier-confirmation"),
    ];

    /// <summary>
    /// In each language: for statements, three reminders of growing firmness, confirmations of balance (for customers, and to be picked by
    /// hand for suppliers) and lists of invoices.
    /// </summary>
    public static IReadOnlyList<ReadyMadeWording> All { get; } =
    [.. Language.All.SelectMany(l => Written.Select(w => Read(w.Purpose, w.File, l.Code)))];

    /// <summary>The one for a purpose in a language; null where there is none.</summary>
    public static Wording? Find(string purpose, string language) =>
        All.FirstOrDefault(r => r.Purpose == purpose && r.Wording.Language == language)?.Wording;

    private static ReadyMadeWording Read(string purpose, string file, string language)
    {
        var text = TextFile.Read(language, $"{Folder}/{file}.txt");
        var wording = new Wording(text["Name"], language, text.Fragment("Subject"), text.Paragraphs);
        text.End();
        return new(purpose, wording);
    }
}
