using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Rounds;
using Rendal.Core.Wordings;
using Rendal.Web.Books;

namespace Rendal.Web.Rounds;

/// <summary>The words and the paper that rounds of a kind begin with.</summary>
internal static class PurposeWords
{
    private const string AnyLanguage = "";

    /// <summary>
    /// The wording that a new round of a kind begins with. For confirmations and lists of invoices that no wording or layout
    /// of the book is for yet, the ready-made ones are added first, in English and in the languages of the book's customers:
    /// without them, they would go out in the words and on the paper of statements.
    /// </summary>
    public static async Task<long> FirstWordingAsync(BookScope scope, RoundKind kind, TimeProvider clock, CancellationToken cancel)
    {
        var purposes = Purposes.Of(kind, null);
        if (kind is RoundKind.Confirmations or RoundKind.Invoices)
        {
            await AddReadyMadeAsync(scope, purposes[0], clock, cancel);
        }

        return Purposes.Find(await scope.Wordings.UsesAsync(cancel), purposes, AnyLanguage) ?? (await scope.Wordings.ListAsync(cancel)).Min(w => w.Id);
    }

    private static async Task AddReadyMadeAsync(BookScope scope, string purpose, TimeProvider clock, CancellationToken cancel)
    {
        var words = (await scope.Wordings.UsesAsync(cancel)).All(u => u.Purpose != purpose);
        var paper = (await scope.Layouts.UsesAsync(cancel)).All(u => u.Purpose != purpose);
        if (!words && !paper)
        {
            return;
        }

        var spoken = await scope.Customers.LanguagesAsync(cancel);
        foreach (var (language, use) in new[] { (Language.English.Code, AnyLanguage) }.Concat(spoken.Where(l => l != Language.English.Code).Select(l => (l, l))))
        {
            if (words && ReadyMadeWording.Find(purpose, language) is { } wording)
            {
                await scope.Wordings.UseAsync(purpose, use, await scope.Wordings.AddAsync(wording, cancel), cancel);
            }

            if (paper && ReadyMade.All.FirstOrDefault(r => r.Purpose == purpose && r.Language == language)?.Layout is { } layout)
            {
                await scope.Layouts.UseAsync(purpose, use, await scope.Layouts.AddAsync(layout, scope.Person, clock.GetUtcNow(), cancel), cancel);
            }
        }
    }
}
