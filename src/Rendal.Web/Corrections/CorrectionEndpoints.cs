using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Progress;
using Rendal.App;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Files;
using Rendal.Files.Csv;
using Rendal.Store.Books;
using Rendal.Store.Corrections;
using Rendal.Store.Intake;
using Rendal.Web.Books;
using Rendal.Web.Intake;

namespace Rendal.Web.Corrections;

/// <summary>A correction in the list.</summary>
/// <param name="Concerns">Which row or customer, in words.</param>
internal sealed record CorrectionView(long Id, CorrectionKind Kind, string Column, string Concerns, string Was, string Becomes, string Reason, string File, string? Sheet, int Row, string MadeBy, DateTimeOffset MadeAt)
{
    public static CorrectionView Of(StoredCorrection s)
    {
        var c = s.Correction;
        return new(c.Id, c.Kind, c.Column, c.Kind == CorrectionKind.Card ? c.Of : RowKey.Words(c.Of), c.Was, c.Becomes, c.Reason, s.Source.File, s.Source.Sheet, s.Source.Row, s.MadeBy, s.MadeAt);
    }
}

/// <summary>A value of a file that is put right.</summary>
/// <param name="Intake">The intake whose file it stands in.</param>
/// <param name="Row">The row.</param>
/// <param name="Column">The column from 0.</param>
/// <param name="Becomes">What holds instead.</param>
/// <param name="Everywhere">Whether the same value is put right wherever it stands in the column.</param>
internal sealed record ValueRequest(long Intake, int Row, int Column, string Becomes, bool Everywhere);

/// <summary>A row that is not to count.</summary>
internal sealed record LeaveOutRequest(long Intake, int Row, [property: StringLength(1_000)] string Reason);

/// <summary>A customer that is the same as another.</summary>
internal sealed record JoinRequest([property: StringLength(200)] string Customer, [property: StringLength(200)] string With);

