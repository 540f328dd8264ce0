using Rendal.Core.Parcels;

namespace Rendal.Core.Customers;

/// <summary>The contacts of a card, changed for good from the recipients of one message.</summary>
public static class ContactList
{
    /// <summary>
    /// Contacts by which messages of a kind go to exactly some recipients. Who is among them stands as they do, for all kinds of rounds
    /// that they got before; who got this kind and is not among them is taken off; who is new is added, for all kinds. Contacts that do
    /// not get this kind, and those without an address, stay as they are.
    /// </summary>
    /// <param name="contacts">The contacts.</param>
    /// <param name="kind">The kind of rounds.</param>
    /// <param name="recipients">Whom messages of this kind are to go to.</param>
    public static IReadOnlyList<Contact> With(IReadOnlyList<Contact> contacts, RoundKind kind, ParcelRecipients recipients)
    {
        var wanted = new Dictionary<string, ContactRole>(StringComparer.OrdinalIgnoreCase);
        foreach (
            var (address, role) in recipients
                .To.Select(a => (a, ContactRole.To))
                .Concat(recipients.Copies.Select(a => (a, ContactRole.Copy)))
                .Concat(recipients.BlindCopies.Select(a => (a, ContactRole.BlindCopy)))
        )
        {
            wanted.TryAdd(address, role);
        }

        var list = new List<Contact>();
        var placed = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var contact in contacts)
        {
            var addresses = AddressList.Read(contact.Address);
            if (!contact.Gets(kind) || (addresses.Good.Count == 0 && addresses.Bad.Count == 0))
            {
                list.Add(contact);
                continue;
            }

            // One field may hold addresses that come to stand differently; the name stays with the first of each.
            foreach (var role in addresses.Good.Where(a => wanted.ContainsKey(a) && placed.Add(a)).GroupBy(a => wanted[a]))
            {
                list.Add(contact with { Address = string.Join("; ", role), Role = role.Key });
            }
        }

        list.AddRange(wanted.Where(w => !placed.Contains(w.Key)).Select(w => new Contact { Address = w.Key, Role = w.Value }));
        return list;
    }
}
