using System.Globalization;
using Rendal.App.Books;
using Rendal.Core.Customers;

namespace Rendal.App.Rounds;

/// <summary>An address that a message may be sent to.</summary>
/// <param name="Address">The address.</param>
/// <param name="Name">The name of the contact; empty for a shared mailbox.</param>
/// <param name="Of">The name of whose card it stands on.</param>
/// <param name="Problem">Why mail to it may not arrive, in words; empty for nothing known.</param>
public sealed record SuggestedAddress(string Address, string Name, string Of, string Problem);

/// <summary>The addresses that a customer's message may be sent to: those of its own card, then those of its head office.</summary>
public sealed class AddressSuggestions(BookStores stores)
{
    /// <summary>Gives them, each once; none of a customer without a card.</summary>
    public async Task<IReadOnlyList<SuggestedAddress>> RunAsync(string customer, CancellationToken cancel)
    {
        var returned = await stores.Returned.AddressesAsync(cancel);
        var own = await stores.Customers.FindAsync(customer, cancel);
        var office = own is { HeadOffice.Length: > 0 } ? await stores.Customers.FindAsync(own.HeadOffice, cancel) : null;
        return
        [
            .. new[] { own, office }
                .OfType<Customer>()
                .SelectMany(card => card.Contacts.Select(contact => (card, contact)))
                .SelectMany(c =>
                    AddressList
                        .Read(c.contact.Address)
                        .Good.Select(address => new SuggestedAddress(address, c.contact.Name, c.card.Name, Problem(address)))
                )
                .DistinctBy(a => a.Address, StringComparer.OrdinalIgnoreCase),
        ];

        string Problem(string address) =>
            returned.TryGetValue(address, out var back)
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"{(back.IsRefused ? "refused" : "came back")} on {stores.Book.DayOf(back.Since):d MMMM yyyy}"
                )
                : "";
    }
}
