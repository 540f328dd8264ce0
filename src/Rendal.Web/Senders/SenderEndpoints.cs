using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Senders;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Mail;
using Rendal.Store.Books;
using Rendal.Store.Senders;
using Rendal.Web.Books;
using Rendal.Web.Postroom;

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
/// <param name="Away">What keeps its server from being reached; null while it is.</param>
/// <param name="IsMine">Whether it is the person's own, and nobody else sends under it.</param>
/// <param name="IsPractice">Whether what it sends ends in the postroom.</param>
internal sealed record SenderView(
    long Id, string Name, string Address, string ReplyTo, bool CopyToSelf, string Host, int Port, string Security, string UserName, bool HasPassword,
    int? AMinute, int? ADay, int BegunToday, int? LargestBytes, IReadOnlyList<int> PauseMinutes, string Paused, SenderAway? Away, bool IsMine, bool IsPractice);

/// <summary>A sender to be stored or tried; without a password the one that was there stays, without pauses they are 1, 5, 15 and 60 minutes.</summary>
internal sealed record SenderRequest([property: StringLength(200)] string Name, [property: StringLength(500)] string Address, [property: StringLength(500)] string ReplyTo, bool CopyToSelf, [property: StringLength(255)] string Host, int Port, [property: StringLength(10)] string Security, [property: StringLength(255)] string UserName, [property: StringLength(10_000)] string? Password, int? AMinute, int? ADay, int? LargestBytes, IReadOnlyList<int>? PauseMinutes = null, bool IsMine = false);

/// <summary>The mail accounts of a book.</summary>
internal static class SenderEndpoints
{
    private const int LongestName = 60;
    private const int MostPauses = 20;

