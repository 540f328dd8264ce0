using Rendal.Core.Enclosures;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Store.Rounds;

/// <summary>A round as stored.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">What the bookkeeper calls it; the customer sees it where the wording says so.</param>
/// <param name="IntakeId">The intake whose rows it is made from.</param>
/// <param name="Choice">Who and what is wanted.</param>
/// <param name="WordingId">The wording that was picked for it; null for that of each customer.</param>
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
    long? WordingId,
    long SenderId,
    DateTimeOffset MadeAt,
    DateTimeOffset? PreparedAt,
    DateTimeOffset? ReleasedAt,
    bool Paused,
    ByHand ByHand,
    StatementRules Rules
)
{
    /// <summary>The name of the person who made it; of a rehearsal, who made the round that it is of.</summary>
    public string MadeBy { get; init; } = "";

    /// <summary>The lines with which that person signs, with line feeds between; empty for none.</summary>
    public string MadeBySignature { get; init; } = "";

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
