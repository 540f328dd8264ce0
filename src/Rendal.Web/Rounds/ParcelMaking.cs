using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Store.Books;
using Rendal.Store.Rounds;

namespace Rendal.Web.Rounds;

/// <summary>Makes the content of parcels; preview, release and sending all go through here, so that what is seen is what is sent.</summary>
internal sealed class ParcelMaking(Book book, RoundRecord round, SettlementRule settlement, ByHand hand, string senderName)
{
    public StatementLayout Layout => StatementLayout.BuiltIn;

    /// <summary>The statements of one customer in this round, from all of the customer's rows. Nothing but the rows, the choice and what was decided by hand counts, so it comes out the same at any time.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="setAside">The customer's rows that could not be used.</param>
    /// <param name="leastBalance">The least balance on the customer's card; null for the round's.</param>
    public IReadOnlyList<Statement> Statements(IEnumerable<LedgerRow> rows, IReadOnlyCollection<RowSetAside> setAside, decimal? leastBalance)
    {
        // That the customer is among the chosen, can be reached and was not written to was decided when the round was prepared;
        // which of its currencies are in it is decided by the same figures again.
        var choice = round.Choice with { Customers = null, HeadOffices = null, NotWithinDays = null };
        return Choosing.Choose(rows, setAside, choice, settlement, book.Ageing, _ => new Reachability(false, true, null, leastBalance), hand).Statements;
    }

    /// <summary>What the payments and credits of one customer were set against.</summary>
    public IReadOnlyList<Settling> Settlings(IEnumerable<LedgerRow> rows) =>
        [.. CustomerAccount.Group(rows).SelectMany(a => Settlement.Explain(a, round.Choice.AsOf, settlement, [.. hand.Settlements.Where(s => s.Customer == a.Customer).Select(s => s.Said)]))];

    /// <summary>The document's content.</summary>
    public StatementPaper Paper(Customer customer, IReadOnlyList<Statement> statements) => StatementPaper.Of(customer, statements, book.Ageing, book.Firm, Layout, round.Choice.InterestPercent);

    /// <summary>The message's words for one customer.</summary>
    public FilledWording Fill(WordingTemplate wording, Customer customer, IReadOnlyList<Statement> statements) =>
        wording.Fill(ParcelSlots.Of(customer, statements, Paper(customer, statements), senderName, round.Name));

    /// <summary>The name of the statement document.</summary>
    public string DocumentName(Customer customer) => FileName.Safe($"{customer.Key} statement {round.Choice.AsOf:yyyy-MM-dd}", ".pdf");

    /// <summary>The figures of statements as a parcel keeps them.</summary>
    public static List<ParcelSum> Sums(IEnumerable<Statement> statements) =>
        [.. statements.Select(s => new ParcelSum(s.Currency.Code, s.Total, s.Overdue, s.Ageing.Bands, s.Ageing.Credits))];

    /// <summary>Whether two lists of figures are the same.</summary>
    public static bool Same(IReadOnlyList<ParcelSum> a, IReadOnlyList<ParcelSum> b) =>
        a.Count == b.Count && a.Zip(b).All(pair => pair.First.Currency == pair.Second.Currency && pair.First.Total == pair.Second.Total && pair.First.Bands.SequenceEqual(pair.Second.Bands) && pair.First.Credits == pair.Second.Credits);
}
