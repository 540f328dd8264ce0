using System.ComponentModel.DataAnnotations;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Documents;
using Rendal.App.Templates;
using Rendal.App.Wordings;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Files;
using Rendal.Html;
using Rendal.Mail;
using Rendal.Store.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Hosting;
using Rendal.Web.Rounds;

namespace Rendal.Web.Wordings;

/// <summary>A wording as it is edited.</summary>
/// <param name="Errors">What keeps it from being used.</param>
/// <param name="Gone">The columns that it uses and the files have not any more.</param>
internal sealed record WordingView(
    long Id,
    long Version,
    string Name,
    string Language,
    string Subject,
    string Body,
    IReadOnlyList<string> Errors,
    IReadOnlyList<GoneColumn> Gone
);

/// <summary>A wording to be stored.</summary>
/// <param name="Version">The version that was changed; of a new one it says nothing.</param>
internal sealed record WordingRequest(
    [property: StringLength(Rendal.Core.Wordings.Wording.LongestName)] string Name,
    [property: StringLength(10)] string Language,
    string Subject,
    [property: StringLength(200_000)] string Body,
    long Version = 0
)
{
    /// <summary>The wording as it is stored.</summary>
    public Wording Wording() => new(Name, Language, Subject, Body);
}

/// <summary>The wordings of a book.</summary>
/// <param name="Uses">What they are used for.</param>
/// <param name="Purposes">What a wording can be used for.</param>
internal sealed record WordingList(
    IReadOnlyList<WordingView> Wordings,
    IReadOnlyList<TemplateAssignment> Uses,
    IReadOnlyList<string> Purposes
);

/// <summary>A wording filled for a customer of the ledger.</summary>
/// <param name="Errors">What is wrong with the wording; the rest is empty where there is something.</param>
/// <param name="From">The sender as it is seen.</param>
/// <param name="Subject">The subject.</param>
/// <param name="Message">The message as a page of its own that can run nothing and fetch nothing.</param>
/// <param name="Plain">The same for mail programs that show no HTML.</param>
/// <param name="Bytes">How large the message is, without the files that go with it.</param>
/// <param name="EmptySlots">The labels of the slots that are empty.</param>
/// <param name="Remarks">What catches the eye in it.</param>
internal sealed record WordingPreviewView(
    IReadOnlyList<string> Errors,
    string From,
    string Subject,
    string Message,
    string Plain,
    int Bytes,
    IReadOnlyList<string> EmptySlots,
    IReadOnlyList<RemarkView> Remarks
);

/// <summary>A slot as it is offered.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Label">What the bookkeeper sees on the chip.</param>
/// <param name="Says">What it is filled with, one sentence.</param>
/// <param name="Group">Under which heading it is offered.</param>
/// <param name="IsHtml">Whether it can stand in the body of a message only.</param>
/// <param name="IsOfMessage">Whether it can stand in messages only, not on documents.</param>
/// <param name="Example">What it holds of the customer that was asked for; empty for nothing.</param>
/// <param name="Formats">The other ways in which it can be written, each with what it holds then.</param>
internal sealed record SlotView(
    string Name,
    string Label,
    string Says,
    SlotGroup Group,
    bool IsHtml,
    bool IsOfMessage,
    string Example,
    IReadOnlyList<SlotFormatView> Formats
);

/// <summary>A way in which a slot can be written.</summary>
/// <param name="Format">One of <see cref="SlotFormat"/>.</param>
/// <param name="Example">What it holds of the customer that was asked for; empty for nothing.</param>
internal sealed record SlotFormatView(string Format, string Example);

/// <summary>A version of a wording, as it is listed.</summary>
/// <param name="Change">The number of the change that it came by.</param>
/// <param name="By">Who made it; empty where no person did.</param>
/// <param name="Changed">What of it is another than before.</param>
/// <param name="IsAdded">Whether the wording was added by it.</param>
internal sealed record WordingVersionLine(long Change, string By, DateTimeOffset At, IReadOnlyList<WordingChange> Changed, bool IsAdded)
{
    /// <summary>A version as it is listed.</summary>
    public static WordingVersionLine Of(WordingVersion version) =>
        new(version.Change, version.By, version.At, WordingChanges.Of(version.Before, version.Wording), version.Before is null);
}

/// <summary>Wordings and the slots they can have.</summary>
internal static class WordingEndpoints
{
    // Those that are older stay in the database.
    private const int MostVersions = 500;

