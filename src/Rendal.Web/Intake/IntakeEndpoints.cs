using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Intake;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Store.Intake;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Intake;

/// <summary>Taking files in: looking at them, deciding how they are read, keeping, undoing.</summary>
internal static class IntakeEndpoints
{
    private const int RowsShown = 400;
    private const int RowsAround = 15;

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Intake");
        group.MapGet("/intakes", ListAsync);
        group.MapPost("/intakes", UploadAsync).DisableAntiforgery();
        group.MapGet("/intakes/{id:long}", LookAsync);
        group.MapPut("/intakes/{id:long}/reading", ChangeAsync);
        group.MapPost("/intakes/{id:long}/keep", KeepAsync);
        group.MapPost("/intakes/{id:long}/undo", UndoAsync);
        group.MapGet("/ledger", LedgerAsync);
    }

    private static async Task<List<IntakeLine>> ListAsync(BookScope scope, CancellationToken cancel)
    {
        var current = await scope.Intakes.CurrentAsync(cancel);
        return (await scope.Intakes.ListAsync(cancel)).ConvertAll(i => new IntakeLine(i.Id, i.FileName, i.State, i.MadeAt, i.KeptAt, i.RowsRead, i.RowsKept, i.Id == current?.Id));
    }

    private static async Task<IntakeView> UploadAsync(IFormFile file, BookScope scope, CancellationToken cancel)
    {
        var name = Path.GetFileName(file.FileName.Replace('\\', '/'));
        await using var content = file.OpenReadStream();
        var stored = await scope.Files.StoreAsync(name.Length > 0 ? name : "ledger.csv", content, cancel);
        var id = await scope.Intakes.BeginAsync(stored, scope.Person, cancel);
        return await LookAsync(id, scope, cancel);
    }

    private static async Task<IntakeView> LookAsync(long id, BookScope scope, CancellationToken cancel, int? row = null)
    {
        var intake = await FindAsync(scope, id, cancel);
        return await ViewAsync(scope, intake, intake.Change, row, cancel);
    }

    private static async Task<IntakeView> ChangeAsync(long id, ReadingRequest request, BookScope scope, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        if (intake.State != "looked-at")
        {
            throw Unable.Conflict("This file was kept already; take it in again to read it in another way.");
        }

        var view = await ViewAsync(scope, intake, request.Change(), null, cancel);
        await scope.Intakes.ChangeAsync(id, request.Change(), cancel);
        return view;
    }

    private static async Task<NoContent> KeepAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var intake = await FindAsync(scope, id, cancel);
        var reader = await LedgerFile.Open(scope, intake, intake.Change).ReaderAsync(scope, cancel);
        return await scope.Intakes.KeepAsync(id, reader, await scope.Customers.ReachableAsync(cancel), clock.GetUtcNow(), cancel)
            ? TypedResults.NoContent()
            : throw Unable.Conflict("This file was kept or undone already.");
    }

    private static async Task<NoContent> UndoAsync(long id, BookScope scope, CancellationToken cancel) =>
        await scope.Intakes.UndoAsync(id, cancel) ? TypedResults.NoContent() : throw Unable.Conflict("Only the last file that was kept can be undone.");

    private static async Task<Results<Ok<LedgerView>, NoContent>> LedgerAsync(BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (await scope.Intakes.CurrentAsync(cancel) is not { } intake)
        {
            return TypedResults.NoContent();
        }

        var rows = await scope.Ledger.RowsAsync(intake.Id, cancel).ToListAsync(cancel);
        var everybody = new Choice { AsOf = scope.Book.Today(clock), NeedsAddress = false };
        var all = Choosing.Choose(rows, [], everybody, intake.Settlement, scope.Book.Ageing, _ => default);
        var findings = await scope.Intakes.FindingsAsync(intake.Id, cancel);
        return TypedResults.Ok(new LedgerView(
            intake.Id, intake.FileName, intake.KeptAt!.Value, intake.RowsKept, intake.RowsRead - intake.RowsKept, rows.Select(r => r.Customer).Distinct().Count(), [.. LedgerSumView.Of(all, scope.Book.Currency)], [.. findings.Select(FindingView.Of)]));
    }

    private static async Task<IntakeRecord> FindAsync(BookScope scope, long id, CancellationToken cancel) =>
        await scope.Intakes.FindAsync(id, cancel) ?? throw Unable.NotFound("This file");

    private static async Task<IntakeView> ViewAsync(BookScope scope, IntakeRecord intake, ReadingChange change, int? wanted, CancellationToken cancel)
    {
        var file = LedgerFile.Open(scope, intake, change);
        var columns = file.Recognised?.Reading.Columns.Select(c => new ColumnView(c.Index, c.Heading, c.Meaning, c.Reason, c.Mark, c.Order, c.Notation)).ToList() ?? [];
        var heading = file.Recognised?.Reading.HeadingRow;
        if (file.Lacks.Count > 0)
        {
            return new IntakeView(intake.Id, intake.FileName, intake.State, heading, columns, file.Lacks, 0, 0, 0, 0, 0, [], [], [], 0, 0, [], [.. file.Table.Rows.Take(RowsShown).Select(r => Row(r, r.Number == heading ? "heading" : "above"))]);
        }

        var reader = await file.ReaderAsync(scope, cancel);
        var kept = new SortedDictionary<Currency, decimal>();
        var setAside = new SortedDictionary<Currency, decimal>();
        var asideRows = new HashSet<int>();
        foreach (var read in reader.Rows())
        {
            cancel.ThrowIfCancellationRequested();
            if (read.Row is { } row)
            {
                kept[row.Currency] = kept.GetValueOrDefault(row.Currency) + row.Open;
            }
            else
            {
                asideRows.Add(read.SetAside!.Source.Row);
                if (read.SetAside.Currency is { } currency)
                {
                    setAside[currency] = setAside.GetValueOrDefault(currency) + read.SetAside.Amount;
                }
            }
        }

        reader.NoteMissingAddresses(await scope.Customers.ReachableAsync(cancel));
        var ledger = kept.Keys.Union(setAside.Keys).Order().Select(c => SumView.Of(c, kept.GetValueOrDefault(c) + setAside.GetValueOrDefault(c)));
        return new IntakeView(
            intake.Id, intake.FileName, intake.State, heading, columns, [], reader.RowsRead, reader.RowsKept, reader.RowsSetAside, reader.TotalLineCount, reader.Customers.Count,
            [.. kept.Select(k => SumView.Of(k.Key, k.Value))], [.. setAside.Select(k => SumView.Of(k.Key, k.Value))], [.. ledger],
            reader.Findings.CountOf(Severity.Error), reader.Findings.CountOf(Severity.Warning), [.. reader.Findings.Listed().Select(FindingView.Of)], Shown(file, asideRows, wanted));
    }

    /// <summary>The first rows of the file, and beyond them those that were set aside and those around the wanted one.</summary>
    private static List<FileRowView> Shown(LedgerFile file, HashSet<int> setAside, int? wanted)
    {
        var reading = file.Recognised!.Reading;
        var shown = new List<FileRowView>();
        foreach (var row in file.Table.Rows)
        {
            var isNear = Math.Abs(row.Number - (wanted ?? 0)) <= RowsAround;
            if (shown.Count >= RowsShown && !isNear && !(setAside.Contains(row.Number) && shown.Count < 2 * RowsShown))
            {
                if (shown.Count >= 2 * RowsShown && row.Number > (wanted ?? 0))
                {
                    break;
                }

                continue;
            }

            var role = row.Number < reading.HeadingRow ? "above"
                : row.Number == reading.HeadingRow ? "heading"
                : setAside.Contains(row.Number) ? "set-aside"
                : row.Cells.All(c => c.IsEmpty) ? "blank"
                : TotalLines.Is(row, reading) ? "total"
                : "item";
            shown.Add(Row(row, role));
        }

        return shown;
    }

    private static FileRowView Row(FileRow row, string role) => new(row.Number, role, [.. row.Cells.Select(c => c.Text)]);
}
