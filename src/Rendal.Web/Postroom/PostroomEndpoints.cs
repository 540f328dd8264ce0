using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.Postroom;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Hosting;

namespace Rendal.Web.Postroom;

/// <summary>A message that the postroom received.</summary>
/// <param name="Id">Its number.</param>
/// <param name="ReceivedAt">When.</param>
/// <param name="Recipients">Whom it was for.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="EnclosureCount">How many files are enclosed.</param>
/// <param name="Deliveries">How often it came. Once is how it should be.</param>
internal sealed record ReceivedLine(
    long Id,
    DateTimeOffset ReceivedAt,
    IReadOnlyList<string> Recipients,
    string Subject,
    int EnclosureCount,
    int Deliveries
);

/// <summary>What the postroom received.</summary>
/// <param name="Count">How many messages in all.</param>
/// <param name="Found">How many of them are what was searched for.</param>
/// <param name="Twice">How many messages came more than once. None should.</param>
/// <param name="Messages">The newest of those found.</param>
internal sealed record ReceivedList(int Count, int Found, int Twice, IReadOnlyList<ReceivedLine> Messages);

/// <summary>A drill to begin, or that goes on.</summary>
/// <param name="Step">Where in the conversation.</param>
/// <param name="Act">What happens.</param>
/// <param name="Answer">The server's words where it answers otherwise than usual; else empty.</param>
/// <param name="To">Only for messages to an address that holds this; empty for all.</param>
/// <param name="Left">How often it still happens; null until it is ended.</param>
internal sealed record DrillView(DrillStep Step, DrillAct Act, string Answer, string To, int? Left);

/// <summary>The drills that go on in the postroom for this book.</summary>
/// <param name="Drills">The drills.</param>
/// <param name="LargestBytes">The largest message that it takes.</param>
/// <param name="AMinute">How many messages a minute it takes; null for as many as come.</param>
internal sealed record DrillsView(IReadOnlyList<DrillView> Drills, int LargestBytes, int? AMinute);

/// <summary>The limits that the postroom is to have.</summary>
internal sealed record LimitsRequest(int LargestBytes, int? AMinute);

/// <summary>What the practice mail server received from this book's practice sender, and how it is to misbehave.</summary>
internal static class PostroomEndpoints
{
    private const int MostListed = 300;

    /// <summary>The endpoints of a book that stand under <c>/postroom</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/postroom").WithTags("Postroom");
        group.MapGet("", List);
        group.MapDelete("", Clear);
        group.MapGet("/drills", (BookScope scope, Drills drills) => View(scope, drills));
        group.MapPost("/drills", Begin);
        group.MapPut("/drills/limits", Limit);
        group.MapDelete("/drills", End);
        group.MapGet("/{id:long}", (long id, BookScope scope, Mailbox mailbox) => MessageView.Of(Bytes(id, scope, mailbox)));
        group.MapGet("/{id:long}/page", (long id, BookScope scope, Mailbox mailbox, HttpContext context) =>
            Guards.SandboxedHtml(context, MessageView.Html(Bytes(id, scope, mailbox)))
        );
        group.MapGet("/{id:long}/message.eml", (long id, BookScope scope, Mailbox mailbox) =>
            DispatchEndpoints.Save(Bytes(id, scope, mailbox), $"postroom-{id}.eml")
        );
        group.MapPost("/{id:long}/return", Return);
        group.MapGet("/{id:long}/enclosures/{index:int}", (long id, int index, BookScope scope, Mailbox mailbox) =>
            DispatchEndpoints.Send(MessageView.Enclosure(Bytes(id, scope, mailbox), index))
        );
    }

    private static ReceivedList List(BookScope scope, Mailbox mailbox, string search = "")
    {
        var all = mailbox.Of(Account(scope));
        var found =
            search.Length == 0
                ? all
                :
                [
                    .. all.Where(m =>
                        m.Subject.Contains(search, StringComparison.OrdinalIgnoreCase)
                        || m.Recipients.Any(r => r.Contains(search, StringComparison.OrdinalIgnoreCase))
                    ),
                ];
        var deliveries = mailbox.Deliveries(Account(scope));
        return new ReceivedList(
            all.Count,
            found.Count,
            deliveries.Values.Count(times => times > 1),
            [
                .. found
                    .Take(MostListed)
                    .Select(m => new ReceivedLine(
                        m.Id,
                        m.ReceivedAt,
                        m.Recipients,
                        m.Subject,
                        m.EnclosureCount,
                        deliveries.GetValueOrDefault(m.MessageId, 1)
                    )),
            ]
        );
    }

    /// <summary>
    /// Drills that are met before anybody has signed in would be met by other books too; those of a book begin at its sign-in.
    /// </summary>
    private static DrillsView Begin(DrillView request, BookScope scope, Drills drills)
    {
        var drill = new Drill(
            request.Step,
            request.Act,
            request.Act == DrillAct.Answer ? request.Answer.Trim() : "",
            request.To.Trim(),
            request.Left
        );
        if (drill.Step < DrillStep.SignIn)
        {
            throw ProblemException.Invalid(
                "Other books practise here as well. A drill of this book begins at the sign-in at the earliest."
            );
        }

        drills.Begin(Account(scope), drill.Problem is { } problem ? throw ProblemException.Invalid(problem) : drill);
        return View(scope, drills);
    }

    private static DrillsView Limit(LimitsRequest request, BookScope scope, Drills drills)
    {
        drills.Limit(
            Account(scope),
            request is { LargestBytes: >= 1_000 and <= 100_000_000, AMinute: null or >= 1 }
                ? new PracticeLimits(request.LargestBytes, request.AMinute)
                : throw ProblemException.Invalid("The largest message is from 1 kB to 100 MB, and at least one message a minute is taken.")
        );
        return View(scope, drills);
    }

    private static DrillsView End(BookScope scope, Drills drills)
    {
        drills.End(Account(scope));
        return View(scope, drills);
    }

    private static DrillsView View(BookScope scope, Drills drills)
    {
        var limits = drills.LimitsOf(Account(scope));
        return new DrillsView(
            [.. drills.Of(Account(scope)).Select(d => new DrillView(d.Step, d.Act, d.Answer, d.To, d.Left))],
            limits.LargestMessage,
            limits.MessagesAMinute
        );
    }

    /// <summary>Lets a delivery report come back for the first recipient of a message, as if its mailbox were not there.</summary>
    private static ReceivedLine Return(long id, BookScope scope, Mailbox mailbox, TimeProvider clock)
    {
        var message = mailbox.Find(Account(scope), id) ?? throw ProblemException.NotFound("This message");
        var now = clock.GetUtcNow();
        var report = mailbox.Add(
            Account(scope),
            "",
            [message.From],
            DeliveryReport.Of(mailbox.Bytes(message), message.From, message.Recipients[0], "5.1.1", "550 5.1.1 no such mailbox here", now),
            now
        );
        return new ReceivedLine(report.Id, report.ReceivedAt, report.Recipients, report.Subject, report.EnclosureCount, 1);
    }

    private static NoContent Clear(BookScope scope, Mailbox mailbox)
    {
        mailbox.Clear(Account(scope));
        return TypedResults.NoContent();
    }

    private static byte[] Bytes(long id, BookScope scope, Mailbox mailbox) =>
        mailbox.Find(Account(scope), id) is { } message ? mailbox.Bytes(message) : throw ProblemException.NotFound("This message");

    private static string Account(BookScope scope) => BookAccounts.Name(scope.Book.Id);
}
