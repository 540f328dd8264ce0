using System.ComponentModel.DataAnnotations;
using Rendal.Core.Customers;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;
using Rendal.Store.Rounds;
using Rendal.Web.Books;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>A round in a list.</summary>
/// <param name="About">What it is about.</param>
/// <param name="ReleasedBy">Who released it first; empty while nobody did.</param>
/// <param name="Totals">What its parcels come to, the book's currency first.</param>
/// <param name="Groups">How many parcels stand where, in the order in which parcels are listed.</param>
/// <param name="RequestedBy">Who asked somebody else to release it, while nothing of it is; else empty.</param>
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
    IReadOnlyList<ParcelGroup> Groups,
    string RequestedBy
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
            [.. groups[r.Id]],
            listed[r.Id].RequestedBy
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
/// <param name="Rest">How many parcels a new round would be made of, where this one was released: those that were not let go, were refused
/// or came back, and go with no other.</param>
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
