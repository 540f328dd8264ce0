using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Core.Wordings;
using Rendal.Files.Letters;
using Rendal.Files.Pdf;
using Rendal.Store.Customers;
using Rendal.Store.Intake;
using Rendal.Store.Layouts;
using Rendal.Store.Returned;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Store.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Rounds;

/// <summary>A round with everything that its parcels are made from.</summary>
internal sealed class Preparation
{
    private readonly BookScope scope;
    private readonly Dictionary<string, Customer> customers;
    private readonly Dictionary<string, RoundDecision> decisions;
    private readonly HeadOffices headOffices;
    private readonly Sender sender;
    private readonly Dictionary<long, (LayoutRef Ref, Lazy<LayoutTemplate> Template)> layouts;
    private readonly List<UsedFor> layoutUses;
    private readonly List<UsedFor> wordingUses;
    private readonly Dictionary<string, ReturnedAddress> returned;
    private readonly Dictionary<long, (Wording Wording, WordingTemplate Template)> wordings;
    private readonly SettlementRule settlement;

    private Preparation(BookScope scope, RoundRecord round, IntakeRecord intake, List<StoredWording> wordings, Sender sender, Dictionary<string, Customer> customers, List<RoundDecision> decisions, ByHand hand, Dictionary<string, Reminded> reminded, List<StoredLayout> layouts, List<UsedFor> layoutUses, List<UsedFor> wordingUses, Dictionary<string, ReturnedAddress> returned)
    {
        (this.scope, Round, Intake, this.sender, this.customers, Reminded) = (scope, round, intake, sender, customers, reminded);
        this.wordings = wordings.ToDictionary(w => w.Id, w => (w.Wording, WordingTemplate.Of(w.Wording)));
        this.decisions = decisions.ToDictionary(d => d.Customer, StringComparer.Ordinal);
        Hand = hand;
        Rules = round.RulesNow(scope.Book.Rules);
        headOffices = HeadOffices.Of(customers.Values);
        settlement = Rules.SettlementOf(intake.HasOutstanding);
        Making = MakingOf(scope.Book.Firm, sender.SentAs);
        (this.layoutUses, this.wordingUses, this.returned) = (layoutUses, wordingUses, returned);
        this.layouts = layouts.ToDictionary(l => l.Ref.Id, l => (l.Ref, new Lazy<LayoutTemplate>(() => LayoutTemplate.Of(l.Layout))));
    }

    public RoundRecord Round { get; }

    public IntakeRecord Intake { get; }

    public ParcelMaking Making { get; }

    /// <summary>What was decided by hand.</summary>
    public ByHand Hand { get; }

    /// <summary>What the book has settled for its statements; for a round that was released, as it held then.</summary>
    public StatementRules Rules { get; }

    /// <summary>How far the reminders about single items had come before this round; empty in a round of statements.</summary>
    public IReadOnlyDictionary<string, Reminded> Reminded { get; }

    /// <summary>
    /// The wording that a customer gets: the card's own for a statement; else that of the reminder's level, or of the round;
    /// in its place, where that is in another language than the customer's, the book's for the purpose in that language.
    /// </summary>
    /// <param name="card">The customer.</param>
    /// <param name="reminderLevel">The level of a reminder; null for none.</param>
    public WordingTemplate WordingFor(Customer card, int? reminderLevel) => wordings[WordingIdFor(card, reminderLevel)].Template;

    /// <summary>The number of that wording.</summary>
    public long WordingIdFor(Customer card, int? reminderLevel)
    {
        var ofLevel = reminderLevel is { } level && Rules.Reminders.Levels.ElementAtOrDefault(level - 1)?.Wording is { } known && wordings.ContainsKey(known) ? known : (long?)null;
        if (Round.Choice.Kind == RoundKind.Statements && card.OwnWording is { } own && wordings.ContainsKey(own))
        {
            return own;
        }

        var usual = ofLevel ?? Round.WordingId;
        return wordings[usual].Wording.Language == card.Language ? usual
            : Purposes.Find([.. wordingUses.Where(u => u.Language == card.Language)], Purposes.Of(Round.Choice.Kind, reminderLevel), card.Language) ?? usual;
    }

