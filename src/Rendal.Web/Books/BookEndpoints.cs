using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Store.Books;
using Rendal.Web.Hosting;
using Rendal.Web.SignIn;

namespace Rendal.Web.Books;

/// <summary>A book in a list.</summary>
internal sealed record BookLine(long Id, string Name, string Currency);

/// <summary>A book as its settings show it.</summary>
internal sealed record BookView(long Id, string Name, string Currency, DateOnly Today, IReadOnlyList<string> AddressLines, IReadOnlyList<string> ContactLines, IReadOnlyList<string> PaymentLines, IReadOnlyList<string> AgeLabels);

/// <summary>How the firm is to stand on its letters.</summary>
internal sealed record FirmRequest(string Name, IReadOnlyList<string> AddressLines, IReadOnlyList<string> ContactLines, IReadOnlyList<string> PaymentLines);

/// <summary>Making and changing books.</summary>
internal static class BookEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var group = api.MapGroup("/").WithTags("Books");
        group.MapPost("/books", MakeAsync);
        group.MapGet("/books/{book:long}", View);
        group.MapPut("/books/{book:long}/firm", UpdateFirmAsync);
        group.MapGet("/currencies", () => Currency.Codes);
    }

    private static async Task<BookLine> MakeAsync(NewBook request, BookMaking making, ClaimsPrincipal user, CancellationToken cancel)
    {
        request.Check();
        return new BookLine(await making.MakeAsync(request, user.PersonId(), cancel), request.Name.Trim(), Currency.Of(request.Currency).Code);
    }

    private static BookView View(BookScope scope, TimeProvider clock)
    {
        var book = scope.Book;
        var ageing = book.Ageing;
        var labels = Enumerable.Range(0, ageing.BandCount).Select(b => b == 0 ? "not due" : ageing.Span(b));
        return new BookView(book.Id, book.Firm.Name, book.Currency.Code, book.Today(clock), book.Firm.AddressLines, book.Firm.ContactLines, book.Firm.PaymentLines, [.. labels]);
    }

    private static async Task<NoContent> UpdateFirmAsync(FirmRequest request, BookScope scope, BookStore books, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(request.Name))
        {
            throw Unable.Invalid("Say the firm’s name.");
        }

        await books.UpdateFirmAsync(scope.Book.Id, new Firm(request.Name.Trim(), request.AddressLines, request.ContactLines, request.PaymentLines), cancel);
        return TypedResults.NoContent();
    }
}
