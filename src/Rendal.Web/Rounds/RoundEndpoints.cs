using System.Globalization;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Core.Sealing;
using Rendal.Core.Statements;
using Rendal.Files;
using Rendal.Files.Documents;
using Rendal.Files.Post;
using Rendal.Mail;
using Rendal.Store.Books;
using Rendal.Store.Dispatch;
using Rendal.Store.Rounds;
using Rendal.Store.Senders;
using Rendal.Web.Books;
using Rendal.Web.Hosting;
using Rendal.Web.Intake;
using Rendal.Web.Senders;

namespace Rendal.Web.Rounds;

/// <summary>Preparing rounds, releasing them, watching them.</summary>
internal static class RoundEndpoints
{
    /// <summary>From so many messages on, the count has to be typed before they are released.</summary>
    private const int TypedFrom = 25;

    private static readonly TimeSpan ProgressEvery = TimeSpan.FromMilliseconds(500);

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/rounds").WithTags("Rounds");
        group.MapGet("", ListAsync);
        group.MapPost("", MakeAsync);
        group.MapGet("/ended", async (BookScope scope, RoundEnds ends, CancellationToken cancel) => await ends.UnseenAsync(scope.Book.Id, scope.Person, cancel));
        group.MapPost("/{id:long}/seen", SeenAsync);
        group.MapGet("/{id:long}", ViewAsync);
        group.MapPut("/{id:long}", ChangeAsync);
        group.MapPost("/{id:long}/prepare", PrepareAsync);
        group.MapPost("/{id:long}/decisions", DecideAsync);
        group.MapPost("/{id:long}/summary", SummaryAsync);
        group.MapPost("/{id:long}/release", ReleaseAsync);
        group.MapPost("/{id:long}/pause", PauseAsync);
        group.MapPost("/{id:long}/stop", StopAsync);
        group.MapPost("/{id:long}/rest", RestAsync);
        group.MapPost("/{id:long}/exported-went", ExportedWentAsync);
        group.MapGet("/{id:long}/messages.zip", ZipAsync);
        group.MapGet("/{id:long}/messages.mbox", MboxAsync);
        group.MapGet("/{id:long}/post.pdf", PostAsync);
        group.MapGet("/{id:long}/progress", Progress);
        group.MapGet("/{id:long}/values", ValuesAsync);
    }

    private static async Task<List<RoundLine>> ListAsync(BookScope scope, CancellationToken cancel)
    {
        var lines = new List<RoundLine>();
        var counts = await scope.Rounds.CountsAsync(cancel);
        foreach (var round in await scope.Rounds.ListAsync(cancel))
        {
            lines.Add(new RoundLine(round.Id, round.Name, round.Choice.AsOf, round.MadeAt, round.ReleasedAt, counts.GetValueOrDefault(round.Id, [])));
        }

        return lines;
    }

    private static async Task<RoundView> MakeAsync(NewRound request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var intake = await scope.Intakes.CurrentAsync(cancel) ?? throw Unable.Conflict("There is no ledger yet. Take in a ledger file first.");
        var senders = await scope.Senders.ListAsync(scope.Person, cancel);
        var choice = new Choice { AsOf = request.AsOf ?? scope.Book.Today(clock) };
        choice = request.About switch
        {
            RoundKind.Reminders => Reminding(choice, scope.Book.Rules),
            RoundKind.Invoices => choice with { About = request.About, WithCredits = false },
            RoundKind.Statements or RoundKind.Confirmations => choice with { About = request.About },
            _ => throw Unable.Invalid("A round is about statements, reminders, invoices or confirmations of balance."),
        };

        var name = string.IsNullOrWhiteSpace(request.Name) ? throw Unable.Invalid("Give the round a name.") : request.Name.Trim();
        var id = await scope.Rounds.MakeAsync(name, intake.Id, choice, scope.Book.Rules, await PurposeWords.FirstWordingAsync(scope, choice.Kind, clock, cancel), senders[0].Id, scope.Person, cancel);
        return await PrepareAsync(id, scope, clock, cancel);
    }

    /// <summary>The choice for reminders of every level. Nobody is reminded of what is in dispute unless it is said so.</summary>
    internal static Choice Reminding(Choice choice, StatementRules rules) => choice with { ReminderLevels = rules.Reminders.Numbers, LeaveOutHeld = true };

    private static async Task<RoundView> ViewAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var today = scope.Book.Today(clock);
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var intake = await scope.Intakes.FindAsync(round.IntakeId, cancel);
        var sender = await scope.Senders.FindAsync(round.SenderId, cancel);
        var parcels = await scope.Rounds.ParcelsAsync(id, cancel);
        var leftOut = await scope.Rounds.LeftOutAsync(id, cancel);
        var proof = await scope.Rounds.ProofAsync(id, cancel);
        var choice = round.Choice;
        var rules = round.RulesNow(scope.Book.Rules);
        return new RoundView(
            id, round.Name,
            new RoundRequest(round.Name, choice.AsOf, choice.Form, choice.PeriodFrom, choice.InterestPercent, choice.About, choice.LeastBalance, choice.OverdueDays, choice.ReminderLevels, choice.NotWithinDays, choice.WithCredits, choice.LeaveOutHeld, choice.Units is { } units ? [.. units.Order(StringComparer.Ordinal)] : null,
                choice.DatedFrom, choice.DatedTo, choice.DueFrom, choice.DueTo, choice.Groups, choice.HeadOffices is { } offices ? [.. offices.Order(StringComparer.Ordinal)] : null,
                choice.Columns.ToDictionary(c => c.Key, c => (IReadOnlyList<string>)[.. c.Value.Order(StringComparer.Ordinal)]), round.WordingId, round.SenderId, round.PickedLayout),
            intake!.Id, intake.FileName, await LedgerDoubt.OfAsync(intake, scope, cancel), round.PreparedAt, round.ReleasedAt, round.Paused, sender!.PausedFor(scope.Person),
            await scope.Ledger.UnitsAsync(round.IntakeId, cancel),
            await scope.Ledger.ExtraHeadingsAsync(round.IntakeId, cancel),
            [
                LineOf("last-month", Period.LastMonth(today)), LineOf("last-quarter", Period.LastQuarter(today)),
                LineOf("this-month", Period.MonthOf(today)), LineOf("this-quarter", Period.QuarterOf(today)),
            ],
            BookEndpoints.AgeLabels(rules.Ageing), rules.Form, rules.Reminders.Levels,
            [.. (await scope.Customers.OfficesAsync(cancel)).Select(o => new HeadOfficeLine(o.Key, o.Name))],
            [.. proof.OrderByDescending(p => p.Currency == scope.Book.Currency).Select(p => ProofView.Of(p, parcels, leftOut))],
            [.. parcels.Select(ParcelLine.Of)],
            [.. leftOut.Select(LeftOutLine.Of)],
            round.ReleasedAt is null ? 0 : parcels.Count(p => p.IsLeft));
    }

    private static async Task<RoundView> ChangeAsync(long id, RoundRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(request.Name))
        {
            throw Unable.Invalid("Give the round a name.");
        }

        if (await scope.Wordings.FindAsync(request.WordingId, cancel) is null || await scope.Senders.FindAsync(request.SenderId, cancel) is null
            || (request.LayoutId is { } layout && await scope.Layouts.FindAsync(layout, cancel) is null))
        {
            throw Unable.Invalid("The wording, the layout or the sender is not there any more.");
        }

        var choice = request.Checked();
        var before = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        if (before.SenderId != request.SenderId)
        {
            await SenderEndpoints.UsableAsync(request.SenderId, scope, cancel);
        }

        var wording = before.Choice.Kind != choice.Kind && before.WordingId == request.WordingId ? await PurposeWords.FirstWordingAsync(scope, choice.Kind, clock, cancel) : request.WordingId;
        if (!await scope.Rounds.UpdateAsync(id, request.Name.Trim(), choice, wording, request.SenderId, request.LayoutId, cancel))
        {
            throw Unable.Conflict("Parcels of this round were released; it stays as it is.");
        }

        return await PrepareAsync(id, scope, clock, cancel);
    }

    internal static async Task<RoundView> PrepareAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await (await Preparation.LoadAsync(scope, id, cancel)).PrepareAsync(clock, cancel);
        return await ViewAsync(id, scope, clock, cancel);
    }

    private static async Task<RoundView> DecideAsync(long id, DecisionRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (request.Decision is not (null or "held" or "removed" or "put-in"))
        {
            throw Unable.Invalid("A customer can be held, removed or put in.");
        }

        if (request.Decision is "removed" or "put-in" && string.IsNullOrWhiteSpace(request.Reason))
        {
            throw Unable.Invalid("Give the reason; it is listed with what is left out.");
        }

        _ = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        if (!await (request.Decision is { } decision
            ? scope.Decisions.DecideAsync(id, new RoundDecision(request.Customer, decision, request.Reason.Trim()), scope.Person, cancel)
            : scope.Decisions.TakeBackAsync(id, request.Customer, cancel)))
        {
            throw Unable.Conflict("Parcels of this round were released; it stays as it is.");
        }

        return await PrepareAsync(id, scope, clock, cancel);
    }

    private static async Task<ReleaseSummary> SummaryAsync(long id, SummaryRequest request, BookScope scope, SenderSecrets secrets, TimeProvider clock, CancellationToken cancel)
    {
        var preparation = await Preparation.LoadAsync(scope, id, cancel);
        var round = preparation.Round;
        var all = await scope.Rounds.ParcelsAsync(id, cancel);
        var ready = Ready(all, request.Parcels);
        var sender = (await scope.Senders.FindAsync(round.SenderId, cancel))!;
        var wordings = (await scope.Wordings.ListAsync(cancel)).ToDictionary(w => w.Id, w => w.Wording.Name);
        var words = ready.GroupBy(p => preparation.WordingIdFor(preparation.Card(p.Customer), p.ReminderLevel))
            .Select(g => new WordingCount(wordings[g.Key], g.Count())).OrderByDescending(w => w.Messages).ThenBy(w => w.Name, StringComparer.Ordinal);
        var totals = ready.SelectMany(p => p.Sums).Where(s => s.AlsoOn is null).GroupBy(s => s.Currency).OrderByDescending(g => g.Key == scope.Book.Currency.Code).ThenBy(g => g.Key, StringComparer.Ordinal).Select(g => SumView.Of(Currency.Of(g.Key), g.Sum(s => s.Total)));
        return new ReleaseSummary(
            ready.Count, ready.Count(p => p.Recipients.Count > 0), ready.Count(p => p.OnPaper), ready.SelectMany(p => p.Recipients).Distinct(StringComparer.OrdinalIgnoreCase).Count(), [.. totals], sender.ShownTo(scope.Person), sender.IsFor(scope.Person) ? $"{sender.Host}:{sender.Port}" : "",
            secrets.IsPractice(sender.Host, sender.Port), [.. words], Enclosed([.. ready.Select(p => preparation.LayoutFor(preparation.Card(p.Customer), p.ReminderLevel).Template.Layout)]),
            all.Count(p => ParcelLine.StandingOf(p) == "needs-you"), all.Count(p => p.State == ParcelState.Held), (await scope.Rounds.LeftOutAsync(id, cancel)).Count, ready.Count >= TypedFrom)
        {
            Seen = Seen(ready),
            LedgerDoubt = await LedgerDoubt.OfAsync(preparation.Intake, scope, cancel),
            Forecast = await ForecastAsync(sender, ready.Count(p => p.Recipients.Count > 0), scope, clock, cancel),
        };
    }

    /// <summary>“Statement as PDF”; where there are several, “Statement as PDF and XLSX (57), Letter as DOCX (1)”.</summary>
    private static string Enclosed(IReadOnlyList<Layout> layouts)
    {
        var kinds = layouts.GroupBy(l => $"{l.Name} as {string.Join(" and ", l.Forms.Order().Select(f => f.ToString().ToUpperInvariant()))}").OrderByDescending(g => g.Count()).ThenBy(g => g.Key, StringComparer.Ordinal).ToList();
        return string.Join(", ", kinds.Select(k => kinds.Count > 1 ? string.Create(CultureInfo.InvariantCulture, $"{k.Key} ({k.Count()})") : k.Key));
    }

    private static async Task<ForecastView> ForecastAsync(Sender sender, int left, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var today = scope.Book.Today(clock);
        return ForecastView.Of(Forecast.Of(left, sender.AMinute, sender.ADay, (await scope.Senders.BegunAsync(today, cancel)).GetValueOrDefault(sender.Id), today));
    }

    private static async Task<RoundView> ReleaseAsync(long id, ReleaseRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var preparation = await Preparation.LoadAsync(scope, id, cancel);
        var ready = Ready(await scope.Rounds.ParcelsAsync(id, cancel), request.Parcels);
        if (ready.Count == 0)
        {
            throw Unable.Conflict("Nothing of this round is ready to be released.");
        }

        if (Seen(ready) != request.Seen)
        {
            throw Unable.Conflict($"What is ready to be released is not what you were shown: another person may have changed the round meanwhile. {preparation.LookAgain}");
        }

        if (request.DespiteLedger != true && await LedgerDoubt.OfAsync(preparation.Intake, scope, cancel) is { Length: > 0 } doubt)
        {
            throw Unable.Conflict($"{doubt} Say that it is to be released all the same, or make a new round.");
        }

        if ((await scope.Senders.FindAsync(preparation.Round.SenderId, cancel))?.IsFor(scope.Person) != true)
        {
            throw Unable.Conflict("This round goes by a sender that is somebody’s own. Choose another one under “Goes by”, or let them release it.");
        }

        var now = clock.GetUtcNow();
        var leaves = request.At is { } at ? LeavesAt(at, scope.Book, now) : now;
        var proof = await scope.Rounds.ProofAsync(id, cancel);
        if (proof.Find(p => p.Difference != 0) is { } open)
        {
            throw Unable.Conflict($"The proof does not close: {open.Difference} {open.Currency} are unaccounted for. Nothing can be released.");
        }

        if (!await scope.Rounds.ReleaseAsync(id, await preparation.FreezeAsync(ready, cancel), preparation.Hand, preparation.Rules, scope.Person, now, leaves, request.Way, cancel))
        {
            throw Unable.Conflict($"The round was changed in this moment. {preparation.LookAgain}");
        }

        return await ViewAsync(id, scope, clock, cancel);
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
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        return await scope.Ledger.ValuesAsync(round.IntakeId, column, cancel);
    }

    private static async Task<NoContent> PauseAsync(long id, PauseRequest request, BookScope scope, CancellationToken cancel)
    {
        await scope.Rounds.PauseAsync(id, request.Paused, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<StoppedView> ExportedWentAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        new(await scope.Rounds.ExportedWentAsync(id, scope.Person, clock.GetUtcNow(), cancel));

    /// <summary>The messages of a round that leave as files, as .eml in a ZIP.</summary>
    private static async Task<FileStreamHttpResult> ZipAsync(long id, BookScope scope, CancellationToken cancel) =>
        await FileAsync(id, scope, "application/zip", "zip", file => MessageFiles.WriteZipAsync(file, Named(scope.Rounds.ExportedAsync(id, cancel)), cancel), cancel);

    /// <summary>The messages of a round that leave as files, as one mbox.</summary>
    private static async Task<FileStreamHttpResult> MboxAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await FileAsync(id, scope, "application/mbox", "mbox", file => MessageFiles.WriteMboxAsync(file, scope.Rounds.ExportedAsync(id, cancel).Select(m => m.Bytes), clock.GetUtcNow(), cancel), cancel);

    /// <summary>All letters of a round in one PDF to be printed.</summary>
    /// <param name="id">The round.</param>
    /// <param name="bothSides">Whether it is printed on both sides.</param>
    private static async Task<FileStreamHttpResult> PostAsync(long id, BookScope scope, CancellationToken cancel, bool bothSides = false)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var papers = await scope.Rounds.PapersAsync(id, cancel);
        return papers.Count == 0 ? throw Unable.Conflict("Nothing of this round was made up for the post yet.")
            : await FileOnTheWay.SendAsync(DocumentFile.PdfType, FileName.Safe($"{round.Name} post", ".pdf"), file =>
            {
                PostBundle.Write(file, round.Name, papers.Select(p => new PostPiece(p.Customer, p.Name, p.Lines, p.Country, p.Pdf)), bothSides, scope.Book.Firm.OwnCountry());
                return Task.CompletedTask;
            });
    }

    private static async IAsyncEnumerable<(string FileName, byte[] Bytes)> Named(IAsyncEnumerable<(string Customer, string Name, byte[] Bytes)> messages)
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        await foreach (var (customer, name, bytes) in messages)
        {
            yield return (FileName.Unique(FileName.Safe($"{customer} {name}", ".eml"), taken), bytes);
        }
    }

    private static async Task<FileStreamHttpResult> FileAsync(long id, BookScope scope, string contentType, string ending, Func<Stream, Task> write, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        return await FileOnTheWay.SendAsync(contentType, FileName.Safe(round.Name, "." + ending), write);
    }

    /// <summary>Makes a round of what was not let go in a released one, from the ledger as it is now.</summary>
    private static async Task<RoundView> RestAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw Unable.NotFound("This round");
        var intake = await scope.Intakes.CurrentAsync(cancel) ?? throw Unable.Conflict("There is no ledger any more. Take in a ledger file first.");
        var made = await scope.Rounds.MakeRestAsync(id, $"{round.Name}, the rest", intake.Id, round.Choice, scope.Person, cancel) ?? throw Unable.Conflict("Nothing of this round is left: either all of it was let go, or it was never released.");
        return await PrepareAsync(made, scope, clock, cancel);
    }

    private static async Task<StoppedView> StopAsync(long id, BookScope scope, CancellationToken cancel) => new(await scope.Rounds.StopAsync(id, cancel));

    /// <summary>The moment that a person means by the clock of the book. Where clocks are put forward and the moment is skipped, it is the one an hour on.</summary>
    private static DateTimeOffset LeavesAt(string at, Book book, DateTimeOffset now)
    {
        if (!DateTime.TryParseExact(at, "yyyy-MM-dd'T'HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var local))
        {
            throw Unable.Invalid($"“{at}” is no date and time.");
        }

        var zone = TimeZoneInfo.FindSystemTimeZoneById(book.TimeZone);
        var moment = new DateTimeOffset(local, zone.GetUtcOffset(local));
        return moment > now ? moment
            : throw Unable.Invalid($"{local.ToString("d MMMM yyyy, HH:mm", CultureInfo.InvariantCulture)} is over. Choose a later moment, or release now.");
    }

    /// <summary>Tells how sending goes, at once and then whenever it changed, until the page is closed.</summary>
    private static ServerSentEventsResult<ProgressView> Progress(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        TypedResults.ServerSentEvents(Events(id, scope, clock, cancel));

    private static async IAsyncEnumerable<SseItem<ProgressView>> Events(long id, BookScope scope, TimeProvider clock, [EnumeratorCancellation] CancellationToken cancel)
    {
        ProgressView? last = null;

        // A session that has ended, or a book that was taken away, ends what goes on in it as well.
        while (await scope.GoesOnAsync(cancel) && await scope.Rounds.FindAsync(id, cancel) is { } round)
        {
            var sender = await scope.Senders.FindAsync(round.SenderId, cancel);
            var now = clock.GetUtcNow();
            var counts = await scope.Rounds.CountsAsync(id, cancel);
            var left = new[] { ParcelState.Released, ParcelState.Sending, ParcelState.ToBeRetried }.Sum(s => (int)counts.GetValueOrDefault(s.Code()));
            var leaves = left == 0 ? null : await scope.Rounds.NextLeavesAsync(id, cancel);
            var view = new ProgressView(
                counts, round.Paused, sender!.PausedFor(scope.Person), sender.AwayFor(scope.Person), left == 0 ? 0 : await scope.Rounds.PaceAsync(id, now, cancel),
                await ForecastAsync(sender, left, scope, clock, cancel), leaves > now ? leaves : null, await scope.Rounds.PaperCountAsync(id, cancel));
            if (last is null || !Same(view, last))
            {
                last = view;
                yield return new SseItem<ProgressView>(view, "progress");
            }

            await Task.Delay(ProgressEvery, cancel);
        }
    }

    private static bool Same(ProgressView a, ProgressView b) =>
        a with { Counts = b.Counts } == b && a.Counts.OrderBy(c => c.Key, StringComparer.Ordinal).SequenceEqual(b.Counts.OrderBy(c => c.Key, StringComparer.Ordinal));

    private static PeriodLine LineOf(string name, Period period) => new(name, period.From, period.To);

    private static List<ParcelRecord> Ready(IEnumerable<ParcelRecord> parcels, IReadOnlyList<long>? wanted)
    {
        var among = wanted?.ToHashSet();
        return [.. parcels.Where(p => p.State == ParcelState.Prepared && p.Problem.Length == 0 && (among is null || among.Contains(p.Id)))];
    }

    private static string Seen(IEnumerable<ParcelRecord> ready) => ParcelSeal.Digest(ready.Select(p => (p.Id, p.Seal)));
}
