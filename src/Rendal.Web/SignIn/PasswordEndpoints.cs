using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Rendal.App;
using Rendal.App.People;
using Rendal.Store.People;

namespace Rendal.Web.SignIn;

/// <summary>A new password of one's own.</summary>
/// <param name="Current">The one that it takes the place of.</param>
/// <param name="Password">The new one.</param>
internal sealed record PasswordRequest([property: StringLength(1_000)] string Current, [property: StringLength(1_000)] string Password);

/// <summary>Who is to choose a new password.</summary>
internal sealed record ResetRequest([property: StringLength(200)] string Name);

/// <summary>The key of an address by which somebody chooses a new password. It is told here and never again.</summary>
internal sealed record ResetView(string Name, string Key, DateTimeOffset GoodUntil);

/// <summary>Whose password it is.</summary>
internal sealed record ResetOf(string Name);

/// <summary>An address by which a password is chosen, with the password.</summary>
internal sealed record FollowedReset([property: StringLength(200)] string Key, [property: StringLength(1_000)] string Password);

/// <summary>Changing one's password, and letting somebody who forgot theirs choose another.</summary>
internal static class PasswordEndpoints
{
    private const string NotGood = "This address was used already or is too old. Ask for a new one.";

    private static readonly TimeSpan Good = TimeSpan.FromDays(1);

    /// <summary>The endpoints about one’s own password, and about one that was forgotten.</summary>
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/").WithTags("SignIn");
        group.MapPut("/session/password", ChangeAsync);
        group.MapPost("/resets", ResetAsync);
        group
            .MapGet("/resets/{key}", async (string key, PersonStore people, TimeProvider clock, CancellationToken cancel) =>
                await people.ResetOfAsync(SecretKey.Hash(key), clock.GetUtcNow(), cancel) is { } person
                    ? new ResetOf(person.Name)
                    : throw new ProblemException(ProblemReason.NotFound, NotGood)
            )
            .AllowAnonymous();
        group.MapPost("/resets/follow", FollowAsync).AllowAnonymous();
    }

    private static async Task<NoContent> ChangeAsync(
        PasswordRequest request,
        ClaimsPrincipal user,
        SignInGuard guard,
        PersonStore people,
        PasswordHasher<Person> hasher,
        TimeProvider clock,
        HttpContext context,
        CancellationToken cancel
    )
    {
        NewPassword.Check(request.Password);

        // Whoever sits down at an open browser guesses as slowly as at the door.
        var person = await guard.DemandAsync(context, user.Identity!.Name!, request.Current, cancel);
        await people.PutPasswordAsync(
            person.Id,
            hasher.HashPassword(person, request.Password),
            user.SessionHash(),
            clock.GetUtcNow(),
            cancel
        );
        return TypedResults.NoContent();
    }

    private static async Task<ResetView> ResetAsync(
        ResetRequest request,
        ClaimsPrincipal user,
        PersonStore people,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if ((await people.FindAsync(user.PersonId(), cancel))?.Administers != true)
        {
            throw new ProblemException(
                ProblemReason.Forbidden,
                "Only who administers this installation can let somebody choose a new password: whoever signed in first."
            );
        }

        var person = await people.FindAsync(request.Name, cancel)
            ?? throw ProblemException.NotFound($"Somebody who signs in as “{request.Name.Trim()}”");
        var (key, now) = (SecretKey.New(), clock.GetUtcNow());
        await people.ResetAsync(person.Id, SecretKey.Hash(key), user.PersonId(), now, now + Good, cancel);
        return new ResetView(person.Name, key, now + Good);
    }

    private static async Task<NoContent> FollowAsync(
        FollowedReset request,
        PersonStore people,
        PasswordHasher<Person> hasher,
        TimeProvider clock,
        HttpContext context,
        CancellationToken cancel
    )
    {
        NewPassword.Check(request.Password);
        var person = await people.FollowResetAsync(
            SecretKey.Hash(request.Key),
            hasher.HashPassword(null!, request.Password),
            clock.GetUtcNow(),
            cancel
        ) ?? throw new ProblemException(ProblemReason.NotFound, NotGood);
        await SessionCookie.BeginAsync(context, person.Id, person.Name, cancel);
        return TypedResults.NoContent();
    }
}
