using System.ComponentModel.DataAnnotations;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Parcels;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Web.Books;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>A round in a list.</summary>
/// <param name="About">What it is about.</param>
/// <param name="ReleasedBy">Who released it first; empty while nobody did.</param>
/// <param name="Totals">What its parcels come to, the book's currency first.</param>
/// <param name="Groups">How many parcels stand where, in the order in which parcels are listed.</param>
internal sealed record RoundLine(
    long Id,
    string Name,
    RoundKind About,
    DateOnly AsOf,
    DateTimeOffset MadeAt,
    string MadeBy,
    DateTimeOffset? ReleasedAt,
    string ReleasedBy,
    IReadOnlyList<SumView> Totals,
    IReadOnlyList<ParcelGroup> Groups
)
{
    /// <summary>Rounds as they are listed, each with its parcels.</summary>
    public static async Task<List<RoundLine>> OfAsync(
        List<RoundRecord> rounds,
        ILookup<long, ParcelGroup> groups,
        BookScope scope,
        CancellationToken cancel
    )
    {
        var listed = await scope.RoundListing.OfAsync([.. rounds.Select(r => r.Id)], cancel);
        return rounds.ConvertAll(r => new RoundLine(
            r.Id,
            r.Name,
            r.Choice.Kind,
            r.Choice.AsOf,
            r.MadeAt,
            listed[r.Id].MadeBy,
            r.ReleasedAt,
            listed[r.Id].ReleasedBy,
            [
                .. listed[r.Id]
                    .Totals.OrderByDescending(t => t.Currency == scope.Book.Currency)
                    .Select(t => SumView.Of(t.Currency, t.Total)),
            ],
            [.. groups[r.Id]]
        ));
    }
}

/// <summary>A part of the rounds.</summary>
/// <param name="Rounds">The rounds, the newest first.</param>
/// <param name="HasMore">Whether there are older ones.</param>
internal sealed record RoundList(IReadOnlyList<RoundLine> Rounds, bool HasMore);

/// <summary>A new round.</summary>
/// <param name="About">What it is about: statements, reminders of whichever level is due, invoices, or confirmations of balance.</param>
/// <param name="CopyOf">An earlier round that it is to be like, about what that is; null for none.</param>
/// <param name="Prepared">Whether its parcels are made up at once; else that is to be asked for, by whoever wants to see how far it
/// is.</param>
internal sealed record NewRound(
    [property: StringLength(200)] string Name,
    DateOnly? AsOf,
    RoundKind About = RoundKind.Statements,
    long? CopyOf = null,
    bool Prepared = true
);

/// <summary>A period to choose among, seen from today.</summary>
/// <param name="Name"><c>last-month</c>, <c>last-quarter</c>, <c>this-month</c> or <c>this-quarter</c>.</param>
internal sealed record PeriodLine(string Name, DateOnly From, DateOnly To);

/// <summary>A customer that others name as their head office.</summary>
internal sealed record HeadOfficeLine(string Customer, string Name);

/// <summary>The figures of a statement in one currency, written for a file.</summary>
/// <param name="AlsoOn">The head office whose parcel has the same items and counts them; null for a statement that counts.</param>
internal sealed record ParcelSumView(
    string Currency,
    string Total,
    string Overdue,
    IReadOnlyList<string> Bands,
    string Credits,
    string? AlsoOn
)
{
    /// <summary>A sum of a parcel in its currency.</summary>
    public static ParcelSumView Of(ParcelSum s)
    {
        var currency = Rendal.Core.Money.Currency.Of(s.Currency);
        return new(
            s.Currency,
            currency.Plain(s.Total),
            currency.Plain(s.Overdue),
            [.. s.Bands.Select(currency.Plain)],
            currency.Plain(s.Credits),
            s.AlsoOn
        );
    }
}

