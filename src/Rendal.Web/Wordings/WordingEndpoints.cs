using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Wordings;
using Rendal.Web.Books;
using Rendal.Web.Layouts;
using Rendal.Web.Hosting;

namespace Rendal.Web.Wordings;

/// <summary>A wording as it is edited; <c>Errors</c> says what keeps it from being used.</summary>
internal sealed record WordingView(long Id, string Name, string Language, string Subject, string Body, IReadOnlyList<string> Errors);

/// <summary>A wording to be stored.</summary>
internal sealed record WordingRequest(string Name, string Language, string Subject, string Body)
{
    public Wording Checked() =>
        string.IsNullOrWhiteSpace(Name) ? throw Unable.Invalid("Give the wording a name.")
        : !Core.Wordings.Language.TryParse(Language, out var language) ? throw Unable.Invalid($"“{Language}” is not a language that is known.")
        : new Wording(Name.Trim(), language.Code, WordingTemplate.Sanitised(Subject), WordingTemplate.Sanitised(Body));
}

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
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/").WithTags("Wordings");
        group.MapGet("/wordings", ListAsync);
        group.MapPost("/wordings", AddAsync);
        group.MapPut("/wordings/{id:long}", UpdateAsync);
        group.MapGet("/slots", SlotsAsync);
    }

    /// <summary>All slots, the columns of the ledger among them; with what each holds of a customer where one is named of whom something is open.</summary>
    private static async Task<List<SlotView>> SlotsAsync(BookScope scope, TimeProvider clock, CancellationToken cancel, string customer = "")
    {
        var intake = await scope.Intakes.CurrentAsync(cancel);
        var columns = intake is null ? [] : await scope.Ledger.ExtraHeadingsAsync(intake.Id, cancel);
        var held = intake is not null && customer.Length > 0 ? (await LayoutSample.FindAsync(customer, scope, clock, cancel))?.Slots(scope, null) ?? [] : [];
        return [.. SlotCatalogue.All.Concat(columns.Select(SlotCatalogue.OfColumn)).Select(s => new SlotView(s.Name, s.Label, s.Says, s.IsHtml, held.GetValueOrDefault(s.Name, "")))];
    }

    private static async Task<List<WordingView>> ListAsync(BookScope scope, CancellationToken cancel) =>
        (await scope.Wordings.ListAsync(cancel)).ConvertAll(w => View(w.Id, w.Wording));

    private static async Task<WordingView> AddAsync(WordingRequest request, BookScope scope, CancellationToken cancel)
    {
        var wording = request.Checked();
        return View(await scope.Wordings.AddAsync(wording, cancel), wording);
    }

    private static async Task<Ok<WordingView>> UpdateAsync(long id, WordingRequest request, BookScope scope, CancellationToken cancel)
    {
        var wording = request.Checked();
        return await scope.Wordings.UpdateAsync(id, wording, cancel) ? TypedResults.Ok(View(id, wording)) : throw Unable.NotFound("This wording");
    }

    private static WordingView View(long id, Wording wording) =>
        new(id, wording.Name, wording.Language, wording.Subject, wording.Body, WordingTemplate.Of(wording).Errors);
}
