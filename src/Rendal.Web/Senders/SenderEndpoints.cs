using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App.Senders;
using Rendal.Mail;
using Rendal.Store.Books;
using Rendal.Store.Senders;
using Rendal.Web.Books;

namespace Rendal.Web.Senders;

/// <summary>A sender as it is shown; its password never is.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">The name that recipients see.</param>
/// <param name="Address">The address that recipients see.</param>
/// <param name="ReplyTo">The address that answers go to; empty for the address.</param>
/// <param name="CopyToSelf">Whether each message goes to the address as well.</param>
/// <param name="Host">The mail server.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security"><c>none</c>, <c>starttls</c> or <c>tls</c>.</param>
/// <param name="UserName">Who signs in.</param>
/// <param name="HasPassword">Whether a password is kept that can be read.</param>
/// <param name="AMinute">How many messages a minute; null for as many as go.</param>
/// <param name="ADay">How many messages a day; null for as many as go.</param>
/// <param name="BegunToday">How many of the day's allowance are used up.</param>
/// <param name="LargestBytes">The largest message; null where it is not known.</param>
/// <param name="PauseMinutes">The pauses between the tries of a message that the server puts off.</param>
/// <param name="Paused">Why it sends nothing until a person has seen to it; empty when it may.</param>
/// <param name="Unreachable">What keeps its server from being reached; null while it is.</param>
/// <param name="IsMine">Whether it is the person's own, and nobody else sends under it.</param>
/// <param name="IsPractice">Whether what it sends ends in the postroom.</param>
/// <param name="Signature">The lines under its messages, with line feeds between; empty for the name.</param>
internal sealed record SenderView(
    long Id,
    string Name,
    string Address,
    string ReplyTo,
    bool CopyToSelf,
    string Host,
    int Port,
    string Security,
    string UserName,
    bool HasPassword,
    int? AMinute,
    int? ADay,
    int BegunToday,
    int? LargestBytes,
    IReadOnlyList<int> PauseMinutes,
    string Paused,
    ServerUnreachable? Unreachable,
    bool IsMine,
    bool IsPractice,
    string Signature
);

/// <summary>The mail accounts of a book.</summary>
internal static class SenderEndpoints
{
    /// <summary>The endpoints of a book that stand under <c>/senders</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/senders").WithTags("Senders");
        group.MapGet("", ListAsync);
        group.MapPost("", AddAsync);
        group.MapPut("/{id:long}", UpdateAsync);
        group.MapPost("/{id:long}/try", TryAsync);
    }

    private static async Task<List<SenderView>> ListAsync(
        BookScope scope,
        SenderSecrets secrets,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var begun = await scope.Senders.BegunAsync(scope.Book.Today(clock), cancel);
        return (await scope.Senders.ListAsync(scope.Person, cancel)).ConvertAll(s => View(s, begun, scope.Book, secrets));
    }

    private static async Task<SenderView> AddAsync(
        SenderSettings settings,
        BookScope scope,
        SenderSecrets secrets,
        TimeProvider clock,
        CancellationToken cancel
    ) => await ViewAsync(await new StoreSender(scope, secrets, clock).AddAsync(settings, cancel), scope, secrets, clock, cancel);

    private static async Task<Ok<SenderView>> UpdateAsync(
        long id,
        SenderSettings settings,
        BookScope scope,
        SenderSecrets secrets,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new StoreSender(scope, secrets, clock).ChangeAsync(id, settings, cancel);
        return TypedResults.Ok(await ViewAsync(id, scope, secrets, clock, cancel));
    }

    private static Task<TrialResult> TryAsync(
        long id,
        SenderSettings settings,
        BookScope scope,
        SenderSecrets secrets,
        MailNetwork network,
        TimeProvider clock,
        CancellationToken cancel
    ) => new StoreSender(scope, secrets, clock).TryAsync(id, settings, network, cancel);

    private static async Task<SenderView> ViewAsync(
        long id,
        BookScope scope,
        SenderSecrets secrets,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        View(
            (await scope.Senders.FindAsync(id, cancel))!,
            await scope.Senders.BegunAsync(scope.Book.Today(clock), cancel),
            scope.Book,
            secrets
        );

    private static SenderView View(Sender s, Dictionary<long, int> begun, Book book, SenderSecrets secrets) =>
        new(
            s.Id,
            s.Name,
            s.Address,
            s.ReplyTo,
            s.CopyToSelf,
            s.Host,
            s.Port,
            s.Security,
            s.UserName,
            secrets.AccountOf(book.Id, book.TimeZone, s) is { Password.Length: > 0 },
            s.AMinute,
            s.ADay,
            begun.GetValueOrDefault(s.Id),
            s.LargestBytes,
            [.. s.Pauses.Select(p => (int)p.TotalMinutes)],
            s.Paused,
            s.Unreachable,
            s.Person is not null,
            secrets.IsPractice(s.Host, s.Port),
            s.Signature
        );
}
