using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Returned;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Dispatch;

/// <summary>What a person says of a message that was unclear.</summary>
/// <param name="IsFailure">Whether it says that the parcel was not delivered.</param>
internal sealed record ReturnedDecision(bool IsFailure);

/// <summary>Taking in what came back.</summary>
internal static class ReturnedEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/returned</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/returned").WithTags("Dispatch");
        group.MapPost("", TakeAsync).DisableAntiforgery();
        group.MapGet("/unclear", async (BookScope scope, CancellationToken cancel) => await scope.Returned.UnclearAsync(cancel));
        group.MapGet("/{id:long}", async (long id, BookScope scope, CancellationToken cancel) =>
            MessageView.Of(await BytesAsync(id, scope, cancel))
        );
        group.MapGet("/{id:long}/page", async (long id, BookScope scope, HttpContext context, CancellationToken cancel) =>
            Guards.SandboxedHtml(context, MessageView.Html(await BytesAsync(id, scope, cancel)))
        );
        group.MapGet("/{id:long}/message.eml", async (long id, BookScope scope, CancellationToken cancel) =>
            DispatchEndpoints.Save(await BytesAsync(id, scope, cancel), string.Create(CultureInfo.InvariantCulture, $"came-back-{id}.eml"))
        );
        group.MapGet("/{id:long}/enclosures/{index:int}", async (long id, int index, BookScope scope, CancellationToken cancel) =>
            DispatchEndpoints.Send(MessageView.Enclosure(await BytesAsync(id, scope, cancel), index))
        );
        group.MapPut("/{id:long}/decision", DecideAsync);
    }

    private static async Task<byte[]> BytesAsync(long id, BookScope scope, CancellationToken cancel) =>
        await scope.Returned.MessageAsync(id, cancel) ?? throw ProblemException.NotFound("This message");

    /// <summary>Says of a message that was unclear whether the parcel came back.</summary>
    private static async Task<NoContent> DecideAsync(
        long id,
        ReturnedDecision decision,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        await scope.Returned.DecideAsync(id, decision.IsFailure, scope.Person, clock.GetUtcNow(), cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.Conflict("This message is decided already.");

    /// <summary>Takes messages in from .eml and mbox files.</summary>
    private static async Task<List<TakenReturn>> TakeAsync(
        IFormFileCollection files,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var taking = new TakeReturned(scope, clock);
        var views = new List<TakenReturn>();
        foreach (var file in files)
        {
            using var content = new MemoryStream();
            await file.CopyToAsync(content, cancel);
            content.Position = 0;
            views.AddRange(await taking.RunAsync(file.FileName, content, cancel));
        }

        return views;
    }
}
