using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Rendal.Store.People;
using Rendal.Web.Hosting;

namespace Rendal.Web.SignIn;

/// <summary>Whom an invitation is for, and to the book of which firm.</summary>
internal sealed record InvitedView(string Name, string Firm);

/// <summary>An invitation that is followed, with the password chosen.</summary>
internal sealed record FollowedInvitation([property: StringLength(200)] string Key, [property: StringLength(1_000)] string Password);

/// <summary>Following an invitation.</summary>
internal static class JoinEndpoints
{
    private const string NotGood = "This invitation was followed already, was taken back or is too old. Ask for a new one.";

    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/invitations").WithTags("SignIn").AllowAnonymous();
        group.MapGet("/{key}", async (string key, PersonStore people, TimeProvider clock, CancellationToken cancel) =>
            await people.InvitedAsync(InvitationKey.Hash(key), clock.GetUtcNow(), cancel) is var (name, firm) ? new InvitedView(name, firm) : throw new Unable(StatusCodes.Status404NotFound, NotGood));
        group.MapPost("/join", JoinAsync);
    }

    private static async Task<NoContent> JoinAsync(FollowedInvitation request, PersonStore people, PasswordHasher<Person> hasher, TimeProvider clock, HttpContext context, CancellationToken cancel)
    {
        NewPassword.Check(request.Password);
        var (id, name) = await people.JoinAsync(InvitationKey.Hash(request.Key), hasher.HashPassword(null!, request.Password), clock.GetUtcNow(), cancel) ?? throw new Unable(StatusCodes.Status404NotFound, NotGood);
        await SignInEndpoints.BeginSessionAsync(context, id, name);
        return TypedResults.NoContent();
    }
}
