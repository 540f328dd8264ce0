using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Customers;
using Rendal.Core.Customers;
using Rendal.Core.Dispatch;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Store.Customers;
using Rendal.Store.Returned;
using Rendal.Web.Books;
using Rendal.Web.Rounds;

namespace Rendal.Web.Customers;

/// <summary>Terms as days, from the document's date or from the end of its month.</summary>
internal sealed record TermsView(int Days, bool FromMonthEnd);

/// <summary>A customer's card.</summary>
/// <param name="Version">Which it is; another one after each change.</param>
/// <param name="BadAddresses">What stands as an address and is none.</param>
/// <param name="Branches">The customers whose head office this one is, by key.</param>
internal sealed record CustomerView(
    string Key,
    long Version,
    string Name,
    IReadOnlyList<Contact> Contacts,
    string Salutation,
    string Opening,
    Delivery Delivery,
    IReadOnlyList<string> PostalLines,
    string Country,
    string Language,
    TermsView? Terms,
    string HeadOffice,
    GroupStatements Groups,
    StatementForm? Form,
    string Unit,
    string? MinimumBalance,
    bool OnHold,
    long? OwnWording,
    long? OwnLayout,
    string Notes,
    IReadOnlyDictionary<string, string> Extra,
    bool FromLedger,
    IReadOnlyList<string> BadAddresses,
    IReadOnlyList<string> Branches
)
{
    /// <summary>A card as the browser is told of it.</summary>
    /// <param name="c">The card.</param>
    /// <param name="version">Its version, by which an edit of somebody else is noticed.</param>
    /// <param name="branches">The keys of the accounts whose head office it is.</param>
    public static CustomerView Of(Customer c, long version, IReadOnlyList<string> branches) =>
        new(
            c.Key,
            version,
            c.Name,
            c.Contacts,
            c.Salutation,
            Rendal.Core.Wordings.Salutation.Of(
                c,
                Rendal.Core.Wordings.Language.TryParse(c.Language, out var language) ? language : Rendal.Core.Wordings.Language.English
            ),
            c.Delivery,
            c.PostalLines,
            c.Country,
            c.Language,
            c.Terms is { } terms ? new TermsView(terms.Days, terms.FromMonthEnd) : null,
            c.HeadOffice,
            c.Groups,
            c.Form,
            c.Unit,
            c.MinimumBalance?.ToString(System.Globalization.CultureInfo.InvariantCulture),
            c.OnHold,
            c.OwnWording,
            c.OwnLayout,
            c.Notes,
            c.Extra,
            c.FromLedger,
            Recipients.Of(c, RoundKind.Statements).Bad,
            branches
        );
}

/// <summary>A statement of a customer that was let go.</summary>
/// <param name="To">The head office that got it; null where the customer did.</param>
internal sealed record ClaimLine(
    string? To,
    long Round,
    string RoundName,
    DateOnly AsOf,
    DateTimeOffset ReleasedAt,
    string State,
    int? ReminderLevel,
    IReadOnlyList<ParcelSumView> Sums
);

/// <summary>What a customer owed when a ledger was kept.</summary>
internal sealed record BalanceLine(long Intake, string File, DateTimeOffset KeptAt, string Currency, string Balance, int Items);

/// <summary>What was with a customer over time, the newest first.</summary>
internal sealed record HistoryView(
    IReadOnlyList<ClaimLine> Claims,
    IReadOnlyList<BalanceLine> Balances,
    IReadOnlyList<ReturnedLine> Returned,
    IReadOnlyList<ReturnedAddress> ReturnedAddresses
);

/// <summary>A customer in the list.</summary>
internal sealed record CustomerLine(
    string Key,
    string Name,
    string Contact,
    string Address,
    int MoreAddresses,
    Delivery Delivery,
    string Language,
    string Unit,
    bool OnHold,
    bool FromLedger,
    bool HasBadAddress
)
{
    /// <summary>A card as a line of the list.</summary>
    public static CustomerLine Of(Customer c)
    {
        var recipients = Recipients.Of(c, RoundKind.Statements);
        var contact = c.Title.Length > 0 ? $"{c.Title} {c.Contact}" : c.Contact;
        return new(
            c.Key,
            c.Name,
            contact,
            recipients.To is [var first, ..] ? first : c.Email,
            Math.Max(recipients.All.Count - 1, 0),
            c.Delivery,
            c.Language,
            c.Unit,
            c.OnHold,
            c.FromLedger,
            recipients.Bad.Count > 0
        );
    }
}

/// <summary>A part of the customers, with how many there are in all.</summary>
internal sealed record CustomerPart(int Count, IReadOnlyList<CustomerLine> Customers);

