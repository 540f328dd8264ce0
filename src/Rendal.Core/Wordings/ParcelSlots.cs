using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Ledger;
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
        RoundIdentity round,
        int? reminderLevel,
        IReadOnlyList<string>? copies = null
    )
    {
        var language = Language.TryParse(customer.Language, out var known) ? known : Language.English;
        var items = statements.SelectMany(s => s.Items).ToList();
        var asOf = statements[0].AsOf;
        var values = new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["customer.salutation"] = Salutation.Of(customer, language),
            ["customer.name"] = customer.Name,
            ["customer.code"] = customer.Key,
            ["customer.contact"] = customer.Contact,
            ["customer.first-name"] = customer.FirstName,
            ["customer.last-name"] = customer.FamilyName,
            ["customer.title"] = customer.Title,
            ["customer.language"] = language.Name,
            ["statement.day"] = asOf.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            ["statement.amount"] = statements is [{ ToPay: > 0 } only] ? only.Currency.Plain(only.ToPay) : "",
            ["statement.currency"] = statements.Count == 1 ? statements[0].Currency.Code : "",
            ["statement.items"] = Number(items.Count),
            ["statement.invoices"] = Number(items.Count(i => i.Row.Kind == ItemKind.Invoice)),
            ["statement.oldest-days"] = statements.Max(s => s.OldestDaysPastDue) is > 0 and var days ? Number(days) : "",
            ["firm.name"] = firm.Name,
            ["firm.address"] = string.Join(", ", firm.AddressLines),
            ["firm.payment"] = string.Join(" · ", firm.PaymentLines),
            ["sender.name"] = senderName,
            ["round.name"] = round.Name,
            [RoundIdentity.PreparedBySlot] = round.PreparedBy,
            [RoundIdentity.GreetingSlot] = Language.PartOf(round.MadeAt) is { } part ? language.Greeting(part) : "",
            [Copies] = string.Join(", ", copies ?? []),
            ["reminder.level"] = reminderLevel is { } level ? Number(level) : "",
        };
        Day("statement.date", asOf);
        Day("statement.oldest-due", items.Where(i => i.Open > 0).Select(i => (DateOnly?)i.Row.Due).Min());
        Month("statement.month", asOf);
        Month("statement.last-month", asOf.AddMonths(-1));
        Money("statement.total", statements, s => s.Total);
        Money("statement.they-owe", statements.Where(s => s.Total > 0), s => s.Total);
        Money("statement.we-owe", statements.Where(s => s.Total < 0), s => -s.Total);
        Money("statement.to-pay", statements, s => s.ToPay);
        Money("statement.overdue", statements.Any(s => s.Overdue > 0) ? statements.Where(s => s.Overdue > 0) : statements, s => s.Overdue);
        Money("statement.credits", statements.Where(s => s.Ageing.Credits < 0), s => -s.Ageing.Credits);
        Money("statement.interest", statements.Where(s => s.Interest.Count > 0), s => s.Interest.Sum(i => i.Amount));
        Columns(values, customer, statements);
        return values;

        void Day(string name, DateOnly? day)
        {
            Put(name, "", day, language.Write);
            Put(name, SlotFormat.Short, day, language.WriteShort);
            Put(name, SlotFormat.Month, day, d => language.Months[d.Month - 1]);
            Put(name, SlotFormat.MonthAndYear, day, language.WriteMonth);
        }

        void Month(string name, DateOnly day)
        {
            Put(name, "", day, language.WriteMonth);
            Put(name, SlotFormat.Month, day, d => language.Months[d.Month - 1]);
        }

        void Put(string name, string format, DateOnly? day, Func<DateOnly, string> write) =>
            values[SlotFormat.Key(name, format)] = day is { } known ? write(known) : "";

        void Money(string name, IEnumerable<Statement> of, Func<Statement, decimal> amount)
        {
            var amounts = of.Select(s => (Amount: amount(s), s.Currency)).ToList();
            values[name] = string.Join(" · ", amounts.Select(a => language.WriteWithCurrency(a.Amount, a.Currency)));
            values[SlotFormat.Key(name, SlotFormat.Bare)] = amounts is [var one] ? language.Write(one.Amount, one.Currency) : values[name];
        }
    }

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);

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
}
