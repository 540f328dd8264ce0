using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace Rendal.Web.SignIn;

/// <summary>The cookie that a session rests on.</summary>
internal static class SessionCookie
{
    public static void Configure(CookieAuthenticationOptions options)
    {
        options.Cookie.Name = "rendal";
        options.Cookie.HttpOnly = true;
        options.Cookie.SameSite = SameSiteMode.Strict;

        // Secure wherever the page came over TLS; on loopback it does not.
        options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.ExpireTimeSpan = TimeSpan.FromHours(12);
        options.SlidingExpiration = true;

        // The API answers with a status; there is no page to send people to from here.
        options.Events.OnRedirectToLogin = Answer(StatusCodes.Status401Unauthorized);
        options.Events.OnRedirectToAccessDenied = Answer(StatusCodes.Status403Forbidden);
    }

    /// <summary>The number of the person who is signed in.</summary>
    public static long PersonId(this ClaimsPrincipal user) => long.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!, CultureInfo.InvariantCulture);

    private static Func<Microsoft.AspNetCore.Authentication.RedirectContext<CookieAuthenticationOptions>, Task> Answer(int status) => context =>
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    };
}
