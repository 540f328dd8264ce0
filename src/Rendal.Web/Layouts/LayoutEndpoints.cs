using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Documents;
using Rendal.Core.Layouts;
using Rendal.Core.Uses;
using Rendal.Core.Wordings;
using Rendal.Files.Letters;
using Rendal.Files.Pdf;
using Rendal.Html;
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
internal sealed record LayoutList(Layout BuiltIn, IReadOnlyList<LayoutLine> Layouts, IReadOnlyList<UsedFor> Uses, IReadOnlyList<string> Purposes, IReadOnlyList<FieldLine> Fields, IReadOnlyList<string> Columns);

/// <summary>A field of items with its usual heading in English.</summary>
internal sealed record FieldLine(string Field, string Heading);

/// <summary>A layout as it is edited.</summary>
internal sealed record LayoutView(long Id, int Version, Layout Layout, string MadeBy, DateTimeOffset MadeAt)
{
    public static LayoutView Of(StoredLayout s) => new(s.Ref.Id, s.Ref.Version, s.Layout, s.MadeBy, s.MadeAt);
}

/// <summary>A layout as it is to be from now on.</summary>
/// <param name="Version">The version that the change was made from.</param>
internal sealed record LayoutChange(int Version, Layout Layout);

/// <summary>A version of a layout.</summary>
internal sealed record VersionLine(int Version, string MadeBy, DateTimeOffset MadeAt);

/// <summary>A letter that was brought along, looked through.</summary>
/// <param name="Layout">The layout that it makes, not kept yet; null where it has problems.</param>
/// <param name="Slots">The names of the slots that are in it.</param>
/// <param name="Problems">What has to be put right in the word processor, one sentence each.</param>
internal sealed record BroughtView(Layout? Layout, IReadOnlyList<string> Slots, IReadOnlyList<string> Problems);

/// <summary>A customer to look at a layout with.</summary>
internal sealed record SampleLine(string Customer, string Name, int Rows);