    /// <summary>Loads a round for all its parcels.</summary>
    public static async Task<Preparation> LoadAsync(BookScope scope, long id, CancellationToken cancel) =>
        await LoadAsync(scope, id, await scope.Customers.AllAsync(cancel), cancel);

    /// <summary>Loads a round to look at the parcel of one customer; the card of any other is not known to it.</summary>
    public static async Task<Preparation> LoadAsync(BookScope scope, long id, string customer, CancellationToken cancel) =>
        await LoadAsync(scope, id, await scope.Customers.FindAsync(customer, cancel) is { } card ? new() { [customer] = card } : [], cancel);

    private static async Task<Preparation> LoadAsync(BookScope scope, long id, Dictionary<string, Customer> customers, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var intake = await scope.Intakes.FindAsync(round.IntakeId, cancel) ?? throw new InvalidOperationException("A round’s intake is gone.");
        var sender = await scope.Senders.FindAsync(round.SenderId, cancel) ?? throw new InvalidOperationException("A round’s sender is gone.");
        var decisions = await scope.Decisions.OfCustomersAsync(id, cancel);

        // What was released stays what it was, whatever is decided about its items later.
        var hand = round.ReleasedAt is null ? await ByHandAsync(scope, id, decisions, cancel) : round.ByHand;
        return new Preparation(scope, round, intake, await scope.Wordings.ListAsync(cancel), sender, customers, decisions, hand,
            round.Choice.ReminderLevels is null ? [] : await scope.Reminders.AllAsync(round.Id, round.RepeatOf, cancel),
            await scope.Layouts.ListAsync(cancel), await scope.Layouts.UsesAsync(cancel), await scope.Wordings.UsesAsync(cancel), await scope.Returned.AddressesAsync(cancel));
    }

    /// <summary>
    /// The layout of a customer's document as it is now: the one picked for the round, else, for a statement, the card's own,
    /// else the book's for what goes, in the customer's language.
    /// </summary>
    public (LayoutRef? Ref, LayoutTemplate Template) LayoutFor(Customer card, int? reminderLevel)
    {
        var id = Round.PickedLayout ?? (Round.Choice.Kind == RoundKind.Statements ? card.OwnLayout : null) ?? Purposes.Find(layoutUses, Purposes.Of(Round.Choice.Kind, reminderLevel), card.Language);
        return id is { } known && layouts.TryGetValue(known, out var found) ? (found.Ref, found.Template.Value) : (null, LayoutTemplate.BuiltIn);
    }

    /// <summary>The card of a customer; one that is on no list is known by its key alone.</summary>
    public Customer Card(string key) => customers.TryGetValue(key, out var card) ? card : new Customer { Key = key, Name = key, FromLedger = true };

    /// <summary>Makes content with the letterhead and under the identity that something was released with.</summary>
    public ParcelMaking MakingOf(Firm letterhead, SentAs sentAs) => new(letterhead, Round, settlement, Hand, Rules, sentAs.Name);

    /// <summary>Makes up all parcels anew and stores them.</summary>
    public async Task PrepareAsync(TimeProvider clock, CancellationToken cancel)
    {
        var chosen = await ChooseAsync(Round.Choice, cancel);
        var parcels = await ParcelsAsync(chosen, cancel);
        if (!await scope.Rounds.PutPreparedAsync(Round.Id, parcels, chosen, new RoundBasis(Round.Choice, Hand, Rules), clock.GetUtcNow(), cancel))
        {
            throw Unable.Conflict("Parcels of this round were released; it stays as it is. Make a new round for what is left.");
        }
    }

