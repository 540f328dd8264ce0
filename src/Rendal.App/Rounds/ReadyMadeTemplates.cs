using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;

namespace Rendal.App.Rounds;

/// <summary>The words and the paper that rounds of a kind begin with.</summary>
internal static class ReadyMadeTemplates
{
    private const string AnyLanguage = "";

    /// <summary>
    /// Adds the ready-made wordings and layouts for confirmations and lists of invoices where none of the book is for them yet, in English
    /// and in the languages of the book's customers: without them, they would go out in the words and on the paper of statements.
    /// </summary>
    public static async Task AddForAsync(BookStores stores, RoundKind kind, TimeProvider clock, CancellationToken cancel)
    {
        if (kind is not (RoundKind.Confirmations or RoundKind.Invoices))
        {
            return;
        }

        var purpose = Purposes.Of(kind, null)[0];
        var words = (await stores.Wordings.UsesAsync(cancel)).All(u => u.Purpose != purpose);
        var paper = (await stores.Layouts.UsesAsync(cancel)).All(u => u.Purpose != purpose);
        if (!words && !paper)
        {
            return;
        }

        var spoken = await stores.Customers.LanguagesAsync(cancel);
        foreach (
            var (language, use) in new[] { (Language.English.Code, AnyLanguage) }.Concat(
                spoken.Where(l => l != Language.English.Code).Select(l => (l, l))
            )
        )
        {
            if (words && ReadyMadeWording.Find(purpose, language) is { } wording)
            {
                await stores.Wordings.UseAsync(
                    purpose,
                    use,
                    await stores.Wordings.AddAsync(wording, stores.Person, cancel),
                    stores.Person,
                    cancel
                );
            }

            if (paper && ReadyMade.All.FirstOrDefault(r => r.Purpose == purpose && r.Language == language)?.Layout is { } layout)
            {
                await stores.Layouts.UseAsync(
                    purpose,
                    use,
                    await stores.Layouts.AddAsync(layout, stores.Person, clock.GetUtcNow(), cancel),
                    stores.Person,
                    cancel
                );
            }
        }
    }
}