/// <summary>What is put right on a card.</summary>
/// <param name="Version">The card that it was put right on.</param>
internal sealed record CustomerRequest(
    long Version,
    [property: StringLength(200)] string Name,
    [property: MaxLength(100)] IReadOnlyList<Contact> Contacts,
    [property: StringLength(500)] string Salutation,
    Delivery Delivery,
    [property: MaxLength(20)] IReadOnlyList<string> PostalLines,
    [property: StringLength(200)] string Country,
    string Language,
    TermsView? Terms,
    [property: StringLength(200)] string HeadOffice,
    GroupStatements Groups,
    StatementForm? Form,
    [property: StringLength(200)] string Unit,
    decimal? MinimumBalance,
    bool OnHold,
    long? OwnWording,
    long? OwnLayout,
    string Notes
)
{
    /// <summary>The card as it is stored, under a key.</summary>
    public Customer Card(string key) =>
        new()
        {
            Key = key,
            Name = Name,
            Contacts = Contacts,
            Salutation = Salutation,
            Delivery = Delivery,
            PostalLines = PostalLines,
            Country = Country,
            Language = Language,
            Terms = Terms is { } terms ? new PaymentTerms(terms.Days, terms.FromMonthEnd) : null,
            HeadOffice = HeadOffice,
            Groups = Groups,
            Form = Form,
            Unit = Unit,
            MinimumBalance = MinimumBalance,
            OnHold = OnHold,
            OwnWording = OwnWording,
            OwnLayout = OwnLayout,
            Notes = Notes,
        };
}

/// <summary>The customers of a book.</summary>
internal static class CustomerEndpoints
{
    private const int MostListed = 200;

    /// <summary>The endpoints of a book that stand under <c>/customers</c>.</summary>
    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/customers").WithTags("Customers");
        group.MapGet("", ListAsync);
        group.MapGet("/card", CardAsync);
        group.MapGet("/history", HistoryAsync);
        group.MapPut("/card", UpdateAsync);
        group.MapDelete("/returned-address", GoodAgainAsync);
    }

    private static async Task<CustomerPart> ListAsync(
        BookScope scope,
        CancellationToken cancel,
        string search = "",
        string order = "name",
        bool descending = false,
        int from = 0,
        int count = MostListed
    )
    {
        if (!Enum.TryParse<CustomerOrder>(order, ignoreCase: true, out var by))
        {
            throw ProblemException.Invalid($"Customers are not ordered by “{order}”.");
        }

        var (customers, all) = await scope.Customers.SearchAsync(
            search.Trim(),
            by,
            descending,
            Math.Max(from, 0),
            Math.Clamp(count, 0, MostListed),
            cancel
        );
        return new CustomerPart(all, customers.ConvertAll(CustomerLine.Of));
    }

    // Keys are free text and may hold a slash, so they stand in the query rather than in the path.
    private static async Task<CustomerView> CardAsync(string key, BookScope scope, CancellationToken cancel)
    {
        // The version first: a card that is changed in between is taken for older than it is, and nothing is written over it.
        var version = await scope.Customers.VersionAsync(key, cancel) ?? throw ProblemException.NotFound("This customer");
        var card = await scope.Customers.FindAsync(key, cancel) ?? throw ProblemException.NotFound("This customer");
        return CustomerView.Of(
            card,
            version,
            [
                .. (await scope.Customers.HeadOfficesAsync(cancel))
                    .Where(h => h.Value == key)
                    .Select(h => h.Key)
                    .Order(StringComparer.Ordinal),
            ]
        );
    }

    private static async Task<HistoryView> HistoryAsync(string key, BookScope scope, CancellationToken cancel) =>
        new(
            [
                .. (await scope.History.ClaimsAsync(key, cancel)).Select(c => new ClaimLine(
                    c.Customer == key ? null : c.Customer,
                    c.Round,
                    c.RoundName,
                    c.AsOf,
                    c.ReleasedAt,
                    c.State.Code(),
                    c.ReminderLevel,
                    [.. c.Sums.Select(ParcelSumView.Of)]
                )),
            ],
            [
                .. (await scope.History.BalancesAsync(key, cancel)).Select(b => new BalanceLine(
                    b.Intake,
                    b.File,
                    b.KeptAt,
                    b.Currency,
                    Currency.Of(b.Currency).Plain(b.Balance),
                    b.Items
                )),
            ],
            await scope.Returned.OfAsync(key, cancel),
            await ReturnedAddressesAsync(key, scope, cancel)
        );

    /// <summary>Those addresses on a customer's card that mail came back from.</summary>
    private static async Task<List<ReturnedAddress>> ReturnedAddressesAsync(string key, BookScope scope, CancellationToken cancel)
    {
        var returned = await scope.Returned.AddressesAsync(cancel);
        return returned.Count == 0 || await scope.Customers.FindAsync(key, cancel) is not { } card
            ? []
            :
            [
                .. card
                    .Contacts.SelectMany(c => AddressList.Read(c.Address).Good)
                    .Select(a => returned.GetValueOrDefault(a))
                    .OfType<ReturnedAddress>()
                    .Distinct(),
            ];
    }

    private static async Task<NoContent> GoodAgainAsync(string address, BookScope scope, CancellationToken cancel) =>
        await scope.Returned.GoodAgainAsync(address, scope.Person, cancel)
            ? TypedResults.NoContent()
            : throw ProblemException.NotFound("This address");

    private static async Task<Ok<CustomerView>> UpdateAsync(
        string key,
        CustomerRequest request,
        BookScope scope,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        await new ChangeCard(scope, clock).RunAsync(request.Card(key), request.Version, cancel);
        return TypedResults.Ok(await CardAsync(key, scope, cancel));
    }
}
