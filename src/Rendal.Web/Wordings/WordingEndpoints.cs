using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Documents;
using Rendal.App.Templates;
using Rendal.App.Wordings;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Html;
using Rendal.Store.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Rounds;

namespace Rendal.Web.Wordings;

/// <summary>A wording as it is edited; <c>Errors</c> says what keeps it from being used.</summary>
internal sealed record WordingView(
    long Id,
    long Version,
    string Name,
    string Language,
    string Subject,
    string Body,
    IReadOnlyList<string> Errors
);

/// <summary>A wording to be stored.</summary>
/// <param name="Version">The version that was changed; of a new one it says nothing.</param>
internal sealed record WordingRequest(
    [property: StringLength(200)] string Name,
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

/// <summary>A slot as it is offered.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Label">What the bookkeeper sees on the chip.</param>
/// <param name="Says">What it is filled with, one sentence.</param>
/// <param name="IsHtml">Whether it can stand in the body of a message only.</param>
/// <param name="Example">What it holds of the customer that was asked for; empty for nothing.</param>
internal sealed record SlotView(string Name, string Label, string Says, bool IsHtml, string Example);

/// <summary>Wordings and the slots they can have.</summary>
internal static class WordingEndpoints
{
    /// <summary>The endpoints of a book about its wordings, and about which of them serves what.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Wordings");
        group.MapGet("/wordings", ListAsync);
        group.MapPost("/wordings", AddAsync);
        group.MapPut("/wordings/{id:long}", UpdateAsync);
        group.MapGet("/wordings/ready-made", (BookScope _) => ReadyMadeWording.All);
        group.MapPost("/wordings/use", UseAsync);
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
        var intake = await scope.Intakes.CurrentAsync(cancel);
        var columns = intake is null ? [] : await scope.Ledger.ExtraHeadingsAsync(intake.Id, cancel);
        var values =
            intake is not null && customer.Length > 0
                ? (await LayoutSample.FindAsync(customer, scope, clock, cancel))?.Slots(null) ?? []
                : [];
        return
        [
            .. SlotCatalogue
                .All.Concat(columns.Select(SlotCatalogue.OfColumn))
                .Select(s => new SlotView(s.Name, s.Label, s.Says, s.IsHtml, values.GetValueOrDefault(s.Name, ""))),
        ];
    }

    private static async Task<WordingList> ListAsync(BookScope scope, CancellationToken cancel) =>
        new((await scope.Wordings.ListAsync(cancel)).ConvertAll(View), await scope.Wordings.UsesAsync(cancel), Purposes.All);

    private static async Task<NoContent> UseAsync(AssignmentRequest use, BookScope scope, CancellationToken cancel)
    {
        await new AssignTemplate(scope).WordingAsync(use.Purpose, use.Language, use.Id, cancel);
        return TypedResults.NoContent();
    }

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

    private static async Task<WordingView> FindAsync(long id, BookScope scope, CancellationToken cancel) =>
        View(await scope.Wordings.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This wording"));

    private static WordingView View(StoredWording stored) =>
        new(
            stored.Id,
            stored.Version,
            stored.Wording.Name,
            stored.Wording.Language,
            stored.Wording.Subject,
            stored.Wording.Body,
            WordingReader.Read(stored.Wording).Errors
        );
}