/// <summary>A parcel in the list.</summary>
/// <param name="Status"><c>needs-you</c> for one that a person has to see to; else its state.</param>
/// <param name="Accounts">The accounts on its statements; more than the customer's own for a head office.</param>
/// <param name="ReminderLevel">The level of the reminder that it is; null for statements.</param>
/// <param name="OnPaper">Whether it goes by post, alone where there are no recipients.</param>
/// <param name="CanBeRetried">Whether its message could not be made, and it can be let go again.</param>
/// <param name="Changed">What of it changed since somebody looked at it: <c>the wording</c>; or that it is new in the round.</param>
/// <param name="Altered">What of it a person changed on it alone.</param>
/// <param name="HoldNote">What the person who holds it noted.</param>
internal sealed record ParcelLine(
    long Id,
    string Customer,
    string Name,
    IReadOnlyList<ParcelAccount> Accounts,
    string Status,
    string Problem,
    IReadOnlyList<string> Recipients,
    IReadOnlyList<ParcelSumView> Sums,
    int Items,
    string Answer,
    int? ReminderLevel,
    bool OnPaper,
    bool CanBeRetried,
    IReadOnlyList<string> Changed,
    IReadOnlyList<ParcelChangePart> Altered,
    string HoldNote
)
{
    /// <summary>A parcel as a line of the list.</summary>
    public static ParcelLine Of(ParcelRecord p) =>
        new(
            p.Id,
            p.Customer,
            p.Name,
            p.Accounts,
            p.Status,
            p.Problem,
            p.Recipients,
            [.. p.Sums.Select(ParcelSumView.Of)],
            p.Items,
            p.Answer,
            p.ReminderLevel,
            p.OnPaper,
            p.CanBeRetried,
            p.IsNew ? ["new in this round"] : [.. p.Changed.Select(c => c.Words())],
            p.Altered,
            p.HoldNote
        );
}

/// <summary>What is left out for one customer and reason.</summary>
internal sealed record LeftOutLine(string? Customer, string Name, string? Currency, string Reason, string Amount, int Items)
{
    /// <summary>A customer that is left out.</summary>
    public static LeftOutLine Of(LeftOutRecord l) =>
        new(
            l.Customer,
            l.Name,
            l.Currency,
            l.Reason,
            l.Currency is { } code ? Rendal.Core.Money.Currency.Of(code).Plain(l.Amount) : "",
            l.Items
        );
}

/// <summary>A part of the proof: the parcels of one status, or what is left out for one reason.</summary>
/// <param name="Kind">A status, or <c>left-out:</c> and the reason.</param>
/// <param name="Count">How many customers.</param>
/// <param name="Amount">Their sum.</param>
/// <param name="Share">The part of the whole bar, from 0 to 1, by absolute amounts.</param>
internal sealed record ProofPartView(string Kind, int Count, string Amount, double Share);

/// <summary>The proof in one currency.</summary>
internal sealed record ProofView(
    string Currency,
    string Sign,
    string Ledger,
    string Parcels,
    string LeftOut,
    string Difference,
    int LeftOutCount,
    IReadOnlyList<ProofPartView> Parts
)
{
    /// <summary>The proof, by currency.</summary>
    /// <param name="proof">Total, sent and left out.</param>
    /// <param name="parts">What is ready and what is not.</param>
    public static ProofView Of(Proof proof, IReadOnlyList<ProofPart> parts)
    {
        var currency = proof.Currency;
        var all = parts
            .Where(p => p.Currency == currency)
            .OrderBy(p => Place(p.Kind))
            .ThenBy(p => p.Kind, StringComparer.Ordinal)
            .ToList();
        var whole = all.Sum(p => p.Weight);
        return new(
            currency.Code,
            currency.Sign,
            currency.Plain(proof.Ledger),
            currency.Plain(proof.Statements),
            currency.Plain(proof.LeftOut),
            currency.Plain(proof.Difference),
            all.Where(p => p.Kind.StartsWith("left-out:", StringComparison.Ordinal)).Sum(p => p.Count),
            [.. all.Select(p => new ProofPartView(p.Kind, p.Count, currency.Plain(p.Amount), whole == 0 ? 0 : (double)(p.Weight / whole)))]
        );

        static int Place(string kind) => ParcelStatus.ListOrder.Index().FirstOrDefault(s => s.Item2 == kind, (int.MaxValue, "")).Item1;
    }
}

