using System.Globalization;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Rendal.App.Progress;
using Rendal.App;
using Rendal.App.Ledger;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Files;
using Rendal.Store.Intake;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Intake;

/// <summary>Taking files in: looking at them, deciding how they are read, keeping, undoing.</summary>
internal static class IntakeEndpoints
{
    private const int MostRows = 500;
    private const int LargestReading = 1 << 20;

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Intake");
        group.MapGet("/intakes", ListAsync);
        group.MapPost("/intakes", UploadAsync).DisableAntiforgery();
        group.MapPost("/intakes/paste", PasteAsync);
        group.MapGet("/intakes/{id:long}", LookAsync).Produces<IntakeView>();
        group.MapGet("/intakes/{id:long}/rows", RowsAsync);
        group.MapGet("/intakes/{id:long}/changes", ChangesAsync).Produces<ChangesView>();
        group.MapGet("/intakes/{id:long}/reading", ReadingAsync);
        group.MapPut("/intakes/{id:long}/reading", ChangeAsync);
        group.MapGet("/intakes/{id:long}/reading.json", SaveReadingAsync);
        group.MapPost("/intakes/{id:long}/reading.json", LoadReadingAsync).DisableAntiforgery();
        group.MapPost("/intakes/{id:long}/keep", KeepAsync).Produces<KeptIntake>();
        group.MapPost("/intakes/{id:long}/undo", UndoAsync);
        group.MapPost("/intakes/{id:long}/again", AgainAsync);
        group.MapGet("/ledger", LedgerAsync);
    }

    private static async Task<List<IntakeLine>> ListAsync(BookScope scope, CancellationToken cancel)
    {
        var list = await scope.Intakes.ListAsync(cancel);
        var last = list.Where(i => i.State == "kept").GroupBy(i => i.Kind).ToDictionary(g => g.Key, g => g.MaxBy(i => (i.KeptAt, i.Id))!.Id);
        return list.ConvertAll(i => new IntakeLine(
            i.Id, i.Kind, i.FileName, i.Sheet, i.State, i.MadeAt, i.KeptAt, i.RowsRead, i.RowsKept, last.GetValueOrDefault(i.Kind) == i.Id, i.Kind == IntakeKind.Ledger && last.GetValueOrDefault(i.Kind) == i.Id));
    }

    private static async Task<BegunIntake> UploadAsync(IFormFile file, BookScope scope, OpenedFiles files, CancellationToken cancel, string kind = "ledger")
    {
        var name = Path.GetFileName(file.FileName.Replace('\\', '/'));
        return await BeginAsync(scope, name.Length > 0 ? name : "ledger.csv", file.OpenReadStream, KindOf(kind), files, cancel);
    }

    private static async Task<BegunIntake> PasteAsync(PasteRequest request, BookScope scope, OpenedFiles files, TimeProvider clock, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(request.Text))
        {
            throw Unable.Invalid("Nothing was pasted. Copy the cells in your spreadsheet, headings included, and paste them here.");
        }

        var now = TimeZoneInfo.ConvertTime(clock.GetUtcNow(), TimeZoneInfo.FindSystemTimeZoneById(scope.Book.TimeZone));
        var content = Encoding.UTF8.GetBytes(request.Text);
        return await BeginAsync(scope, string.Create(CultureInfo.InvariantCulture, $"Pasted {now:d MMM yyyy HH.mm}.tsv"), () => new MemoryStream(content), request.Kind, files, cancel);
    }

    private static IntakeKind KindOf(string kind) =>
        Enum.TryParse<IntakeKind>(kind, ignoreCase: true, out var known) ? known : throw Unable.Invalid($"A file is taken in for the ledger or for the customers, not for “{kind}”.");

    /// <summary>Stores a file, refuses it at once where it is nothing that can be read, and looks for the reading of a file like it.</summary>
    private static async Task<BegunIntake> BeginAsync(BookScope scope, string name, Func<Stream> open, IntakeKind kind, OpenedFiles files, CancellationToken cancel)
    {
        FileSignature.Of(name, open);
        await using var content = open();
        var stored = await scope.Files.StoreAsync(name, content, cancel);
        var id = await scope.Intakes.BeginAsync(stored, kind, ReadingChange.None, scope.Person, cancel);
        var readings = await scope.Readings.ListAsync(kind, cancel);
        if (readings.Count == 0)
        {
            return new BegunIntake(id, false);
        }

        var intake = await FindAsync(scope, id, cancel);
        var table = files.Open(scope, intake, FileOpening.Unsaid, new ProgressMeter(), cancel);
        foreach (var reading in readings.Where(r => r.Fits(table)))
        {
            var change = reading.For(table, out _);
            await scope.Intakes.ChangeAsync(id, change, cancel);
            return new BegunIntake(id, true);
        }

        return new BegunIntake(id, false);
    }

    private static Task<IResult> LookAsync(long id, HttpContext http, BookScope scope, OpenedFiles files, Works works) => works.AnswerAsync(http, async (meter, cancel) =>
    {
        var intake = await FindAsync(scope, id, cancel);
        return await ViewAsync(scope, intake, intake.Change, files, meter, cancel);
    });

    private static async Task<FileRowsView> RowsAsync(long id, BookScope scope, OpenedFiles files, CancellationToken cancel, int from = 1, int count = 100)
    {
        var intake = await FindAsync(scope, id, cancel);
        var table = files.Open(scope, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        var spool = (RowSpool)table.Rows;
        var first = Math.Clamp(from, 1, spool.LastRow + 1);
        var wanted = Enumerable.Range(first, Math.Min(Math.Clamp(count, 0, MostRows), spool.LastRow + 1 - first)).ToList();
        var rows = spool.From(first).TakeWhile(r => r.Number < first + wanted.Count).ToDictionary(r => r.Number);
        var classify = await ClassifyAsync(scope, intake, table, cancel);
        return new FileRowsView(spool.LastRow, [.. wanted.Select(n => rows.TryGetValue(n, out var row) ? classify(row) : new FileRowView(n, RowRole.Blank, [], NoCorrections, null))]);
    }

    private static IReadOnlyDictionary<int, string> NoCorrections { get; } = new Dictionary<int, string>();

    /// <summary>How the rows of a file are shown, without going through all of it.</summary>
    private static async Task<Func<FileRow, FileRowView>> ClassifyAsync(BookScope scope, IntakeRecord intake, LedgerTable table, CancellationToken cancel)
    {
        if (intake.Kind == IntakeKind.Customers)
        {
            var heading = CardReading.Of(table, intake.Change)?.HeadingRow;
            return row => new FileRowView(row.Number, heading is null || row.Number < heading ? RowRole.Above : row.Number == heading ? RowRole.Heading : row.IsBlank ? RowRole.Blank : RowRole.Item, ShownText.Of(row), NoCorrections, null);
        }

        if (Recognition.Outline(table, intake.Change) is not { } reading)
        {
            return row => new FileRowView(row.Number, RowRole.Above, ShownText.Of(row), NoCorrections, null);
        }

        var roles = new RowRoles(reading with { CarriesDown = intake.CarriesDown });
        var corrections = new AppliedCorrections(reading, await scope.Corrections.HoldingAsync(cancel));
        return row =>
        {
            var (corrected, leftOut) = row.Number > reading.HeadingRow ? corrections.Correct(row) : (row, null);
            var changes = Enumerable.Range(0, corrected.Cells.Length).Where(i => corrected[i].Text != row[i].Text).ToDictionary(i => i, i => ShownText.Of(corrected[i].Text));
            return new FileRowView(row.Number, roles.Of(corrected), ShownText.Of(row), changes, leftOut);
        };
    }

    private static Task<IResult> ChangesAsync(long id, HttpContext http, BookScope scope, OpenedFiles files, Works works) => works.AnswerAsync(http, async (meter, cancel) =>
    {
        var intake = await FindAsync(scope, id, cancel);
        var current = await scope.Intakes.CurrentAsync(cancel) ?? throw Unable.Conflict("There is no ledger yet that this file could be compared with.");
        if (intake.Kind != IntakeKind.Ledger || current.Id == id)
        {
            throw Unable.Conflict("This file is the ledger; there is nothing to compare it with.");
        }

        var look = await LookedAt.OpenAsync(scope, intake, intake.Change, files, meter, cancel);
        var before = await scope.Ledger.RowsAsync(current.Id, cancel);
        var reader = look.Reader(intake.Change, meter, "comparing the rows", cancel);
        return ChangesView.Of(LedgerComparison.Of(before, reader.Rows().Where(r => r.Row is not null).Select(r => r.Row!), reader.HasOutstanding), current);
    });

    private static async Task<ReadingRequest> ReadingAsync(long id, BookScope scope, CancellationToken cancel) => ReadingRequest.Of((await FindAsync(scope, id, cancel)).Change);

    private static async Task<NoContent> ChangeAsync(long id, ReadingRequest request, BookScope scope, OpenedFiles files, CancellationToken cancel)
    {
        var intake = await OpenToChangeAsync(scope, id, cancel);
        var change = request.Change();
        if (change.Opening != intake.Change.Opening)
        {
            // A sheet or an encoding that is not there is refused before it is remembered.
            files.Open(scope, intake, change.Opening, new ProgressMeter(), cancel);
        }

        await scope.Intakes.ChangeAsync(id, change, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<FileContentHttpResult> SaveReadingAsync(long id, BookScope scope, OpenedFiles files, IOptions<JsonOptions> json, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        var reading = await SavedReadingAsync(scope, intake, files, cancel);
        var options = new JsonSerializerOptions(json.Value.SerializerOptions) { WriteIndented = true, DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull };
        return TypedResults.File(JsonSerializer.SerializeToUtf8Bytes(reading, options), "application/json", FileName.Safe($"{Path.GetFileNameWithoutExtension(intake.FileName)} reading", ".json"));
    }

    private static async Task<NoContent> LoadReadingAsync(long id, IFormFile file, BookScope scope, OpenedFiles files, IOptions<JsonOptions> json, CancellationToken cancel)
    {
        var intake = await OpenToChangeAsync(scope, id, cancel);
        var reading = await ParseAsync(file, json.Value.SerializerOptions, cancel);
        var table = files.Open(scope, intake, reading.Opening, new ProgressMeter(), cancel);
        var change = reading.For(table, out var missing);
        if (missing.Count > 0)
        {
            throw Unable.Invalid($"{intake.FileName} has no column “{missing[0]}”, which the reading in {file.FileName} names.");
        }

        await scope.Intakes.ChangeAsync(id, change, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<SavedReading> ParseAsync(IFormFile file, JsonSerializerOptions options, CancellationToken cancel)
    {
        try
        {
            await using var content = file.OpenReadStream();
            if (file.Length > LargestReading || await JsonSerializer.DeserializeAsync<SavedReading>(content, options, cancel) is not { Columns.Count: > 0 } reading)
            {
                throw Unable.Invalid($"{file.FileName} holds no reading.");
            }

            RequestCheck.Check(reading);
            return reading;
        }
        catch (JsonException e)
        {
            throw Unable.Invalid($"{file.FileName} is not a reading that was saved by Rendal: line {e.LineNumber + 1} is not understood.");
        }
    }

    private static Task<IResult> KeepAsync(long id, HttpContext http, BookScope scope, OpenedFiles files, Works works, TimeProvider clock, bool sure = false, bool emptyClears = false) => works.AnswerAsync(http, async (meter, cancel) =>
    {
        var intake = await FindAsync(scope, id, cancel);
        if (intake.State != "looked-at")
        {
            throw Unable.Conflict("This file was kept or undone already.");
        }

        return intake.Kind == IntakeKind.Customers
            ? await KeepCustomersAsync(scope, intake, files, meter, emptyClears, clock.GetUtcNow(), cancel)
            : await KeepLedgerAsync(scope, intake, files, meter, sure, clock.GetUtcNow(), cancel);
    });

    private static async Task<KeptIntake> KeepLedgerAsync(BookScope scope, IntakeRecord intake, OpenedFiles files, ProgressMeter meter, bool sure, DateTimeOffset now, CancellationToken cancel)
    {
        var look = await LookedAt.OpenAsync(scope, intake, intake.Change, files, meter, cancel);
        var isFirst = await scope.Intakes.CurrentAsync(cancel) is null;
        if (!sure && !isFirst && look.Lacks.Count == 0 && (await look.ViewAsync(intake.Change, meter, cancel)).Doubts is [var doubt, ..])
        {
            throw Unable.Conflict(doubt);
        }

        var reader = look.Reader(intake.Change, meter, "keeping the rows", cancel);
        var reading = SavedReading.Of(look.Recognised!.Reading, intake.Change);
        return await scope.Intakes.KeepAsync(intake.Id, reader, await scope.Customers.ReachableAsync(cancel), reading, now, cancel)
            ? new KeptIntake(intake.Id, reader.RowsKept)
            : throw Unable.Conflict("This file was kept or undone already.");
    }

    private static async Task<KeptIntake> KeepCustomersAsync(BookScope scope, IntakeRecord intake, OpenedFiles files, ProgressMeter meter, bool emptyClears, DateTimeOffset now, CancellationToken cancel)
    {
        var look = CustomerListLook.Open(scope, intake, intake.Change, files, meter, cancel);
        var (list, _) = await look.ReadAsync(meter, cancel);
        if (list.Findings.Listed().FirstOrDefault(f => f.Code == FindingCodes.HeadOfficeLoop) is { } loop)
        {
            throw Unable.Conflict($"{loop.Message} {loop.Remedy}");
        }

        return await scope.Intakes.KeepCustomersAsync(intake.Id, list, look.Table.Sheet, emptyClears, await scope.Corrections.HoldingAsync(cancel), SavedReading.Of(look.Reading!, intake.Change), now, cancel)
            ? new KeptIntake(intake.Id, list.Customers.Count)
            : throw Unable.Conflict("This file was kept or undone already.");
    }

    private static async Task<NoContent> UndoAsync(long id, BookScope scope, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        var undone = intake.Kind == IntakeKind.Ledger ? await scope.Intakes.UndoAsync(id, cancel) : await scope.Intakes.UndoCustomersAsync(id, await scope.Corrections.HoldingAsync(cancel), scope.Person, cancel);
        return undone ? TypedResults.NoContent() : throw Unable.Conflict("Only the last file that was kept can be undone.");
    }

    /// <summary>Takes the same file in once more, to put something right in it; it is kept in place of the first when that is done.</summary>
    private static async Task<BegunIntake> AgainAsync(long id, BookScope scope, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        return new BegunIntake(await scope.Intakes.BeginAsync(intake.FileId, intake.Kind, intake.Change, scope.Person, cancel), true);
    }

    private static async Task<Results<Ok<LedgerView>, NoContent>> LedgerAsync(BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (await LedgerNow.OfAsync(scope, clock, cancel) is not { } now)
        {
            return TypedResults.NoContent();
        }

        var intake = now.Intake;
        var findings = await scope.Intakes.FindingsAsync(intake.Id, cancel);
        return TypedResults.Ok(new LedgerView(
            intake.Id, intake.FileName, intake.Sheet, intake.KeptAt!.Value, intake.RowsKept, intake.RowsRead - intake.RowsKept, intake.RowsLeftOut, now.Customers, [.. LedgerSumView.Of(now.Everybody, scope.Book.Currency)], FindingGroupView.Of(findings)));
    }

    private static async Task<SavedReading> SavedReadingAsync(BookScope scope, IntakeRecord intake, OpenedFiles files, CancellationToken cancel)
    {
        var table = files.Open(scope, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        if (intake.Kind == IntakeKind.Customers)
        {
            return SavedReading.Of(CardReading.Of(table, intake.Change) ?? throw Unable.Conflict("No row of headings was found, so there is no reading to save."), intake.Change);
        }

        return SavedReading.Of(Recognition.Outline(table, intake.Change) ?? throw Unable.Conflict("No row of headings was found, so there is no reading to save."), intake.Change);
    }

    private static async Task<IntakeView> ViewAsync(BookScope scope, IntakeRecord intake, ReadingChange change, OpenedFiles files, ProgressMeter meter, CancellationToken cancel) =>
        intake.Kind == IntakeKind.Customers
            ? await CustomerListLook.Open(scope, intake, change, files, meter, cancel).ViewAsync(meter, cancel)
            : await (await LookedAt.OpenAsync(scope, intake, change, files, meter, cancel)).ViewAsync(change, meter, cancel);

    private static async Task<IntakeRecord> OpenToChangeAsync(BookScope scope, long id, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        return intake.State == "looked-at" ? intake : throw Unable.Conflict("This file was kept already; take it in again to read it in another way.");
    }

    internal static async Task<IntakeRecord> FindAsync(BookScope scope, long id, CancellationToken cancel) =>
        await scope.Intakes.FindAsync(id, cancel) ?? throw Unable.NotFound("This file");
}
