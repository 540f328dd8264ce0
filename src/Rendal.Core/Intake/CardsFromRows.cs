using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>What the rows of a ledger file say for the cards of its customers.</summary>
public static class CardsFromRows
{
    /// <summary>
    /// The cards that are made or changed by what rows say: customers that are on no list yet get one; a card that exists gets an address
    /// from the rows only where it has none.
    /// </summary>
    /// <param name="seen">The customers, as the rows tell of them.</param>
    /// <param name="cards">The cards that there are, by key.</param>
    /// <returns>The cards that are new or another than they were, in the order of <paramref name="seen"/>.</returns>
    public static IReadOnlyList<Customer> Told(IEnumerable<CustomerSeen> seen, IReadOnlyDictionary<string, Customer> cards)
    {
        var changed = new List<Customer>();
        foreach (var customer in seen)
        {
            var known = cards.GetValueOrDefault(customer.Key);
            var card = known
                ?? new Customer
                {
                    Key = customer.Key,
                    Name = customer.Key,
                    FromLedger = true,
                };
            if (card.FromLedger && customer.Name.Length > 0)
            {
                card = card with { Name = customer.Name };
            }

            if (customer.Addresses.Count > 0 && card.Email.Length == 0)
            {
                card = CardText.With(card, CardField.Email, string.Join("; ", customer.Addresses));
            }

            if (card != known)
            {
                changed.Add(card);
            }
        }

        return changed;
    }
}
