using Rendal.App.Books;
using Rendal.App.Enclosures;
using Rendal.App.Wordings;
using Rendal.Core.Customers;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
using Rendal.Core.Parcels;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Html;
using Rendal.Store.Books;
using Rendal.Store.Customers;
using Rendal.Store.Intake;
using Rendal.Store.Layouts;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;

namespace Rendal.App.Rounds;

/// <summary>A round with everything that its parcels are made from, as it is now.</summary>
public sealed class RoundContent
{
    private readonly Dictionary<string, Customer> customers;
    private readonly IReadOnlyDictionary<string, ParcelChange> changes;
    private readonly Dictionary<long, (LayoutRef Ref, Lazy<LayoutTemplate> Template)> layouts;
    private readonly Dictionary<long, (Wording Wording, WordingTemplate Template)> wordings;
    private readonly WordingInUse wordingInUse;
    private readonly LayoutInUse layoutInUse;
    private readonly SettlementRule settlement;
    private readonly IReadOnlyCollection<string>? only;

    private RoundContent(
        IReadOnlyCollection<string>? only,
        BookStores stores,
        Book book,
        RoundRecord round,
        IntakeRecord intake,
        List<StoredWording> wordings,
        Sender sender,
        Dictionary<string, Customer> customers,
        IReadOnlyList<RoundDecision> decisions,
        ByHand hand,
        IReadOnlyDictionary<string, ParcelChange> changes,
        IReadOnlyDictionary<string, Reminded> reminded,
        List<StoredLayout> layouts,
        List<TemplateAssignment> layoutUses,
        List<TemplateAssignment> wordingUses,
        string missingColumn
    )
    {
        (this.only, Stores, Book, Round, Intake, Sender, this.customers, this.changes, Reminded, Decisions, Hand) = (
            only,
            stores,
            book,
            round,
            intake,
            sender,
            customers,
            changes,
            reminded,
            decisions,
            hand
        );
        Rules = round.RulesNow(book.Rules);
        MissingColumn = missingColumn;
        settlement = Rules.SettlementOf(intake.HasOutstanding);
        this.wordings = wordings.ToDictionary(w => w.Id, w => (w.Wording, ReadyWordings.Of(w.Wording)));
        this.layouts = layouts.ToDictionary(l => l.Ref.Id, l => (l.Ref, new Lazy<LayoutTemplate>(() => LayoutReader.Read(l.Layout))));
        wordingInUse = new WordingInUse(
            round.Choice.Kind,
            round.WordingId,
            Rules.Reminders,
            wordings.ToDictionary(w => w.Id, w => (w.Wording.Name, w.Wording.Language)),
            wordingUses
        );
        layoutInUse = new LayoutInUse(round.Choice.Kind, round.PickedLayout, layoutUses);
        Composer = ComposerOf(book.Firm, sender.SentAs);
    }

    /// <summary>The stores of the book.</summary>
    public BookStores Stores { get; }

    /// <summary>
    /// The book as it was before anything else of this was loaded, which is as it was at <see cref="Book.Changes"/> or newer.
    /// </summary>
    public Book Book { get; }

    /// <summary>The round.</summary>
    public RoundRecord Round { get; }

    /// <summary>The intake whose rows it is made from.</summary>
    public IntakeRecord Intake { get; }

    /// <summary>The sender that its messages go out under.</summary>
    public Sender Sender { get; }

    /// <summary>Makes the content of parcels.</summary>
    public ParcelComposer Composer { get; }

    /// <summary>What was decided about its customers.</summary>
    public IReadOnlyList<RoundDecision> Decisions { get; }

    /// <summary>What was decided by hand.</summary>
    public ByHand Hand { get; }

    /// <summary>What the book has settled for its statements; for a round that was released, as it held then.</summary>
    public StatementRules Rules { get; }

    /// <summary>
    /// That the ledger has no column any more of those that the round goes by, in words, as of an export that was made otherwise this
    /// month; empty where it has each. Without it nobody could tell that words or copies are missing.
    /// </summary>
    public string MissingColumn { get; }

    /// <summary>
    /// How far the reminders about single items had come before this round, of the customers whose cards are known to it; empty in a round
    /// of statements.
    /// </summary>
    public IReadOnlyDictionary<string, Reminded> Reminded { get; }

    /// <summary>The pictures that may stand in its messages.</summary>
    public IReadOnlyList<long> Pictures =>
        [
            .. wordings
                .Values.SelectMany(w => w.Template.Pictures)
                .Concat(changes.Values.SelectMany(c => PicturePlaces.Of(c.Words?.Body ?? "")))
                .Distinct(),
        ];

