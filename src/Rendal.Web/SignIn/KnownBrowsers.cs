using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Rendal.App.People;

namespace Rendal.Web.SignIn;

/// <summary>
/// Browsers in which a person has signed in before. Their sign-ins are counted apart, so that nobody else's guessing keeps the person out
/// of their own browser.
/// </summary>
internal sealed class KnownBrowsers(IDataProtectionProvider protection)
{
    private const string Name = "rendal-browser";

    private static readonly TimeSpan Good = TimeSpan.FromDays(365);

    private readonly ITimeLimitedDataProtector protector = protection.CreateProtector("known browser").ToTimeLimitedDataProtector();

    /// <summary>Notes that a person has signed in at this browser.</summary>
    public void Note(HttpContext context, long person) =>
        context.Response.Cookies.Append(
            Name,
            protector.Protect(string.Create(CultureInfo.InvariantCulture, $"{person} {SecretKey.New()}"), Good),
            new CookieOptions
            {
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Secure = context.Request.IsHttps,
                Path = context.Request.PathBase + "/api/session",
                MaxAge = Good,
            }
        );

    /// <summary>By what this browser is known as one of a person's; null where it is not.</summary>
    public string? Of(HttpContext context, long person)
    {
        if (!context.Request.Cookies.TryGetValue(Name, out var cookie))
        {
            return null;
        }

        try
        {
            return protector.Unprotect(cookie).Split(' ') is [var of, var key] && of == person.ToString(CultureInfo.InvariantCulture)
                ? key
                : null;
        }
        catch (CryptographicException)
        {
            // Too old, from before the keys were lost, or somebody's invention: a browser like any other.
            return null;
        }
    }
}