    /// <summary>How long a person waits for a mail server: it may be any, and may drip for ever.</summary>
    internal static readonly TimeSpan LongestTalk = TimeSpan.FromSeconds(8);

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/senders").WithTags("Senders");
        group.MapGet("", ListAsync);
        group.MapPost("", AddAsync);
        group.MapPut("/{id:long}", UpdateAsync);
        group.MapPost("/{id:long}/try", TryAsync);
    }

    private static async Task<List<SenderView>> ListAsync(BookScope scope, SenderSecrets secrets, TimeProvider clock, CancellationToken cancel)
    {
        var begun = await scope.Senders.BegunAsync(scope.Book.Today(clock), cancel);
        return (await scope.Senders.ListAsync(scope.Person, cancel)).ConvertAll(s => View(s, begun, scope.Book, secrets));
    }

    private static async Task<SenderView> AddAsync(SenderRequest request, BookScope scope, SenderSecrets secrets, TimeProvider clock, CancellationToken cancel)
    {
        var id = await scope.Senders.AddAsync(Checked(null, request, scope, secrets), scope.Person, cancel);
        return await ViewAsync(id, scope, secrets, clock, cancel);
    }

    private static async Task<Ok<SenderView>> UpdateAsync(long id, SenderRequest request, BookScope scope, SenderSecrets secrets, TimeProvider clock, CancellationToken cancel)
    {
        var before = await UsableSender.FindAsync(id, scope, cancel);
        var sender = Checked(before, request, scope, secrets);
        if (before.Person is null && sender.Person is not null)
        {
            throw Unable.Invalid("This sender belongs to the book, and everybody who has it sends by it. Add another one to have one of your own.");
        }

        await scope.Senders.UpdateAsync(sender, scope.Person, scope.Book.Today(clock), cancel);
        return TypedResults.Ok(await ViewAsync(id, scope, secrets, clock, cancel));
    }

    /// <summary>Tries an account as it is filled in, without keeping it; nothing is sent.</summary>
    private static async Task<TrialResult> TryAsync(long id, SenderRequest request, BookScope scope, SenderSecrets secrets, MailNetwork network, CancellationToken cancel)
    {
        var before = id == 0 ? null : await UsableSender.FindAsync(id, scope, cancel);
        var sender = Checked(before, request, scope, secrets);
        var account = secrets.AccountOf(scope.Book.Id, scope.Book.TimeZone, string.IsNullOrEmpty(request.Password) ? sender with { ProtectedPassword = before?.ProtectedPassword } : sender) ?? throw Unable.Invalid(SenderSecrets.CannotBeRead);
        return await AccountTrial.TryAsync(account, sender.Address, LongestTalk, network, cancel);
    }

    private static Sender Checked(Sender? before, SenderRequest request, BookScope scope, SenderSecrets secrets)
    {
        if (AddressList.Read(request.Address) is not { Good: [var address], Bad: [] })
        {
            throw Unable.Invalid($"“{request.Address}” is not one e-mail address.");
        }

        var replyTo = AddressList.Read(request.ReplyTo) switch
        {
            { Good: [], Bad: [] } => "",
            { Good: [var one], Bad: [] } => one,
            _ => throw Unable.Invalid($"“{request.ReplyTo}” is not one e-mail address for answers."),
        };
        if (string.IsNullOrWhiteSpace(request.Name) || request.Name.Any(char.IsControl) || request.Name.Length > LongestName)
        {
            throw Unable.Invalid($"Give the name that recipients see, on one line and no longer than {LongestName} characters.");
        }

        DemandServer(request.Host, request.Port, request.Security, "STARTTLS (port 587) or TLS (port 465)");
        DemandPassword(before is null ? null : (before.Host, before.Port, before.Security), before?.ProtectedPassword, request.Host, request.Port, request.Security, request.Password);
        if (secrets.IsPractice(request.Host.Trim(), request.Port) && request.UserName.Trim() != BookAccounts.Name(scope.Book.Id))
        {
            throw Unable.Invalid($"The postroom knows this book as {BookAccounts.Name(scope.Book.Id)}. Give that as the user name.");
        }

        if (request.AMinute is < 1 or > 100_000 || request.ADay is < 1 or > 10_000_000)
        {
            throw Unable.Invalid("An allowance is at least one message; leave it empty for as many as go.");
        }

        if (request.PauseMinutes is { } pauses && (pauses.Count > MostPauses || pauses.Any(p => p is < 1 or > 10_080)))
        {
            throw Unable.Invalid($"The pauses between tries are up to {MostPauses}, of a minute to a week each; with none, what the server puts off is refused at once.");
        }

        if (request.LargestBytes is < 10_000 or > 1_000_000_000)
        {
            throw Unable.Invalid("The largest message is at least 10 kB and at most 1 GB; leave it empty where it is not known.");
        }

        return new Sender(before?.Id ?? 0, request.Name.Trim(), address, request.Host.Trim(), request.Port, request.Security, request.UserName.Trim(), string.IsNullOrEmpty(request.Password) ? null : secrets.Protect(request.Password, request.Host.Trim(), request.Port, request.Security))
        {
            Person = request.IsMine ? scope.Person : null,
            ReplyTo = replyTo,
            CopyToSelf = request.CopyToSelf,
            AMinute = request.AMinute,
            ADay = request.ADay,
            LargestBytes = request.LargestBytes,
            Pauses = request.PauseMinutes?.Select(p => TimeSpan.FromMinutes(p)).ToList() ?? NextStep.DefaultPauses,
        };
    }

    /// <summary>Refuses a server that is not named, or that would be talked to without security although it is another machine.</summary>
    internal static void DemandServer(string host, int port, string security, string secured)
    {
        if (security is not ("none" or "starttls" or "tls"))
        {
            throw Unable.Invalid("Choose how the line is secured.");
        }

        if (security == "none" && !BookAccounts.IsThisMachine(host))
        {
            throw Unable.Invalid($"Without security mail can only go to this machine. Choose {secured} for {host}.");
        }

        if (port is < 1 or > 65535 || Uri.CheckHostName(host.Trim()) is not (UriHostNameType.Dns or UriHostNameType.IPv4 or UriHostNameType.IPv6))
        {
            throw Unable.Invalid("Say the mail server’s name and its port.");
        }
    }

    /// <summary>Refuses a kept password for another server than the one that it was given for.</summary>
    /// <param name="kept">The server that it was given for; null where none was.</param>
    /// <param name="secret">It, encrypted; null where none is kept.</param>
    internal static void DemandPassword((string Host, int Port, string Security)? kept, byte[]? secret, string host, int port, string security, string? typed)
    {
        if (secret is not null && string.IsNullOrEmpty(typed) && kept is { } server && server != (host.Trim(), port, security))
        {
            throw Unable.Invalid($"The password was given for {server.Host}, port {server.Port}. Type it again for {host.Trim()}, port {port}.");
        }
    }

    private static async Task<SenderView> ViewAsync(long id, BookScope scope, SenderSecrets secrets, TimeProvider clock, CancellationToken cancel) =>
        View((await scope.Senders.FindAsync(id, cancel))!, await scope.Senders.BegunAsync(scope.Book.Today(clock), cancel), scope.Book, secrets);

    private static SenderView View(Sender s, Dictionary<long, int> begun, Book book, SenderSecrets secrets) => new(
        s.Id, s.Name, s.Address, s.ReplyTo, s.CopyToSelf, s.Host, s.Port, s.Security, s.UserName, secrets.AccountOf(book.Id, book.TimeZone, s) is { Password.Length: > 0 },
        s.AMinute, s.ADay, begun.GetValueOrDefault(s.Id), s.LargestBytes, [.. s.Pauses.Select(p => (int)p.TotalMinutes)], s.Paused, s.Away, s.Person is not null, secrets.IsPractice(s.Host, s.Port));
}
