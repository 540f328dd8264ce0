using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Documents;
using Rendal.App.Layouts;
using Rendal.App.Templates;
using Rendal.Core.Layouts;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Store.Layouts;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Rounds;

namespace Rendal.Web.Layouts;

/// <summary>A layout in the list.</summary>
internal sealed record LayoutLine(long Id, int Version, string Name, string MadeBy, DateTimeOffset MadeAt);

/// <summary>The layouts of a book, and what can stand on one.</summary>
/// <param name="BuiltIn">The one that is there before any was made.</param>
/// <param name="Uses">What they are used for.</param>
/// <param name="Purposes">What a layout can be used for.</param>
/// <param name="Fields">The fields of items that every ledger has.</param>
/// <param name="Columns">The headings of the ledger file's columns without a meaning for the rules.</param>
internal sealed record LayoutList(
    Layout BuiltIn,
    IReadOnlyList<LayoutLine> Layouts,
    IReadOnlyList<TemplateAssignment> Uses,
    IReadOnlyList<string> Purposes,
    IReadOnlyList<FieldLine> Fields,
    IReadOnlyList<string> Columns
);

/// <summary>A field of items with its usual heading in English.</summary>
internal sealed record FieldLine(string Field, string Heading);

/// <summary>A layout as it is edited.</summary>
internal sealed record LayoutView(long Id, int Version, Layout Layout, string MadeBy, DateTimeOffset MadeAt)
{
    /// <summary>A layout with its version.</summary>
    public static LayoutView Of(StoredLayout s) => new(s.Ref.Id, s.Ref.Version, s.Layout, s.MadeBy, s.MadeAt);
}

/// <summary>A layout as it is to be from now on.</summary>
/// <param name="Version">The version that the change was made from.</param>
internal sealed record LayoutChange(int Version, Layout Layout);

/// <summary>A version of a layout.</summary>
internal sealed record VersionLine(int Version, string MadeBy, DateTimeOffset MadeAt);

/// <summary>A customer to look at a layout with.</summary>
internal sealed record SampleLine(string Customer, string Name, int Rows);

/// <summary>Making and changing layouts, with a true preview.</summary>
internal static class LayoutEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/layouts</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/layouts").WithTags("Layouts");
        group.MapGet("", ListAsync);
        group.MapPost("", AddAsync);
        group.MapGet("/{id:long}", ViewAsync);
        group.MapPut("/{id:long}", ChangeAsync);
        group.MapDelete("/{id:long}", TakeAwayAsync);
        group.MapGet("/{id:long}/versions", VersionsAsync);
        group.MapGet("/{id:long}/versions/{version:int}", VersionAsync);
        group.MapGet("/ready-made", (BookScope _) => ReadyMade.All);
        group.MapPost("/use", UseAsync);
        group.MapGet("/samples", SamplesAsync);
        group.MapPost("/preview", PreviewAsync);
        group.MapPost("/letter", BringAsync).DisableAntiforgery();
    }

    private static async Task<LayoutList> ListAsync(BookScope scope, CancellationToken cancel)
    {
        var words = DocumentWords.In(Language.English);
        var intake = await scope.Intakes.CurrentAsync(cancel);
        return new LayoutList(
            Layout.BuiltIn,
            [.. (await scope.Layouts.HeadsAsync(cancel)).Select(l => new LayoutLine(l.Ref.Id, l.Ref.Version, l.Name, l.MadeBy, l.MadeAt))],
            await scope.Layouts.UsesAsync(cancel),
            Purposes.All,
            [.. ItemFields.All.Select(f => new FieldLine(f, ItemFields.Heading(f, words)))],
            intake is null ? [] : await scope.Ledger.ExtraHeadingsAsync(intake.Id, cancel)
        );
    }

    private static async Task<LayoutView> AddAsync(Layout layout, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await ViewAsync(await new StoreLayout(scope, clock).AddAsync(layout, cancel), scope, cancel);

    private static async Task<LayoutView> ViewAsync(long id, BookScope scope, CancellationToken cancel) =>
        LayoutView.Of(await scope.Layouts.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This layout"));

    private static async Task<LayoutView> ChangeAsync(
        long id,
        LayoutChange change,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new StoreLayout(scope, clock).ChangeAsync(new LayoutRef(id, change.Version), change.Layout, cancel);
        return await ViewAsync(id, scope, cancel);
    }

    private static async Task<NoContent> TakeAwayAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        await new StoreLayout(scope, clock).TakeAwayAsync(id, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<List<VersionLine>> VersionsAsync(long id, BookScope scope, CancellationToken cancel) =>
        (await scope.Layouts.VersionsAsync(id, cancel)).ConvertAll(v => new VersionLine(v.Ref.Version, v.MadeBy, v.MadeAt));

    private static async Task<LayoutView> VersionAsync(long id, int version, BookScope scope, CancellationToken cancel) =>
        LayoutView.Of(
            await scope.Layouts.FindAsync(new LayoutRef(id, version), cancel) ?? throw ProblemException.NotFound("This version")
        );

    private static async Task<NoContent> UseAsync(AssignmentRequest use, BookScope scope, CancellationToken cancel)
    {
        await new AssignTemplate(scope).LayoutAsync(use.Purpose, use.Language, use.Id, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>The customer with the most rows in the ledger, and one with the fewest; none before there is a ledger.</summary>
    private static async Task<List<SampleLine>> SamplesAsync(BookScope scope, CancellationToken cancel)
    {
        if (await scope.Intakes.CurrentAsync(cancel) is not { } intake)
        {
            return [];
        }

        var found = await scope.Ledger.SamplesAsync(intake.Id, cancel);
        var names = await scope.Customers.NamesAsync([.. found.Select(s => s.Customer)], cancel);
        return found.ConvertAll(s => new SampleLine(s.Customer, names.GetValueOrDefault(s.Customer, s.Customer), s.Rows));
    }

    private static async Task<ReadDocxTemplate> BringAsync(IFormFile file, BookScope scope, CancellationToken cancel)
    {
        if (file.Length > DocxTemplate.Largest)
        {
            throw ProblemException.Invalid($"The file is larger than {DocxTemplate.Largest / 1_000_000} MB. Make its pictures smaller.");
        }

        using var bytes = new MemoryStream();
        await file.CopyToAsync(bytes, cancel);
        return await new ReadDocxFile(scope).RunAsync(Path.GetFileName(file.FileName), bytes.ToArray(), cancel);
    }

    /// <summary>The very document that a customer of the ledger would get today.</summary>
    /// <param name="layout">The layout, as it is being edited.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    /// <param name="form">The form, as <c>pdf</c>.</param>
    private static async Task<FileContentHttpResult> PreviewAsync(
        Layout layout,
        string customer,
        int? level,
        BookScope scope,
        PreviewRenderer renderer,
        TimeProvider clock,
        CancellationToken cancel,
        string form = "pdf"
    )
    {
        if (
            !Enum.TryParse<DocumentForm>(form, ignoreCase: true, out var known)
            || (known != DocumentForm.Pdf && !layout.Forms.Contains(known))
        )
        {
            throw ProblemException.NotFound("This document");
        }

        var template = StoreLayout.Ready(layout);
        var sample = await LayoutSample.OfAsync(customer, scope, clock, cancel);
        var file = await renderer.MakeAsync(scope.Book.Id, sample.Document(template, level), template.Layout, known, cancel);
        return DispatchEndpoints.Send((file.Name, file.ContentType, file.Bytes));
    }
}
