using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Progress;
using Rendal.App.Rounds;
using Rendal.App.Senders;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Statements;
using Rendal.Store.Dispatch;
using Rendal.Web.Books;
using Rendal.Web.Hosting;
using Rendal.Web.Intake;

namespace Rendal.Web.Rounds;

/// <summary>Preparing rounds, releasing them, watching them.</summary>
internal static class RoundEndpoints
{
    /// <summary>From so many messages on, the count has to be typed before they are released.</summary>
    private const int TypedFrom = 25;

    /// <summary>How many parcels, and lines of what is left out, come at once.</summary>
    internal const int PageSize = 200;

    /// <summary>How many rounds come at once.</summary>
    private const int RoundsListed = 24;

    /// <summary>The endpoints of a book that stand under <c>/rounds</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/rounds").WithTags("Rounds");
        group.MapGet("", ListAsync);
        group.MapPost("", MakeAsync);
        group.MapGet("/waiting", WaitingAsync);
        group.MapGet("/ended", async (BookScope scope, RoundEnds ends, CancellationToken cancel) =>
            await ends.UnseenAsync(scope.Book.Id, scope.Person, cancel)
        );
        group.MapPost("/{id:long}/seen", SeenAsync);
        group.MapGet("/{id:long}", ViewAsync);
        group.MapGet("/{id:long}/revision", RevisionAsync);
        group.MapPut("/{id:long}", ChangeAsync).Produces<RoundView>();
        group.MapPost("/{id:long}/prepare", PrepareAsync).Produces<RoundView>();
        group.MapPost("/{id:long}/decisions", DecideAsync);
        group.MapPost("/{id:long}/summary", SummaryAsync);
        group.MapPost("/{id:long}/release", ReleaseAsync);
        group.MapPost("/{id:long}/release-request", RequestReleaseAsync);
        group.MapPost("/{id:long}/pause", PauseAsync);
        group.MapPost("/{id:long}/stop", StopAsync);
        group.MapPost("/{id:long}/rest", RestAsync);
        group.MapPost("/{id:long}/exported-went", ExportedWentAsync);
        group.MapGet("/{id:long}/values", ValuesAsync);
    }

    /// <summary>A part of the rounds, the newest first.</summary>
    /// <param name="before">The round that comes before them; none for the newest.</param>
    /// <param name="about">What they are about; empty for all.</param>
    private static async Task<RoundList> ListAsync(BookScope scope, CancellationToken cancel, long? before = null, string about = "")
    {
        RoundKind? kind =
            about.Length == 0 ? null
            : Enum.TryParse<RoundKind>(about, ignoreCase: true, out var known) && Enum.IsDefined(known) ? known
            : throw ProblemException.Invalid($"Rounds are not about “{about}”.");
        var rounds = await scope.Rounds.ListAsync(before, kind, RoundsListed + 1, cancel);
        var listed = rounds.Take(RoundsListed).ToList();
        var groups = await scope.Listing.GroupsAsync([.. listed.Select(r => r.Id)], cancel);
        return new RoundList(await RoundLine.OfAsync(listed, groups, scope, cancel), rounds.Count > RoundsListed);
    }

    /// <summary>The rounds with parcels that wait for a person or to be sent, the newest first; of each, those parcels alone.</summary>
    private static async Task<List<RoundLine>> WaitingAsync(BookScope scope, CancellationToken cancel)
    {
        var waiting = await scope.Listing.WaitingAsync(cancel);
        return await RoundLine.OfAsync(await scope.Rounds.FindAsync([.. waiting.Select(w => w.Key)], cancel), waiting, scope, cancel);
    }

    private static async Task<RoundView> MakeAsync(NewRound request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var id = request.CopyOf is { } of
            ? await new CopyRound(scope, clock).RunAsync(of, request.Name, request.AsOf, cancel)
            : await new MakeRound(scope, clock).RunAsync(request.Name, request.AsOf, request.About, cancel);
        if (request.Prepared)
        {
            await new PrepareRound(scope, clock).RunAsync(id, new ProgressMeter(), cancel);
        }

        return await ViewAsync(id, scope, clock, cancel);
    }

    /// <summary>A round as its page shows it, with proof, counts and who may do what.</summary>
    internal static async Task<RoundView> ViewAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var today = scope.Book.Today(clock);
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        var intake = await scope.Intakes.FindAsync(round.IntakeId, cancel);
        var parts = await scope.Listing.ProofPartsAsync(id, cancel);
        var proof = await scope.Rounds.ProofAsync(id, cancel);
        var list = await scope.Listing.PartAsync(id, "", 0, PageSize, cancel);

        // After the parcels: of those that wait because their sender is paused it is never said that it is not.
        var sender = await scope.Senders.FindAsync(round.SenderId, cancel);
        var choice = round.Choice;
        var rules = round.RulesNow(scope.Book.Rules);
        return new RoundView(
            id,
            round.Revision,
            round.Name,
            new RoundRequest(
                round.Name,
                choice.AsOf,
                choice.Form,
                choice.PeriodFrom,
                choice.InterestPercent,
                choice.About,
                choice.LeastBalance,
                choice.OverdueDays,
                choice.ReminderLevels,
                choice.NotWithinDays,
                choice.WithCredits,
                choice.LeaveOutHeld,
                choice.Units is { } units ? [.. units.Order(StringComparer.Ordinal)] : null,
                choice.DatedFrom,
                choice.DatedTo,
                choice.DueFrom,
                choice.DueTo,
                choice.Groups,
                choice.HeadOffices is { } offices ? [.. offices.Order(StringComparer.Ordinal)] : null,
                choice.Columns.ToDictionary(c => c.Key, c => (IReadOnlyList<string>)[.. c.Value.Order(StringComparer.Ordinal)]),
                round.WordingId,
                round.SenderId,
                round.PickedLayout,
                EnclosingRequest.Of(round.Enclosing),
                choice.ColleagueColumn,
                choice.WordingColumn
            ),
            intake!.Id,
            intake.FileName,
            await LedgerDoubt.OfAsync(intake, scope, cancel),
            round.PreparedAt,
            round.ReleasedAt,
            round.Paused,
            sender!.PausedFor(scope.Person),
            await scope.Ledger.UnitsAsync(round.IntakeId, cancel),
            await scope.Ledger.ExtraHeadingsAsync(round.IntakeId, cancel),
            [
                LineOf("last-month", Period.LastMonth(today)),
                LineOf("last-quarter", Period.LastQuarter(today)),
                LineOf("this-month", Period.MonthOf(today)),
                LineOf("this-quarter", Period.QuarterOf(today)),
            ],
            BookEndpoints.AgeLabels(rules.Ageing),
            rules.Form,
            rules.Reminders.Levels,
            [.. (await scope.Customers.OfficesAsync(cancel)).Select(o => new HeadOfficeLine(o.Key, o.Name))],
            [.. proof.OrderByDescending(p => p.Currency == scope.Book.Currency).Select(p => ProofView.Of(p, parts))],
            PageSize,
            list.Groups,
            [.. list.Parcels.Select(ParcelLine.Of)],
            await scope.Listing.LeftOutCountAsync(id, cancel),
            [.. (await scope.Listing.LeftOutAsync(id, 0, PageSize, cancel)).Select(LeftOutLine.Of)],
            await SinceLookedThrough.OfAsync(round, scope, cancel),
            round.IsBehind(scope.Book),
            round.ReleasedAt is null ? 0 : await scope.Listing.LeftAsync(id, cancel)
        );
    }

    /// <summary>
    /// Whether a round that nothing was released of is still what somebody sees; asked again and again while it is open.
    /// </summary>
    /// <param name="id">The round.</param>
    /// <param name="revision">The revision that they see.</param>
    /// <param name="preparedAt">When what they see was prepared.</param>
    private static async Task<RevisionView> RevisionAsync(
        long id,
        long revision,
        DateTimeOffset? preparedAt,
        BookScope scope,
        CancellationToken cancel
    ) =>
        await scope.Rounds.FindAsync(id, cancel) is { } round
            ? new RevisionView(
                round.Revision != revision || round.PreparedAt != preparedAt || round.ReleasedAt is not null,
                round.IsBehind(scope.Book)
            )
            : throw ProblemException.NotFound("This round");

    private static Task<IResult> ChangeAsync(
        long id,
        long revision,
        RoundRequest request,
        HttpContext http,
        BookScope scope,
        ProgressResponse works,
        TimeProvider clock
    ) => works.AnswerAsync(http, async (meter, cancel) =>
        {
            await new ChangeRound(scope, clock).RunAsync(id, revision, request.Settings(), meter, cancel);
            return await ViewAsync(id, scope, clock, cancel);
        });

    private static Task<IResult> PrepareAsync(long id, HttpContext http, BookScope scope, ProgressResponse works, TimeProvider clock) =>
        works.AnswerAsync(http, async (meter, cancel) =>
        {
            await new PrepareRound(scope, clock).RunAsync(id, meter, cancel);
            return await ViewAsync(id, scope, clock, cancel);
        });

    /// <summary>Decides about customers. What of the round is another then is fetched, as much as is in sight.</summary>
    private static async Task<NoContent> DecideAsync(
        long id,
        long revision,
        DecisionRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new DecideCustomers(scope, clock).RunAsync(id, revision, request.Customers, request.Decision, request.Reason, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<ReleaseSummary> SummaryAsync(
        long id,
        SummaryRequest request,
        BookScope scope,
        SenderSecrets secrets,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var summed = await new SummariseRelease(scope, clock).RunAsync(id, request.Parcels, cancel);
        var (ready, sender) = (summed.Ready.Parcels, summed.Sender);
        return new ReleaseSummary(
            ready.Count,
            ready.Count(p => p.Recipients.Count > 0),
            ready.Count(p => p.OnPaper),
            ready.SelectMany(p => p.Recipients).Distinct(StringComparer.OrdinalIgnoreCase).Count(),
            [.. summed.Totals.Select(t => SumView.Of(t.Currency, t.Total))],
            sender.ShownTo(scope.Person),
            sender.IsFor(scope.Person) ? $"{sender.Host}:{sender.Port}" : "",
            secrets.IsPractice(sender.Host, sender.Port),
            [.. summed.Wordings.Select(w => new WordingCount(w.Wording, w.Parcels))],
            Enclosed(summed.Layouts),
            summed.Rehearsed,
            summed.LookedAt,
            summed.All.Count(p => p.IsReady) - ready.Count,
            summed.All.Count(p => p.Status == ParcelStatus.NeedsYou),
            summed.All.Count(p => p.State == ParcelState.Held),
            summed.LeftOut,
            ready.Count >= TypedFrom
        )
        {
            Further = ready.Where(p => p.Recipients.Count > 0).Sum(p => p.Messages - 1),
            Revision = summed.Revision,
            Seen = summed.Ready.Seen,
            Changed = summed.Changed,
            LedgerDoubt = summed.LedgerDoubt,
            Forecast = ForecastView.Of(summed.Forecast),
            Approval = ApprovalView.Of(summed),
        };
    }

    /// <summary>“Statement as PDF”; where there are several, “Statement as PDF and XLSX (57), Letter as DOCX (1)”.</summary>
    private static string Enclosed(IReadOnlyList<Layout> layouts)
    {
        var kinds = layouts
            .GroupBy(l => $"{l.Name} as {string.Join(" and ", l.Forms.Order().Select(f => f.ToString().ToUpperInvariant()))}")
            .OrderByDescending(g => g.Count())
            .ThenBy(g => g.Key, StringComparer.Ordinal)
            .ToList();
        return string.Join(
            ", ",
            kinds.Select(k => kinds.Count > 1 ? string.Create(CultureInfo.InvariantCulture, $"{k.Key} ({k.Count()})") : k.Key)
        );
    }

    private static async Task<RoundView> ReleaseAsync(
        long id,
        ReleaseRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new ReleaseRound(scope, clock).RunAsync(
            id,
            new ReleaseOrder(
                request.Parcels,
                request.Revision,
                request.Seen,
                request.At,
                request.Channel,
                request.DespiteLedger == true,
                request.SeenChanges == true
            ),
            cancel
        );
        return await ViewAsync(id, scope, clock, cancel);
    }

    /// <summary>Asks somebody else to release the round.</summary>
    private static async Task<NoContent> RequestReleaseAsync(
        long id,
        AskedRelease request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new RequestRelease(scope, clock).RunAsync(id, request.Revision, request.Seen, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>The person has seen that the round has ended.</summary>
    private static async Task<NoContent> SeenAsync(long id, BookScope scope, RoundEnds ends, TimeProvider clock, CancellationToken cancel)
    {
        await ends.SeenAsync(scope.Book.Id, id, scope.Person, clock.GetUtcNow(), cancel);
        return TypedResults.NoContent();
    }

    /// <summary>The values in a column that has no meaning for the rules, to choose among.</summary>
    private static async Task<List<string>> ValuesAsync(long id, string column, BookScope scope, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        return await scope.Ledger.ValuesAsync(round.IntakeId, column, cancel);
    }

    private static async Task<NoContent> PauseAsync(long id, PauseRequest request, BookScope scope, CancellationToken cancel)
    {
        await scope.Release.PauseAsync(id, request.Paused, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<CountedAsSent> ExportedWentAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        new(await scope.Dispatch.ExportedWentAsync(id, scope.Person, clock.GetUtcNow(), cancel));

    private static async Task<RoundView> RestAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await ViewAsync(await new MakeRest(scope, clock).RunAsync(id, cancel), scope, clock, cancel);

    private static async Task<StoppedView> StopAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var (parcels, isTakenBack) = await scope.Release.StopAsync(id, scope.Person, clock.GetUtcNow(), cancel);
        return new StoppedView(parcels, isTakenBack);
    }

    private static PeriodLine LineOf(string name, Period period) => new(name, period.From, period.To);
}
