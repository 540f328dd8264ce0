using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Money;
using Rendal.Core.Wordings;

namespace Rendal.Core.Intake;

/// <summary>The fields of a customer's card as text: as lists bring them, as people type them, as corrections remember them.</summary>
public static class CardText
{
    private static readonly Dictionary<string, Delivery> Deliveries = new (string Words, Delivery Delivery)[]
    {
        ("e mail|email|mail|electronic|e post|courriel|correo|posta elettronica", Delivery.Email),
        ("post|letter|paper|print|brief|papier|courrier|correo postal|carta|posta|per post", Delivery.Post),
        ("both|e mail and post|beides|les deux|ambos|entrambi|beide", Delivery.Both),
        ("nothing|none|no|keine|nichts|rien|nada|niente|niets|geen", Delivery.Nothing),
    }
        .SelectMany(d => d.Words.Split('|').Select(w => KeyValuePair.Create(w, d.Delivery)))
        .ToDictionary();

    /// <summary>
    /// The field as text; empty where it is not filled. Terms are written as <c>30 days</c>, lines of an address one below the other.
    /// </summary>
    public static string Of(Customer customer, CardField field) =>
        field switch
        {
            CardField.Name => customer.Name,
            CardField.Contact => customer.Contact,
            CardField.Title => customer.Title,
            CardField.Salutation => customer.Salutation,
            CardField.Email => customer.Email,
            CardField.CopyEmail => Addresses(customer, ContactRole.Copy),
            CardField.BlindCopyEmail => Addresses(customer, ContactRole.BlindCopy),
            CardField.Address => string.Join('\n', customer.PostalLines),
            CardField.Country => customer.Country,
            CardField.Delivery => customer.Delivery == Delivery.Email ? "" : customer.Delivery.ToString().ToLowerInvariant(),
            CardField.Language => customer.Language,
            CardField.Terms => customer.Terms?.ToString() ?? "",
            CardField.HeadOffice => customer.HeadOffice,
            CardField.Unit => customer.Unit,
            CardField.MinimumBalance => customer.MinimumBalance?.ToString(CultureInfo.InvariantCulture) ?? "",
            CardField.Hold => customer.OnHold ? "on hold" : "",
            CardField.Notes => customer.Notes,
            _ => "",
        };