    /// <summary>Loads a round for all its parcels.</summary>
    /// <exception cref="ProblemException">It is not there.</exception>
    public static Task<RoundContent> LoadAsync(BookStores stores, long id, CancellationToken cancel) =>
        LoadOfAsync(stores, id, null, cancel);

    /// <summary>Loads a round to look at the parcel of one customer; the card of any other is not known to it.</summary>
    /// <exception cref="ProblemException">It is not there.</exception>
    public static Task<RoundContent> LoadAsync(BookStores stores, long id, string customer, CancellationToken cancel) =>
        LoadOfAsync(stores, id, [customer], cancel);

    /// <summary>
    /// Loads a round to choose again among some customers, which are with each all that it shares a head office with; no other is known to
    /// it.
    /// </summary>
    /// <exception cref="ProblemException">It is not there.</exception>
    internal static Task<RoundContent> LoadAsync(
        BookStores stores,
        long id,
        IReadOnlyCollection<string> family,
        CancellationToken cancel
    ) => LoadOfAsync(stores, id, family, cancel);

    /// <summary>What people have decided about a round that is not released.</summary>
    public static async Task<ByHand> ByHandAsync(
        BookStores stores,
        long round,
        IReadOnlyList<RoundDecision> decisions,
        CancellationToken cancel
    ) =>
        new()
        {
            Customers =
            [
                .. decisions
                    .Where(d => d.Decision != "held")
                    .Select(d => new CustomerByHand(d.Customer, d.Decision == "put-in", d.Reason)),
            ],
            Items = await stores.Decisions.OfItemsAsync(round, cancel),
            Holds = [.. (await stores.Holds.ListAsync(cancel)).Select(h => h.Hold)],
            Settlements = [.. (await stores.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)],
        };

    /// <summary>The card of a customer; one that is on no list is known by its key alone.</summary>
    public Customer Card(string key) =>
        customers.TryGetValue(key, out var card)
            ? card
            : new Customer
            {
                Key = key,
                Name = key,
                FromLedger = true,
            };

    /// <summary>The card of who gets a parcel, with the colleagues who get a copy of it.</summary>
    /// <param name="key">The customer.</param>
    /// <param name="statements">Its statements.</param>
    public Customer CardFor(string key, IReadOnlyList<Statement> statements) =>
        Colleagues.OnCard(Card(key), statements, Round.Choice.ColleagueColumn);

    /// <summary>The wording that a customer gets and why, by <see cref="WordingInUse"/>.</summary>
    /// <param name="card">The customer.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    /// <param name="statements">Its statements.</param>
    public AssignedWording AssignedTo(Customer card, int? reminderLevel, IReadOnlyList<Statement> statements) =>
        wordingInUse.For(card, reminderLevel, NamedWording.Of(statements, Round.Choice.WordingColumn));

    /// <summary>The words of a customer's message, made ready: that wording, or what was written for this parcel alone.</summary>
    public WordingTemplate WordingFor(Customer card, AssignedWording assigned) =>
        ChangeOf(card.Key) is { Words: not null } ? ReadyWordings.Of(WrittenFor(card, assigned)) : wordings[assigned.Id].Template;

    /// <summary>A wording as it is written.</summary>
    public Wording WordingOf(long id) => wordings[id].Wording;

    /// <summary>The words of a customer's message as they are written, under the name of its wording.</summary>
    public Wording WrittenFor(Customer card, AssignedWording assigned) =>
        ChangeOf(card.Key)?.Over(WordingOf(assigned.Id)) ?? WordingOf(assigned.Id);

    /// <summary>What finds the files of its parcels; it is loaded each time.</summary>
    internal Task<EnclosureFinder> EnclosuresAsync(CancellationToken cancel) =>
        RoundEnclosures.FinderAsync(Stores, Round, only, changes.Values, cancel);

    /// <summary>What a person changed on the parcel of a customer alone; null for nothing.</summary>
    public ParcelChange? ChangeOf(string customer) => changes.GetValueOrDefault(customer);

    /// <summary>The layout of a customer's document, by <see cref="LayoutInUse"/>; null and the built-in one where none is said.</summary>
    public (LayoutRef? Ref, LayoutTemplate Template) LayoutFor(Customer card, int? reminderLevel) =>
        layoutInUse.For(card, reminderLevel) is { } id && layouts.TryGetValue(id, out var found)
            ? (found.Ref, found.Template.Value)
            : (null, LayoutReader.BuiltIn);