/// <summary>Putting right over the source, and taking that back.</summary>
internal static class CorrectionEndpoints
{
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/corrections").WithTags("Corrections");
        group.MapGet("", async (BookScope scope, CancellationToken cancel) => (await scope.Corrections.ListAsync(cancel)).ConvertAll(CorrectionView.Of));
        group.MapPost("/value", PutRightAsync);
        group.MapPost("/row", LeaveOutAsync);
        group.MapPost("/customers", JoinAsync);
        group.MapDelete("/{id:long}", TakeBackAsync);
        group.MapGet("/list.csv", ExportAsync);
    }

    private static async Task<NoContent> PutRightAsync(ValueRequest request, BookScope scope, OpenedFiles files, TimeProvider clock, CancellationToken cancel)
    {
        var (table, reading, row) = await RowAsync(scope, request.Intake, request.Row, files, cancel);
        var column = reading.Columns.FirstOrDefault(c => c.Index == request.Column) ?? throw Unable.Invalid("Only values below a heading can be put right.");
        var was = row[column.Index].Text;
        var becomes = Cell.Of(request.Becomes).Text;
        if (request.Everywhere && was.Length == 0)
        {
            throw Unable.Invalid($"Nothing is filled in here; to fill in every empty “{column.Heading}” would be a guess. Fill in the rows one by one.");
        }

        var correction = request.Everywhere
            ? new Correction { Kind = CorrectionKind.Everywhere, Column = column.Heading, Was = was, Becomes = becomes }
            : new Correction { Kind = CorrectionKind.Cell, Column = column.Heading, Of = RowKey.Of(row, reading), Was = was, Becomes = becomes };
        await scope.Corrections.AddAsync(correction, new SourceRef(table.File, table.Sheet, row.Number), scope.Person, clock.GetUtcNow(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> LeaveOutAsync(LeaveOutRequest request, BookScope scope, OpenedFiles files, TimeProvider clock, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(request.Reason))
        {
            throw Unable.Invalid("Say why the row is left out; whoever looks at the figures later will ask.");
        }

        var (table, reading, row) = await RowAsync(scope, request.Intake, request.Row, files, cancel);
        var correction = new Correction { Kind = CorrectionKind.RowLeftOut, Of = RowKey.Of(row, reading), Reason = request.Reason.Trim() };
        await scope.Corrections.AddAsync(correction, new SourceRef(table.File, table.Sheet, row.Number), scope.Person, clock.GetUtcNow(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> JoinAsync(JoinRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (request.Customer == request.With || request.Customer.Length == 0 || request.With.Length == 0)
        {
            throw Unable.Invalid("Two different customers are needed to make one of them.");
        }

        var holding = new AppliedCorrections(new Reading(1, []), await scope.Corrections.HoldingAsync(cancel));
        if (holding.CustomerOf(request.With) == request.Customer)
        {
            throw Unable.Conflict($"{request.With} is joined with {request.Customer} already; take that back first.");
        }

        await scope.Corrections.AddAsync(new Correction { Kind = CorrectionKind.CustomersJoined, Was = request.Customer, Becomes = request.With }, default, scope.Person, clock.GetUtcNow(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> TakeBackAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var correction = (await scope.Corrections.ListAsync(cancel)).Find(c => c.Correction.Id == id)?.Correction ?? throw Unable.NotFound("This correction");
        return await scope.Corrections.TakeBackAsync(correction, scope.Person, clock.GetUtcNow(), cancel) ? TypedResults.NoContent() : throw Unable.NotFound("This correction");
    }

    private static async Task ExportAsync(HttpContext http, BookScope scope, CancellationToken cancel)
    {
        var list = await scope.Corrections.ListAsync(cancel);
        http.Response.ContentType = "text/csv; charset=utf-8";
        http.Response.Headers.ContentDisposition = $"attachment; filename=\"{FileName.Safe("corrections", ".csv")}\"";
        await CsvText.WriteAsync(http.Response.Body, Lines(list, scope.Book).ToAsyncEnumerable(), cancel);
    }

    private static IEnumerable<IReadOnlyList<string>> Lines(IEnumerable<StoredCorrection> list, Book book)
    {
        yield return ["What", "File", "Sheet", "Row", "Customer or row", "Column", "In the source", "Corrected", "Reason", "Corrected by", "On"];
        foreach (var v in list.Select(CorrectionView.Of))
        {
            var what = v.Kind switch
            {
                CorrectionKind.Cell => "one value",
                CorrectionKind.Everywhere => "the same value everywhere",
                CorrectionKind.RowLeftOut => "row left out",
                CorrectionKind.CustomersJoined => "one customer",
                _ => "customer card",
            };
            yield return [what, v.File, v.Sheet ?? "", v.Row > 0 ? $"{v.Row}" : "", v.Concerns, v.Column, v.Was, v.Becomes, v.Reason, v.MadeBy, book.ByItsClock(v.MadeAt).ToString("yyyy-MM-dd HH:mm", System.Globalization.CultureInfo.InvariantCulture)];
        }
    }

    private static async Task<(LedgerTable Table, Reading Reading, FileRow Row)> RowAsync(BookScope scope, long id, int number, OpenedFiles files, CancellationToken cancel)
    {
        var intake = await IntakeEndpoints.FindAsync(scope, id, cancel);
        if (intake.Kind != IntakeKind.Ledger || intake.State != "looked-at")
        {
            throw Unable.Conflict("Values are corrected in a ledger file before it is kept. Take the file in again to correct something in it.");
        }

        var table = files.Open(scope, intake, intake.Change.Opening, new ProgressMeter(), cancel);
        var reading = Recognition.Outline(table, intake.Change) ?? throw Unable.Invalid("No row of headings was found. Say which row has them.");
        var row = ((RowSpool)table.Rows).From(number).FirstOrDefault();
        return row.Number == number && number > reading.HeadingRow ? (table, reading, row) : throw Unable.Invalid($"There is nothing in row {number} that could be put right.");
    }
}
