using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Store.Rounds;

namespace Rendal.Web.Rounds;

/// <summary>Makes the content of parcels; preview, release and sending all go through here, so that what is seen is what is sent.</summary>
internal sealed class ParcelMaking(Firm letterhead, RoundRecord round, SettlementRule settlement, ByHand hand, StatementRules rules, string senderName)
{
    /// <summary>
    /// The statements of a parcel, in the currencies that were found to be in it. Nothing but the rows, the choice and what
    /// was decided counts, so it comes out the same at any time.
    /// </summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="rows">All rows of its accounts.</param>
    public IReadOnlyList<Statement> Statements(ParcelRecord parcel, Customer card, IEnumerable<LedgerRow> rows) =>
        [.. Choosing.Again(parcel.Customer, card.Form, rows, round.Choice, settlement, rules, hand).Where(s => parcel.Sums.Any(sum => sum.Currency == s.Currency.Code))];

    /// <summary>What the payments and credits of one customer were set against.</summary>
    public IReadOnlyList<Settling> Settlings(IEnumerable<LedgerRow> rows) =>
        [.. CustomerAccount.Group(rows).SelectMany(a => Settlement.Explain(a, round.Choice.AsOf, settlement, [.. hand.Settlements.Where(s => s.Customer == a.Customer).Select(s => s.Said)]))];

    /// <summary>Where each item of one customer ends.</summary>
    public IReadOnlyList<ItemChosen> Items(IEnumerable<LedgerRow> rows) => Choosing.Items(rows, round.Choice, settlement, hand);

    /// <summary>The document's content.</summary>
    /// <param name="customer">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="accounts">The accounts on them, with their names.</param>
    /// <param name="reminderLevel">The level of the reminder that it goes with; null for none.</param>
    /// <param name="template">How it looks.</param>
    public StatementPaper Paper(LayoutTemplate template, Customer customer, IReadOnlyList<Statement> statements, IReadOnlyList<ParcelAccount> accounts, int? reminderLevel) =>
        Paper(template, customer, statements, accounts, ParcelSlots.Of(customer, statements, letterhead, senderName, round.Name, reminderLevel), reminderLevel);

    private StatementPaper Paper(LayoutTemplate template, Customer customer, IReadOnlyList<Statement> statements, IReadOnlyList<ParcelAccount> accounts, IReadOnlyDictionary<string, string> slots, int? reminderLevel)
    {
        var names = accounts.ToDictionary(a => a.Key, a => a.Name, StringComparer.Ordinal);
        return StatementPaper.Of(customer, statements, rules.Ageing, letterhead, template, slots, reminderLevel, round.Choice.InterestPercent, key => names.GetValueOrDefault(key, key));
    }

    /// <summary>The message's words for one customer.</summary>
    public FilledWording Fill(WordingTemplate wording, LayoutTemplate template, Customer customer, IReadOnlyList<Statement> statements, IReadOnlyList<ParcelAccount> accounts, int? reminderLevel) =>
        FillBoth(wording, template, customer, statements, accounts, reminderLevel).Words;

    /// <summary>The message's words, and the document that its table is taken from.</summary>
    public (FilledWording Words, StatementPaper Paper) FillBoth(WordingTemplate wording, LayoutTemplate template, Customer customer, IReadOnlyList<Statement> statements, IReadOnlyList<ParcelAccount> accounts, int? reminderLevel)
    {
        var slots = ParcelSlots.Of(customer, statements, letterhead, senderName, round.Name, reminderLevel);
        var paper = Paper(template, customer, statements, accounts, slots, reminderLevel);
        slots.Add("statement.table", StatementTable.Html(paper));
        return (wording.Fill(slots, TextConditions.Holding(statements, reminderLevel)), paper);
    }

    /// <summary>The figures of statements as a parcel keeps them.</summary>
    public static List<ParcelSum> Sums(IEnumerable<Statement> statements) =>
        [.. statements.Select(s => new ParcelSum(s.Currency.Code, s.Total, s.Overdue, s.Ageing.Bands, s.Ageing.Credits, s.AlsoOn))];
}
