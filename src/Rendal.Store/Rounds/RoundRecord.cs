using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Store.Layouts;

namespace Rendal.Store.Rounds;

/// <summary>A round as stored.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">What the bookkeeper calls it; the customer sees it where the wording says so.</param>
/// <param name="IntakeId">The intake whose rows it is made from.</param>
/// <param name="Choice">Who and what is wanted.</param>
/// <param name="WordingId">The wording of its messages.</param>
/// <param name="SenderId">The sender that they go out under.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="PreparedAt">When its parcels were last made up; null before the first time.</param>
/// <param name="ReleasedAt">When parcels were first let go; null while none was.</param>
/// <param name="Paused">Whether sending waits.</param>
/// <param name="ByHand">What was decided by hand, as it held when its parcels were last made up, or when the first of them were released;
/// from then on it stays.</param>
/// <param name="Rules">What the book had settled for its statements then.</param>
public sealed record RoundRecord(
    long Id,
    string Name,
    long IntakeId,
    Choice Choice,
    long WordingId,
    long SenderId,
    DateTimeOffset MadeAt,
    DateTimeOffset? PreparedAt,
    DateTimeOffset? ReleasedAt,
    bool Paused,
    ByHand ByHand,
    StatementRules Rules
)
{
    /// <summary>The layout that was picked for it; null for the book's.</summary>
    public long? PickedLayout { get; init; }

    /// <summary>What it encloses beside the document.</summary>
    public Enclosing Enclosing { get; init; } = new();

    /// <summary>Counts the changes that people made to it, from 1.</summary>
    public long Revision { get; init; }

    /// <summary>The <see cref="Books.Book.Changes"/> that its parcels were last made up at.</summary>
    public long PreparedAtChange { get; init; }

    /// <summary>
    /// The customers whose parcels fell out of it because something that it uses was changed, until somebody has seen it.
    /// </summary>
    public IReadOnlyList<string> FellOut { get; init; } = [];

    /// <summary>Whether its parcels are not what was chosen in it since: making them up was stopped, or ended with its process.</summary>
    public bool ToBePrepared { get; init; }

    /// <summary>The customers about whom something was decided since its parcels were made up.</summary>
    public IReadOnlyList<string> Awaiting { get; init; } = [];

    /// <summary>Whether its parcels are not what people chose and decided in it.</summary>
    public bool IsUnprepared => ToBePrepared || Awaiting.Count > 0;

    /// <summary>
    /// Whether its parcels are to be made up anew before somebody looks at them. Once something of it was released it follows nothing.
    /// </summary>
    /// <param name="book">Its book.</param>
    public bool IsBehind(Books.Book book) => ReleasedAt is null && (IsUnprepared || IsBehindBook(book));

    /// <summary>Whether something that it uses may have been changed since its parcels were made up.</summary>
    /// <param name="book">Its book.</param>
    public bool IsBehindBook(Books.Book book) => PreparedAtChange < book.Changes;

    /// <summary>What people choose in it.</summary>
    public RoundSettings Settings => new(Name, Choice, WordingId, SenderId, PickedLayout) { Enclosing = Enclosing };

    /// <summary>The parcel that it was made to send once more; null for any other round.</summary>
    public long? RepeatOf { get; init; }

    /// <summary>The rules that hold for it now: those of its book until something of it was released, from then on its own.</summary>
    public StatementRules RulesNow(StatementRules ofBook) => ReleasedAt is null ? ofBook : Rules;
}

/// <summary>What a person decided about one customer in a round.</summary>
/// <param name="Customer">The customer.</param>
/// <param name="Decision"><c>held</c>, <c>removed</c> or <c>put-in</c>.</param>
/// <param name="Reason">What the person gave as the reason.</param>
public sealed record RoundDecision(string Customer, string Decision, string Reason);

