using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.Files;
using Rendal.Files.Documents;
using Rendal.Files.Post;
using Rendal.Mail;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Rounds;

/// <summary>What of a round leaves as files: messages for another mail program, letters to be printed.</summary>
internal static class RoundFileEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/rounds/{id}</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/rounds/{id:long}").WithTags("Rounds");
        group.MapGet("/messages.zip", ZipAsync);
        group.MapGet("/messages.mbox", MboxAsync);
        group.MapGet("/post.pdf", PostAsync);
    }

    /// <summary>The messages of a round that leave as files, as .eml in a ZIP.</summary>
    private static async Task<FileStreamHttpResult> ZipAsync(long id, BookScope scope, CancellationToken cancel) =>
        await FileAsync(
            id,
            scope,
            "application/zip",
            "zip",
            file => MessageFiles.WriteZipAsync(file, Named(scope.Dispatch.ExportedAsync(id, cancel)), cancel),
            cancel
        );

    /// <summary>The messages of a round that leave as files, as one mbox.</summary>
    private static async Task<FileStreamHttpResult> MboxAsync(long id, BookScope scope, TimeProvider clock, CancellationToken cancel) =>
        await FileAsync(
            id,
            scope,
            "application/mbox",
            "mbox",
            file =>
                MessageFiles.WriteMboxAsync(
                    file,
                    scope.Dispatch.ExportedAsync(id, cancel).Select(m => m.Bytes),
                    clock.GetUtcNow(),
                    cancel
                ),
            cancel
        );

    /// <summary>All letters of a round in one PDF to be printed.</summary>
    /// <param name="id">The round.</param>
    /// <param name="bothSides">Whether it is printed on both sides.</param>
    private static async Task<FileStreamHttpResult> PostAsync(long id, BookScope scope, CancellationToken cancel, bool bothSides = false)
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        var letters = await scope.Dispatch.LettersAsync(id, cancel);
        return letters.Count == 0
            ? throw ProblemException.Conflict("Nothing of this round was made up for the post yet.")
            : await FileOnTheWay.SendAsync(DocumentFile.PdfType, FileName.Safe($"{round.Name} post", ".pdf"), file =>
            {
                PostBundle.Write(
                    file,
                    round.Name,
                    letters.Select(p => new PostPiece(p.Customer, p.Name, p.Lines, p.Country, p.Pdf)),
                    bothSides,
                    scope.Book.Firm.OwnCountry()
                );
                return Task.CompletedTask;
            });
    }

    private static async IAsyncEnumerable<(string FileName, byte[] Bytes)> Named(
        IAsyncEnumerable<(string Customer, string Name, byte[] Bytes)> messages
    )
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        await foreach (var (customer, name, bytes) in messages)
        {
            yield return (FileName.Unique(FileName.Safe($"{customer} {name}", ".eml"), taken), bytes);
        }
    }

    private static async Task<FileStreamHttpResult> FileAsync(
        long id,
        BookScope scope,
        string contentType,
        string ending,
        Func<Stream, Task> write,
        CancellationToken cancel
    )
    {
        var round = await scope.Rounds.FindAsync(id, cancel) ?? throw ProblemException.NotFound("This round");
        return await FileOnTheWay.SendAsync(contentType, FileName.Safe(round.Name, "." + ending), write);
    }
}