/// <summary>Making and changing layouts, with a true preview.</summary>
internal static class LayoutEndpoints
{
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
        var words = PaperWords.In(Language.English);
        var intake = await scope.Intakes.CurrentAsync(cancel);
        return new LayoutList(
            Layout.BuiltIn,
            [.. (await scope.Layouts.HeadsAsync(cancel)).Select(l => new LayoutLine(l.Ref.Id, l.Ref.Version, l.Name, l.MadeBy, l.MadeAt))],
            await scope.Layouts.UsesAsync(cancel), Purposes.All,
            [.. ItemFields.All.Select(f => new FieldLine(f, ItemFields.Heading(f, words)))],
            intake is null ? [] : await scope.Ledger.ExtraHeadingsAsync(intake.Id, cancel));
    }

    private static async Task<LayoutView> AddAsync(Layout layout, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await ViewAsync(await scope.Layouts.AddAsync(Checked(layout), scope.Person, clock.GetUtcNow(), cancel), scope, cancel);

    private static async Task<LayoutView> ViewAsync(long id, BookScope scope, CancellationToken cancel) =>
        LayoutView.Of(await scope.Layouts.FindAsync(id, cancel) ?? throw Unable.NotFound("This layout"));

    private static async Task<LayoutView> ChangeAsync(long id, LayoutChange change, BookScope scope, TimeProvider clock, CancellationToken cancel)
    {
        var now = await scope.Layouts.FindAsync(id, cancel) ?? throw Unable.NotFound("This layout");
        return await scope.Layouts.UpdateAsync(new LayoutRef(id, change.Version), Checked(change.Layout), scope.Person, clock.GetUtcNow(), cancel)
            ? await ViewAsync(id, scope, cancel)
            : throw Unable.Conflict($"{now.MadeBy} changed this layout meanwhile. Look at what it is now before you change it.");
    }

    private static async Task<NoContent> TakeAwayAsync(long id, BookScope scope, CancellationToken cancel) =>
        await scope.Layouts.TakeAwayAsync(id, scope.Person, cancel) is { } used ? throw Unable.Conflict($"This layout is still used {used}.") : TypedResults.NoContent();

    private static async Task<List<VersionLine>> VersionsAsync(long id, BookScope scope, CancellationToken cancel) =>
        (await scope.Layouts.VersionsAsync(id, cancel)).ConvertAll(v => new VersionLine(v.Ref.Version, v.MadeBy, v.MadeAt));

    private static async Task<LayoutView> VersionAsync(long id, int version, BookScope scope, CancellationToken cancel) =>
        LayoutView.Of(await scope.Layouts.FindAsync(new LayoutRef(id, version), cancel) ?? throw Unable.NotFound("This version"));

    private static async Task<NoContent> UseAsync(UseRequest use, BookScope scope, CancellationToken cancel)
    {
        if (use.Id is { } id && await scope.Layouts.FindAsync(id, cancel) is null)
        {
            throw Unable.NotFound("This layout");
        }

        use.Check();
        await scope.Layouts.UseAsync(use.Purpose, use.Language, use.Id, scope.Person, cancel);
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

    /// <summary>Looks through a letter that was written in a word processor, and makes a layout of it that is not kept yet.</summary>
    private static async Task<BroughtView> BringAsync(IFormFile file, BookScope scope, CancellationToken cancel)
    {
        if (file.Length > BroughtLetter.Largest)
        {
            throw Unable.Invalid($"The file is larger than {BroughtLetter.Largest / 1_000_000} MB. Make its pictures smaller.");
        }

        using var bytes = new MemoryStream();
        await file.CopyToAsync(bytes, cancel);
        var intake = await scope.Intakes.CurrentAsync(cancel);
        var look = LetterLook.At(bytes.ToArray(), intake is null ? null : await scope.Ledger.ExtraHeadingsAsync(intake.Id, cancel));
        var name = Path.GetFileName(file.FileName);
        var layout = new Layout
        {
            Name = Path.GetFileNameWithoutExtension(name),
            Forms = [WordProcessor.Program is null ? DocumentForm.Docx : DocumentForm.Pdf],
            Letter = new BroughtLetter { FileName = name, Bytes = bytes.ToArray(), Slots = look.Slots },
        };
        return new BroughtView(look.Problems.Count == 0 ? layout : null, [.. look.Slots.Select(s => s.Name).Distinct()], look.Problems);
    }

    /// <summary>The very document that a customer of the ledger would get today.</summary>
    /// <param name="layout">The layout, as it is being edited.</param>
    /// <param name="customer">The customer.</param>
    /// <param name="level">The level of a reminder; null for a statement.</param>
    /// <param name="form">The form, as <c>pdf</c>.</param>
    private static async Task<FileContentHttpResult> PreviewAsync(Layout layout, string customer, int? level, BookScope scope, PreviewPress press, TimeProvider clock, CancellationToken cancel, string form = "pdf")
    {
        if (!Enum.TryParse<DocumentForm>(form, ignoreCase: true, out var known) || (known != DocumentForm.Pdf && !layout.Forms.Contains(known)))
        {
            throw Unable.NotFound("This document");
        }

        layout = layout with { Letter = Looked(layout.Letter) };
        var template = LayoutReader.Read(layout);
        if (Press.Problem(template) is { } problem)
        {
            throw Unable.Invalid(problem);
        }

        var sample = await LayoutSample.OfAsync(customer, scope, clock, cancel);
        var file = await press.MakeAsync(scope.Book.Id, sample.Paper(template, level), layout, known, cancel);
        return DispatchEndpoints.Send((file.Name, file.ContentType, file.Bytes));
    }

    private static Layout Checked(Layout given)
    {
        var layout = given with { Letter = Looked(given.Letter) };
        return Press.Problem(LayoutReader.Read(layout)) is not { } problem ? layout with { Name = layout.Name.Trim(), Parts = [.. layout.Parts.Select(Sanitised)] } : throw Unable.Invalid(problem);
    }

    /// <summary>A letter with the slots that are really in it, whatever came with it.</summary>
    private static BroughtLetter? Looked(BroughtLetter? letter) =>
        letter is null ? null
        : letter.Bytes.Length > BroughtLetter.Largest ? throw Unable.Invalid($"The letter is larger than {BroughtLetter.Largest / 1_000_000} MB.")
        : letter with { FileName = Path.GetFileName(letter.FileName), Slots = LetterLook.At(letter.Bytes).Slots };

    private static LayoutPart Sanitised(LayoutPart part) => part switch
    {
        TextPart text => text with { Text = WordingReader.Sanitised(text.Text) },
        SlipPart slip => slip with { Text = WordingReader.Sanitised(slip.Text) },
        _ => part,
    };
}
