using Rendal.App.Books;
using Rendal.Core.Customers;
using Rendal.Core.Wordings;
using Rendal.Store;

namespace Rendal.App.Customers;

/// <summary>Changes the card of a customer.</summary>
public sealed class ChangeCard(BookStores stores, TimeProvider clock)
{
    /// <summary>
    /// Stores a card in place of the one that was there. Spaces around its texts are dropped, and contacts and lines without any text.
    /// </summary>
    /// <param name="card">What it is to be; <see cref="Customer.Extra"/> stays.</param>
    /// <param name="version">The version that it was changed from.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ProblemException">The customer is not there, somebody else changed the card since, or it says what cannot be: no
    /// name, a language that is not known, terms or a least balance out of range, a wording, layout or head office that is not there, or a
    /// head office that is under the customer.</exception>
    public async Task RunAsync(Customer card, long version, CancellationToken cancel)
    {
        var changed = await CheckedAsync(card, cancel);
        switch (await stores.Customers.UpdateAsync(changed, version, stores.Person, clock.GetUtcNow(), cancel))
        {
            case Update.Done:
                return;
            case Update.Stale:
                throw ProblemException.Conflict(
                    $"{await stores.Customers.ChangedByAsync(card.Key, cancel) ?? "A file that was taken in"} changed this "
                        + "card since you opened it. What they changed is in the fields now, beside what you entered: look, and "
                        + "save again."
                );
            default:
                throw ProblemException.NotFound("This customer");
        }
    }

    private async Task<Customer> CheckedAsync(Customer card, CancellationToken cancel)
    {
        if (string.IsNullOrWhiteSpace(card.Name))
        {
            throw ProblemException.Invalid("A customer needs a name.");
        }

        if (!Language.TryParse(card.Language, out var language))
        {
            throw ProblemException.Invalid($"“{card.Language}” is not a language that is known.");
        }

        if (card.Terms is { Days: < 0 or > PaymentTerms.MostDays })
        {
            throw ProblemException.Invalid($"Terms are 0 to {PaymentTerms.MostDays} days.");
        }

        if (card.MinimumBalance < 0)
        {
            throw ProblemException.Invalid("The least balance cannot be below zero.");
        }

        if (card.OwnWording is { } wording && await stores.Wordings.FindAsync(wording, cancel) is null)
        {
            throw ProblemException.Invalid("The wording is not there any more.");
        }

        if (card.OwnLayout is { } layout && await stores.Layouts.FindAsync(layout, cancel) is null)
        {
            throw ProblemException.Invalid("The layout is not there any more.");
        }

        var office = card.HeadOffice.Trim();
        await DemandOfficeAsync(card.Key, office, cancel);
        return card with
        {
            Name = card.Name.Trim(),
            Contacts =
            [
                .. card
                    .Contacts.Select(c => c with { Name = c.Name.Trim(), Title = c.Title.Trim(), Address = c.Address.Trim() })
                    .Where(c => c.Name.Length + c.Title.Length + c.Address.Length > 0),
            ],
            Salutation = card.Salutation.Trim(),
            PostalLines = [.. card.PostalLines.Select(l => l.Trim()).Where(l => l.Length > 0)],
            Country = card.Country.Trim(),
            Language = language.Code,
            HeadOffice = office,
            Unit = card.Unit.Trim(),
            Notes = card.Notes.Trim(),
        };
    }

    private async Task DemandOfficeAsync(string key, string office, CancellationToken cancel)
    {
        if (office.Length == 0)
        {
            return;
        }

        if (office == key)
        {
            throw ProblemException.Invalid("A customer cannot be its own head office.");
        }

        if (await stores.Customers.FindAsync(office, cancel) is null)
        {
            throw ProblemException.Invalid($"There is no customer {office} that could be the head office.");
        }

        var offices = await stores.Customers.HeadOfficesAsync(cancel);
        offices[key] = office;
        if (new HeadOffices(offices).Loops().FirstOrDefault(l => l.Contains(key)) is { } loop)
        {
            throw ProblemException.Invalid($"{string.Join(" is under ", loop.Append(loop[0]))}: then none of them is at the top.");
        }
    }
}