/// <summary>A round in the workbench.</summary>
/// <param name="Revision">Counts the changes that people made to it; who changes it names the one that they saw.</param>
/// <param name="PageSize">How many parcels, and lines of what is left out, are on a page.</param>
/// <param name="Groups">How many parcels stand where, in the order of the list.</param>
/// <param name="Parcels">The first page of the list; the others are fetched.</param>
/// <param name="LeftOutCount">How many lines there are of what is left out.</param>
/// <param name="LeftOut">The first page of them.</param>
/// <param name="Changed">What changed by itself since somebody looked through it, in one sentence; empty for nothing.</param>
/// <param name="IsBehind">Whether something that it uses was changed, so that it is to be prepared anew before somebody looks at
/// it.</param>
/// <param name="Rest">How many parcels a new round would be made of, where this one was released: those that go neither with it nor with
/// another one.</param>
internal sealed record RoundView(
    long Id,
    long Revision,
    string Name,
    RoundRequest Settings,
    long IntakeId,
    string File,
    string LedgerDoubt,
    DateTimeOffset? PreparedAt,
    DateTimeOffset? ReleasedAt,
    bool Paused,
    string SenderPaused,
    IReadOnlyList<string> Units,
    IReadOnlyList<string> Columns,
    IReadOnlyList<PeriodLine> Periods,
    IReadOnlyList<string> AgeLabels,
    StatementForm BookForm,
    IReadOnlyList<ReminderLevel> ReminderLevels,
    IReadOnlyList<HeadOfficeLine> HeadOffices,
    IReadOnlyList<ProofView> Proof,
    int PageSize,
    IReadOnlyList<ParcelGroup> Groups,
    IReadOnlyList<ParcelLine> Parcels,
    int LeftOutCount,
    IReadOnlyList<LeftOutLine> LeftOut,
    string Changed,
    bool IsBehind,
    int Rest
);

/// <summary>Whether a round is still what somebody sees who has it open.</summary>
/// <param name="IsOther">Whether it was changed, prepared anew or released.</param>
/// <param name="IsBehind">Whether something that it uses was changed, so that it is to be prepared anew.</param>
internal sealed record RevisionView(bool IsOther, bool IsBehind);

/// <summary>A part of the parcels of a round, or of those that are found by a text.</summary>
/// <param name="Groups">How many there are, by status, in the order of the list.</param>
/// <param name="From">How many come before.</param>
/// <param name="Parcels">They.</param>
internal sealed record ParcelPage(IReadOnlyList<ParcelGroup> Groups, int From, IReadOnlyList<ParcelLine> Parcels);

/// <summary>Where a parcel is in the list.</summary>
/// <param name="Place">How many come before it; null where it is not in the list.</param>
internal sealed record ParcelPlace(int? Place);

/// <summary>A parcel that changed since somebody looked at it.</summary>
/// <param name="Customer">Whose it is; null where there is none.</param>
internal sealed record NextChanged(string? Customer);

/// <summary>What somebody has looked at.</summary>
/// <param name="PreparedAt">When what they saw was prepared; nothing is noted where it was prepared anew since.</param>
/// <param name="Parcel">The parcel by number; null for the whole round.</param>
internal sealed record LookedAtRequest(DateTimeOffset PreparedAt, long? Parcel);

/// <summary>A parcel that can be marked.</summary>
internal sealed record ParcelKey(long Id, string Customer);

/// <summary>Parcels that a person marked.</summary>
/// <param name="Parcels">The parcels by number.</param>
internal sealed record MarkedRequest([property: MaxLength(100_000)] IReadOnlyList<long> Parcels);

/// <summary>What marked parcels come to.</summary>
/// <param name="Parcels">How many of them are in the round.</param>
/// <param name="Ready">How many of those can be released.</param>
/// <param name="Held">How many of those are held.</param>
/// <param name="Totals">Their sum in each currency.</param>
internal sealed record MarkedView(int Parcels, int Ready, int Held, IReadOnlyList<SumView> Totals);

/// <summary>What a person decides about some customers; null takes it back.</summary>
internal sealed record DecisionRequest(
    [property: MinLength(1)] IReadOnlyList<string> Customers,
    string? Decision,
    [property: StringLength(1_000)] string Reason
);

/// <summary>How many messages a wording is for.</summary>
internal sealed record WordingCount(string Name, int Messages);

