using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;

namespace Rendal.App.Rounds;

/// <summary>The words and the paper that rounds of a kind begin with.</summary>
internal static class FirstWording
{
    private const string AnyLanguage = "";

    /// <summary>
    /// The wording that a new round of a kind begins with. For confirmations and lists of invoices that no wording or layout of the book
    /// is for yet, the ready-made ones are added first, in English and in the languages of the book's customers: without them, they would
    /// go out in the words and on the paper of statements.
    /// </summary>
    public static async Task<long> OfAsync(BookStores stores, RoundKind kind, TimeProvider clock, CancellationToken cancel)
    {
        var purposes = Purposes.Of(kind, null);
        if (kind is RoundKind.Confirmations or RoundKind.Invoices)
        {
            await AddReadyMadeAsync(stores, purposes[0], clock, cancel);
        }

        return Purposes.Find(await stores.Wordings.UsesAsync(cancel), purposes, AnyLanguage)
            ?? (await stores.Wordings.ListAsync(cancel)).Min(w => w.Id);
    }

    private static async Task AddReadyMadeAsync(BookStores stores, string purpose, TimeProvider clock, CancellationToken cancel)
    {
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