    /// <summary>The card with a field set from text. Text that <see cref="Problem"/> says is unknown leaves the card as it is.</summary>
    public static Customer With(Customer customer, CardField field, string text) =>
        field switch
        {
            CardField.Name => text.Length > 0 ? customer with { Name = text } : customer,
            CardField.Contact => customer with { Contacts = First(customer, c => c with { Name = text }) },
            CardField.Title => customer with { Contacts = First(customer, c => c with { Title = text }) },
            CardField.Salutation => customer with { Salutation = text },
            CardField.Email => customer with { Contacts = WithAddresses(customer, ContactRole.To, text) },
            CardField.CopyEmail => customer with { Contacts = WithAddresses(customer, ContactRole.Copy, text) },
            CardField.BlindCopyEmail => customer with { Contacts = WithAddresses(customer, ContactRole.BlindCopy, text) },
            CardField.Address => customer with
            {
                PostalLines = [.. text.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)],
            },
            CardField.Country => customer with { Country = text },
            CardField.Delivery => customer with
            {
                Delivery = text.Length == 0 ? Delivery.Email : Deliveries.GetValueOrDefault(HeadingWords.Plain(text), customer.Delivery),
            },
            CardField.Language => customer with
            {
                Language =
                    text.Length == 0 ? "en"
                    : Language.TryParse(text, out var language) ? language.Code
                    : customer.Language,
            },
            CardField.Terms => customer with
            {
                Terms =
                    text.Length == 0 ? null
                    : PaymentTerms.TryParse(text, out var terms) ? terms
                    : customer.Terms,
            },
            CardField.HeadOffice => customer with { HeadOffice = text == customer.Key ? "" : text },
            CardField.Unit => customer with { Unit = text },
            CardField.MinimumBalance => customer with
            {
                MinimumBalance = text.Length == 0 ? null : Minimum(text) ?? customer.MinimumBalance,
            },
            CardField.Hold => customer with { OnHold = !YesNo.IsNo(text) },
            CardField.Notes => customer with { Notes = text },
            _ => customer,
        };

    /// <summary>What is wrong with the text of a field; null when nothing is.</summary>
    public static (string Code, string Message, string Remedy)? Problem(CardField field, string text)
    {
        var shown = LedgerCells.Short(text);
        return field switch
        {
            CardField.Email
            or CardField.CopyEmail
            or CardField.BlindCopyEmail when AddressList.Read(text) is { Bad: [var bad, ..] } list => (
                FindingCodes.BadAddress,
                $"“{LedgerCells.Short(bad)}” is not an e-mail address.",
                list.Good.Count > 0 ? "Correct it; the other addresses still serve." : "Correct it; until then nothing can be sent there."
            ),
            CardField.Language when !Language.TryParse(text, out _) => Unknown(
                $"“{shown}” is not a language that is known.",
                $"Write one of {string.Join(", ", Language.All.Select(l => l.Code))}."
            ),
            CardField.Terms when !PaymentTerms.TryParse(text, out _) => Unknown(
                $"“{shown}” are no terms that are understood.",
                "Write days such as 30, or end of month + 30."
            ),
            CardField.Delivery when !Deliveries.ContainsKey(HeadingWords.Plain(text)) => Unknown(
                $"“{shown}” is no way of sending.",
                "Write e-mail, post, both or nothing."
            ),
            CardField.MinimumBalance when Minimum(text) is null => Unknown($"“{shown}” is not an amount.", "Write it like 25.00."),
            _ => null,
        };
    }

    private static (string, string, string) Unknown(string message, string remedy) =>
        (FindingCodes.ValueUnknown, message, remedy + " The card stays as it was.");

    private static decimal? Minimum(string text) =>
        WrittenAmount.TryTake(text, out var amount) && amount.TryValue(amount.Evidence() ?? DecimalMark.Point, out var value) && value >= 0
            ? value
            : null;

    private static string Addresses(Customer customer, ContactRole role) =>
        string.Join("; ", customer.Contacts.Where(c => c.Role == role && c.Address.Length > 0).Select(c => c.Address));

    private static IReadOnlyList<Contact> First(Customer customer, Func<Contact, Contact> change) =>
        customer.Contacts.Count == 0 ? [change(new Contact())] : [change(customer.Contacts[0]), .. customer.Contacts.Skip(1)];

    /// <summary>
    /// Contacts of a role with these addresses; who is known by an address keeps the name, the first new address is that of the one
    /// addressed, and that one stays even without any.
    /// </summary>
    private static IReadOnlyList<Contact> WithAddresses(Customer customer, ContactRole role, string text)
    {
        var read = AddressList.Read(text);
        var addresses = read.Good.Concat(read.Bad).ToList();
        var before = customer.Contacts.Where(c => c.Role == role).ToList();
        bool Is(Contact contact, string address) => string.Equals(contact.Address, address, StringComparison.OrdinalIgnoreCase);
        var heir = before.Count > 0 && !addresses.Exists(a => Is(before[0], a)) ? before[0] : new Contact { Role = role };
        var after = addresses
            .Select(
                (address, i) =>
                    (before.Find(c => Is(c, address)) ?? (i == 0 ? heir : new Contact { Role = role })) with
                    {
                        Address = address,
                    }
            )
            .ToList();
        if (after.Count == 0 && role == ContactRole.To && before.Count > 0 && before[0].Name.Length > 0)
        {
            after.Add(before[0] with { Address = "" });
        }

        var others = customer.Contacts.Where(c => c.Role != role);
        return role == ContactRole.To ? [.. after, .. others] : [.. others, .. after];
    }
}
