using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Postroom;
using Rendal.Web.Books;
using Rendal.Web.Dispatch;
using Rendal.Web.Hosting;

namespace Rendal.Web.Postroom;

/// <summary>What the practice mail server received from this book's practice sender.</summary>
internal static class PostroomEndpoints
{
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/postroom").WithTags("Postroom");
        group.MapGet("", (BookScope scope, Mailbox mailbox) => mailbox.Of(Account(scope)));
        group.MapDelete("", Clear);
        group.MapGet("/{id:long}", (long id, BookScope scope, Mailbox mailbox) => MessageView.Of(Bytes(id, scope, mailbox)));
        group.MapGet("/{id:long}/page", (long id, BookScope scope, Mailbox mailbox, HttpContext context) => Guards.SandboxedHtml(context, MessageView.Html(Bytes(id, scope, mailbox))));
        group.MapGet("/{id:long}/message.eml", (long id, BookScope scope, Mailbox mailbox) => DispatchEndpoints.Save(Bytes(id, scope, mailbox), $"postroom-{id}.eml"));
        group.MapGet("/{id:long}/enclosures/{index:int}", (long id, int index, BookScope scope, Mailbox mailbox) => DispatchEndpoints.Send(MessageView.Enclosure(Bytes(id, scope, mailbox), index)));
    }

    private static NoContent Clear(BookScope scope, Mailbox mailbox)
    {
        mailbox.Clear(Account(scope));
        return TypedResults.NoContent();
    }

    private static byte[] Bytes(long id, BookScope scope, Mailbox mailbox) =>
        mailbox.Find(Account(scope), id) is { } message ? mailbox.Bytes(message) : throw Unable.NotFound("This message");

    private static string Account(BookScope scope) => BookMaking.PracticeAccount(scope.Book.Id);
}
