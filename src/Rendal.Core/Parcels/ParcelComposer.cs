using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Parcels;

/// <summary>
/// Makes the content of parcels. Preview, layout editor, release, sending and the command line all go through here, so that what is seen
/// is what is sent. It is pure: the same parcel comes out the same at any time.
/// </summary>
/// <param name="letterhead">The firm as it stands on documents.</param>
/// <param name="round">The round's name, as the customer may see it; empty outside a round.</param>
/// <param name="choice">Who is written to about what.</param>
/// <param name="settlement">How payments are set against invoices.</param>
/// <param name="hand">What was decided by hand.</param>
/// <param name="rules">What the book has settled for its statements.</param>
/// <param name="senderName">The name that messages come from; empty where none are sent.</param>
public sealed class ParcelComposer(
    Firm letterhead,
    string round,
    Choice choice,
    SettlementRule settlement,
    ByHand hand,
    StatementRules rules,
    string senderName
)
{
    private const string Table = "statement.table";

    /// <summary>The statements of a customer, one for each currency that something is open in.</summary>
    /// <param name="card">The card of who gets them.</param>
    /// <param name="rows">All rows of the accounts on them.</param>
    public IReadOnlyList<Statement> Statements(Customer card, IEnumerable<LedgerRow> rows) =>
        Choosing.Again(card.Key, card.Form, rows, choice, settlement, rules, hand);

    /// <summary>What the payments and credits of one customer were set against.</summary>
    /// <param name="rows">All rows of the customer.</param>
    public IReadOnlyList<Settling> Settlings(IEnumerable<LedgerRow> rows) =>
        [
            .. CustomerAccount
                .Group(rows)
                .SelectMany(a =>
                    Settlement.Explain(
                        a,
                        choice.AsOf,
                        settlement,
                        [.. hand.Settlements.Where(s => s.Customer == a.Customer).Select(s => s.Said)]
                    )
                ),
        ];

    /// <summary>Where each item of one customer ends.</summary>
    /// <param name="rows">All rows of the customer.</param>
    public IReadOnlyList<ItemChosen> Items(IEnumerable<LedgerRow> rows) => Choosing.Items(rows, choice, settlement, hand);

    /// <summary>The values of all slots but the table of the statement.</summary>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="reminderLevel">The level of the reminder that it is; null for none.</param>
    /// <param name="copies">The numbers of the documents that copies are enclosed of; null for none.</param>
    public Dictionary<string, string> Slots(
        Customer card,
        IReadOnlyList<Statement> statements,
        int? reminderLevel,
        IReadOnlyList<string>? copies = null
    ) => ParcelSlots.Of(card, statements, letterhead, senderName, round, reminderLevel, copies);

    /// <summary>The document's content.</summary>
    /// <param name="template">How it looks.</param>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="nameOf">The name of each account on them, by key.</param>
    /// <param name="reminderLevel">The level of the reminder that it goes with; null for none.</param>
    /// <param name="additions">What it has beside the statements; null for nothing.</param>
    public StatementDocument Document(
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        int? reminderLevel,
        ParcelAdditions? additions = null
    ) =>
        Document(
            template,
            card,
            statements,
            nameOf,
            Slots(card, statements, reminderLevel, additions?.Copies),
            reminderLevel,
            additions?.Note ?? ""
        );

    /// <summary>The message's words, and the document that its table is taken from.</summary>
    /// <param name="wording">The words.</param>
    /// <param name="template">How the document looks.</param>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="nameOf">The name of each account on them, by key.</param>
    /// <param name="reminderLevel">The level of the reminder that it is; null for none.</param>
    /// <param name="additions">What it has beside the statements; null for nothing.</param>
    /// <param name="traced">Whether the words have beside each value where it was taken from, for a page that is looked at.</param>
    public (FilledWording Words, StatementDocument Document) Fill(
        WordingTemplate wording,
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        int? reminderLevel,
        ParcelAdditions? additions = null,
        bool traced = false
    )
    {
        var slots = Slots(card, statements, reminderLevel, additions?.Copies);
        var document = Document(template, card, statements, nameOf, slots, reminderLevel, additions?.Note ?? "");
        return (Filled(wording, slots, statements, reminderLevel, document, traced), document);
    }

    /// <summary>The message's words alone, the same as with <see cref="Fill"/>. Without a table in them no document is made.</summary>
    /// <param name="wording">The words.</param>
    /// <param name="template">How the document looks.</param>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="nameOf">The name of each account on them, by key.</param>
    /// <param name="reminderLevel">The level of the reminder that it is; null for none.</param>
    /// <param name="additions">What it has beside the statements; null for nothing.</param>
    public FilledWording Words(
        WordingTemplate wording,
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        int? reminderLevel,
        ParcelAdditions? additions = null
    )
    {
        var slots = Slots(card, statements, reminderLevel, additions?.Copies);
        var document = wording.Has(Table)
            ? Document(template, card, statements, nameOf, slots, reminderLevel, additions?.Note ?? "")
            : null;
        return Filled(wording, slots, statements, reminderLevel, document, traced: false);
    }

    /// <summary>
    /// The names of accounts by key, for
    /// <see cref="Document(LayoutTemplate, Customer, IReadOnlyList{Statement}, Func{string, string},
    /// int?, ParcelAdditions?)"/>; a key that is none
    /// of them stands for itself.
    /// </summary>
    public static Func<string, string> NamesIn(IReadOnlyList<ParcelAccount> accounts)
    {
        var names = accounts.ToDictionary(a => a.Key, a => a.Name, StringComparer.Ordinal);
        return key => names.GetValueOrDefault(key, key);
    }

    private static FilledWording Filled(
        WordingTemplate wording,
        Dictionary<string, string> slots,
        IReadOnlyList<Statement> statements,
        int? reminderLevel,
        StatementDocument? document,
        bool traced
    )
    {
        if (document is not null && wording.Has(Table))
        {
            slots.Add(Table, StatementTable.Html(document, traced));
        }

        return wording.Fill(slots, TextConditions.Holding(statements, reminderLevel, slots[ParcelSlots.Copies].Length > 0), traced);
    }

    private StatementDocument Document(
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        Dictionary<string, string> slots,
        int? reminderLevel,
        string note
    ) =>
        StatementDocument.Of(
            card,
            statements,
            rules.Ageing,
            letterhead,
            template,
            slots,
            reminderLevel,
            choice.InterestPercent,
            nameOf,
            note
        );
}
