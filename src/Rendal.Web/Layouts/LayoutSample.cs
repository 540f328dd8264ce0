using Rendal.Core.Customers;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Layouts;

/// <summary>What a customer of the ledger would get today, to look at layouts with.</summary>
/// <param name="Card">The customer.</param>
/// <param name="Statements">Its statements, one for each currency; at least one.</param>
/// <param name="SenderName">The name that it would come from.</param>
internal sealed record LayoutSample(Customer Card, IReadOnlyList<Statement> Statements, string SenderName)
{
    /// <summary>Works a customer's statements out; refused in words where nothing is open.</summary>
    public static async Task<LayoutSample> OfAsync(string customer, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await FindAsync(customer, scope, clock, cancel) ?? throw Unable.Conflict("Nothing is open of this customer today, so there is no document to show.");

    /// <summary>Works a customer's statements out; null where nothing is open.</summary>
    public static async Task<LayoutSample?> FindAsync(string customer, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var intake = await scope.Intakes.CurrentAsync(cancel) ?? throw Unable.Conflict("There is no ledger yet. Take in a ledger file first.");
        var rows = await scope.Ledger.RowsAsync(intake.Id, [customer], cancel);
        var card = await scope.Customers.FindAsync(customer, cancel) ?? new Customer { Key = customer, Name = customer };
        var rules = scope.Book.Rules;
        var hand = new ByHand { Settlements = [.. (await scope.Settlements.ListAsync(customer, cancel)).Select(s => s.Settlement)] };
        var statements = Choosing.Again(customer, card.Form, rows, new Choice { AsOf = scope.Book.Today(clock) }, rules.SettlementOf(intake.HasOutstanding), rules, hand);
        return statements.Count > 0 ? new LayoutSample(card, statements, (await scope.Senders.ListAsync(scope.Person, cancel))[0].Name) : null;
    }

    /// <summary>The values of all slots for it.</summary>
    /// <param name="scope">The book.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    public Dictionary<string, string> Slots(BookScope scope, int? level) => ParcelSlots.Of(Card, Statements, scope.Book.Firm, SenderName, "", level);
}
