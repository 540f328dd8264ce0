using Microsoft.AspNetCore.Http.HttpResults;
using Rendal.Core.Customers;
using Rendal.Core.Intake;
using Rendal.Core.Wordings;
using Rendal.Files.Csv;
using Rendal.Web.Books;
using Rendal.Web.Hosting;
using Rendal.Web.Intake;

namespace Rendal.Web.Customers;

/// <summary>A customer's card.</summary>
internal sealed record CustomerView(string Key, string Name, string Contact, string Title, IReadOnlyList<string> PostalLines, string Country, string Email, string Language, bool OnHold, bool FromLedger, IReadOnlyList<string> BadAddresses, bool HasAddress)
{
    public static CustomerView Of(Customer c)
    {
        var addresses = AddressList.Read(c.Email);
        return new(c.Key, c.Name, c.Contact, c.Title, c.PostalLines, c.Country, c.Email, c.Language, c.OnHold, c.FromLedger, addresses.Bad, addresses.Good.Count > 0);
    }
}

/// <summary>What is put right on a card.</summary>
internal sealed record CustomerRequest(string Name, string Contact, string Title, IReadOnlyList<string> PostalLines, string Country, string Email, string Language, bool OnHold);

/// <summary>A customer list that was taken in.</summary>
internal sealed record CustomerListView(int Customers, IReadOnlyList<FindingView> Findings);

/// <summary>The customers of a book.</summary>
internal static class CustomerEndpoints
{
    private const int MostListed = 500;

    public static void Map(RouteGroupBuilder book)
    {
        var group = book.MapGroup("/customers").WithTags("Customers");
        group.MapGet("", ListAsync);
        group.MapGet("/card", CardAsync);
        group.MapPut("/card", UpdateAsync);
        group.MapPost("/list", TakeInAsync).DisableAntiforgery();
    }

    private static async Task<List<CustomerView>> ListAsync(BookScope scope, CancellationToken cancel, string search = "") =>
        (await scope.Customers.SearchAsync(search.Trim(), MostListed, cancel)).ConvertAll(CustomerView.Of);

    // Keys are free text and may hold a slash, so they stand in the query rather than in the path.
    private static async Task<CustomerView> CardAsync(string key, BookScope scope, CancellationToken cancel) =>
        CustomerView.Of(await scope.Customers.FindAsync(key, cancel) ?? throw Unable.NotFound("This customer"));

    private static async Task<Ok<CustomerView>> UpdateAsync(string key, CustomerRequest request, BookScope scope, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(request.Name))
        {
            throw Unable.Invalid("A customer needs a name.");
        }

        if (!Language.TryParse(request.Language, out var language))
        {
            throw Unable.Invalid($"“{request.Language}” is not a language that is known.");
        }

        var customer = new Customer
        {
            Key = key,
            Name = request.Name.Trim(),
            Contact = request.Contact.Trim(),
            Title = request.Title.Trim(),
            PostalLines = [.. request.PostalLines.Select(l => l.Trim()).Where(l => l.Length > 0)],
            Country = request.Country.Trim(),
            Email = request.Email.Trim(),
            Language = language.Code,
            OnHold = request.OnHold,
        };
        return await scope.Customers.UpdateAsync(customer, cancel) ? TypedResults.Ok(CustomerView.Of(customer)) : throw Unable.NotFound("This customer");
    }

    private static async Task<CustomerListView> TakeInAsync(IFormFile file, BookScope scope, CancellationToken cancel)
    {
        await using var content = file.OpenReadStream();
        var stored = await scope.Files.StoreAsync(Path.GetFileName(file.FileName), content, cancel);
        var list = CustomerListReader.Read(CsvLedger.Open(Path.GetFileName(file.FileName), () => scope.Files.Open(stored)))
            ?? throw Unable.Invalid($"{file.FileName} has no row of headings with a customer code or name; look whether it is the customer list.");
        await scope.Customers.TakeInAsync(list.Customers, cancel);
        return new CustomerListView(list.Customers.Count, [.. list.Findings.Select(FindingView.Of)]);
    }
}
