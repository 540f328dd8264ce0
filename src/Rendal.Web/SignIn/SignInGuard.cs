using System.Net;
using System.Net.Sockets;
using Microsoft.AspNetCore.Identity;
using Rendal.App;
using Rendal.App.People;
using Rendal.Core.People;
using Rendal.Store.People;

namespace Rendal.Web.SignIn;

/// <summary>Looks at names and passwords, slower the more of them were wrong, and never faster because many come at once.</summary>
internal sealed partial class SignInGuard(
    PersonStore people,
    SignInCounts counts,
    KnownBrowsers browsers,
    PasswordHasher<Person> hasher,
    TimeProvider clock,
    ILogger<SignInGuard> log
)
{
    private const int FreeOfAccount = 5;
    private const int FreeOfAddress = 30;

    private static readonly TimeSpan LongestOfAccount = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan LongestOfAddress = TimeSpan.FromMinutes(15);

    // A name that nobody has takes as long as one that somebody has, so that names cannot be found out by the clock.
    private static readonly Lazy<string> Nobodys = new(() => new PasswordHasher<Person>().HashPassword(null!, SecretKey.New()));

    /// <summary>The person of a name and password.</summary>
    /// <exception cref="ProblemException">They are wrong, or there were too many.</exception>
    public async Task<Person> DemandAsync(HttpContext context, string name, string password, CancellationToken cancel)
    {
        var person = await people.FindAsync(name, cancel);
        var known = person is null ? null : browsers.Of(context, person.Id);
        SignInPace[] paces = known is not null
            ? [new($"browser {known}", FreeOfAccount, LongestOfAddress)]
            :
            [
                new($"account {PersonName.Fold(name)}", FreeOfAccount, LongestOfAccount),
                new($"address {Place(context.Connection.RemoteIpAddress)}", FreeOfAddress, LongestOfAddress),
            ];
        if (await counts.BeginAsync(paces, clock.GetUtcNow(), cancel) is { } wait)
        {
            Slowed(log, person?.Id, context.Connection.RemoteIpAddress);
            var seconds = Math.Max(1, (int)Math.Ceiling(wait.TotalSeconds));
            throw new ProblemException(
                ProblemReason.TooMany,
                $"Too many sign-ins failed. Try again in {seconds} {(seconds == 1 ? "second" : "seconds")}."
            )
            {
                RetryAfterSeconds = seconds,
            };
        }

        var right =
            hasher.VerifyHashedPassword(person!, person?.PasswordHash ?? Nobodys.Value, password) != PasswordVerificationResult.Failed;
        if (person is null || !right)
        {
            Failed(log, person?.Id, context.Connection.RemoteIpAddress);
            throw new ProblemException(ProblemReason.NotSignedIn, "The name or the password is wrong.");
        }

        await counts.ForgetAsync(paces[0].Subject, paces.Skip(1).Select(p => p.Subject), clock.GetUtcNow(), cancel);
        return person;
    }

    /// <summary>What of an address is counted: one of IPv6 is as many as its owner likes, so that its network is.</summary>
    private static string Place(IPAddress? address) =>
        address switch
        {
            null => "none",
            { IsIPv4MappedToIPv6: true } => address.MapToIPv4().ToString(),
            { AddressFamily: AddressFamily.InterNetworkV6 } => Convert.ToHexString(address.GetAddressBytes().AsSpan(0, 8)),
            _ => address.ToString(),
        };

    [LoggerMessage(Level = LogLevel.Warning, Message = "A sign-in failed: person {Person}, from {Address}")]
    private static partial void Failed(ILogger log, long? person, IPAddress? address);

    [LoggerMessage(
        Level = LogLevel.Warning,
        Message = "A sign-in was not looked at, because too many failed: person {Person}, from {Address}"
    )]
    private static partial void Slowed(ILogger log, long? person, IPAddress? address);
}
