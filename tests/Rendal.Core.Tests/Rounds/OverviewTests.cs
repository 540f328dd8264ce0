using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Rounds;

public class OverviewTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    private static readonly LedgerRow[] Rows =
    [
        Row("A", 100m, "2026-08-01"),
        Row("B", 300m, "2026-08-01"),
        Row("B", -250m, "2026-09-01"),
        Row("C", 900m, "2026-10-20", "2026-11-19"),
        Row("D", 100m, "2026-08-01"),
        Row("E", 5_000m, "2026-08-01", currency: Euro),
    ];

    [Fact]
    public void The_most_overdue_come_first_in_one_currency_and_what_is_not_due_does_not_count()
    {
        var overview = Look(_ => null, 2);
        Assert.Equal([("B", 300m), ("A", 100m)], overview.Largest.Select(s => (s.Customer, s.Overdue)));
    }

    [Fact]
    public void Who_owes_and_was_not_written_to_in_the_period_is_listed_with_the_most_owed_first()
    {
        var overview = Look(
            key =>
                key switch
                {
                    "A" => new DateOnly(2026, 10, 1),
                    "B" => new DateOnly(2026, 9, 30),
                    "C" => AsOf,
                    _ => null,
                },
            10
        );
        Assert.Equal(["D", "B"], overview.NotWritten.Select(s => s.Customer));
    }

    private static Overview Look(Func<string, DateOnly?> lastWritten, int most)
    {
        var statements = Choosing
            .Choose(Rows, [], new Choice { AsOf = AsOf, NeedsAddress = false }, SettlementRule.None, StatementRules.Default, _ => default)
            .Statements;
        return Overview.Of(statements.Select(Owed.Of), Pounds, Period.MonthOf(AsOf), lastWritten, most);
    }
}
