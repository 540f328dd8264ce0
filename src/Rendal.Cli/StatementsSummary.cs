using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Cli;

/// <summary>
/// The summary of <c>rendal statements</c> as JSON: amounts as text with the currency's decimals, dates ISO, null where there is none.
/// </summary>
internal static class StatementsSummary
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        NewLine = "\n",
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>
    /// The summary; that of reminders has which level goes, and what it counts as for each item past due, beside what every summary has.
    /// </summary>
    public static string Json(
        DateOnly asOf,
        int read,
        int kept,
        ChosenRound chosen,
        IEnumerable<Finding> findings,
        Func<string, string> nameOf,
        IReadOnlyDictionary<string, string> documents,
        IReadOnlyList<ItemReminded>? reminded
    )
    {
        var summary = JsonSerializer.SerializeToNode(
            new
            {
                asOf,
                rows = new
                {
                    read,
                    kept,
                    setAside = read - kept,
                },
                statements = chosen.Statements.Select(s => Statement(s, nameOf, documents)),
                leftOut = chosen.LeftOut.Select(l => new
                {
                    customer = l.Customer,
                    currency = l.Currency?.Code,
                    reason = l.Reason.Code(),
                    amount = l.Currency is { } currency ? currency.Plain(l.Amount) : null,
                }),
                findings = findings.Select(f => new
                {
                    code = f.Code,
                    severity = f.Severity.ToString().ToLowerInvariant(),
                    file = f.Source.File,
                    sheet = f.Source.Sheet,
                    row = f.Source.Row > 0 ? (int?)f.Source.Row : null,
                    column = f.Column,
                    customer = f.Customer,
                    message = f.Message,
                }),
                proof = chosen.Proof.Select(p => new
                {
                    currency = p.Currency.Code,
                    ledger = p.Currency.Plain(p.Ledger),
                    statements = p.Currency.Plain(p.Statements),
                    leftOut = p.Currency.Plain(p.LeftOut),
                    difference = p.Currency.Plain(p.Difference),
                }),
            },
            Options
        )!;
        if (reminded is not null)
        {
            summary["reminded"] = JsonSerializer.SerializeToNode(reminded, Options);
        }

        return summary.ToJsonString(Options) + "\n";
    }

    /// <summary>
    /// One statement. That of a head office has its accounts and their sums beside what every statement has, and is told apart by them.
    /// </summary>
    private static JsonNode Statement(Statement s, Func<string, string> nameOf, IReadOnlyDictionary<string, string> documents)
    {
        var node = JsonSerializer.SerializeToNode(
            new
            {
                customer = s.Customer,
                name = nameOf(s.Customer),
                currency = s.Currency.Code,
                total = s.Currency.Plain(s.Total),
                overdue = s.Currency.Plain(s.Overdue),
                bands = s.Ageing.Bands.Select(s.Currency.Plain),
                credits = s.Currency.Plain(s.Ageing.Credits),
                items = s.Items.Select(i => new
                {
                    kind = i.Row.Kind.Code(),
                    number = i.Row.Number.Length > 0 ? i.Row.Number : null,
                    date = i.Row.Date,
                    due = i.Row.Due,
                    original = s.Currency.Plain(i.Row.Original),
                    open = s.Currency.Plain(i.Open),
                    daysPastDue = i.DaysPastDue,
                    source = new
                    {
                        file = i.Row.Source.File,
                        sheet = i.Row.Source.Sheet,
                        row = i.Row.Source.Row,
                    },
                }),
                document = documents.GetValueOrDefault(s.Customer),
            },
            Options
        )!;
        if (s.Parts.Count > 0)
        {
            node["parts"] = JsonSerializer.SerializeToNode(
                s.Parts.Select(p => new
                {
                    customer = p.Customer,
                    name = nameOf(p.Customer),
                    total = p.Currency.Plain(p.Total),
                }),
                Options
            );
        }

        if (s.ReminderLevel is { } level)
        {
            node["reminderLevel"] = level;
        }

        if (s.AlsoOn is { } headOffice)
        {
            node["alsoOn"] = headOffice;
        }

        return node;
    }
}
