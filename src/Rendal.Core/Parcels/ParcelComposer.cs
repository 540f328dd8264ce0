using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Review;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;

namespace Rendal.Core.Parcels;

/// <summary>
/// Makes the content of parcels. Preview, layout editor, release, sending and the command line all go through here, so that what is seen
/// is what is sent. It is pure: the same parcel comes out the same at any time.
/// </summary>
/// <param name="letterhead">The firm as it stands on documents.</param>
/// <param name="round">What the words can say about the round.</param>
/// <param name="choice">Who is written to about what.</param>
/// <param name="settlement">How payments are set against invoices.</param>
/// <param name="hand">What was decided by hand.</param>
/// <param name="rules">What the book has settled for its statements.</param>
/// <param name="sender">Under which identity messages go out.</param>
public sealed class ParcelComposer(
    Firm letterhead,
    RoundIdentity round,
    Choice choice,
    SettlementRule settlement,
    ByHand hand,
    StatementRules rules,
    SentAs sender
)
{
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
    ) => ParcelSlots.Of(card, statements, letterhead, sender.Name, round, reminderLevel, copies);

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
        var document = Document(template, card, statements, nameOf, reminderLevel, additions);
        return (Filled(wording, template, card, statements, nameOf, reminderLevel, additions, document, traced), document);
    }

    /// <summary>
    /// The message's words alone, the same as with <see cref="Fill"/>. Without a piece of a page in them no document is made.
    /// </summary>
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
    ) => Filled(wording, template, card, statements, nameOf, reminderLevel, additions, null, traced: false);

    /// <summary>The message as it is read, and which of the passages of its wording stand in it, a bit each.</summary>
    /// <param name="wording">The words.</param>
    /// <param name="card">The card of who gets it.</param>
    /// <param name="statements">The statements.</param>
    /// <param name="reminderLevel">The level of the reminder that it is; null for none.</param>
    /// <param name="copies">The numbers of the documents that copies are enclosed of.</param>
    public (MessageText Text, long Passages) Read(
        WordingTemplate wording,
        Customer card,
        IReadOnlyList<Statement> statements,
        int? reminderLevel,
        IReadOnlyList<string> copies
    )
    {
        var slots = Slots(Spoken(wording, card), statements, reminderLevel, copies);
        var holding = TextConditions.Holding(statements, reminderLevel, copies.Count > 0);
        return (wording.Read(slots, holding), wording.Standing(slots, holding));
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

    /// <param name="document">The document as it goes, where it was made.</param>
    private FilledWording Filled(
        WordingTemplate wording,
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        int? reminderLevel,
        ParcelAdditions? additions,
        StatementDocument? document,
        bool traced
    )
    {
        var spoken = Spoken(wording, card);
        var slots = Slots(spoken, statements, reminderLevel, additions?.Copies);
        if (wording.Blocks.Count > 0)
        {
            var hasAges = wording.Blocks.Any(p => p.Slot.Name == SlotCatalogue.Ages);
            var blocks = new MessageBlocks(
                spoken == card && document is not null ? document : With(null),
                statements,
                MessageFoot.Signature(round, sender),
                hasAges,
                traced
            );
            foreach (var place in wording.Blocks)
            {
                if (blocks.Html(place, With) is { } html)
                {
                    slots[place.Key] = html;
                }
            }
        }

        var holding = TextConditions.Holding(statements, reminderLevel, slots[ParcelSlots.Copies].Length > 0);
        var filled = wording.Fill(slots, holding, traced);
        var body = spoken == card ? filled.Body : $"<div lang=\"{spoken.Language}\">{filled.Body}</div>";
        return filled with { Body = body + MessageFoot.Of(letterhead) };

        StatementDocument With(IReadOnlyList<LayoutColumn>? columns) =>
            Document(template, spoken, statements, nameOf, slots, reminderLevel, additions?.Note ?? "", columns);
    }

    /// <summary>
    /// The card with the language of the wording, so that a customer whose language has no wording gets dates, amounts and a table in the
    /// language of the words, and not a mixture.
    /// </summary>
    private static Customer Spoken(WordingTemplate wording, Customer card) =>
        Language.TryParse(wording.Language, out var language) && language.Code != card.Language
            ? card with
            {
                Language = language.Code,
            }
            : card;

    private StatementDocument Document(
        LayoutTemplate template,
        Customer card,
        IReadOnlyList<Statement> statements,
        Func<string, string> nameOf,
        Dictionary<string, string> slots,
        int? reminderLevel,
        string note,
        IReadOnlyList<LayoutColumn>? columns = null
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
            note,
            columns
        );
}
