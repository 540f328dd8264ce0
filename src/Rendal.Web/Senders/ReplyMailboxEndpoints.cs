using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Returned;
using Rendal.App.Senders;
using Rendal.Store.Returned;
using Rendal.Store.Senders;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Senders;

/// <summary>The mailbox that what came back to a sender is fetched from; its password is never shown.</summary>
/// <param name="IsKept">Whether it is fetched from; else it is what is proposed.</param>
/// <param name="Host">The server’s name.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c>, <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in.</param>
/// <param name="HasPassword">Whether it has a password of its own; else the sender’s is used.</param>
/// <param name="LookedAt">When it was looked through last.</param>
/// <param name="Taken">How many messages about parcels that brought.</param>
/// <param name="Trouble">What kept it from being looked through; empty where nothing did.</param>
internal sealed record ReplyMailboxView(
    bool IsKept,
    string Host,
    int Port,
    string Security,
    string UserName,
    bool HasPassword,
    DateTimeOffset? LookedAt,
    int Taken,
    string Trouble
);

/// <summary>A mailbox to be fetched from; without a password the one that was given for the same server stays.</summary>
internal sealed record ReplyMailboxRequest(
    [property: StringLength(255)] string Host,
    int Port,
    [property: StringLength(10)] string Security,
    [property: StringLength(255)] string UserName,
    [property: StringLength(10_000)] string? Password
);

/// <summary>The mailboxes that what came back is fetched from.</summary>
internal static class ReplyMailboxEndpoints
{
    private const int UsualPort = 993;

    /// <summary>The endpoints of a book that stand under <c>/senders/{id}/replies</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/senders/{id:long}/replies").WithTags("Senders");
        group.MapGet("", ViewAsync);
        group.MapPut("", PutAsync);
        group.MapDelete("", RemoveAsync);
        group.MapPost("/fetch", FetchAsync);
    }

    private static async Task<ReplyMailboxView> ViewAsync(
        long id,
        BookScope scope,
        ReplyMailboxStore mailboxes,
        SenderSecrets secrets,
        HostParts parts,
        CancellationToken cancel
    )
    {
        var sender = await UsableSender.FindAsync(id, scope, cancel);
        return await mailboxes.FindAsync(scope.Book.Id, id, cancel) is { } kept
            ? new ReplyMailboxView(
                true,
                kept.Host,
                kept.Port,
                kept.Security,
                kept.UserName,
                secrets.AccountOf(kept) is { Password.Length: > 0 },
                kept.LookedAt,
                kept.Taken,
                kept.Trouble
            )
            : Proposed(sender, secrets, parts);
    }

    private static async Task<ReplyMailboxView> PutAsync(
        long id,
        ReplyMailboxRequest request,
        BookScope scope,
        ReplyMailboxStore mailboxes,
        SenderSecrets secrets,
        HostParts parts,
        CancellationToken cancel
    )
    {
        await new KeepReplyMailbox(scope, mailboxes, secrets).RunAsync(
            id,
            request.Host,
            request.Port,
            request.Security,
            request.UserName,
            request.Password,
            cancel
        );
        return await ViewAsync(id, scope, mailboxes, secrets, parts, cancel);
    }

    private static async Task<NoContent> RemoveAsync(long id, BookScope scope, ReplyMailboxStore mailboxes, CancellationToken cancel)
    {
        await UsableSender.FindAsync(id, scope, cancel);
        return await mailboxes.RemoveAsync(scope.Book.Id, id, cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.NotFound("A mailbox of this sender");
    }

    private static async Task<FetchedReplies> FetchAsync(
        long id,
        BookScope scope,
        ReplyMailboxStore mailboxes,
        ReplyFetching fetching,
        CancellationToken cancel
    )
    {
        await UsableSender.FindAsync(id, scope, cancel);
        return await mailboxes.FindAsync(scope.Book.Id, id, cancel) is { } mailbox
            ? await fetching.FetchAsync(mailbox, scope.Person, StoreSender.LongestTalk, cancel)
            : throw ProblemException.NotFound("A mailbox of this sender");
    }

    /// <summary>
    /// The mailbox that a sender most likely has: the postroom’s for the practice account, else imap where mail goes out by smtp.
    /// </summary>
    private static ReplyMailboxView Proposed(Sender sender, SenderSecrets secrets, HostParts parts) =>
        secrets.IsPractice(sender.Host, sender.Port)
            ? new ReplyMailboxView(false, sender.Host, parts.ImapPort, "none", sender.UserName, false, null, 0, "")
            : new ReplyMailboxView(
                false,
                sender.Host.StartsWith("smtp.", StringComparison.OrdinalIgnoreCase) ? "imap." + sender.Host[5..] : sender.Host,
                UsualPort,
                "tls",
                sender.UserName,
                false,
                null,
                0,
                ""
            );
}
