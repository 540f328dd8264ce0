using Rendal.App.Books;
using Rendal.App.Layouts;
using Rendal.App.Wordings;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Store.Rounds;

namespace Rendal.App.Rounds;

/// <summary>What a parcel is made of. Once it was released, its frozen words, card, letterhead and sender stand.</summary>
public sealed class ParcelContent
{
    private readonly IReadOnlyList<Statement> statements;
    private readonly ParcelComposer composer;
    private readonly FrozenParcel? frozen;

    private ParcelContent(
        RoundContent round,
        ParcelComposer composer,
        ParcelRecord parcel,
        Customer card,
        LayoutTemplate layout,
        IReadOnlyList<Statement> statements,
        FrozenParcel? frozen
    ) =>
        (Round, this.composer, Parcel, Card, Layout, this.statements, this.frozen) = (
            round,
            composer,
            parcel,
            card,
            layout,
            statements,
            frozen
        );

    /// <summary>The round.</summary>
    public RoundContent Round { get; }

    /// <summary>The parcel.</summary>
    public ParcelRecord Parcel { get; }

    /// <summary>The card of who gets it.</summary>
    public Customer Card { get; }

    /// <summary>How its document looks.</summary>
    public LayoutTemplate Layout { get; }

    /// <summary>Which wording its message has, and why.</summary>
    public AssignedWording Assigned => Round.AssignedTo(Card, Parcel.ReminderLevel, statements);

    /// <summary>The words of its message.</summary>
    public WordingTemplate Wording => Round.WordingFor(Card, Assigned);

    /// <summary>They as they are written, with slots.</summary>
    public Wording Written => Round.WrittenFor(Card, Assigned);

    /// <summary>What a person changed on it alone; null for nothing.</summary>
    public ParcelChange? Change => frozen is not null ? frozen.Change : Round.ChangeOf(Parcel.Customer);

    /// <summary>Whom its message goes to.</summary>
    public Recipients Recipients => Recipients.Of(Card, Round.Round.Choice.Kind, Change);

    private ParcelAdditions Additions =>
        new(Change?.DocumentNote ?? "", [.. Parcel.Enclosures.SelectMany(f => f.Numbers).Distinct(StringComparer.Ordinal)]);

    /// <summary>Loads it.</summary>
    /// <exception cref="ProblemException">It is not there, or the ledger of its round says nothing of its customer any more.</exception>
    public static async Task<ParcelContent> LoadAsync(long id, BookStores stores, CancellationToken cancel)
    {
        var (round, parcel) = await stores.Rounds.ParcelAsync(id, cancel) ?? throw ProblemException.NotFound("This parcel");
        var content = await RoundContent.LoadAsync(stores, round, parcel.Customer, cancel);
        var rows = await stores.Ledger.RowsAsync(content.Intake.Id, parcel.Accounts.Select(a => a.Key), cancel);
        var frozen = parcel.State is ParcelState.Prepared or ParcelState.Held ? null : await stores.Dispatch.FrozenAsync(id, cancel);
        var card = frozen?.Card ?? content.Card(parcel.Customer);
        var layout = frozen is not null
            ? await LayoutOfParcel.ReadyAsync(stores.Layouts, parcel.Layout, cancel)
            : content.LayoutFor(card, parcel.ReminderLevel).Template;
        var composer = frozen is null ? content.Composer : content.ComposerOf(frozen.Letterhead, frozen.SentAs);
        var statements = parcel.Known(composer.Statements(card, rows));
        return statements.Count > 0
            ? new ParcelContent(
                content,
                composer,
                parcel,
                frozen is null ? content.CardFor(parcel.Customer, statements) : card,
                layout,
                statements,
                frozen
            )
            : throw ProblemException.Conflict(
                "The ledger of this round says nothing of this customer any more, so that there is nothing to show. Prepare "
                    + "the round anew."
            );
    }

    /// <summary>Its document.</summary>
    public StatementDocument Document() =>
        composer.Document(Layout, Card, statements, ParcelComposer.NamesIn(Parcel.Accounts), Parcel.ReminderLevel, Additions);

    /// <summary>The words of its message; null where the wording has an error.</summary>
    public FilledWording? Words() => frozen is not null ? new FilledWording(frozen.Subject, frozen.Body, []) : Filled(Wording);

    /// <summary>
    /// The same with where each value was taken from beside it, as long as it can be put right there; null where the wording has an error.
    /// </summary>
    public FilledWording? TracedWords() => frozen is not null ? Words() : Filled(Wording, traced: true);

    /// <summary>
    /// The words that its message would have if nothing were changed on it alone, by the wording as it is now; null where that has an
    /// error.
    /// </summary>
    public FilledWording? WordsAsForAll() => Filled(ReadyWordings.Of(Round.WordingOf(Assigned.Id)));

    private FilledWording? Filled(WordingTemplate wording, bool traced = false) =>
        wording.Errors.Count > 0
            ? null
            : composer
                .Fill(wording, Layout, Card, statements, ParcelComposer.NamesIn(Parcel.Accounts), Parcel.ReminderLevel, Additions, traced)
                .Words;
}