    /// <summary>The endpoints of a book about its wordings, and about which of them serves what.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Wordings");
        group.MapGet("/wordings", ListAsync);
        group.MapPost("/wordings", AddAsync);
        group.MapPut("/wordings/{id:long}", UpdateAsync);
        group.MapGet("/wordings/ready-made", (BookScope _) => ReadyMadeWording.All);
        group.MapPost("/wordings/file", TakeAsync).DisableAntiforgery();
        group.MapGet("/wordings/{id:long}/file", FileAsync);
        group.MapGet("/wordings/{id:long}/versions", VersionsAsync);
        group.MapGet("/wordings/{id:long}/versions/{change:long}", VersionAsync);
        group.MapPost("/wordings/use", UseAsync);
        group.MapPost("/wordings/preview", PreviewAsync);
        group.MapGet("/slots", SlotsAsync);
    }

    /// <summary>
    /// All slots, the columns of the ledger among them; with what each holds of a customer where one is named of whom something is open.
    /// </summary>
    private static async Task<List<SlotView>> SlotsAsync(
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel,
        string customer = ""
    )
    {
        var columns = await FileColumns.OfAsync(scope, cancel);
        var values =
            columns is not null && customer.Length > 0
                ? (await LayoutSample.FindAsync(customer, scope, clock, cancel))?.Slots(null) ?? []
                : [];
        return
        [
            .. SlotCatalogue
                .All.Concat((columns ?? []).Select(SlotCatalogue.OfColumn))
                .Select(s => new SlotView(
                    s.Name,
                    s.Label,
                    s.Says,
                    s.Group,
                    s.IsHtml,
                    s.IsOfMessage,
                    values.GetValueOrDefault(s.Name, ""),
                    [.. SlotFormat.Of(s.Kind).Select(f => new SlotFormatView(f, values.GetValueOrDefault(SlotFormat.Key(s.Name, f), "")))]
                )),
        ];
    }

    private static async Task<WordingList> ListAsync(BookScope scope, CancellationToken cancel) =>
        new(await ViewsAsync(await scope.Wordings.ListAsync(cancel), scope, cancel), await scope.Wordings.UsesAsync(cancel), Purposes.All);

    private static async Task<NoContent> UseAsync(AssignmentRequest use, BookScope scope, CancellationToken cancel)
    {
        await new AssignTemplate(scope).WordingAsync(use.Purpose, use.Language, use.Id, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<List<WordingVersionLine>> VersionsAsync(long id, BookScope scope, CancellationToken cancel) =>
        await scope.WordingVersions.ListAsync(id, MostVersions, cancel) is { Count: > 0 } versions
            ? versions.ConvertAll(WordingVersionLine.Of)
            : throw ProblemException.NotFound("This wording");

    private static async Task<Wording> VersionAsync(long id, long change, BookScope scope, CancellationToken cancel) =>
        (await scope.WordingVersions.FindAsync(id, change, cancel))?.Wording ?? throw ProblemException.NotFound("This version");

    private static async Task<WordingView> AddAsync(
        WordingRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) => await FindAsync(await new StoreWording(scope, clock).AddAsync(request.Wording(), cancel), scope, cancel);

    private static async Task<Ok<WordingView>> UpdateAsync(
        long id,
        WordingRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new StoreWording(scope, clock).ChangeAsync(id, request.Version, request.Wording(), cancel);
        return TypedResults.Ok(await FindAsync(id, scope, cancel));
    }

    /// <summary>A wording as a file, to be saved: as plain bytes, so that no browser shows it as a page of ours.</summary>
    private static async Task<FileContentHttpResult> FileAsync(long id, BookScope scope, CancellationToken cancel)
    {
        var wording = (await scope.Wordings.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This wording")).Wording;
        var page = WordingFile.Write(wording, await scope.Pictures.OfAsync(PicturePlaces.Of(wording.Body), cancel));
        return TypedResults.File(Encoding.UTF8.GetBytes(page), "application/octet-stream", FileName.Safe(wording.Name, ".html"));
    }

    /// <summary>Adds the wording of a file.</summary>
    private static async Task<WordingView> TakeAsync(IFormFile file, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        if (file.Length > WordingFile.Largest)
        {
            throw ProblemException.Invalid($"The file is larger than {WordingFile.Largest / 1_000_000} MB. Make its pictures smaller.");
        }

        using var bytes = new MemoryStream();
        await file.CopyToAsync(bytes, cancel);
        var id = await new TakeWording(scope, clock).RunAsync(Path.GetFileName(file.FileName), bytes.ToArray(), cancel);
        return await FindAsync(id, scope, cancel);
    }

    private static async Task<WordingView> FindAsync(long id, BookScope scope, CancellationToken cancel) =>
        (await ViewsAsync([await scope.Wordings.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This wording")], scope, cancel))[
            0
        ];

    private static async Task<List<WordingView>> ViewsAsync(List<StoredWording> wordings, BookScope scope, CancellationToken cancel)
    {
        var columns = await FileColumns.OfAsync(scope, cancel);
        return wordings.ConvertAll(stored =>
        {
            var template = WordingReader.Read(stored.Wording);
            return new WordingView(
                stored.Id,
                stored.Version,
                stored.Wording.Name,
                stored.Wording.Language,
                stored.Wording.Subject,
                stored.Wording.Body,
                template.Errors,
                FileColumns.Gone(template, columns)
            );
        });
    }

    /// <summary>A wording filled for a customer of the ledger, as it is being written.</summary>
    /// <param name="request">The wording.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    private static async Task<WordingPreviewView> PreviewAsync(
        WordingRequest request,
        string customer,
        int? level,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var made = await new PreviewWording(scope, clock).RunAsync(request.Wording(), customer, level, cancel);
        var body = await PictureEndpoints.ShownAsync(made.Words.Body, scope, cancel);
        return new WordingPreviewView(
            made.Errors,
            made.From,
            made.Words.Subject,
            Guards.SandboxedPage(MessageBuilder.Page(body, made.Language, made.Words.Subject)),
            made.Plain,
            made.Bytes,
            [.. made.Words.EmptySlots.Select(s => s.Label)],
            [.. made.Remarks.Select(RemarkView.Of)]
        );
    }
}
