using System.ComponentModel.DataAnnotations;
using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.App;
using Rendal.App.Books;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;
using Rendal.Store.Books;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>A book in a list.</summary>
internal sealed record BookLine(long Id, string Name, string Currency);

/// <summary>A book as its settings show it.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Name">The firm.</param>
/// <param name="Currency">The currency of rows that name none.</param>
/// <param name="Today">The day that it is in its zone.</param>
/// <param name="TimeZone">The IANA name of its zone, in which all moments are shown.</param>
/// <param name="AddressLines">The firm’s address.</param>
/// <param name="ContactLines">How the firm is reached.</param>
/// <param name="PaymentLines">Its bank details.</param>
/// <param name="FootLines">What stands under every message.</param>
/// <param name="AgeLabels">What the bands are called, the one for what is not due first.</param>
/// <param name="Rules">What holds for all its statements.</param>
internal sealed record BookView(
    long Id,
    string Name,
    string Currency,
    DateOnly Today,
    string TimeZone,
    IReadOnlyList<string> AddressLines,
    IReadOnlyList<string> ContactLines,
    IReadOnlyList<string> PaymentLines,
    IReadOnlyList<string> FootLines,
    IReadOnlyList<string> AgeLabels,
    RulesRequest Rules
);

/// <summary>How the firm is to stand on its letters.</summary>
internal sealed record FirmRequest(
    [property: StringLength(200)] string Name,
    [property: MaxLength(20)] IReadOnlyList<string> AddressLines,
    [property: MaxLength(20)] IReadOnlyList<string> ContactLines,
    [property: MaxLength(20)] IReadOnlyList<string> PaymentLines,
    [property: MaxLength(20)] IReadOnlyList<string> FootLines
);

/// <summary>What holds for all statements of a book.</summary>
/// <param name="Edges">The last day of each band, growing, as a person writes them: <c>30, 60, 90</c>.</param>
/// <param name="By">From which date an age counts.</param>
/// <param name="CreditsByDate">Whether credits are put into the band of their own age.</param>
/// <param name="Form">What a statement lists where neither round nor customer says.</param>
/// <param name="Settlement">How payments are set against invoices; null to go by the file.</param>
/// <param name="TermsDays">Days net where neither file nor customer says.</param>
/// <param name="Levels">The reminder levels from the first.</param>
/// <param name="MaySkip">Whether levels may be skipped.</param>
/// <param name="MayRepeat">Whether the last level is repeated.</param>
internal sealed record RulesRequest(
    [property: StringLength(200)] string Edges,
    AgeBy By,
    bool CreditsByDate,
    StatementForm Form,
    SettlementRule? Settlement,
    int TermsDays,
    [property: MaxLength(20)] IReadOnlyList<ReminderLevel> Levels,
    bool MaySkip,
    bool MayRepeat
)
{
    /// <summary>What holds in a book, to be sent back.</summary>
    public static RulesRequest Of(Book book) =>
        new(
            string.Join(", ", book.Rules.Ageing.UpperEdges),
            book.Rules.Ageing.By,
            book.Rules.Ageing.CreditsByDate,
            book.Rules.Form,
            book.Rules.Settlement,
            book.TermsDays,
            book.Rules.Reminders.Levels,
            book.Rules.Reminders.MaySkip,
            book.Rules.Reminders.MayRepeat
        );

    /// <summary>What is to hold, for the use case.</summary>
    public StatementRules Rules()
    {
        try
        {
            var edges = Edges
                .Split([' ', ',', ';'], StringSplitOptions.RemoveEmptyEntries)
                .Select(e => int.Parse(e, NumberStyles.None, CultureInfo.InvariantCulture));
            return new StatementRules(new AgeingRule([.. edges], By, CreditsByDate), Form, Settlement) { Reminders = Reminders() };
        }
        catch (Exception e) when (e is ArgumentException or FormatException or OverflowException)
        {
            throw ProblemException.Invalid("The bands need one to eight last days that grow, such as 30, 60, 90.");
        }
    }

    private ReminderRules Reminders()
    {
        try
        {
            return new ReminderRules(Levels, MaySkip, MayRepeat);
        }
        catch (ArgumentException e)
        {
            throw ProblemException.Invalid(e.Message);
        }
    }
}

/// <summary>Making and changing books.</summary>
internal static class BookEndpoints
{
    /// <summary>The endpoints about books: which there are, and what holds in one.</summary>
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/").WithTags("Books");
        group.MapPost("/books", MakeAsync);
        group.MapGet("/books/{book:long}", View);
        group.MapPut("/books/{book:long}/firm", UpdateFirmAsync);
        group.MapPut("/books/{book:long}/rules", UpdateRulesAsync);
        group.MapGet("/currencies", () => Currency.Codes);
    }

    private static async Task<BookLine> MakeAsync(NewBook request, MakeBook making, ClaimsPrincipal user, CancellationToken cancel)
    {
        request.Check();
        return new BookLine(
            await request.MakeAsync(making, user.PersonId(), cancel),
            request.Name.Trim(),
            Currency.Of(request.Currency).Code
        );
    }

    private static BookView View(BookScope scope, TimeProvider clock)
    {
        var book = scope.Book;
        return new BookView(
            book.Id,
            book.Firm.Name,
            book.Currency.Code,
            book.Today(clock),
            book.TimeZone,
            book.Firm.AddressLines,
            book.Firm.ContactLines,
            book.Firm.PaymentLines,
            book.Firm.FootLines,
            AgeLabels(book.Rules.Ageing),
            RulesRequest.Of(book)
        );
    }

    /// <summary>What the bands are called, the one for what is not due first.</summary>
    internal static IReadOnlyList<string> AgeLabels(AgeingRule ageing) =>
        [.. Enumerable.Range(0, ageing.BandCount).Select(b => b == 0 ? "not due" : ageing.Span(b))];

    private static async Task<NoContent> UpdateRulesAsync(RulesRequest request, BookScope scope, BookStore books, CancellationToken cancel)
    {
        await new ChangeRules(scope, books).RunAsync(request.Rules(), request.TermsDays, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> UpdateFirmAsync(FirmRequest request, BookScope scope, BookStore books, CancellationToken cancel)
    {
        await new ChangeFirm(scope, books).RunAsync(
            new Firm(request.Name, request.AddressLines, request.ContactLines, request.PaymentLines) { FootLines = request.FootLines },
            cancel
        );
        return TypedResults.NoContent();
    }
}
