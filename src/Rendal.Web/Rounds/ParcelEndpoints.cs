using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Corrections;
using Rendal.App.Documents;
using Rendal.App.Intake;
using Rendal.App.Progress;
using Rendal.App.Readiness;
using Rendal.App.Rounds;
using Rendal.Core.Enclosures;
using Rendal.Core.Layouts;
using Rendal.Core.Parcels;
using Rendal.Core.Templates;
using Rendal.Files.Documents;
using Rendal.Mail;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Hosting;
using Rendal.Web.Wordings;

namespace Rendal.Web.Rounds;

/// <summary>A parcel as it will arrive.</summary>
/// <param name="To">The addresses that the message is to; none where no message goes.</param>
/// <param name="Copies">The addresses that get a copy which all see.</param>
/// <param name="BlindCopies">The addresses that get a copy which nobody else sees.</param>
/// <param name="Post">The lines of the address that it goes to by post; none where nothing goes by post.</param>
/// <param name="Enclosures">The files that go with it beside its document.</param>
/// <param name="Remedy">Where its problem is seen to.</param>
/// <param name="CopyForm">In what form copies among them are enclosed.</param>
/// <param name="WordingName">The name of its wording.</param>
/// <param name="WordingReason">Why it has that one; null once parcels of its round were released.</param>
/// <param name="Message">The message as a page of its own that can run nothing and fetch nothing.</param>
/// <param name="Written">The words of its message as they are written, with slots.</param>
/// <param name="Change">What a person changed on it alone.</param>
/// <param name="Remarks">What catches the eye in its message and is not meant so, the most serious first.</param>
/// <param name="Difference">How its words differ from those of all; null where they do not.</param>
internal sealed record ParcelView(
    long Id,
    string Customer,
    string Name,
    string Status,
    string Problem,
    string From,
    IReadOnlyList<string> To,
    IReadOnlyList<string> Copies,
    IReadOnlyList<string> BlindCopies,
    IReadOnlyList<string> Post,
    string Subject,
    long WordingId,
    string WordingName,
    WordingReason? WordingReason,
    IReadOnlyList<string> EmptySlots,
    IReadOnlyList<string> WordingErrors,
    IReadOnlyList<DocumentLine> Documents,
    IReadOnlyList<ParcelEnclosureView> Enclosures,
    CopyForm CopyForm,
    ProblemRemedy Remedy,
    string Message,
    ParcelWords Written,
    ParcelChangeView Change,
    ParcelDifference? Difference,
    IReadOnlyList<RemarkView> Remarks
);

/// <summary>What a person changed on one parcel.</summary>
/// <param name="Recipients">Whom its message goes to; null for those on the card.</param>
/// <param name="Words">What its message says; null for the wording.</param>
/// <param name="DocumentNote">What stands on its document beside what all have; empty for nothing.</param>
/// <param name="LeftOut">The files that would be enclosed and are not, by number.</param>
/// <param name="Added">The files that go with it alone, by number.</param>
internal sealed record ParcelChangeView(
    ParcelRecipients? Recipients,
    ParcelWords? Words,
    string DocumentNote,
    IReadOnlyList<long> LeftOut,
    IReadOnlyList<long> Added
)
{
    /// <summary>What was changed on one parcel; null where nothing was.</summary>
    public static ParcelChangeView Of(ParcelChange? change) =>
        new(change?.Recipients, change?.Words, change?.DocumentNote ?? "", change?.LeftOut ?? [], change?.Added ?? []);
}