/// <summary>What one customer gets in one round.</summary>
/// <param name="Id">Its number; 0 before it is stored.</param>
/// <param name="Customer">The customer.</param>
/// <param name="Name">The customer's name.</param>
/// <param name="Accounts">The accounts on its statements: the customer's own, or for a head office also those of its branches.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Recipients">The addresses it goes to.</param>
/// <param name="Problem">What a person has to see to before it can be released; empty when nothing.</param>
/// <param name="Sums">One per currency.</param>
/// <param name="Items">Number of items on its statements.</param>
/// <param name="Answer">The mail server's last words, or what happened on our side; empty before the first try.</param>
public sealed record ParcelRecord(
    long Id,
    string Customer,
    string Name,
    IReadOnlyList<ParcelAccount> Accounts,
    ParcelState State,
    IReadOnlyList<string> Recipients,
    string Problem,
    IReadOnlyList<ParcelSum> Sums,
    int Items,
    string Answer
)
{
    /// <summary>The level of the reminder that it is, the firmest where it has several currencies; null for statements.</summary>
    public int? ReminderLevel { get; init; }

    /// <summary>Whether it goes on paper, alone where there are no recipients, else beside the message.</summary>
    public bool OnPaper { get; init; }

    /// <summary>Whether it was let go, its message could not be made, and it can be let go again as it is.</summary>
    public bool CanBeRetried { get; init; }

    /// <summary>What the person who holds it noted; empty for nothing, and for one that is not held.</summary>
    public string HoldNote { get; init; } = "";

    /// <summary>Whether it goes neither with this round, where that was released, nor with another one.</summary>
    public bool IsLeft { get; init; }

    /// <summary>The layout of its document; null for the one that is there before any was made.</summary>
    public LayoutRef? Layout { get; init; }

    /// <summary>The parts of it that a person changed on it alone; none for a parcel that is like the others.</summary>
    public IReadOnlyList<ParcelChangePart> Altered { get; init; } = [];

    /// <summary>The files that go with it beside its document.</summary>
    public IReadOnlyList<ParcelEnclosure> Enclosures { get; init; } = [];

    /// <summary>Of statements that were reckoned again, those in the currencies that were found to be in it.</summary>
    public IReadOnlyList<Statement> Known(IEnumerable<Statement> again) =>
        [.. again.Where(s => Sums.Any(sum => sum.Currency == s.Currency.Code))];

    /// <summary>Whether it can be released: it is prepared, and lacks nothing.</summary>
    public bool IsReady => ParcelStatus.IsReady(State, Problem);

    /// <summary>The code of where it stands, as it is shown.</summary>
    public string Status => ParcelStatus.Of(State, Problem);

    /// <summary>What it was prepared from; null where that was not noted yet.</summary>
    public ParcelSeal? Seal { get; init; }

    /// <summary>
    /// What it was prepared from when somebody looked at it last; null for one that came into the round by itself since. Written, and read
    /// by <see cref="RoundStore.MarksAsync"/>.
    /// </summary>
    public ParcelSeal? SeenSeal { get; init; }

    /// <summary>
    /// What of it changed by itself since somebody looked at it; all parts for one that came into the round, none for one that is as it
    /// was seen.
    /// </summary>
    public IReadOnlyList<SealPart> Changed { get; init; } = [];

    /// <summary>Whether it came into the round by itself since somebody looked through it.</summary>
    public bool IsNew => SealMark.IsNew(Changed);
}

/// <summary>A parcel's content as it is frozen on release.</summary>
/// <param name="Id">The parcel.</param>
/// <param name="Subject">The filled subject.</param>
/// <param name="Body">The filled body.</param>
/// <param name="Card">The customer's card.</param>
/// <param name="Letterhead">The firm as it stands on its document.</param>
/// <param name="SentAs">The sender as the customer sees it.</param>
public sealed record FrozenParcel(long Id, string Subject, string Body, Core.Customers.Customer Card, Firm Letterhead, SentAs SentAs)
{
    /// <summary>
    /// What it counts as for its items where it is a reminder. It is written with the release, and not read back with the parcel.
    /// </summary>
    public IReadOnlyList<ItemReminded> Reminded { get; init; } = [];

    /// <summary>
    /// What it was compared by: a parcel that has another seal by then is not released. Written like <see cref="Reminded"/>.
    /// </summary>
    public ParcelSeal? Seal { get; init; }

    /// <summary>What a person changed on it alone; null for nothing.</summary>
    public ParcelChange? Change { get; init; }

    /// <summary>Whose accounts are on its statements, beside the customer's own. Written like <see cref="Reminded"/>.</summary>
    public IReadOnlyList<string> Accounts { get; init; } = [];

    /// <summary>The numbers of the items on its statements, by which the log finds it. Written like <see cref="Reminded"/>.</summary>
    public IReadOnlyList<string> Numbers { get; init; } = [];
}
