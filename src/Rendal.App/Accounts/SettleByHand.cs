using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.App.Accounts;

/// <summary>Sets a payment or credit against an item by hand, or takes that back.</summary>
public sealed class SettleByHand(BookStores stores, TimeProvider clock)
{
    /// <summary>Sets a credit against a charge, before the rule of the book sets what is left.</summary>
    /// <param name="customer">Whose items they are.</param>
    /// <param name="credit">The payment or credit, by its key as text.</param>
    /// <param name="charge">What it settles; null where it is kept as a credit.</param>
    /// <param name="amount">How much of it; null for as much as there is.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">There is no ledger, the items are not in it, they are in two currencies, one is not a credit or
    /// not a charge, or the amount is not above 0.</exception>
    public async Task RunAsync(string customer, string credit, string? charge, decimal? amount, CancellationToken cancel)
    {
        if (amount <= 0)
        {
            throw ProblemException.Invalid("Set an amount above 0, or none for as much as there is.");
        }

        var intake = (await TheLedger.OfAsync(stores, cancel)).Id;
        var from = await KnownItem.OfAsync(stores, intake, customer, credit, cancel);
        if (from.Open >= 0)
        {
            throw ProblemException.Invalid($"{ItemName.Of(from)} is not a payment or credit.");
        }

        if (charge is not null)
        {
            var against = await KnownItem.OfAsync(stores, intake, customer, charge, cancel);
            if (against.Open <= 0)
            {
                throw ProblemException.Invalid($"{ItemName.Of(against)} is nothing that a payment could be set against.");
            }

            if (against.Currency != from.Currency)
            {
                throw ProblemException.Invalid(
                    $"{ItemName.Of(from)} is in {from.Currency}, {ItemName.Of(against)} in {against.Currency}; one cannot "
                        + "settle the other."
                );
            }
        }

        await stores.Settlements.SayAsync(
            new CustomerSettlement(customer, new SettledByHand(credit, charge, amount)),
            stores.Person,
            clock.GetUtcNow(),
            cancel
        );
    }

    /// <summary>Takes back what was set: the rule of the book holds for it again.</summary>
    /// <exception cref="ProblemException">It was taken back before.</exception>
    public async Task TakeBackAsync(long settlement, CancellationToken cancel)
    {
        if (!await stores.Settlements.TakeBackAsync(settlement, stores.Person, clock.GetUtcNow(), cancel))
        {
            throw ProblemException.Conflict("This was taken back before.");
        }
    }
}