/// <summary>What is to be changed on one parcel.</summary>
/// <param name="Recipients">Whom its message goes to; null for those on the card.</param>
/// <param name="Words">What its message says; null for the wording.</param>
/// <param name="DocumentNote">What stands on its document beside what all have; empty for nothing.</param>
/// <param name="LeftOut">The files that would be enclosed and are not to be, by number.</param>
/// <param name="Added">The files that are to go with it alone, by number.</param>
internal sealed record ParcelChangeRequest(
    RecipientsRequest? Recipients,
    ParcelWordsRequest? Words,
    [property: StringLength(ParcelChange.LongestNote)] string DocumentNote,
    [property: MaxLength(1_000)] IReadOnlyList<long>? LeftOut = null,
    [property: MaxLength(100)] IReadOnlyList<long>? Added = null
)
{
    /// <summary>The change for the use case.</summary>
    public ParcelChange Change() =>
        new()
        {
            Recipients = Recipients?.Recipients(),
            Words = Words is null ? null : new ParcelWords(Words.Subject, Words.Body),
            DocumentNote = DocumentNote,
            LeftOut = LeftOut ?? [],
            Added = Added ?? [],
        };
}

/// <summary>Whom a message goes to, as typed: each may hold several addresses.</summary>
internal sealed record RecipientsRequest(
    [property: MaxLength(200)] IReadOnlyList<string> To,
    [property: MaxLength(200)] IReadOnlyList<string> Copies,
    [property: MaxLength(200)] IReadOnlyList<string> BlindCopies
)
{
    /// <summary>The recipients for the use case.</summary>
    public ParcelRecipients Recipients() => new(To, Copies, BlindCopies);
}

/// <summary>The words of one message.</summary>
internal sealed record ParcelWordsRequest(string Subject, [property: StringLength(200_000)] string Body);

/// <summary>A file that is enclosed.</summary>
internal sealed record DocumentLine(DocumentForm Form, string Name);

/// <summary>A file that goes with a parcel beside its document.</summary>
/// <param name="File">Its number.</param>
/// <param name="Numbers">The numbers of the documents that it is a copy of; none for no copy.</param>
/// <param name="Message">Which of the messages of the parcel it goes with, from 0.</param>
internal sealed record ParcelEnclosureView(long File, string Name, long Size, IReadOnlyList<string> Numbers, int Message)
{
    /// <summary>A file that goes with the parcel.</summary>
    public static ParcelEnclosureView Of(ParcelEnclosure e) => new(e.File, e.Name, e.Size, e.Numbers, e.Message);
}

/// <summary>A person's decision about an unsure parcel.</summary>
internal sealed record UnsureRequest(bool Went);

