using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Rendal.App;
using Rendal.App.Books;
using Rendal.App.People;
using Rendal.Core.Customers;
using Rendal.Core.People;
using Rendal.Store.Books;
using Rendal.Store.People;
using Rendal.Web.Books;

namespace Rendal.Web.SignIn;

/// <summary>A name and its password.</summary>
internal sealed record Credentials([property: StringLength(200)] string Name, [property: StringLength(1_000)] string Password);

/// <summary>Who is signed in, and what they may open.</summary>
internal sealed record SessionView(string Name, string Address, string Signature, bool Administers, IReadOnlyList<BookLine> Books);

/// <summary>Where the person who is signed in is told that a round has ended; empty for nowhere but here.</summary>
internal sealed record AddressRequest([property: StringLength(500)] string Address);

/// <summary>The lines with which the person who is signed in signs messages; empty for none.</summary>
internal sealed record SignatureRequest([property: StringLength(1_000)] string Signature);

/// <summary>Whether somebody has to be the first.</summary>
internal sealed record FirstRunView(bool Needed);

/// <summary>The first person with the first book.</summary>
internal sealed record FirstRunRequest(
    [property: StringLength(200)] string Key,
    [property: StringLength(100)] string Name,
    [property: StringLength(1_000)] string Password,
    NewBook Book
);

/// <summary>Signing in and out, and the first run.</summary>
internal static class SignInEndpoints
{
    private const string OnlyFirst = "This address is only for the first run. Take the one that Rendal printed when it was started.";

    /// <summary>The endpoints by which a person signs in and out.</summary>
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/").WithTags("SignIn");
        group.MapPost("/session", SignInAsync).AllowAnonymous();
        group.MapGet("/session", SessionAsync);
        group.MapPut("/session/address", PutAddressAsync);
        group.MapPut("/session/signature", PutSignatureAsync);
        group.MapDelete("/session", SignOutAsync);
        group.MapGet("/first-run", FirstRunNeededAsync).AllowAnonymous();
        group.MapPost("/first-run", FirstRunAsync).AllowAnonymous();
    }

    private static async Task<NoContent> SignInAsync(
        Credentials credentials,
        SignInGuard guard,
        HttpContext context,
        CancellationToken cancel
    )
    {
        var person = await guard.DemandAsync(context, credentials.Name, credentials.Password, cancel);
        await SessionCookie.BeginAsync(context, person.Id, person.Name, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<SessionView> SessionAsync(
        ClaimsPrincipal user,
        PersonStore people,
        BookStore books,
        CancellationToken cancel
    ) =>
        new(
            user.Identity!.Name!,
            await people.AddressAsync(user.PersonId(), cancel),
            await people.SignatureAsync(user.PersonId(), cancel),
            (await people.FindAsync(user.PersonId(), cancel))!.Administers,
            [.. (await books.OfPersonAsync(user.PersonId(), cancel)).Select(b => new BookLine(b.Id, b.Firm.Name, b.Currency.Code))]
        );

    private static async Task<NoContent> PutAddressAsync(
        AddressRequest request,
        ClaimsPrincipal user,
        PersonStore people,
        CancellationToken cancel
    )
    {
        var address = AddressList.Read(request.Address) switch
        {
            { Good: [], Bad: [] } => "",
            { Good: [var one], Bad: [] } => one,
            _ => throw ProblemException.Invalid($"“{request.Address}” is not one e-mail address."),
        };
        await people.PutAddressAsync(user.PersonId(), address, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> PutSignatureAsync(
        SignatureRequest request,
        ClaimsPrincipal user,
        PersonStore people,
        CancellationToken cancel
    )
    {
        await people.PutSignatureAsync(user.PersonId(), request.Signature.ReplaceLineEndings("\n").Trim(), cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SignOutAsync(
        HttpContext context,
        SessionStore sessions,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await sessions.EndAsync(context.User.SessionHash(), clock.GetUtcNow(), cancel);
        await context.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<FirstRunView> FirstRunNeededAsync(PersonStore people, CancellationToken cancel) =>
        new(!await people.AnyAsync(cancel));

    private static async Task<NoContent> FirstRunAsync(
        FirstRunRequest request,
        PersonStore people,
        MakeBook making,
        PasswordHasher<Person> hasher,
        HttpContext context,
        CancellationToken cancel
    )
    {
        if (!await people.IsFirstRunAsync(SecretKey.Hash(request.Key), cancel))
        {
            throw new ProblemException(ProblemReason.Forbidden, OnlyFirst);
        }

        if (PersonName.Problem(request.Name) is { } problem)
        {
            throw ProblemException.Invalid(problem);
        }

        NewPassword.Check(request.Password);
        request.Book.Check();
        var name = request.Name.Trim();
        var person = await people.AddFirstAsync(name, hasher.HashPassword(null!, request.Password), cancel)
            ?? throw new ProblemException(ProblemReason.Forbidden, OnlyFirst);
        await request.Book.MakeAsync(making, person, cancel);
        await SessionCookie.BeginAsync(context, person, name, cancel);
        return TypedResults.NoContent();
    }
}
