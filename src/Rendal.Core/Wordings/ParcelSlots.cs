using System.Globalization;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Statements;

namespace Rendal.Core.Wordings;

/// <summary>The values of all slots for one parcel.</summary>
public static class ParcelSlots
{
    /// <summary>Works out the values, dates and amounts written in the customer's language.</summary>
    public static IReadOnlyDictionary<string, string> Of(Customer customer, IReadOnlyList<Statement> statements, StatementPaper paper, string senderName, string roundName, int? reminderLevel)
    {
        var language = Language.TryParse(customer.Language, out var known) ? known : Language.English;
        return new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["customer.salutation"] = Salutation.Of(customer, language),
            ["customer.name"] = customer.Name,
            ["customer.code"] = customer.Key,
            ["customer.contact"] = customer.Contact,
            ["statement.date"] = language.Write(statements[0].AsOf),
            ["statement.total"] = Sums(statements, language, s => s.Total),
            ["statement.to-pay"] = Sums(statements, language, s => s.ToPay),
            ["statement.overdue"] = Sums(statements, language, s => s.Overdue),
            ["statement.items"] = statements.Sum(s => s.Items.Count).ToString(CultureInfo.InvariantCulture),
            ["statement.table"] = StatementTable.Html(paper),
            ["firm.name"] = paper.Firm.Name,
            ["firm.address"] = string.Join(", ", paper.Firm.AddressLines),
            ["firm.payment"] = string.Join(" · ", paper.Firm.PaymentLines),
            ["sender.name"] = senderName,
            ["round.name"] = roundName,
            ["reminder.level"] = reminderLevel?.ToString(CultureInfo.InvariantCulture) ?? "",
        };
    }

    private static string Sums(IReadOnlyList<Statement> statements, Language language, Func<Statement, decimal> of) =>
        string.Join(" · ", statements.Select(s => language.WriteWithCurrency(of(s), s.Currency)));
}
