using Rendal.App.Books;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;

namespace Rendal.App.Templates;

/// <summary>Says which wording or layout serves a purpose in a language from now on.</summary>
public sealed class AssignTemplate(BookStores stores)
{
    /// <summary>Has a wording serve a purpose in a language, where a customer’s card says no other.</summary>
    /// <param name="purpose">One of <see cref="Purposes.All"/>.</param>
    /// <param name="language">The code of a language; empty for any.</param>
    /// <param name="id">The wording; null for none of one's own.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The wording is not there, or the purpose or the language is not known.</exception>
    public async Task WordingAsync(string purpose, string language, long? id, CancellationToken cancel)
    {
        if (id is { } known && await stores.Wordings.FindAsync(known, cancel) is null)
        {
            throw ProblemException.NotFound("This wording");
        }

        Demand(purpose, language);
        await stores.Wordings.UseAsync(purpose, language, id, stores.Person, cancel);
    }

    /// <summary>Has a layout serve a purpose in a language, where a customer’s card says no other.</summary>
    /// <param name="purpose">One of <see cref="Purposes.All"/>.</param>
    /// <param name="language">The code of a language; empty for any.</param>
    /// <param name="id">The layout; null for none of one's own.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The layout is not there, or the purpose or the language is not known.</exception>
    public async Task LayoutAsync(string purpose, string language, long? id, CancellationToken cancel)
    {
        if (id is { } known && await stores.Layouts.FindAsync(known, cancel) is null)
        {
            throw ProblemException.NotFound("This layout");
        }

        Demand(purpose, language);
        await stores.Layouts.UseAsync(purpose, language, id, stores.Person, cancel);
    }

    private static void Demand(string purpose, string language)
    {
        if (!Purposes.All.Contains(purpose))
        {
            throw ProblemException.Invalid($"“{purpose}” is nothing that layouts and wordings are used for.");
        }

        if (language.Length > 0 && !Language.TryParse(language, out _))
        {
            throw ProblemException.Invalid($"“{language}” is not a language that is known.");
        }
    }
}
