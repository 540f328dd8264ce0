using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Rendal.App;
using Rendal.App.Rounds;
using Rendal.Files;
using Rendal.Files.Csv;
using Rendal.Files.Documents;
using Rendal.Store;
using Rendal.Store.Dispatch;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Dispatch;

/// <summary>What is to be added to the record of a parcel.</summary>
internal sealed record NoteRequest(string Text);

/// <summary>The round that sends a parcel once more.</summary>
internal sealed record RepeatView(long Round);

/// <summary>A round that the log can be searched by.</summary>
internal sealed record ReleasedRound(long Id, string Name);

/// <summary>What is looked for in the log.</summary>
internal sealed class LogQuery
{
    /// <summary>What occurs in customer, subject, address, Message-ID, round or the server's words, or is an item's number.</summary>
    [FromQuery(Name = "search")]
    public string? Text { get; init; }

    /// <summary>How the try ended, or <c>returned</c>.</summary>
    [FromQuery(Name = "outcome")]
    public string? Outcome { get; init; }

    /// <summary>The first day.</summary>
    [FromQuery(Name = "from")]
    public DateOnly? From { get; init; }

    /// <summary>The last day.</summary>
    [FromQuery(Name = "to")]
    public DateOnly? To { get; init; }

    /// <summary>The round.</summary>
    [FromQuery(Name = "round")]
    public long? Round { get; init; }

    /// <summary>The search that is asked for; nothing is searched for where nothing is said.</summary>
    public LogSearch Search() => new(Text?.Trim() ?? "", Outcome ?? "", From, To, Round);
}

/// <summary>The record of what went out.</summary>
internal static class DispatchEndpoints
{
    private const int MostListed = 500;
    private const int LongestNote = 2_000;

    private static readonly string[] Headings =
    [
        "Started",
        "Ended",
        "Outcome",
        "Server's answer",
        "Repeat",
        "Rehearsal",
        "Round",
        "Customer",
        "Name",
        "Subject",
        "Sender",
        "Recipients",
        "Message-ID",
        "SHA-256",
        "Bytes",
    ];