    /// <summary>
    /// The content of parcels as it is to be frozen. Everything is reckoned again; where a parcel would have another seal now
    /// than the one it was prepared with, or would need a person, nothing is frozen and it is said what changed.
    /// </summary>
    /// <exception cref="Unable">Something changed.</exception>
    public async Task<IReadOnlyList<FrozenParcel>> FreezeAsync(IReadOnlyList<ParcelRecord> parcels, CancellationToken cancel)
    {
        var chosen = await ChooseAsync(Round.Choice, cancel);
        var byCustomer = chosen.Statements.GroupBy(s => s.Customer).ToDictionary(g => g.Key, g => (IReadOnlyList<Statement>)[.. g], StringComparer.Ordinal);
        var now = (await ParcelsAsync(chosen, cancel)).ToDictionary(p => p.Customer, StringComparer.Ordinal);
        var changed = new ChangedSince();
        foreach (var parcel in parcels)
        {
            var again = now.GetValueOrDefault(parcel.Customer);
            changed.Compare(parcel.Seal, again?.Seal, again?.Problem.Length > 0);
        }

        if (!changed.IsNothing)
        {
            throw Unable.Conflict($"{changed} {LookAgain}");
        }

        return
        [
            .. parcels.Select(parcel =>
            {
                var card = Card(parcel.Customer);
                var statements = byCustomer[parcel.Customer];
                var filled = Making.Fill(WordingFor(card, parcel.ReminderLevel), LayoutFor(card, parcel.ReminderLevel).Template, card, statements, parcel.Accounts, parcel.ReminderLevel);
                return new FrozenParcel(parcel.Id, filled.Subject, filled.Body, card, scope.Book.Firm, sender.SentAs)
                {
                    Numbers = [.. statements.SelectMany(s => s.Items).Select(i => i.Row.Number).Where(n => n.Length > 0).Distinct(StringComparer.Ordinal)],
                    Reminded = parcel.ReminderLevel is null ? [] : [.. statements.SelectMany(s => Rules.Reminders.Counted(s, s.ReminderLevel!.Value, Reminded))],
                };
            }),
        ];
    }

    /// <summary>What a person does where something changed since the round was prepared.</summary>
    public string LookAgain => Round.ReleasedAt is null
        ? "Prepare it anew and look through it again."
        : "A part of it was let go already: make a round of the rest, which is prepared anew, and look through that.";

    /// <summary>Chooses from the ledger.</summary>
    public async Task<ChosenRound> ChooseAsync(Choice choice, CancellationToken cancel)
    {
        var rows = await scope.Ledger.RowsAsync(Intake.Id, cancel).ToListAsync(cancel);
        var setAside = await scope.Ledger.SetAsideAsync(Intake.Id, null, cancel);
        var lastWritten = choice.NotWithinDays is null ? [] : await scope.Rounds.LastWrittenAsync(cancel);
        var traits = new Dictionary<string, CustomerTraits>(customers.Count, StringComparer.Ordinal);
        var reach = new Reach(TraitsOf, headOffices, lastWritten);
        return Choosing.Choose(rows, setAside, choice, Rules.SettlementOf(Intake.HasOutstanding), Rules, reach.Of, Hand, Reminded);

        // Whether a card can be reached is told from its addresses, which are read once for each that is asked for.
        CustomerTraits TraitsOf(string key) =>
            traits.TryGetValue(key, out var known) ? known
            : traits[key] = customers.TryGetValue(key, out var card) ? CustomerTraits.Of(card, choice.Kind) : CustomerTraits.NoCard;
    }

    internal static async Task<ByHand> ByHandAsync(BookScope scope, long round, List<RoundDecision> decisions, CancellationToken cancel) => new()
    {
        Customers = [.. decisions.Where(d => d.Decision != "held").Select(d => new CustomerByHand(d.Customer, d.Decision == "put-in", d.Reason))],
        Items = await scope.Decisions.OfItemsAsync(round, cancel),
        Holds = [.. (await scope.Holds.ListAsync(cancel)).Select(h => h.Hold)],
        Settlements = [.. (await scope.Settlements.ListAsync(null, cancel)).Select(s => s.Settlement)],
    };