/// <summary>What is about to be released.</summary>
/// <param name="Parcels">How many parcels are ready.</param>
/// <param name="Messages">How many of them are messages.</param>
/// <param name="Letters">How many of them go by post, some beside their message.</param>
/// <param name="Rehearsed">How many of them were rehearsed as they are now.</param>
/// <param name="LookedAt">How many of those somebody said to have looked at.</param>
/// <param name="OthersReady">How many others are ready, and stay.</param>
internal sealed record ReleaseSummary(
    int Parcels,
    int Messages,
    int Letters,
    int Addresses,
    IReadOnlyList<SumView> Totals,
    string Sender,
    string Server,
    bool IsPractice,
    IReadOnlyList<WordingCount> Wordings,
    string Enclosure,
    int Rehearsed,
    int LookedAt,
    int OthersReady,
    int NeedYou,
    int Held,
    int LeftOut,
    bool CountToBeTyped
)
{
    /// <summary>The revision of the round; the release names it.</summary>
    public required long Revision { get; init; }

    /// <summary>What stands for exactly these parcels as they are shown; the release names it.</summary>
    public required string Seen { get; init; }

    /// <summary>When they go, as far as the sender's allowance tells.</summary>
    public required ForecastView Forecast { get; init; }

    /// <summary>
    /// What changed by itself since somebody looked at it; empty for nothing. Where it is not, the release says that it was seen.
    /// </summary>
    public required string Changed { get; init; }

    /// <summary>
    /// What is doubtful about the ledger that the round is from; empty for nothing. Where it is not, it has to be released all the same.
    /// </summary>
    public required string LedgerDoubt { get; init; }
}

/// <summary>When messages go, as far as the sender's allowance tells.</summary>
/// <param name="Today">How many go today.</param>
/// <param name="Later">How many go on the days after.</param>
/// <param name="LastDay">The day on which the last goes.</param>
/// <param name="TodaySeconds">How long those of today take at the least; null where there is no allowance a minute.</param>
internal sealed record ForecastView(int Today, int Later, DateOnly LastDay, int? TodaySeconds)
{
    /// <summary>How long sending is going to take.</summary>
    public static ForecastView Of(Forecast f) =>
        new(f.Today, f.Later, f.LastDay, f.TodayTakes is { } takes ? (int)Math.Ceiling(takes.TotalSeconds) : null);
}

/// <summary>Which parcels are about to be let go.</summary>
/// <param name="Parcels">The parcels by number; null for all that are ready.</param>
internal sealed record SummaryRequest(IReadOnlyList<long>? Parcels);

/// <summary>Which parcels are let go.</summary>
/// <param name="Parcels">The parcels by number; null for all that are ready.</param>
/// <param name="Revision">The revision that the summary is of.</param>
/// <param name="Seen">What the summary gave for those parcels; another where one of them is another now.</param>
/// <param name="Channel">How they leave.</param>
/// <param name="DespiteLedger">Whether they are let go although the ledger that the round is from was undone, or is not the
/// newest.</param>
/// <param name="SeenChanges">Whether what the summary says to have changed was seen.</param>
/// <param name="At">When they leave, by the clock of the book, as <c>2026-11-02T07:30</c>; null for now.</param>
internal sealed record ReleaseRequest(
    IReadOnlyList<long>? Parcels,
    long Revision,
    [property: StringLength(64)] string Seen,
    string? At = null,
    Channel Channel = Channel.Mail,
    bool? DespiteLedger = null,
    bool? SeenChanges = null
);

/// <summary>How sending goes.</summary>
/// <param name="Counts">How many parcels stand where.</param>
/// <param name="Paused">Whether the round waits.</param>
/// <param name="SenderPaused">Why its sender sends nothing; empty when it may.</param>
/// <param name="ServerUnreachable">What keeps the sender's server from being reached; null while it is.</param>
/// <param name="AMinute">How many messages the server takes a minute, by the last ten seconds.</param>
/// <param name="Forecast">When the rest goes, as far as the sender's allowance tells.</param>
/// <param name="Letters">How many letters were made up for the post.</param>
/// <param name="LeavesAt">When the next leaves, where that is later; null where it may go now, or none is left.</param>
internal sealed record ProgressView(
    IReadOnlyDictionary<string, long> Counts,
    bool Paused,
    string SenderPaused,
    ServerUnreachable? ServerUnreachable,
    int AMinute,
    ForecastView Forecast,
    DateTimeOffset? LeavesAt,
    int Letters
);

/// <summary>How many parcels were stopped.</summary>
/// <param name="Parcels">How many.</param>
/// <param name="IsTakenBack">Whether nothing of the round had left, so that it can be changed again.</param>
internal sealed record StoppedView(int Parcels, bool IsTakenBack);

/// <summary>How many exported parcels are counted as sent.</summary>
internal sealed record CountedAsSent(int Parcels);

/// <summary>Whether sending is to wait.</summary>
internal sealed record PauseRequest(bool Paused);
