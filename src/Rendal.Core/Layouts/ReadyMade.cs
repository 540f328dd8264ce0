using Rendal.Core.Templates;
using Rendal.Core.Wordings;

namespace Rendal.Core.Layouts;

/// <summary>A layout to begin from.</summary>
/// <param name="Language">The code of the language of its texts.</param>
/// <param name="Purpose">What it is for, one of <see cref="Purposes.All"/>; empty where it is picked by hand.</param>
/// <param name="Layout">The layout.</param>
public sealed record ReadyMade(string Language, string Purpose, Layout Layout)
{
    private static readonly LayoutPart[] Opening = [new LetterheadPart(), new AddressPart(), new ReferencesPart()];

    /// <summary>
    /// In English, German, French and Spanish: three reminders of growing firmness, a balance confirmation with a reply to tear off, for
    /// customers and for suppliers, a list of invoices, and a plain letter. The statement of open items and the one brought forward need
    /// no words of their own and are <see cref="Layout.BuiltIn"/>.
    /// </summary>
    public static IReadOnlyList<ReadyMade> All { get; } = [.. ReadyMadeWords.All.SelectMany(In)];

    private static IEnumerable<ReadyMade> In(ReadyMadeWords words)
    {
        var usual = new ItemsPart { Columns = ItemsPart.UsualColumns };
        for (var i = 0; i < words.Reminders.Count; i++)
        {
            yield return Of(
                Purposes.OfLevel(i + 1),
                words.ReminderNames[i],
                new TitlePart(),
                Text(words.Reminders[i]),
                usual,
                new TotalPart(),
                new AgesPart(),
                new PaymentPart()
            );
        }

        foreach (
            var (purpose, name, text) in new[]
            {
                (Purposes.Confirmation, words.ConfirmationName, words.Confirmation),
                ("", words.SupplierName, words.SupplierConfirmation),
            }
        )
        {
            yield return Named(
                name,
                Of(
                    purpose,
                    name,
                    new TitlePart { Text = WrittenSlots.Html(words.ConfirmationTitle) },
                    Text(text),
                    usual,
                    new TotalPart(),
                    new SlipPart { Text = WrittenSlots.Html(words.Reply) }
                )
            );
        }

        yield return Named(
            words.InvoiceListName,
            Of(
                Purposes.InvoiceList,
                words.InvoiceListName,
                new TitlePart { Text = WrittenSlots.Html(words.InvoiceListTitle) },
                new ItemsPart
                {
                    Columns = [new("number"), new("dated"), new("due"), new("reference"), new("original"), new("open")],
                    CarryForward = true,
                },
                new TotalPart(),
                new PaymentPart()
            )
        );
        yield return Named(
            words.LetterName,
            Of(
                "",
                words.LetterName,
                new TitlePart { Text = WrittenSlots.Html(words.LetterTitle) },
                Text(words.Letter.Replace("<p></p>", $"<p>{words.LetterHint}</p>", StringComparison.Ordinal))
            )
        );

        // What is neither a statement nor a reminder is not called so in the recipient’s folder.
        static ReadyMade Named(string name, ReadyMade made) =>
            made with
            {
                Layout = made.Layout with { FileName = WrittenSlots.Html($"{{customer.code}} {name} {{statement.day}}") },
            };

        ReadyMade Of(string purpose, string name, params LayoutPart[] parts) =>
            new(words.Language, purpose, Layout.BuiltIn with { Name = name, Parts = [.. Opening, .. parts] });
    }

    private static TextPart Text(string words) => new() { Text = WrittenSlots.Html(words) };
}