    /// <summary>The endpoints of a book that stand under <c>/dispatch</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/dispatch").WithTags("Dispatch");
        group.MapGet("", async ([AsParameters] LogQuery query, BookScope scope, CancellationToken cancel) =>
            await scope.Log.SearchAsync(query.Search(), MostListed, cancel)
        );
        group.MapGet("/rounds", async (BookScope scope, CancellationToken cancel) =>
            (await scope.Rounds.ReleasedAsync(cancel)).ConvertAll(r => new ReleasedRound(r.Id, r.Name))
        );
        group.MapGet("/log.csv", CsvAsync);
        group.MapGet("/log.xlsx", XlsxAsync);
        var messages = group.MapGroup("/{parcel:long}/messages/{message:int}");
        messages.MapGet("", async (long parcel, int message, BookScope scope, CancellationToken cancel) =>
            MessageView.Of(await BytesAsync(parcel, message, scope, cancel))
        );
        messages.MapGet("/page", async (long parcel, int message, BookScope scope, HttpContext context, CancellationToken cancel) =>
            Guards.SandboxedHtml(context, MessageView.Html(await BytesAsync(parcel, message, scope, cancel)))
        );
        messages.MapGet("/message.eml", async (long parcel, int message, BookScope scope, CancellationToken cancel) =>
            Save(await BytesAsync(parcel, message, scope, cancel), EmlName(parcel, message))
        );
        messages.MapGet(
            "/enclosures/{index:int}",
            async (long parcel, int message, int index, BookScope scope, CancellationToken cancel) =>
                Send(MessageView.Enclosure(await BytesAsync(parcel, message, scope, cancel), index))
        );
        group.MapGet("/{parcel:long}/letter", async (long parcel, BookScope scope, CancellationToken cancel) =>
            Send(await scope.Log.LetterAsync(parcel, cancel) is var (name, pdf) ? (name, DocumentFile.PdfType, pdf) : null)
        );
        group.MapGet("/{parcel:long}/notes", async (long parcel, BookScope scope, CancellationToken cancel) =>
            await scope.Log.NotesAsync(parcel, cancel)
        );
        group.MapPost("/{parcel:long}/notes", NoteAsync);
        group.MapPost("/{parcel:long}/repeat", RepeatAsync);
    }

    private static async Task<List<DispatchNote>> NoteAsync(
        long parcel,
        NoteRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var text = request.Text.Trim();
        if (text.Length is 0 or > LongestNote)
        {
            throw ProblemException.Invalid($"A note has words, and at most {LongestNote} characters.");
        }

        return await scope.Log.AddNoteAsync(parcel, text, scope.Person, clock.GetUtcNow(), cancel)
            ? await scope.Log.NotesAsync(parcel, cancel)
            : throw ProblemException.NotFound("This message");
    }

    /// <summary>Makes a round that sends a parcel once more, to be looked through and released.</summary>
    private static async Task<RepeatView> RepeatAsync(long parcel, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        new(await new RepeatParcel(scope, clock).RunAsync(parcel, cancel));

    /// <summary>Sends an enclosed file. Only a PDF is shown in the browser; anything else is saved, so that it can run nothing.</summary>
    public static FileContentHttpResult Send((string Name, string ContentType, byte[] Bytes)? file) =>
        file is not { } found ? throw ProblemException.NotFound("This enclosure")
        : found.ContentType == "application/pdf" ? TypedResults.File(found.Bytes, found.ContentType)
        : TypedResults.File(
            found.Bytes,
            "application/octet-stream",
            FileName.Safe(Path.GetFileNameWithoutExtension(found.Name), Path.GetExtension(found.Name))
        );

    /// <summary>Sends a message to be saved as a file. As plain bytes, so that no browser tries to show it instead.</summary>
    public static FileContentHttpResult Save(byte[] message, string name) => TypedResults.File(message, "application/octet-stream", name);

    private static string EmlName(long parcel, int message) =>
        message == 0
            ? string.Create(CultureInfo.InvariantCulture, $"parcel-{parcel}.eml")
            : string.Create(CultureInfo.InvariantCulture, $"parcel-{parcel}-{message + 1}.eml");

    private static async Task<byte[]> BytesAsync(long parcel, int message, BookScope scope, CancellationToken cancel) =>
        await scope.Log.MessageAsync(parcel, message, cancel) ?? throw ProblemException.NotFound("This message");

    private static async Task CsvAsync([AsParameters] LogQuery query, BookScope scope, HttpContext context, CancellationToken cancel)
    {
        context.Response.ContentType = "text/csv; charset=utf-8";
        context.Response.Headers.ContentDisposition = "attachment; filename=\"dispatch log.csv\"";
        await CsvText.WriteAsync(context.Response.Body, Rows(scope, query.Search(), cancel), cancel);
    }

    private static Task<FileStreamHttpResult> XlsxAsync([AsParameters] LogQuery query, BookScope scope, CancellationToken cancel) =>
        FileOnTheWay.SendAsync("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "dispatch log.xlsx", file =>
            TextWorkbook.WriteAsync(file, "Dispatch log", Rows(scope, query.Search(), cancel), cancel)
        );

    private static async IAsyncEnumerable<IReadOnlyList<string>> Rows(
        BookScope scope,
        LogSearch search,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        yield return Headings;
        await foreach (var e in scope.Log.AllAsync(search, cancel))
        {
            yield return
            [
                Time(e.StartedAt),
                e.EndedAt is { } ended ? Time(ended) : "",
                e.GaveUp ? "given-up"
                : e.Outcome is { } outcome ? EnumText.Of(outcome)
                : "",
                e.Answer,
                e.IsRepeat ? "yes" : "",
                e.IsRehearsal ? "yes" : "",
                e.RoundName,
                e.Customer,
                e.CustomerName,
                e.Subject,
                e.Sender,
                string.Join("; ", e.Recipients),
                e.MessageId,
                e.Sha256,
                e.Size.ToString(CultureInfo.InvariantCulture),
            ];
        }

        // By the book's clock, with how far that is from UTC, so that a moment is one wherever the file is read.
        string Time(DateTimeOffset time) => scope.Book.ByItsClock(time).ToString("yyyy-MM-dd HH:mm:sszzz", CultureInfo.InvariantCulture);
    }
}
