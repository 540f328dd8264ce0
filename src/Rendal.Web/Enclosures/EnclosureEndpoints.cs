using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Enclosures;
using Rendal.App.Ledger;
using Rendal.Core.Enclosures;
using Rendal.Files.Enclosures;
using Rendal.Store.Enclosures;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Hosting;

namespace Rendal.Web.Enclosures;

/// <summary>The files that go with messages: giving them in, looking at them, saying what they are copies of.</summary>
internal static class EnclosureEndpoints
{
    /// <summary>The most bytes of a file that is uploaded; a ZIP of copies may be large.</summary>
    public const long LargestUpload = 4_000_000_000;

    private const int PieceSize = 4_000_000;
    private const int PageSize = 200;

    /// <summary>The endpoints of a book about files that go with messages.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/enclosures").WithTags("Enclosures");
        group.MapGet("", ListAsync);
        group.MapPost("/uploads", BeginAsync);
        group.MapPut("/uploads/{id:long}/{at:long}", AppendAsync);
        group.MapPost("/uploads/{id:long}/add", AddAsync).Produces<AddedEnclosures>();
        group.MapGet("/{file:long}/file", FileAsync);
        group.MapPost("/deleted", DeleteAsync);
        group.MapPut("/copies", SayAsync);
        group.MapGet("/settings", SettingsAsync);
        group.MapPut("/settings", SettleAsync);
        book.MapGet("/rounds/{id:long}/copies", CopiesAsync).WithTags("Enclosures");
    }

    /// <summary>The files that can be picked for a round, or that are kept with a customer.</summary>
    private static async Task<List<EnclosureView>> ListAsync(BookScope scope, CancellationToken cancel, string? customer = null) =>
        (await scope.Enclosures.RecordsAsync(customer, cancel)).ConvertAll(EnclosureView.Of);

    private static async Task<UploadView> BeginAsync(
        UploadRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) => ViewOf(await scope.Uploads.BeginAsync(request.Name, request.Size, request.Mark, scope.Person, clock.GetUtcNow(), cancel));

    private static async Task<UploadView> AppendAsync(long id, long at, HttpRequest request, BookScope scope, CancellationToken cancel)
    {
        var upload = await scope.Uploads.FindAsync(id, scope.Person, cancel) ?? throw ProblemException.NotFound("This upload");
        var piece = new byte[(int)Math.Min(PieceSize, Math.Max(0, upload.Size - at))];
        var length = await request.Body.ReadAtLeastAsync(piece, piece.Length, throwOnEndOfStream: false, cancel);
        return length != piece.Length || length == 0
                ? throw ProblemException.Invalid(
                    $"A piece of this file has {PieceSize} bytes, or what is left of it; this one has {length}."
                )
            : await scope.Uploads.AppendAsync(id, at, piece, cancel) is { } received ? new UploadView(id, received, PieceSize)
            : throw ProblemException.Conflict($"{upload.Received} bytes of this file are here; the next piece begins there.");
    }

    private static Task<IResult> AddAsync(
        long id,
        HttpContext http,
        BookScope scope,
        ProgressResponse works,
        string use = "copy",
        string customer = ""
    )
    {
        var purpose =
            Enum.TryParse<EnclosureUse>(use, ignoreCase: true, out var known) && Enum.IsDefined(known)
                ? known
                : throw ProblemException.Invalid($"Files are given in as copies, for a customer or to be picked, not as “{use}”.");
        return works.AnswerAsync(http, (meter, cancel) => new AddEnclosures(scope).RunAsync(id, purpose, customer, meter, cancel));
    }

    /// <summary>A file as it is enclosed. Only a PDF is shown in the browser.</summary>
    private static async Task<FileContentHttpResult> FileAsync(long file, BookScope scope, CancellationToken cancel)
    {
        var found = (await scope.Enclosures.FindAsync([file], cancel)).FirstOrDefault() ?? throw ProblemException.NotFound("This file");
        return DispatchEndpoints.Send((found.Name, found.ContentType, (await scope.Enclosures.ContentAsync(found.Sha256, cancel))!));
    }

    private static async Task<NoContent> DeleteAsync(
        EnclosuresRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await scope.Enclosures.DeleteAsync(request.Files, scope.Person, clock.GetUtcNow(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SayAsync(CopyOfRequest request, BookScope scope, CancellationToken cancel)
    {
        var settle = new SettleCopy(scope);
        if (request.Numbers is null)
        {
            await settle.TakeBackAsync(request.Files, cancel);
        }
        else if (request.Numbers.Count == 0)
        {
            await settle.NothingAsync(request.Files, cancel);
        }
        else if (request.Files is [var file])
        {
            await settle.RunAsync(file, request.Customer, request.Numbers, (await TheLedger.OfAsync(scope, cancel)).Id, cancel);
        }
        else
        {
            throw ProblemException.Invalid("Of several files it is said one by one what they are copies of.");
        }

        return TypedResults.NoContent();
    }

    private static async Task<EnclosureSettings> SettingsAsync(BookScope scope, CancellationToken cancel)
    {
        var (pattern, kinds) = await scope.Enclosures.SettingsAsync(cancel);
        var proposed =
            pattern.Length == 0 && await scope.Intakes.CurrentAsync(cancel) is { } intake
                ? await FilePattern.OfAsync(scope, intake.Id, [], cancel)
                : null;
        return new EnclosureSettings(pattern, proposed?.ToString() ?? "", kinds, EnclosureKind.Usual);
    }

    private static async Task<NoContent> SettleAsync(EnclosureSettingsRequest request, BookScope scope, CancellationToken cancel)
    {
        await new SettleEnclosing(scope).RunAsync(request.Pattern, request.Kinds, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>Which file is the copy of which document of a round.</summary>
    /// <param name="state">The lines of a state; empty for all.</param>
    /// <param name="find">Those in which a text is found: customer, number or name of a file.</param>
    /// <param name="from">How many come before.</param>
    private static async Task<CopyPage> CopiesAsync(
        long id,
        BookScope scope,
        CancellationToken cancel,
        string state = "",
        string find = "",
        int from = 0
    )
    {
        CopyLineState? wanted =
            state.Length == 0 ? null
            : Enum.TryParse<CopyLineState>(state.Replace("-", "", StringComparison.Ordinal), ignoreCase: true, out var known)
            && Enum.IsDefined(known)
                ? known
            : throw ProblemException.Invalid($"No copies are “{state}”.");
        var lines = await new CopyList(scope).RunAsync(id, cancel);
        var found = lines.Where(l => (wanted is null || l.State == wanted) && Has(l, find)).ToList();
        return new CopyPage(
            [.. Enum.GetValues<CopyLineState>().Select(s => new CopyCount(s, lines.Count(l => l.State == s)))],
            found.Count,
            [.. found.Skip(Math.Max(0, from)).Take(PageSize).Select(CopyLineView.Of)]
        );

        static bool Has(CopyLine line, string text) =>
            text.Length == 0
            || line.Name.Contains(text, StringComparison.CurrentCultureIgnoreCase)
            || line.Number.Contains(text, StringComparison.OrdinalIgnoreCase)
            || line.Files.Any(f => f.Name.Contains(text, StringComparison.OrdinalIgnoreCase));
    }

    private static UploadView ViewOf(UploadRecord upload) => new(upload.Id, upload.Received, PieceSize);
}
