using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Rendal.App;
using Rendal.App.Intake;
using Rendal.App.Ledger;
using Rendal.Core.Intake;
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

    /// <summary>The endpoints of a book about its intakes and its ledger.</summary>
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
        var last = list.Where(i => i.State == "kept")
            .GroupBy(i => i.Kind)
            .ToDictionary(g => g.Key, g => g.MaxBy(i => (i.KeptAt, i.Id))!.Id);
        return list.ConvertAll(i => new IntakeLine(
            i.Id,
            i.Kind,
            i.FileName,
            i.Sheet,
            i.State,
            i.MadeAt,
            i.KeptAt,
            i.RowsRead,
            i.RowsKept,
            last.GetValueOrDefault(i.Kind) == i.Id,
            i.Kind == IntakeKind.Ledger && last.GetValueOrDefault(i.Kind) == i.Id
        ));
    }

    private static async Task<BegunIntake> UploadAsync(
        IFormFile file,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel,
        string kind = "ledger"
    )
    {
        var name = Path.GetFileName(file.FileName.Replace('\\', '/'));
        return await new BeginIntake(scope, files, clock).RunAsync(
            name.Length > 0 ? name : "ledger.csv",
            file.OpenReadStream,
            KindOf(kind),
            cancel
        );
    }

    private static Task<BegunIntake> PasteAsync(
        PasteRequest request,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel
    ) => new BeginIntake(scope, files, clock).PasteAsync(request.Text, request.Kind, cancel);

    private static IntakeKind KindOf(string kind) =>
        Enum.TryParse<IntakeKind>(kind, ignoreCase: true, out var known)
            ? known
            : throw ProblemException.Invalid($"A file is taken in for the ledger or for the customers, not for “{kind}”.");

    private static Task<IResult> LookAsync(long id, HttpContext http, BookScope scope, OpenedFiles files, ProgressResponse works) =>
        works.AnswerAsync(http, async (meter, cancel) =>
        {
            var intake = await TheIntake.OfAsync(scope, id, cancel);
            if (intake.Kind == IntakeKind.Customers)
            {
                var list = CustomerListLook.Open(scope, intake, files, meter, cancel);
                var view = IntakeView.Of(intake, list);
                return list.Lacks.Count > 0 ? view : view.With(await list.ReadAsync(meter, cancel));
            }

            var ledger = await LedgerLook.OpenAsync(scope, intake, files, meter, cancel);
            var seen = IntakeView.Of(intake, ledger, scope.Book.Currency);
            return ledger.Lacks.Count > 0 ? seen : seen.With(await ledger.ReadAsync(meter, cancel));
        });

    private static async Task<FileRowsView> RowsAsync(
        long id,
        BookScope scope,
        OpenedFiles files,
        CancellationToken cancel,
        int from = 1,
        int count = 100
    )
    {
        var (last, rows) = await new FileRows(scope, files).PartAsync(id, from, Math.Clamp(count, 0, MostRows), cancel);
        return new FileRowsView(last, [.. rows.Select(FileRowView.Of)]);
    }

    private static Task<IResult> ChangesAsync(long id, HttpContext http, BookScope scope, OpenedFiles files, ProgressResponse works) =>
        works.AnswerAsync(http, async (meter, cancel) =>
        {
            var (before, changes) = await new CompareWithLedger(scope, files).RunAsync(id, meter, cancel);
            return ChangesView.Of(changes, before);
        });

    private static async Task<ReadingRequest> ReadingAsync(long id, BookScope scope, CancellationToken cancel) =>
        ReadingRequest.Of((await TheIntake.OfAsync(scope, id, cancel)).Change);

    private static async Task<NoContent> ChangeAsync(
        long id,
        ReadingRequest request,
        BookScope scope,
        OpenedFiles files,
        CancellationToken cancel
    )
    {
        await new ChangeReading(scope, files).RunAsync(id, request.Change(), cancel);
        return TypedResults.NoContent();
    }

    [SuppressMessage("Performance", "CA1869", Justification = "Made for a file that a person asks for once.")]
    private static async Task<FileContentHttpResult> SaveReadingAsync(
        long id,
        BookScope scope,
        OpenedFiles files,
        IOptions<JsonOptions> json,
        CancellationToken cancel
    )
    {
        var intake = await TheIntake.OfAsync(scope, id, cancel);
        var reading = new ChangeReading(scope, files).Saved(intake, cancel);
        var options = new JsonSerializerOptions(json.Value.SerializerOptions)
        {
            WriteIndented = true,
            DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
        };
        return TypedResults.File(
            JsonSerializer.SerializeToUtf8Bytes(reading, options),
            "application/json",
            FileName.Safe($"{Path.GetFileNameWithoutExtension(intake.FileName)} reading", ".json")
        );
    }

    private static async Task<NoContent> LoadReadingAsync(
        long id,
        IFormFile file,
        BookScope scope,
        OpenedFiles files,
        IOptions<JsonOptions> json,
        CancellationToken cancel
    )
    {
        var reading = await ParseAsync(file, json.Value.SerializerOptions, cancel);
        await new ChangeReading(scope, files).LikeAsync(id, reading, file.FileName, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<SavedReading> ParseAsync(IFormFile file, JsonSerializerOptions options, CancellationToken cancel)
    {
        try
        {
            await using var content = file.OpenReadStream();
            if (
                file.Length > LargestReading
                || await JsonSerializer.DeserializeAsync<SavedReading>(content, options, cancel) is not { Columns.Count: > 0 } reading
            )
            {
                throw ProblemException.Invalid($"{file.FileName} holds no reading.");
            }

            RequestCheck.Check(reading);
            return reading;
        }
        catch (JsonException e)
        {
            throw ProblemException.Invalid(
                $"{file.FileName} is not a reading that was saved by Rendal: line {e.LineNumber + 1} is not understood."
            );
        }
    }

    private static Task<IResult> KeepAsync(
        long id,
        HttpContext http,
        BookScope scope,
        OpenedFiles files,
        ProgressResponse works,
        TimeProvider clock,
        bool sure = false,
        bool emptyClears = false
    ) => works.AnswerAsync(http, (meter, cancel) => new KeepIntake(scope, files, clock).RunAsync(id, sure, emptyClears, meter, cancel));

    private static async Task<NoContent> UndoAsync(long id, BookScope scope, CancellationToken cancel)
    {
        await new UndoIntake(scope).RunAsync(id, cancel);
        return TypedResults.NoContent();
    }

    private static Task<BegunIntake> AgainAsync(
        long id,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel,
        string? kind = null
    ) => new BeginIntake(scope, files, clock).AgainAsync(id, kind is null ? null : KindOf(kind), cancel);

    private static async Task<Results<Ok<LedgerView>, NoContent>> LedgerAsync(
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await LedgerNow.OfAsync(scope, clock, cancel) is not { } now)
        {
            return TypedResults.NoContent();
        }

        var intake = now.Intake;
        var findings = await scope.Intakes.FindingsAsync(intake.Id, cancel);
        return TypedResults.Ok(
            new LedgerView(
                intake.Id,
                intake.FileName,
                intake.Sheet,
                intake.KeptAt!.Value,
                intake.RowsKept,
                intake.RowsRead - intake.RowsKept,
                intake.RowsLeftOut,
                now.Customers,
                [.. LedgerSumView.Of(now.Everybody, scope.Book.Currency)],
                FindingGroupView.Of(findings)
            )
        );
    }
}
