using Rendal.Core.Templates;
using Rendal.Core.Texts;

namespace Rendal.Core.Layouts;

/// <summary>A layout to begin from.</summary>
/// <param name="Language">The code of the language of its texts.</param>
/// <param name="Purpose">What it is for, one of <see cref="Purposes.All"/>; empty where it is picked by hand.</param>
/// <param name="Layout">The layout.</param>
public sealed record ReadyMade(string Language, string Purpose, Layout Layout)
{
    private const string Folder = "layouts";
    private const int Reminders = 3;

    private static readonly LayoutPart[] Opening = [new LetterheadPart(), new AddressPart(), new ReferencesPart()];
    private static readonly ItemsPart Usual = new() { Columns = ItemsPart.UsualColumns };

    /// <summary>
    /// In each language: three reminders of growing firmness, a balance confirmation with a reply to tear off, for customers and for
    /// suppliers, a list of invoices, and a plain letter. The statement of open items and the one brought forward need no words of their
    /// own and are <see cref="Layout.BuiltIn"/>.
    /// </summary>
    public static IReadOnlyList<ReadyMade> All { get; } = [.. Wordings.Language.All.SelectMany(l => In(l.Code))];

    private static IEnumerable<ReadyMade> In(string language)
    {
        for (var level = 1; level <= Reminders; level++)
        {
            yield return Made(Purposes.OfLevel(level), Purposes.OfLevel(level), text =>
                [new TitlePart(), Paragraphs(text), Usual, new TotalPart(), new AgesPart(), new PaymentPart()]
            );
        }

        yield return Confirmation(Purposes.Confirmation, Purposes.Confirmation, "reply");
        yield return Confirmation("", "supplier-confirmation", "supplier-reply");

        yield return Made(Purposes.InvoiceList, Purposes.InvoiceList, text =>
            [
                Title(text),
                new ItemsPart
                {
                    Columns = [new("number"), new("dated"), new("due"), new("reference"), new("original"), new("open")],
                    CarryForward = true,
                },
                new TotalPart(),
                new PaymentPart(),
            ]
        );
        yield return Made("", "letter", text => [Title(text), Paragraphs(text)]);

        ReadyMade Confirmation(string purpose, string file, string reply) =>
            Made(purpose, file, text =>
                [
                    Title(text),
                    Paragraphs(text),
                    Usual,
                    new TotalPart(),
                    new SlipPart { Text = TextFile.Read(language, $"{Folder}/{reply}.txt").Paragraphs },
                ]
            );

        ReadyMade Made(string purpose, string file, Func<TextFile, IEnumerable<LayoutPart>> parts)
        {
            var text = TextFile.Read(language, $"{Folder}/{file}.txt");
            var layout = Layout.BuiltIn with
            {
                Name = text["Name"],
                FileName = text.OptionalFragment("File name") ?? Layout.BuiltIn.FileName,
                Parts = [.. Opening, .. parts(text)],
            };
            text.End();
            return new(language, purpose, layout);
        }
    }

    private static TitlePart Title(TextFile text) => new() { Text = text.Fragment("Title") };

    private static TextPart Paragraphs(TextFile text) => new() { Text = text.Paragraphs };
}
