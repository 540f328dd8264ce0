using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Statements;

namespace Rendal.Core.Wordings;

/// <summary>The values of all slots for one parcel.</summary>
public static class ParcelSlots
{
    /// <summary>The slot of the numbers of the documents that copies are enclosed of.</summary>
    internal const string Copies = "copies.enclosed";

    /// <summary>
    /// Works out the values, dates and amounts written in the customer's language. The table is not among them; it is made from the
    /// document, whose texts want these.
    /// </summary>
    public static Dictionary<string, string> Of(
        Customer customer,
        IReadOnlyList<Statement> statements,
        Firm firm,
        string senderName,
        string roundName,
        int? reminderLevel,
        IReadOnlyList<string>? copies = null
    )
    {
        var language = Language.TryParse(customer.Language, out var known) ? known : Language.English;
        var values = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["customer.salutation"] = Salutation.Of(customer, language),
            ["customer.name"] = customer.Name,
            ["customer.code"] = customer.Key,
            ["customer.contact"] = customer.Contact,
            ["statement.date"] = language.Write(statements[0].AsOf),
            ["statement.day"] = statements[0].AsOf.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            ["statement.total"] = Sums(statements, language, s => s.Total),
            ["statement.they-owe"] = Sums(statements.Where(s => s.Total > 0), language, s => s.Total),
            ["statement.we-owe"] = Sums(statements.Where(s => s.Total < 0), language, s => -s.Total),
            ["statement.to-pay"] = Sums(statements, language, s => s.ToPay),
            ["statement.amount"] = statements is [{ ToPay: > 0 } only] ? only.Currency.Plain(only.ToPay) : "",
            ["statement.currency"] = statements.Count == 1 ? statements[0].Currency.Code : "",
            ["statement.overdue"] = Sums(
                statements.Any(s => s.Overdue > 0) ? statements.Where(s => s.Overdue > 0) : statements,
                language,
                s => s.Overdue
            ),
            ["statement.credits"] = Sums(statements.Where(s => s.Ageing.Credits < 0), language, s => -s.Ageing.Credits),
            ["statement.interest"] = Sums(statements.Where(s => s.Interest.Count > 0), language, s => s.Interest.Sum(i => i.Amount)),
            ["statement.items"] = statements.Sum(s => s.Items.Count).ToString(CultureInfo.InvariantCulture),
            ["firm.name"] = firm.Name,
            ["firm.address"] = string.Join(", ", firm.AddressLines),
            ["firm.payment"] = string.Join(" · ", firm.PaymentLines),
            ["sender.name"] = senderName,
            ["round.name"] = roundName,
            [Copies] = string.Join(", ", copies ?? []),
            ["reminder.level"] = reminderLevel?.ToString(CultureInfo.InvariantCulture) ?? "",
        };
        Columns(values, customer, statements);
        return values;
    }

    /// <summary>
    /// The columns of the files without a meaning for the rules: what the customer's card has, else what the items have, each value once.
    /// </summary>
    private static void Columns(Dictionary<string, string> values, Customer customer, IReadOnlyList<Statement> statements)
    {
        foreach (var (heading, value) in customer.Extra.Where(e => !string.IsNullOrWhiteSpace(e.Value)))
        {
            values[SlotCatalogue.Column + heading] = value;
        }

        var ofItems = statements.SelectMany(s => s.Items).SelectMany(i => i.Row.Extra).Where(e => !string.IsNullOrWhiteSpace(e.Value));
        foreach (var column in ofItems.GroupBy(e => SlotCatalogue.Column + e.Key, e => e.Value, StringComparer.Ordinal))
        {
            values.TryAdd(column.Key, string.Join(", ", column.Distinct(StringComparer.Ordinal)));
        }
    }

    private static string Sums(IEnumerable<Statement> statements, Language language, Func<Statement, decimal> of) =>
        string.Join(" · ", statements.Select(s => language.WriteWithCurrency(of(s), s.Currency)));
}