/// <summary>Looking at single parcels.</summary>
internal static class ParcelEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/parcels/{parcel}</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/parcels/{parcel:long}").WithTags("Parcels");
        group.MapGet("", ViewAsync);
        group.MapGet("/document", DocumentAsync);
        group.MapGet("/places", PlacesAsync);
        group.MapGet("/source", SourceAsync);
        group.MapPost("/source", PutRightAsync);
        group.MapGet("/addresses", AddressesAsync);
        group.MapPut("/change", ChangeAsync);
        group.MapPut("/recipients-for-good", RecipientsForGoodAsync);
        group.MapPost("/unsure", DecideUnsureAsync);
        group.MapPost("/retry", RetryAsync);
    }

    private static async Task<ParcelView> ViewAsync(long parcel, BookScope scope, CancellationToken cancel)
    {
        var made = await ParcelContent.LoadAsync(parcel, scope, cancel);
        var filled = made.TracedWords();
        var recipients = made.Recipients;
        var (assigned, written) = (made.Assigned, made.Written);
        var wording = made.Round.Round.ReleasedAt is not null && made.Parcel.Wording is { } went ? went : assigned.Id;
        var body = filled?.Body ?? "<p>The wording has an error, so that there is no message yet.</p>";
        return new ParcelView(
            parcel,
            made.Parcel.Customer,
            made.Parcel.Name,
            made.Parcel.Status,
            made.Parcel.Problem,
            made.Round.Sender.ShownTo(scope.Person),
            Shown(recipients.To, made),
            Shown(recipients.Copies, made),
            Shown(recipients.BlindCopies, made),
            made.Parcel.OnPaper ? [.. made.Card.PostalLines.Append(made.Card.Country).Where(l => l.Length > 0)] : [],
            filled?.Subject ?? "",
            wording,
            made.Round.WordingOf(wording).Name,
            made.Round.Round.ReleasedAt is null ? assigned.Reason : null,
            filled?.EmptySlots.Select(s => s.Label).ToList() ?? [],
            made.Wording.Errors,
            [
                .. made
                    .Layout.Layout.Forms.Order()
                    .Zip(DocumentFile.Names(made.Document(), made.Layout.Layout), (form, name) => new DocumentLine(form, name)),
            ],
            [.. made.Parcel.Enclosures.Select(ParcelEnclosureView.Of)],
            made.Round.Round.Enclosing.Copies,
            ProblemRemedies.Of(made.Parcel.Problem),
            Guards.SandboxedPage(
                MessageBuilder.Page(await PictureEndpoints.ShownAsync(body, scope, cancel), made.Card.Language, filled?.Subject ?? "")
            ),
            new ParcelWords(written.Subject, written.Body),
            ParcelChangeView.Of(made.Change),
            ParcelDifference.Of(made),
            await RemarksAsync(made, scope, cancel)
        );
    }

    private static async Task<List<RemarkView>> RemarksAsync(ParcelContent made, BookScope scope, CancellationToken cancel)
    {
        if (made.Parcel.Remarks.Count == 0 || made.Parcel.Wording is not { } wording)
        {
            return [];
        }

        var meant = await scope.Remarks.MeantAsync(wording, cancel);
        return [.. made.Parcel.Remarks.Where(r => !meant.Contains((r.Code, r.Quote))).Select(RemarkView.Of)];
    }

    // Of a list that is too long, so many as a message goes to: those that are stored with the parcel.
    private static List<string> Shown(IReadOnlyList<string> addresses, ParcelContent made) =>
        [.. addresses.Intersect(made.Parcel.Recipients)];

    private static async Task<NoContent> ChangeAsync(
        long parcel,
        long revision,
        ParcelChangeRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new ChangeParcel(scope, clock).RunAsync(parcel, revision, request.Change(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RecipientsForGoodAsync(
        long parcel,
        long revision,
        RecipientsRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new ChangeParcel(scope, clock).RecipientsForGoodAsync(parcel, revision, request.Recipients(), cancel);
        return TypedResults.NoContent();
    }

    /// <summary>The addresses that a parcel’s message may be sent to: those on the cards of its customer and the head office.</summary>
    private static async Task<IReadOnlyList<SuggestedAddress>> AddressesAsync(long parcel, BookScope scope, CancellationToken cancel)
    {
        var (_, of) = await scope.Rounds.ParcelAsync(parcel, cancel) ?? throw ProblemException.NotFound("This parcel");
        return await new AddressSuggestions(scope).RunAsync(of.Customer, cancel);
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

    /// <summary>Where on the pages of its document stands what was taken from the ledger or a card.</summary>
    private static async Task<PlacesView> PlacesAsync(long parcel, BookScope scope, PreviewRenderer press, CancellationToken cancel)
    {
        var made = await ParcelContent.LoadAsync(parcel, scope, cancel);
        var (places, page) = await press.PlacesAsync(scope.Book.Id, made.Document(), made.Layout.Layout, cancel);
        return PlacesView.Of(places, page);
    }

    /// <summary>The cell of the ledger file that something in a parcel was read from.</summary>
    /// <param name="parcel">The parcel.</param>
    /// <param name="from">What it was taken from, as the preview says: <c>row 12 due</c>.</param>
    private static async Task<SourceView> SourceAsync(
        long parcel,
        string from,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel
    ) => new(await new CorrectLedger(scope, files, clock).FindAsync(parcel, OfRow(from), cancel));

    private static async Task<NoContent> PutRightAsync(
        long parcel,
        string from,
        SourceRequest request,
        BookScope scope,
        OpenedFiles files,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new CorrectLedger(scope, files, clock).RunAsync(parcel, OfRow(from), request.Becomes, new ProgressMeter(), cancel);
        return TypedResults.NoContent();
    }

    private static Origin OfRow(string from) =>
        Origin.Parse(from) is { Kind: OriginKind.Row } origin
            ? origin
            : throw ProblemException.Invalid($"“{from}” is no row of a ledger file.");

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
