using Rendal.Core.Dispatch;
using Rendal.Core.Enclosures;
using Rendal.Core.Parcels;
using Rendal.Core.Review;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Store.Layouts;

namespace Rendal.Store.Rounds;

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

    /// <summary>The layout of its document; null for the one that is there before any was made.</summary>
    public LayoutRef? Layout { get; init; }

    /// <summary>The parts of it that a person changed on it alone; none for a parcel that is like the others.</summary>
    public IReadOnlyList<ParcelChangePart> Altered { get; init; } = [];

    /// <summary>The files that go with it beside its document.</summary>
    public IReadOnlyList<ParcelEnclosure> Enclosures { get; init; } = [];

    /// <summary>The wording that its message was filled from; null where there is none yet.</summary>
    public long? Wording { get; init; }

    /// <summary>A bit for each of the first 63 passages of that wording that stands in its message.</summary>
    public long Passages { get; init; }

    /// <summary>What catches the eye in its message, the most serious first; also what somebody said is meant so.</summary>
    public IReadOnlyList<Remark> Remarks { get; init; } = [];

    /// <summary>How many messages it is; 1 for a parcel that goes on paper alone as well.</summary>
    public int Messages => Enclosures.Count == 0 ? 1 : Enclosures.Max(e => e.Message) + 1;

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
