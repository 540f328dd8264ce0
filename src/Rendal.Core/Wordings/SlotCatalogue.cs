using System.Collections.Frozen;

namespace Rendal.Core.Wordings;

/// <summary>All slots there are.</summary>
public static class SlotCatalogue
{
    /// <summary>The name of the slot of the table of items.</summary>
    public const string Table = "statement.table";

    /// <summary>The name of the slot of the strip of ages.</summary>
    public const string Ages = "statement.ages";

    /// <summary>The name of the slot of the button to pay by.</summary>
    public const string PaymentButton = "payment.button";

    /// <summary>The name of the slot of the codes that are scanned to pay.</summary>
    public const string PaymentCode = "payment.code";

    /// <summary>The name of the slot of the signature.</summary>
    public const string Signature = "signature";

    /// <summary>The slots in the order in which they are offered.</summary>
    public static IReadOnlyList<Slot> All { get; } =
    [
        Of("customer.salutation", "Salutation", "How the contact is addressed: Dear Ms Caldera."),
        Of("customer.name", "Customer", "The customer’s name."),
        Of("customer.code", "Customer code", "The customer’s code."),
        Of("customer.contact", "Contact", "The contact’s full name."),
        Of("customer.first-name", "First name", "The contact’s first name. Empty where the card has a family name alone."),
        Of("customer.last-name", "Last name", "The contact’s family name: the last word of the full name."),
        Of("customer.title", "Title", "The contact’s title as it stands on the card: Ms."),
        Of("customer.language", "Language", "The name of the language in which the customer is written to: English."),
        Owed("statement.date", "Statement date", "The date for which the statement holds.", SlotKind.Date),
        Owed("statement.month", "Month of the statement", "The month that the statement’s date is in: October 2026.", SlotKind.Month),
        Owed("statement.last-month", "Month before", "The month before that of the statement: September 2026.", SlotKind.Month),
        Owed("statement.day", "Statement day", "The same date as 2026-10-31, which sorts in names of files."),
        Owed("statement.total", "Total open", "What is open; several currencies one after another.", SlotKind.Money),
        Owed("statement.they-owe", "They owe us", "What the customer owes. Empty where it owes nothing.", SlotKind.Money),
        Owed(
            "statement.we-owe",
            "We owe them",
            "What the firm owes the customer, without a sign. Empty where it owes nothing.",
            SlotKind.Money
        ),
        Owed("statement.to-pay", "To pay", "What is open with the interest that the statement shows.", SlotKind.Money),
        Owed("statement.overdue", "Overdue", "What is past due; of several currencies, those in which something is.", SlotKind.Money),
        Owed(
            "statement.credits",
            "Credits",
            "Credit notes and payments that are not set against invoices, without a sign. Empty where there are none.",
            SlotKind.Money
        ),
        Owed("statement.interest", "Interest", "The interest that the statement shows. Empty where it shows none.", SlotKind.Money),
        Owed("statement.items", "Number of items", "How many items are open.", SlotKind.Number),
        Owed("statement.invoices", "Number of open invoices", "How many of the open items are invoices.", SlotKind.Number),
        Owed(
            "statement.oldest-due",
            "Oldest due date",
            "The due date of what is open and was due first. Empty where nothing is to be paid.",
            SlotKind.Date
        ),
        Owed(
            "statement.oldest-days",
            "Days overdue of the oldest",
            "How many days the oldest is past due. Empty where nothing is.",
            SlotKind.Number
        ),
        Owed("reminder.level", "Reminder level", "The level of the reminder: 1 for the first. Empty on a statement.", SlotKind.Number),
        Owed(
            ParcelSlots.Copies,
            "Copies enclosed",
            "The numbers of the invoices and credit notes that copies are enclosed of. Empty where there are none."
        ),
        Owed(Table, "Table of items", "The open items with their ages and total.", SlotKind.Block),
        Owed(Ages, "Strip of ages", "What is open by age, a field for each. The table leaves it to this one then.", SlotKind.Block),
        Pay("firm.payment", "How to pay", "The lines that say how to pay, on one line."),
        Pay(
            "statement.amount",
            "Amount to pay, bare",
            "What is to be paid as 1234.56, for links and codes. Empty where there are several currencies or nothing is to be paid."
        ),
        Pay("statement.currency", "Currency", "The code of the currency: GBP. Empty where there are several."),
        Pay(
            PaymentButton,
            "Payment button",
            "A button that leads to the page to pay on, by the link of the layout. Nothing stands there where nothing is to be paid.",
            SlotKind.Block
        ),
        Pay(
            PaymentCode,
            "Payment code",
            "A code to scan: for a transfer where the layout has an IBAN and euro are to be paid, and for the page to pay on where it has a "
                + "link. Nothing stands there where nothing is to be paid.",
            SlotKind.Block
        ),
        Ours("firm.name", "Our name", "The firm’s name."),
        Ours("firm.address", "Our address", "The firm’s address on one line."),
        Ours("sender.name", "Sender", "The name that the message goes out under."),
        Ours(
            Signature,
            "Signature",
            "The lines of the person who made the round, then those of the sender. It stands once, at the end.",
            SlotKind.Block
        ),
        Ours("round.name", "Round", "The name of the round."),
        Ours(RoundIdentity.PreparedBySlot, "Prepared by", "The name of the person who made the round."),
        Ours(
            RoundIdentity.GreetingSlot,
            "Greeting by the hour",
            "Good morning, Good afternoon or Good evening in the customer’s language, by the hour at which the round was made."
        ),
    ];

