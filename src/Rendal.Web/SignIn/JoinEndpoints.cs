using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Rendal.App;
using Rendal.App.People;
using Rendal.Store.People;

namespace Rendal.Web.SignIn;

/// <summary>Whom an invitation is for, and to the book of which firm.</summary>
/// <param name="CanSignIn">Whether they sign in to follow it; else they choose a password.</param>
internal sealed record InvitedView(string Name, string Firm, bool CanSignIn);

/// <summary>An invitation that somebody follows who is signed in.</summary>
internal sealed record AcceptedInvitation([property: StringLength(200)] string Key);

/// <summary>An invitation that is followed, with the password chosen.</summary>
internal sealed record FollowedInvitation([property: StringLength(200)] string Key, [property: StringLength(1_000)] string Password);

/// <summary>Following an invitation.</summary>
internal static class JoinEndpoints
{
    private const string NotGood = "This invitation was followed already, was taken back or is too old. Ask for a new one.";

    /// <summary>The endpoints under <c>/invitations</c>, by which who was invited joins.</summary>
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/invitations").WithTags("SignIn").AllowAnonymous();
        group.MapGet("/{key}", async (string key, PersonStore people, TimeProvider clock, CancellationToken cancel) =>
            await people.InvitedAsync(SecretKey.Hash(key), clock.GetUtcNow(), cancel) is var (name, firm, canSignIn)
                ? new InvitedView(name, firm, canSignIn)
                : throw new ProblemException(ProblemReason.NotFound, NotGood)
        );
        group.MapPost("/join", JoinAsync);
        api.MapGroup("/invitations").WithTags("SignIn").MapPost("/accept", AcceptAsync);
    }

    private static async Task<NoContent> AcceptAsync(
        AcceptedInvitation request,
        ClaimsPrincipal user,
        PersonStore people,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (key, now) = (SecretKey.Hash(request.Key), clock.GetUtcNow());
        if (await people.AcceptAsync(key, user.PersonId(), now, cancel))
        {
            return TypedResults.NoContent();
        }

        throw await people.InvitedAsync(key, now, cancel) is { } invited
            ? ProblemException.Conflict(
                $"This invitation is for {invited.Name}, and you are signed in as {user.Identity!.Name}. Sign in as "
                    + $"{invited.Name} to follow it."
            )
            : new ProblemException(ProblemReason.NotFound, NotGood);
    }

    private static async Task<NoContent> JoinAsync(
        FollowedInvitation request,
        PersonStore people,
        PasswordHasher<Person> hasher,
        TimeProvider clock,
        HttpContext context,
        CancellationToken cancel
    )
    {
        NewPassword.Check(request.Password);
        var (id, name) = await people.JoinAsync(
            SecretKey.Hash(request.Key),
            hasher.HashPassword(null!, request.Password),
            clock.GetUtcNow(),
            cancel
        ) ?? throw new ProblemException(ProblemReason.NotFound, NotGood);
        await SessionCookie.BeginAsync(context, id, name, cancel);
        return TypedResults.NoContent();
    }
}
