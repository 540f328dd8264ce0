using Rendal.App.Books;
using Rendal.App.Ledger;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.People;

namespace Rendal.App.Documents;

/// <summary>What a customer of the ledger would get today, to look at layouts with.</summary>
/// <param name="Card">The customer.</param>
/// <param name="Statements">Its statements, one for each currency; at least one.</param>
/// <param name="Accounts">The accounts on them: the customer's own, or for a head office that gets them also those of its
/// branches.</param>
/// <param name="Composer">Makes their document.</param>
public sealed record LayoutSample(
    Customer Card,
    IReadOnlyList<Statement> Statements,
    IReadOnlyList<ParcelAccount> Accounts,
    ParcelComposer Composer
)
{
    /// <summary>Works a customer’s statements out.</summary>
    /// <exception cref="ProblemException">Nothing is open of it, or there is no ledger.</exception>
    public static async Task<LayoutSample> OfAsync(string customer, BookStores stores, TimeProvider clock, CancellationToken cancel) =>
        await FindAsync(customer, stores, clock, cancel)
        ?? throw ProblemException.Conflict("Nothing is open of this customer today, so there is no document to show.");

    /// <summary>Works a customer’s statements out, with the interest that the last round showed; null where nothing is open.</summary>
    /// <exception cref="ProblemException">There is no ledger.</exception>
    public static async Task<LayoutSample?> FindAsync(string customer, BookStores stores, TimeProvider clock, CancellationToken cancel)
    {
        var intake = await TheLedger.OfAsync(stores, cancel);
        var card = await stores.Customers.FindAsync(customer, cancel) ?? new Customer { Key = customer, Name = customer };
        var keys = await AccountsAsync(card, stores, cancel);
        var rows = await stores.Ledger.RowsAsync(intake.Id, keys, cancel);
        var rules = stores.Book.Rules;
        var hand = new ByHand
        {
            Settlements =
            [
                .. (await stores.Settlements.ListAsync(null, cancel))
                    .Select(s => s.Settlement)
                    .Where(s => keys.Contains(s.Customer, StringComparer.Ordinal)),
            ],
        };
        var choice = new Choice
        {
            AsOf = stores.Book.Today(clock),
            InterestPercent = (await stores.Rounds.LatestAsync(cancel))?.Choice.InterestPercent,
        };
        var sender = (await stores.Senders.ListAsync(stores.Person, cancel))[0];
        var composer = new ParcelComposer(
            stores.Book.Firm,
            await IdentityAsync(stores, clock, cancel),
            choice,
            rules.SettlementOf(intake.HasOutstanding),
            hand,
            rules,
            sender.SentAs
        );
        var statements = composer.Statements(card, rows);
        if (statements.Count == 0)
        {
            return null;
        }

        var names = await stores.Customers.NamesAsync(keys, cancel);
        return new LayoutSample(
            card,
            statements,
            [
                .. statements
                    .SelectMany(s => s.Accounts)
                    .Select(a => a.Customer)
                    .Distinct()
                    .Select(key => new ParcelAccount(key, names.GetValueOrDefault(key, key))),
            ],
            composer
        );
    }

    /// <summary>The values of all slots for it.</summary>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    public Dictionary<string, string> Slots(int? level) => Composer.Slots(Card, Statements, level);

    /// <summary>Its document by a layout.</summary>
    /// <param name="template">How it looks.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    public StatementDocument Document(LayoutTemplate template, int? level) =>
        Composer.Document(template, Card, Statements, ParcelComposer.NamesIn(Accounts), level);

    /// <summary>A round that the person who looks would make now.</summary>
    private static async Task<RoundIdentity> IdentityAsync(BookStores stores, TimeProvider clock, CancellationToken cancel)
    {
        var people = new PersonStore(stores.Source);
        return new RoundIdentity("", (await people.FindAsync(stores.Person, cancel))!.Name, stores.Book.HourOf(clock.GetUtcNow()))
        {
            Signature = await people.SignatureAsync(stores.Person, cancel),
        };
    }

    private static async Task<string[]> AccountsAsync(Customer card, BookStores stores, CancellationToken cancel)
    {
        if (card.Groups == GroupStatements.Branches)
        {
            return [card.Key];
        }

        var named = await stores.Customers.HeadOfficesAsync(cancel);
        var offices = new HeadOffices(named);
        return [card.Key, .. named.Keys.Where(key => key != card.Key && offices.TopOf(key) == card.Key)];
    }
}