    private async Task<List<ParcelRecord>> ParcelsAsync(ChosenRound chosen, CancellationToken cancel)
    {
        var sealer = new Sealer(Round.Name, Round.Choice, Rules, scope.Book.Firm, sender.SentAs);
        using var sizes = new MessageSizes(sender, await scope.Pictures.OfAsync([.. wordings.Values.SelectMany(w => w.Template.Pictures).Distinct()], cancel));
        return
        [
            .. chosen.Statements.GroupBy(s => s.Customer).Select(of =>
            {
                var card = Card(of.Key);
                IReadOnlyList<Statement> statements = [.. of];
                IReadOnlyList<ParcelAccount> accounts = [.. statements.SelectMany(s => s.Accounts).Select(a => a.Customer).Distinct().Select(key => new ParcelAccount(key, Card(key).Name))];
                var recipients = Recipients.Of(card, Round.Choice.Kind);
                var held = decisions.TryGetValue(of.Key, out var decision) && decision.Decision == "held";
                var level = statements.Max(s => s.ReminderLevel);
                IReadOnlyList<string> addresses = [.. recipients.All.Take(AddressList.MostRecipients)];
                var layout = LayoutFor(card, level);
                return new ParcelRecord(0, of.Key, card.Name, accounts, held ? ParcelState.Held : ParcelState.Prepared, addresses, Problem(card, statements, accounts, recipients, level, sizes), ParcelMaking.Sums(statements), statements.Sum(s => s.Items.Count), "")
                {
                    ReminderLevel = level,
                    OnPaper = card.GoesByPost,
                    Layout = layout.Ref,
                    Seal = sealer.Seal(new SealedContent(card, statements, [.. accounts.Select(a => KeyValuePair.Create(a.Key, a.Name))], addresses, card.GoesByPost, level, wordings[WordingIdFor(card, level)].Wording, layout.Template.Layout)),
                };
            }).OrderBy(p => p.Name, StringComparer.OrdinalIgnoreCase).ThenBy(p => p.Customer, StringComparer.Ordinal),
        ];
    }

    /// <summary>What a person has to see to before this parcel can go; empty when nothing.</summary>
    private string Problem(Customer card, IReadOnlyList<Statement> statements, IReadOnlyList<ParcelAccount> accounts, Recipients recipients, int? level, MessageSizes sizes)
    {
        // Who gets post alone is asked for nothing that only the message needs.
        var hasMessage = card.Delivery != Delivery.Post;
        if (hasMessage && WordingFor(card, level).Errors.Count > 0)
        {
            return "the wording has an error";
        }

        if (LayoutFor(card, level).Template.Errors.Count > 0)
        {
            return "the layout has an error";
        }

        if (card.GoesByPost && LayoutFor(card, level).Template.Layout.Letter is not null && WordProcessor.Program is null)
        {
            return WordProcessor.Missing;
        }

        if (card.Delivery == Delivery.Both && !card.GoesByPost)
        {
            return "it is to get post too, and the card has no postal address";
        }

        if (card.Delivery == Delivery.Both && recipients.To.Count == 0)
        {
            return "it is to get messages too, and the card has no e-mail address";
        }

        if (recipients.Bad.Count > 0)
        {
            return $"“{recipients.Bad[0]}” is no address";
        }

        if (recipients.All.Select(a => returned.GetValueOrDefault(a)).FirstOrDefault(a => a is not null) is { } back)
        {
            return string.Create(CultureInfo.InvariantCulture, $"{(back.IsRefused ? $"the mail server refused “{back.Address}”" : $"mail to “{back.Address}” came back")} on {scope.Book.DayOf(back.Since):d MMMM yyyy}");
        }

        if (recipients.All.Count > AddressList.MostRecipients)
        {
            return $"more than {AddressList.MostRecipients} addresses";
        }

        if (statements.SelectMany(s => s.Accounts).FirstOrDefault(s => s.ForwardDifference != 0) is { Forward: { } forward } differs)
        {
            return $"{(differs.Customer == card.Key ? "its movements" : $"the movements of {differs.Customer}")} come to {differs.Currency.Plain(forward.Closing)} {differs.Currency}, its open items to {differs.Currency.Plain(differs.Total)}";
        }

        var (words, paper) = Making.FillBoth(WordingFor(card, level), LayoutFor(card, level).Template, card, statements, accounts, level);
        return hasMessage && words.EmptySlots is [var slot, ..] ? $"{slot.Label.ToLowerInvariant()} is empty"
            : paper.EmptySlots is [var onPaper, ..] ? $"{onPaper.Label.ToLowerInvariant()} is empty on the document"
            : paper.Problem.Length > 0 ? paper.Problem
            : Press.Unprintable(paper) is { } character ? $"“{character}” cannot be printed: no face has it"
            : sizes.Problem(card, recipients, words, paper, LayoutFor(card, level).Template.Layout);
    }
}
