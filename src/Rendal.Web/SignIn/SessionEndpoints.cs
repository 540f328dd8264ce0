using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Store.People;

namespace Rendal.Web.SignIn;

/// <summary>Where a person is signed in.</summary>
/// <param name="Browser">What the browser says that it is.</param>
/// <param name="BeganAt">When they signed in there.</param>
/// <param name="UsedAt">When it was used last.</param>
/// <param name="IsThis">Whether it is the one that asks.</param>
internal sealed record SessionLine(string Browser, DateTimeOffset BeganAt, DateTimeOffset UsedAt, bool IsThis);

/// <summary>How many sessions were ended.</summary>
internal sealed record EndedSessions(int Sessions);

/// <summary>The sessions of the person who is signed in.</summary>
internal static class SessionEndpoints
{
    /// <summary>The endpoints under <c>/sessions</c>: where a person is signed in.</summary>
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/sessions").WithTags("SignIn");
        group.MapGet("", ListAsync);
        group.MapDelete("/others", EndOthersAsync);
    }

    private static async Task<List<SessionLine>> ListAsync(
        ClaimsPrincipal user,
        SessionStore sessions,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var mine = await sessions.NumberAsync(user.SessionHash(), cancel);
        return (await sessions.ListAsync(user.PersonId(), clock.GetUtcNow(), cancel)).ConvertAll(s => new SessionLine(
            s.Browser,
            s.BeganAt,
            s.UsedAt,
            s.Id == mine
        ));
    }

    private static async Task<Ok<EndedSessions>> EndOthersAsync(
        ClaimsPrincipal user,
        SessionStore sessions,
        TimeProvider clock,
        CancellationToken cancel
    ) => TypedResults.Ok(new EndedSessions(await sessions.EndAllAsync(user.PersonId(), user.SessionHash(), clock.GetUtcNow(), cancel)));
}
