using System.ComponentModel.DataAnnotations;
using Rendal.App;
using Rendal.App.Books;
using Rendal.Core.Layouts;

namespace Rendal.Web.Books;

/// <summary>What a new book is made from.</summary>
internal sealed record NewBook(
    [property: StringLength(200)] string Name,
    [property: StringLength(10)] string Currency,
    [property: MaxLength(20)] IReadOnlyList<string> AddressLines,
    [property: MaxLength(20)] IReadOnlyList<string> ContactLines,
    [property: MaxLength(20)] IReadOnlyList<string> PaymentLines,
    [property: StringLength(100)] string TimeZone = "Europe/London"
)
{
    /// <summary>Looks at it before anything is made.</summary>
    /// <exception cref="ProblemException">Something of it is missing or wrong.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name))
        {
            throw ProblemException.Invalid("Say the firm’s name.");
        }

        if (!Rendal.Core.Money.Currency.TryParse(Currency, out _))
        {
            throw ProblemException.Invalid($"“{Currency}” is not a currency code; write three letters such as GBP or EUR.");
        }

        if (!TimeZoneInfo.TryFindSystemTimeZoneById(TimeZone, out _))
        {
            throw ProblemException.Invalid($"“{TimeZone}” is not a time zone; write one such as Europe/London.");
        }
    }

    /// <summary>Makes it, given to a person.</summary>
    public Task<long> MakeAsync(MakeBook making, long person, CancellationToken cancel) =>
        making.RunAsync(
            new Firm(Name.Trim(), Lines(AddressLines), Lines(ContactLines), Lines(PaymentLines)),
            Rendal.Core.Money.Currency.Of(Currency),
            TimeZone,
            person,
            cancel
        );

    private static string[] Lines(IReadOnlyList<string> lines) => [.. lines.Select(l => l.Trim()).Where(l => l.Length > 0)];
}
