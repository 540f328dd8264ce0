using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Rendal.App.People;
using Rendal.Store.People;

namespace Rendal.Web.SignIn;

/// <summary>The cookie that a session rests on: it has the key of a row, and is worth nothing once that has ended.</summary>
internal static class SessionCookie
{
    private const string Key = "session";
    private const int LongestBrowser = 300;

    private static readonly TimeSpan Unused = TimeSpan.FromHours(12);

    /// <summary>
    /// How the cookie of a session is made: not to be read by scripts, not sent with requests of other sites, and only over TLS off the
    /// machine itself.
    /// </summary>
    public static void Configure(CookieAuthenticationOptions options)
    {
        options.Cookie.Name = "rendal";
        options.Cookie.HttpOnly = true;
        options.Cookie.SameSite = SameSiteMode.Strict;

        // Secure wherever the page came over TLS, to here or to a proxy that is trusted; on loopback it does not.
        options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        options.ExpireTimeSpan = Unused;
        options.SlidingExpiration = true;

        // The API answers with a status; there is no page to send people to from here.
        options.Events.OnRedirectToLogin = Answer(StatusCodes.Status401Unauthorized);
        options.Events.OnRedirectToAccessDenied = Answer(StatusCodes.Status403Forbidden);
        options.Events.OnValidatePrincipal = GoesOnAsync;
    }

    /// <summary>The number of the person who is signed in.</summary>
    public static long PersonId(this ClaimsPrincipal user) =>
        long.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!, CultureInfo.InvariantCulture);

    /// <summary>The hash of the key of the session by which somebody is signed in.</summary>
    public static byte[] SessionHash(this ClaimsPrincipal user) => SecretKey.Hash(user.FindFirstValue(Key)!);

    /// <summary>Signs a person in at this browser.</summary>
    public static async Task BeginAsync(HttpContext context, long person, string name, CancellationToken cancel)
    {
        var (key, now) = (SecretKey.New(), context.RequestServices.GetRequiredService<TimeProvider>().GetUtcNow());
        var browser = context.Request.Headers.UserAgent.ToString();
        await context
            .RequestServices.GetRequiredService<SessionStore>()
            .BeginAsync(
                person,
                SecretKey.Hash(key),
                browser[..Math.Min(browser.Length, LongestBrowser)].Replace('\0', ' '),
                now,
                now + Unused,
                cancel
            );
        var identity = new ClaimsIdentity(
            [
                new Claim(ClaimTypes.NameIdentifier, person.ToString(CultureInfo.InvariantCulture)),
                new Claim(ClaimTypes.Name, name),
                new Claim(Key, key),
            ],
            CookieAuthenticationDefaults.AuthenticationScheme
        );
        await context.SignInAsync(new ClaimsPrincipal(identity), new AuthenticationProperties { IsPersistent = true });
        context.RequestServices.GetRequiredService<KnownBrowsers>().Note(context, person);
    }

    private static async Task GoesOnAsync(CookieValidatePrincipalContext context)
    {
        var services = context.HttpContext.RequestServices;
        var now = services.GetRequiredService<TimeProvider>().GetUtcNow();
        if (
            context.Principal?.FindFirstValue(Key) is not { } key
            || !await services
                .GetRequiredService<SessionStore>()
                .UseAsync(SecretKey.Hash(key), now, now + Unused, context.HttpContext.RequestAborted)
        )
        {
            context.RejectPrincipal();
        }
    }

    private static Func<RedirectContext<CookieAuthenticationOptions>, Task> Answer(int status) =>
        context =>
        {
            context.Response.StatusCode = status;
            return Task.CompletedTask;
        };
}
