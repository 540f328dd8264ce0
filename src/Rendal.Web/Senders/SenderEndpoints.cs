using System.Net;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Customers;
using Rendal.Store.Senders;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.Senders;

/// <summary>A sender as it is shown; its password never is.</summary>
internal sealed record SenderView(long Id, string Name, string Address, string Host, int Port, string Security, string UserName, bool HasPassword, string Paused, bool IsPractice);

/// <summary>A sender to be stored; without a password the one that was there stays.</summary>
internal sealed record SenderRequest(string Name, string Address, string Host, int Port, string Security, string UserName, string? Password);

/// <summary>The mail accounts of a book.</summary>
internal static class SenderEndpoints
{
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/senders").WithTags("Senders");
        group.MapGet("", ListAsync);
        group.MapPut("/{id:long}", UpdateAsync);
    }

    private static async Task<List<SenderView>> ListAsync(BookScope scope, HostParts parts, CancellationToken cancel) =>
        (await scope.Senders.ListAsync(cancel)).ConvertAll(s => View(s, parts));

    private static async Task<Ok<SenderView>> UpdateAsync(long id, SenderRequest request, BookScope scope, SenderSecrets secrets, HostParts parts, CancellationToken cancel)
    {
        if (AddressList.Read(request.Address) is not { Good: [var address], Bad: [] })
        {
            throw Unable.Invalid($"“{request.Address}” is not one e-mail address.");
        }

        if (request.Security is not ("none" or "starttls" or "tls"))
        {
            throw Unable.Invalid("Choose how the line is secured.");
        }

        if (request.Security == "none" && !IsThisMachine(request.Host))
        {
            throw Unable.Invalid($"Without security mail can only go to this machine. Choose STARTTLS (port 587) or TLS (port 465) for {request.Host}.");
        }

        if (request.Port is < 1 or > 65535 || string.IsNullOrWhiteSpace(request.Host))
        {
            throw Unable.Invalid("Say the mail server’s name and its port.");
        }

        var password = string.IsNullOrEmpty(request.Password) ? null : secrets.Protect(request.Password);
        var sender = new Sender(id, request.Name.Trim(), address, request.Host.Trim(), request.Port, request.Security, request.UserName.Trim(), password, "");
        return await scope.Senders.UpdateAsync(sender, cancel)
            ? TypedResults.Ok(View((await scope.Senders.FindAsync(id, cancel))!, parts))
            : throw Unable.NotFound("This sender");
    }

    private static SenderView View(Sender s, HostParts parts) =>
        new(s.Id, s.Name, s.Address, s.Host, s.Port, s.Security, s.UserName, s.ProtectedPassword is not null, s.Paused, IsThisMachine(s.Host) && s.Port == parts.MailPort);

    private static bool IsThisMachine(string host) => host == "localhost" || (IPAddress.TryParse(host, out var address) && IPAddress.IsLoopback(address));
}
