using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.Core.Customers;
using Rendal.Core.Rounds;

namespace Rendal.App.Rounds;

/// <summary>Makes a round from the ledger that holds. It is still to be prepared.</summary>
public sealed class MakeRound(BookStores stores, TimeProvider clock)
{
    /// <summary>Makes a round of a kind, in the book’s words for it, by the first sender that the person may send under.</summary>
    /// <param name="name">What the bookkeeper calls it.</param>
    /// <param name="asOf">The date for which its statements hold; null for today.</param>
    /// <param name="about">What it is about.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="ProblemException">There is no ledger, the name is missing, or rounds of this kind are not made from a
    /// ledger.</exception>
    public async Task<long> RunAsync(string name, DateOnly? asOf, RoundKind about, CancellationToken cancel)
    {
        var intake = await TheLedger.OfAsync(stores, cancel);
        var senders = await stores.Senders.ListAsync(stores.Person, cancel);
        var choice = new Choice { AsOf = asOf ?? stores.Book.Today(clock) };
        choice = about switch
        {
            RoundKind.Reminders => choice.OfReminders(stores.Book.Rules.Reminders),
            RoundKind.Invoices => choice with { About = about, WithCredits = false },
            RoundKind.Statements or RoundKind.Confirmations => choice with { About = about },
            _ => throw ProblemException.Invalid("A round is about statements, reminders, invoices or confirmations of balance."),
        };
        await ReadyMadeTemplates.AddForAsync(stores, choice.Kind, clock, cancel);
        return await stores.Rounds.MakeAsync(
            intake.Id,
            new RoundSettings(RoundName.Checked(name), choice, null, senders[0].Id, null),
            stores.Book.Rules,
            stores.Person,
            cancel
        );
    }
}
