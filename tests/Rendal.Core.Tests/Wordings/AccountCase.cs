using Rendal.Core.Money;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Wordings;

/// <summary>An account that customers are written to about: what it is called, and its statements.</summary>
internal sealed record AccountCase(string Name, IReadOnlyList<Statement> Statements)
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    /// <summary>Each case in which words that are right elsewhere could be wrong.</summary>
    public static IReadOnlyList<AccountCase> All { get; } =
    [
        new("nothing overdue", [Of(Pounds, (120m, -10), (80.5m, -20))]),
        new("all overdue", [Of(Pounds, (120m, 40), (80.5m, 3))]),
        new("some overdue", [Of(Pounds, (120m, 40), (80.5m, -3))]),
        new("one item, not due", [Of(Pounds, (75m, -1))]),
        new("one item, overdue", [Of(Pounds, (75m, 1))]),
        new("more overdue than owed in all", [Of(Pounds, (3294.88m, 12), (-38.7m, 12))]),
        new("credits larger than what is overdue", [Of(Pounds, (1000m, -9), (100m, 9), (-300m, 2))]),
        new("in credit", [Of(Pounds, (-80m, 5))]),
        new("in credit, something overdue", [Of(Pounds, (50m, 5), (-80m, 5))]),
        new("in credit, nothing overdue", [Of(Pounds, (50m, -5), (-80m, 5))]),
        new("balanced", [Of(Pounds, (50m, 5), (-50m, 5))]),
        new("two currencies, one overdue", [Of(Pounds, (50m, 5)), Of(Euro, (70m, -5))]),
        new("two currencies, one in credit", [Of(Pounds, (50m, 5)), Of(Euro, (-4m, 5))]),
        new("two currencies, both overdue", [Of(Pounds, (50m, 5), (-7m, 1)), Of(Euro, (70m, 9))]),
        new("two currencies, one balanced", [Of(Pounds, (50m, -5)), Of(Euro, (9m, -5), (-9m, 5))]),
        new("interest", [WithInterest(Of(Pounds, (1000m, 73)))]),
        new("a group", [Statement.Gather("KR04", [Of(Pounds, (1000m, 73)), Of(Pounds, (-10m, 3)) with { Customer = "KR05" }])]),
    ];

    /// <summary>Whether something of it is past due, so that reminders are sent.</summary>
    public bool IsOverdue => Statements.Any(s => s.Overdue > 0);

    public override string ToString() => Name;

    private static Statement Of(Currency currency, params (decimal Open, int DaysPastDue)[] items)
    {
        var rows = items
            .Select(
                (item, i) =>
                    Row("KR04", item.Open, "2026-07-01", number: $"T-{i}", currency: currency) with
                    {
                        Due = AsOf.AddDays(-item.DaysPastDue),
                    }
            )
            .ToList();
        return Statement.Of("KR04", currency, rows.Select(row => new OpenItem(row, row.Open)), AsOf, AgeingRule.Default);
    }

    private static Statement WithInterest(Statement statement) => statement with { Interest = InterestLine.On(statement, 8m) };
}
