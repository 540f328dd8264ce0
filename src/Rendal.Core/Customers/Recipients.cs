using Rendal.Core.Parcels;

namespace Rendal.Core.Customers;

/// <summary>Whom one message goes to, each address once: who stands under to gets no copy beside it.</summary>
/// <param name="To">Who it is to.</param>
/// <param name="Copies">Who gets a copy that all see.</param>
/// <param name="BlindCopies">Who gets a copy that nobody else sees.</param>
/// <param name="Bad">What stands on the card as an address and is none, as written.</param>
public sealed record Recipients(
    IReadOnlyList<string> To,
    IReadOnlyList<string> Copies,
    IReadOnlyList<string> BlindCopies,
    IReadOnlyList<string> Bad
)
{
    /// <summary>All addresses that the message is handed to the server for.</summary>
    public IReadOnlyList<string> All { get; } = [.. To, .. Copies, .. BlindCopies];

    /// <summary>The recipients of a customer's messages in rounds of a kind; none where the customer wants no messages.</summary>
    /// <param name="customer">The card.</param>
    /// <param name="kind">What the round is about.</param>
    /// <param name="change">What was changed on the parcel; recipients that were set there stand for those of the card, also where that
    /// wants no messages.</param>
    public static Recipients Of(Customer customer, RoundKind kind, ParcelChange? change = null)
    {
        if (change?.Recipients is { } own)
        {
            return new Recipients(own.To, own.Copies, own.BlindCopies, []);
        }

        if (customer.Delivery is Delivery.Post or Delivery.Nothing)
        {
            return new Recipients([], [], [], []);
        }

        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var bad = new List<string>();
        List<string> Of(ContactRole role)
        {
            var good = new List<string>();
            foreach (var contact in customer.Contacts.Where(c => c.Role == role && c.Gets(kind)))
            {
                var addresses = AddressList.Read(contact.Address);
                good.AddRange(addresses.Good.Where(taken.Add));
                bad.AddRange(addresses.Bad);
            }

            return good;
        }

        var to = Of(ContactRole.To);
        var copies = Of(ContactRole.Copy);
        return new Recipients(to, copies, Of(ContactRole.BlindCopy), bad);
    }
}
