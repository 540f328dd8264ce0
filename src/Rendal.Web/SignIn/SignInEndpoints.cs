using System.ComponentModel.DataAnnotations;
using System.Globalization;
using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Rendal.Core.Customers;
using Rendal.Store.Books;
using Rendal.Store.People;
using Rendal.Web.Books;
using Rendal.Web.Hosting;

namespace Rendal.Web.SignIn;

/// <summary>A name and its password.</summary>
internal sealed record Credentials([property: StringLength(200)] string Name, [property: StringLength(1_000)] string Password);

/// <summary>Who is signed in, and what they may open.</summary>
internal sealed record SessionView(string Name, string Address, IReadOnlyList<BookLine> Books);

/// <summary>Where the person who is signed in is told that a round has ended; empty for nowhere but here.</summary>
internal sealed record AddressRequest([property: StringLength(500)] string Address);

/// <summary>Whether somebody has to be the first.</summary>
internal sealed record FirstRunView(bool Needed);

/// <summary>The first person with the first book.</summary>
internal sealed record FirstRunRequest([property: StringLength(200)] string Key, [property: StringLength(100)] string Name, [property: StringLength(1_000)] string Password, NewBook Book);

/// <summary>Signing in and out, and the first run.</summary>
internal static class SignInEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/").WithTags("SignIn");
        group.MapPost("/session", SignInAsync).AllowAnonymous();
        group.MapGet("/session", SessionAsync);
        group.MapPut("/session/address", PutAddressAsync);
        group.MapDelete("/session", (Delegate)SignOutAsync);
        group.MapGet("/first-run", FirstRunNeededAsync).AllowAnonymous();
        group.MapPost("/first-run", FirstRunAsync).AllowAnonymous();
    }

    private static async Task<NoContent> SignInAsync(Credentials credentials, PersonStore people, PasswordHasher<Person> hasher, TimeProvider clock, HttpContext context, CancellationToken cancel)
    {
        var person = await people.FindAsync(credentials.Name, cancel);
        var now = clock.GetUtcNow();
        if (person is not null && person.SignInFrom > now)
        {
            var wait = (int)Math.Ceiling((person.SignInFrom - now).TotalSeconds);
            throw new Unable(StatusCodes.Status429TooManyRequests, $"Too many sign-ins failed. Try again in {wait} seconds.") { RetryAfterSeconds = wait };
        }

        // A name that does not exist takes as long as one that does, so that names cannot be found out by the clock.
        var hash = person?.PasswordHash ?? Unknown.Value;
        var right = hasher.VerifyHashedPassword(person!, hash, credentials.Password) != PasswordVerificationResult.Failed;
        if (person is null || !right)
        {
            if (person is not null)
            {
                await people.NoteFailureAsync(person.Id, now, cancel);
            }

            throw new Unable(StatusCodes.Status401Unauthorized, "The name or the password is wrong.");
        }

        await people.NoteSuccessAsync(person.Id, cancel);
        await BeginSessionAsync(context, person.Id, person.Name);
        return TypedResults.NoContent();
    }

    private static async Task<SessionView> SessionAsync(ClaimsPrincipal user, PersonStore people, BookStore books, CancellationToken cancel) =>
        new(user.Identity!.Name!, await people.AddressAsync(user.PersonId(), cancel), [.. (await books.OfPersonAsync(user.PersonId(), cancel)).Select(b => new BookLine(b.Id, b.Firm.Name, b.Currency.Code))]);

    private static async Task<NoContent> PutAddressAsync(AddressRequest request, ClaimsPrincipal user, PersonStore people, CancellationToken cancel)
    {
        var address = AddressList.Read(request.Address) switch
        {
            { Good: [], Bad: [] } => "",
            { Good: [var one], Bad: [] } => one,
            _ => throw Unable.Invalid($"“{request.Address}” is not one e-mail address."),
        };
        await people.PutAddressAsync(user.PersonId(), address, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SignOutAsync(HttpContext context)
    {
        await context.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<FirstRunView> FirstRunNeededAsync(PersonStore people, CancellationToken cancel) => new(!await people.AnyAsync(cancel));

    private static async Task<NoContent> FirstRunAsync(FirstRunRequest request, HostParts parts, PersonStore people, BookMaking making, PasswordHasher<Person> hasher, HttpContext context, CancellationToken cancel)
    {
        var keyFits = parts.FirstRunKey is { } key && CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(key), Encoding.UTF8.GetBytes(request.Key));
        if (!keyFits || await people.AnyAsync(cancel))
        {
            throw new Unable(StatusCodes.Status403Forbidden, "This address is only for the first run. Take the one that Rendal printed when it was started.");
        }

        if (string.IsNullOrWhiteSpace(request.Name))
        {
            throw Unable.Invalid("Say the name that you will sign in with.");
        }

        NewPassword.Check(request.Password);
        request.Book.Check();
        var person = await people.AddAsync(request.Name.Trim(), hasher.HashPassword(null!, request.Password), cancel);
        await making.MakeAsync(request.Book, person, cancel);
        await BeginSessionAsync(context, person, request.Name.Trim());
        return TypedResults.NoContent();
    }

    internal static Task BeginSessionAsync(HttpContext context, long person, string name)
    {
        var identity = new ClaimsIdentity([new Claim(ClaimTypes.NameIdentifier, person.ToString(CultureInfo.InvariantCulture)), new Claim(ClaimTypes.Name, name)], CookieAuthenticationDefaults.AuthenticationScheme);
        return context.SignInAsync(new ClaimsPrincipal(identity), new AuthenticationProperties { IsPersistent = true });
    }

    private static class Unknown
    {
        public static readonly string Value = new PasswordHasher<Person>().HashPassword(null!, Convert.ToHexString(RandomNumberGenerator.GetBytes(16)));
    }
}
