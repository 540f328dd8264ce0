using Npgsql;
using Rendal.Core.Budgets;
using Rendal.Mail;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Dispatch;

/// <summary>What became of one message of the files that were taken in.</summary>
/// <param name="File">The file that it was in, or the mailbox.</param>
/// <param name="Outcome"><c>returned</c>, <c>delayed</c>, <c>automatic-reply</c>, <c>no-report</c>, <c>fits-none</c> or <c>known</c>.</param>
/// <param name="Customer">The customer's key; empty where it fits none.</param>
/// <param name="Name">The customer's name; empty where it fits none.</param>
/// <param name="Addresses">The addresses that count as returned from now on, or that it speaks of.</param>
/// <param name="Reason">Why, on one line.</param>
internal sealed record ReturnedView(string File, string Outcome, string Customer, string Name, IReadOnlyList<string> Addresses, string Reason);

/// <summary>Taking in what came back.</summary>
internal static class ReturnedEndpoints
{
    private const int MostMessages = 5_000;

    public static void Map(RouteGroupBuilder book) =>
        book.MapGroup("/returned").WithTags("Dispatch").MapPost("", TakeAsync).DisableAntiforgery();

    /// <summary>Takes messages in from .eml and mbox files.</summary>
    private static async Task<List<ReturnedView>> TakeAsync(IFormFileCollection files, BookScope scope, NpgsqlDataSource source, TimeProvider clock, CancellationToken cancel)
    {
        var taking = new ReturnedTaking(source, scope.Book.Id, clock);
        var views = new List<ReturnedView>();
        foreach (var file in files)
        {
            using var content = new MemoryStream();
            await file.CopyToAsync(content, cancel);
            content.Position = 0;
            try
            {
                foreach (var (message, bytes) in ReturnedMail.Open(content))
                {
                    if (views.Count == MostMessages)
                    {
                        throw Unable.Invalid($"{file.FileName} has more than {MostMessages} messages; the first {MostMessages} were taken in. Divide the file.");
                    }

                    views.Add(await taking.TakeAsync(file.FileName, message, bytes, scope.Person, cancel));
                }
            }
            catch (OverBudget e)
            {
                throw Unable.Invalid($"{file.FileName}: {e.Message}");
            }
            catch (FormatException)
            {
                throw Unable.Invalid($"{file.FileName} is no message. Save the mail that came back as .eml, or many of them as mbox, and take that in.");
            }
        }

        return views;
    }
}
