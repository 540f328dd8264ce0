using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Documents;
using Rendal.App.Rounds;
using Rendal.Core.Layouts;
using Rendal.Files.Documents;
using Rendal.Mail;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Hosting;
using Rendal.Web.Wordings;

namespace Rendal.Web.Rounds;

/// <summary>A parcel as it will arrive.</summary>
/// <param name="To">The addresses that the message goes to; none where no message goes.</param>
/// <param name="Post">The lines of the address that it goes to by post; none where nothing goes by post.</param>
/// <param name="Message">The message as a page of its own that can run nothing and fetch nothing.</param>
internal sealed record ParcelView(
    long Id,
    string Customer,
    string Name,
    string Status,
    string Problem,
    string From,
    IReadOnlyList<string> To,
    IReadOnlyList<string> Post,
    string Subject,
    long WordingId,
    IReadOnlyList<string> EmptySlots,
    IReadOnlyList<string> WordingErrors,
    IReadOnlyList<DocumentLine> Documents,
    string Message
);

/// <summary>A file that is enclosed.</summary>
internal sealed record DocumentLine(DocumentForm Form, string Name);

/// <summary>A person's decision about an unsure parcel.</summary>
internal sealed record UnsureRequest(bool Went);

/// <summary>Looking at single parcels.</summary>
internal static class ParcelEndpoints
{
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/parcels/{parcel:long}").WithTags("Parcels");
        group.MapGet("", ViewAsync);
        group.MapGet("/document", DocumentAsync);
        group.MapPost("/unsure", DecideUnsureAsync);
        group.MapPost("/retry", RetryAsync);
    }

    private static async Task<ParcelView> ViewAsync(long parcel, BookScope scope, CancellationToken cancel)
    {
        var made = await ParcelContent.LoadAsync(parcel, scope, cancel);
        var filled = made.Words();
        var body = filled?.Body ?? "<p>The wording has an error, so that there is no message yet.</p>";
        return new ParcelView(
            parcel,
            made.Parcel.Customer,
            made.Parcel.Name,
            made.Parcel.Status,
            made.Parcel.Problem,
            made.Round.Sender.ShownTo(scope.Person),
            made.Parcel.Recipients,
            made.Parcel.OnPaper ? [.. made.Card.PostalLines.Append(made.Card.Country).Where(l => l.Length > 0)] : [],
            filled?.Subject ?? "",
            made.Round.WordingIdFor(made.Card, made.Parcel.ReminderLevel),
            filled?.EmptySlots.Select(s => s.Label).ToList() ?? [],
            made.Wording.Errors,
            [
                .. made
                    .Layout.Layout.Forms.Order()
                    .Zip(DocumentFile.Names(made.Document(), made.Layout.Layout), (form, name) => new DocumentLine(form, name)),
            ],
            Guards.SandboxedPage(
                MessageBuilder.Page(await PictureEndpoints.ShownAsync(body, scope, cancel), made.Card.Language, filled?.Subject ?? "")
            )
        );
    }

    /// <summary>A file as it will be enclosed; as a PDF it can be looked at even where it goes out in another form alone.</summary>
    private static async Task<FileContentHttpResult> DocumentAsync(
        long parcel,
        BookScope scope,
        PreviewRenderer press,
        CancellationToken cancel,
        string form = "pdf"
    )
    {
        var made = await ParcelContent.LoadAsync(parcel, scope, cancel);
        if (
            !Enum.TryParse<DocumentForm>(form, ignoreCase: true, out var known)
            || (known != DocumentForm.Pdf && !made.Layout.Layout.Forms.Contains(known))
        )
        {
            throw ProblemException.NotFound("This document");
        }

        var file = await press.MakeAsync(scope.Book.Id, made.Document(), made.Layout.Layout, known, cancel);
        return DispatchEndpoints.Send((file.Name, file.ContentType, file.Bytes));
    }

    private static async Task<NoContent> DecideUnsureAsync(
        long parcel,
        UnsureRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        await scope.Dispatch.DecideUnsureAsync(parcel, request.Went, scope.Person, clock.GetUtcNow(), cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.Conflict("This parcel is not unsure.");

    private static async Task<NoContent> RetryAsync(long parcel, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await scope.Dispatch.RetryAsync(parcel, scope.Person, clock.GetUtcNow(), cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.Conflict(
                "This parcel is not one whose message could not be made, or it goes with another round now."
            );
}
