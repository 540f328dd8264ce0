using Rendal.Core.Customers;
using Rendal.Core.Statements;
using Rendal.Store.Books;

namespace Rendal.App.Books;

/// <summary>Changes what holds for all statements of a book.</summary>
public sealed class ChangeRules(BookStores stores, BookStore books)
{
    /// <summary>Changes the rules of the book. A round that was released keeps those it was released with.</summary>
    /// <param name="rules">The rules.</param>
    /// <param name="termsDays">Days net where neither file nor customer says.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The terms are out of range, or a reminder level has a wording that is not there.</exception>
    public async Task RunAsync(StatementRules rules, int termsDays, CancellationToken cancel)
    {
        if (termsDays is < 0 or > PaymentTerms.MostDays)
        {
            throw ProblemException.Invalid($"Terms are 0 to {PaymentTerms.MostDays} days.");
        }

        var wordings = (await stores.Wordings.ListAsync(cancel)).Select(w => w.Id).ToHashSet();
        if (rules.Reminders.Levels.Any(l => l.Wording is { } wording && !wordings.Contains(wording)))
        {
            throw ProblemException.Invalid("The wording of a reminder level is not there any more.");
        }

        await books.UpdateRulesAsync(stores.Book.Id, rules, termsDays, stores.Person, cancel);
    }
}
