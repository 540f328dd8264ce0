using System.Collections.Frozen;

namespace Rendal.Core.Wordings;

/// <summary>All slots there are.</summary>
public static class SlotCatalogue
{
    /// <summary>The slots in the order in which they are offered.</summary>
    public static IReadOnlyList<Slot> All { get; } =
    [
        new("customer.salutation", "Salutation", "How the contact is addressed: Dear Ms Caldera."),
        new("customer.name", "Customer", "The customer’s name."),
        new("customer.code", "Customer code", "The customer’s code."),
        new("customer.contact", "Contact", "The contact’s full name."),
        new("statement.date", "Statement date", "The date for which the statement holds."),
        new("statement.day", "Statement day", "The same date as 2026-10-31, which sorts in names of files."),
        new("statement.total", "Total open", "What is open, with currency; several currencies one after another."),
        new("statement.they-owe", "They owe us", "What the customer owes, with currency. Empty where it owes nothing."),
        new(
            "statement.we-owe",
            "We owe them",
            "What the firm owes the customer, without a sign, with currency. Empty where it owes nothing."
        ),
        new("statement.to-pay", "To pay", "What is open with the interest that the statement shows, with currency."),
        new(
            "statement.amount",
            "Amount to pay, bare",
            "What is to be paid as 1234.56, for links and codes. Empty where there are several currencies or nothing is to be paid."
        ),
        new("statement.currency", "Currency", "The code of the currency: GBP. Empty where there are several."),
        new("statement.overdue", "Overdue", "What is past due, with currency; of several currencies, those in which something is."),
        new(
            "statement.credits",
            "Credits",
            "Credit notes and payments that are not set against invoices, without a sign, with currency. Empty where there are none."
        ),
        new("statement.interest", "Interest", "The interest that the statement shows, with currency. Empty where it shows none."),
        new("statement.items", "Number of items", "How many items are open."),
        new("statement.table", "Table of items", "The open items with their ages and total.", IsHtml: true),
        new(
            ParcelSlots.Copies,
            "Copies enclosed",
            "The numbers of the invoices and credit notes that copies are enclosed of. Empty where there are none."
        ),
        new("firm.name", "Our name", "The firm’s name."),
        new("firm.address", "Our address", "The firm’s address on one line."),
        new("firm.payment", "How to pay", "The lines that say how to pay, on one line."),
        new("sender.name", "Sender", "The name that the message goes out under."),
        new("round.name", "Round", "The name of the round."),
        new("reminder.level", "Reminder level", "The level of the reminder: 1 for the first. Empty on a statement."),
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
        new(Column + heading, heading, $"The column “{heading}” of your files; several values one after another.");

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