    /// <summary>What the words can say about the round.</summary>
    public RoundIdentity Identity => new(Round.Name, Round.MadeBy, Book.HourOf(Round.MadeAt)) { Signature = Round.MadeBySignature };

    /// <summary>Makes content with the letterhead and under the identity that something was released with.</summary>
    public ParcelComposer ComposerOf(Firm letterhead, SentAs sentAs) =>
        new(letterhead, Identity, Round.Choice, settlement, Hand, Rules, sentAs);

    /// <summary>Chooses from the ledger, or from the rows of those customers for whom it was loaded.</summary>
    public async Task<ChosenRound> ChooseAsync(CancellationToken cancel)
    {
        var choice = Round.Choice;
        var rows = only is null
            ? await Stores.Ledger.RowsAsync(Intake.Id, cancel)
            : await Stores.Ledger.RowsAsync(Intake.Id, only, cancel);
        var setAside = new List<RowSetAside>();
        foreach (var customer in only?.Cast<string?>() ?? [null])
        {
            setAside.AddRange(await Stores.Ledger.SetAsideAsync(Intake.Id, customer, cancel));
        }

        var lastWritten = choice.WrittenSince is { } since ? await Stores.Rounds.LastWrittenAsync(Book.StartOf(since), cancel) : [];
        var traits = new Dictionary<string, CustomerTraits>(customers.Count, StringComparer.Ordinal);
        var reach = new Reach(TraitsOf, HeadOffices.Of(customers.Values), lastWritten);
        return Choosing.Choose(rows, setAside, choice, settlement, Rules, reach.Of, Hand, Reminded);

        // Whether a card can be reached is told from its addresses, which are read once for each that is asked for.
        CustomerTraits TraitsOf(string key) =>
            traits.TryGetValue(key, out var known)
                ? known
                : traits[key] = customers.TryGetValue(key, out var card) ? CustomerTraits.Of(card, choice.Kind) : CustomerTraits.NoCard;
    }

    private static async Task<RoundContent> LoadOfAsync(
        BookStores stores,
        long id,
        IReadOnlyCollection<string>? only,
        CancellationToken cancel
    )
    {
        var book = await stores.BookNowAsync(cancel);
        var round = await stores.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        var intake = await stores.Intakes.FindAsync(round.IntakeId, cancel)
            ?? throw new InvalidOperationException("A round’s intake is gone.");
        var sender = await stores.Senders.FindAsync(round.SenderId, cancel)
            ?? throw new InvalidOperationException("A round’s sender is gone.");
        var decisions = await stores.Decisions.OfCustomersAsync(id, cancel);
        var customers = only is null ? await stores.Customers.AllAsync(cancel) : await stores.Customers.AllAsync(only, cancel);

        // What was released stays what it was, whatever is decided about its items later.
        var hand = round.ReleasedAt is null ? await ByHandAsync(stores, id, decisions, cancel) : round.ByHand;
        return new RoundContent(
            only,
            stores,
            book,
            round,
            intake,
            await stores.Wordings.ListAsync(cancel),
            sender,
            customers,
            decisions,
            hand,
            await stores.ParcelChanges.OfAsync(id, only, cancel),
            round.Choice.ReminderLevels is null ? new Dictionary<string, Reminded>() : await RemindedAsync(),
            await stores.Layouts.ListAsync(cancel),
            await stores.Layouts.UsesAsync(cancel),
            await stores.Wordings.UsesAsync(cancel),
            await MissingColumnAsync(stores, intake.Id, round.Choice, cancel)
        );

        async Task<Dictionary<string, Reminded>> RemindedAsync()
        {
            var all = new Dictionary<string, Reminded>(StringComparer.Ordinal);
            foreach (var customer in only?.Cast<string?>() ?? [null])
            {
                foreach (var (item, reminded) in await stores.Reminders.AllAsync(round.Id, round.RepeatOf, customer, cancel))
                {
                    all[item] = reminded;
                }
            }

            return all;
        }
    }

    private static async Task<string> MissingColumnAsync(BookStores stores, long intake, Choice choice, CancellationToken cancel)
    {
        (string Heading, string Purpose)[] named =
        [
            (choice.WordingColumn, "its wording"),
            (choice.ColleagueColumn, "the colleagues who get a copy"),
        ];
        if (named.All(column => column.Heading.Length == 0))
        {
            return "";
        }

        var headings = await stores.Ledger.ExtraHeadingsAsync(intake, cancel);
        return named
            .Where(column => column.Heading.Length > 0 && !headings.Contains(column.Heading))
            .Select(column => $"the ledger has no column “{column.Heading}”, which is to name {column.Purpose}")
            .FirstOrDefault("");
    }
}