    private static readonly FrozenDictionary<string, Slot> ByName = All.ToFrozenDictionary(s => s.Name, StringComparer.Ordinal);

    /// <summary>Before the heading of a column of the files that has no meaning for the rules: <c>column.Delivery round</c>.</summary>
    public const string Column = "column.";

    /// <summary>The slot of a name; null where there is none. A column of the files has one whatever it is called.</summary>
    public static Slot? Find(string name) =>
        ByName.GetValueOrDefault(name)
        ?? (name.StartsWith(Column, StringComparison.Ordinal) && name.Length > Column.Length ? OfColumn(name[Column.Length..]) : null);

    /// <summary>The slot of a column of the files.</summary>
    public static Slot OfColumn(string heading) =>
        new(Column + heading, heading, $"The column “{heading}” of your files; several values one after another.", SlotGroup.Columns);

    /// <summary>
    /// The known name nearest to one that is not known, by the fewest letters to change, else by its last part: <c>client.name</c> is near
    /// to <c>customer.name</c>. Null where none is near.
    /// </summary>
    public static string? Nearest(string name, IReadOnlyCollection<string> known) =>
        known
            .Select(k => (Name: k, Distance: Distance(name.ToUpperInvariant(), k.ToUpperInvariant())))
            .Where(k => k.Distance <= Math.Max(2, k.Name.Length / 3))
            .OrderBy(k => k.Distance)
            .Select(k => k.Name)
            .FirstOrDefault()
        ?? known.FirstOrDefault(k => k.EndsWith("." + name.Split('.')[^1], StringComparison.OrdinalIgnoreCase));

    private static Slot Of(string name, string label, string says) => new(name, label, says, SlotGroup.Customer);

    private static Slot Owed(string name, string label, string says, SlotKind kind = SlotKind.Text) =>
        new(name, label, says, SlotGroup.Statement, kind);

    private static Slot Pay(string name, string label, string says, SlotKind kind = SlotKind.Text) =>
        new(name, label, says, SlotGroup.Payment, kind);

    private static Slot Ours(string name, string label, string says, SlotKind kind = SlotKind.Text) =>
        new(name, label, says, SlotGroup.Ours, kind);

    /// <summary>How many letters have to be put in, left out or changed (Levenshtein).</summary>
    private static int Distance(string a, string b)
    {
        var before = Enumerable.Range(0, b.Length + 1).ToArray();
        for (var i = 1; i <= a.Length; i++)
        {
            var now = new int[b.Length + 1];
            now[0] = i;
            for (var j = 1; j <= b.Length; j++)
            {
                now[j] = Math.Min(Math.Min(now[j - 1], before[j]) + 1, before[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1));
            }

            before = now;
        }

        return before[^1];
    }
}
