using System.Text.RegularExpressions;

namespace Rendal.Core.Layouts;

/// <summary>A layout to begin from.</summary>
/// <param name="Language">The code of the language of its texts.</param>
/// <param name="Layout">The layout.</param>
public sealed partial record ReadyMade(string Language, Layout Layout)
{
    private static readonly LayoutPart[] Opening = [new LetterheadPart(), new AddressPart(), new ReferencesPart()];

    /// <summary>
    /// In English, German, French and Spanish: three reminders of growing firmness, a balance confirmation with a reply to tear
    /// off, for customers and for suppliers, a list of invoices, and a plain letter. The statement of open items and the one brought forward need no words of
    /// their own and are <see cref="Layout.BuiltIn"/>.
    /// </summary>
    public static IReadOnlyList<ReadyMade> All { get; } = [.. ReadyMadeWords.All.SelectMany(In)];

    private static IEnumerable<ReadyMade> In(ReadyMadeWords words)
    {
        var usual = new ItemsPart { Columns = ItemsPart.UsualColumns };
        for (var i = 0; i < words.Reminders.Count; i++)
        {
            yield return Of(words.ReminderNames[i], new TitlePart(), Text(words.Reminders[i]), usual, new TotalPart(), new AgesPart(), new PaymentPart());
        }

        foreach (var (name, text) in new[] { (words.ConfirmationName, words.Confirmation), (words.SupplierName, words.SupplierConfirmation) })
        {
            yield return Of(name, new TitlePart { Text = Slots(words.ConfirmationTitle) }, Text(text), usual, new TotalPart(), new SlipPart { Text = Slots(words.Reply) });
        }

        yield return Of(
            words.InvoiceListName, new TitlePart { Text = Slots(words.InvoiceListTitle) },
            new ItemsPart { Columns = [new("number"), new("dated"), new("due"), new("reference"), new("original"), new("open")], CarryForward = true }, new TotalPart(), new PaymentPart());
        yield return Of(words.LetterName, new TitlePart { Text = Slots(words.LetterTitle) }, Text(words.Letter.Replace("<p></p>", $"<p>{words.LetterHint}</p>", StringComparison.Ordinal)));

        ReadyMade Of(string name, params LayoutPart[] parts) => new(words.Language, Layout.BuiltIn with { Name = name, Parts = [.. Opening, .. parts] });
    }

    private static TextPart Text(string words) => new() { Text = Slots(words) };

    private static string Slots(string words) => Slot().Replace(words, "<span data-slot=\"$1\"></span>");

    [GeneratedRegex(@"\{([a-z.-]+)\}")]
    private static partial Regex Slot();
}
