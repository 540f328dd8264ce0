using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Corrections;
using Rendal.App.Intake;
using Rendal.Core.Intake;
using Rendal.Files;
using Rendal.Files.Csv;
using Rendal.Store.Books;
using Rendal.Store.Corrections;
using Rendal.Web.Books;

namespace Rendal.Web.Corrections;

/// <summary>A correction in the list.</summary>
/// <param name="Concerns">Which row or customer, in words.</param>
internal sealed record CorrectionView(
    long Id,
    CorrectionKind Kind,
    string Column,
    string Concerns,
    string Was,
    string Becomes,
    string Reason,
    string File,
    string? Sheet,
    int Row,
    string MadeBy,
    DateTimeOffset MadeAt
)
{
    /// <summary>A correction as the browser is told of it.</summary>
    public static CorrectionView Of(StoredCorrection s)
    {
        var c = s.Correction;
        return new(
            c.Id,
            c.Kind,
            c.Column,
            c.Kind == CorrectionKind.Card ? c.Of : RowKey.Words(c.Of),
            c.Was,
            c.Becomes,
            c.Reason,
            s.Source.File,
            s.Source.Sheet,
            s.Source.Row,
            s.MadeBy,
            s.MadeAt
        );
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
    /// <summary>The endpoints of a book that stand under <c>/corrections</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/corrections").WithTags("Corrections");
        group.MapGet("", async (BookScope scope, CancellationToken cancel) =>
            (await scope.Corrections.ListAsync(cancel)).ConvertAll(CorrectionView.Of)
        );
        group.MapPost("/value", PutRightAsync);
        group.MapPost("/row", LeaveOutAsync);
        group.MapPost("/customers", JoinAsync);
        group.MapDelete("/{id:long}", TakeBackAsync);
        group.MapGet("/list.csv", ExportAsync);
    }

    private static async Task<NoContent> PutRightAsync(
        ValueRequest request,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new CorrectRow(scope, files, clock).PutRightAsync(
            request.Intake,
            request.Row,
            request.Column,
            request.Becomes,
            request.Everywhere,
            cancel
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> LeaveOutAsync(
        LeaveOutRequest request,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new CorrectRow(scope, files, clock).LeaveOutAsync(request.Intake, request.Row, request.Reason, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> JoinAsync(JoinRequest request, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new JoinCustomers(scope, clock).RunAsync(request.Customer, request.With, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> TakeBackAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new TakeCorrectionBack(scope, clock).RunAsync(id, cancel);
        return TypedResults.NoContent();
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
        yield return
        [
            "What",
            "File",
            "Sheet",
            "Row",
            "Customer or row",
            "Column",
            "In the source",
            "Corrected",
            "Reason",
            "Corrected by",
            "On",
        ];
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
            yield return
            [
                what,
                v.File,
                v.Sheet ?? "",
                v.Row > 0 ? $"{v.Row}" : "",
                v.Concerns,
                v.Column,
                v.Was,
                v.Becomes,
                v.Reason,
                v.MadeBy,
                book.ByItsClock(v.MadeAt).ToString("yyyy-MM-dd HH:mm", System.Globalization.CultureInfo.InvariantCulture),
            ];
        }
    }
}
