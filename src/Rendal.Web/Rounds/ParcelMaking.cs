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
internal sealed class ParcelMaking(Book book, RoundRecord round, SettlementRule settlement, string senderName)
{
    private static readonly Reachability Reachable = new(false, true, null);

    public StatementLayout Layout => StatementLayout.BuiltIn;

    /// <summary>The statements of one customer in this round, from all of the customer's rows. Nothing but the rows and the choice decides, so it comes out the same at any time.</summary>
    public IReadOnlyList<Statement> Statements(IEnumerable<LedgerRow> rows, IReadOnlyCollection<RowSetAside> setAside)
    {
        var choice = round.Choice with { Customers = null, Removed = new Dictionary<string, string>(), NotWithinDays = null };
        return Choosing.Choose(rows, setAside, choice, settlement, book.Ageing, _ => Reachable).Statements;
    }

    /// <summary>The document's content.</summary>
    public StatementPaper Paper(Customer customer, IReadOnlyList<Statement> statements) => StatementPaper.Of(customer, statements, book.Ageing, book.Firm, Layout);

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
