using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Statements;

public class InterestLineTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    [Theory]
    [InlineData(1_000, "2026-08-19", 8, 73, "16.00")]
    [InlineData(1_000, "2026-10-30", 8, 1, "0.22")]
    [InlineData(99.99, "2025-10-31", 8.25, 365, "8.25")]
    public void It_is_simple_by_actual_days_of_365_from_the_day_after_the_due_date(
        decimal open,
        string due,
        decimal rate,
        int days,
        string amount
    )
    {
        var line = Assert.Single(On(rate, Row("A", open, "2025-01-01", due)));
        Assert.Equal((days, decimal.Parse(amount, System.Globalization.CultureInfo.InvariantCulture)), (line.Days, line.Amount));
    }

    [Fact]
    public void What_is_due_today_what_is_a_credit_and_what_rounds_to_nothing_bear_none() =>
        Assert.Empty(
            On(8, Row("A", 100m, "2026-10-01", "2026-10-31"), Row("A", -100m, "2026-08-01"), Row("A", 0.10m, "2026-10-29", "2026-10-30"))
        );

    [Fact]
    public void Each_item_is_rounded_by_itself_and_to_its_currency()
    {
        Assert.Equal(
            [0.33m, 0.33m],
            On(8, Row("A", 50m, "2026-08-01", "2026-10-01"), Row("A", 50m, "2026-08-01", "2026-10-01")).Select(l => l.Amount)
        );
        Assert.Equal([7m], On(8, Row("A", 1_000m, "2026-08-01", "2026-10-01", currency: Currency.Of("JPY"))).Select(l => l.Amount));
    }

    [Fact]
    public void It_is_beside_the_total_and_not_in_the_proof()
    {
        var round = Choosing.Choose(
            [Row("A", 1_000m, "2026-07-20", "2026-08-19")],
            [],
            new Choice { AsOf = AsOf, InterestPercent = 8 },
            SettlementRule.None,
            StatementRules.Default,
            _ => new Reachability(false, true, null)
        );
        var statement = Assert.Single(round.Statements);
        Assert.Equal((1_000m, 1_016m), (statement.Total, statement.ToPay));
        Assert.Equal((1_000m, 0m), (round.Proof[0].Statements, round.Proof[0].Difference));
    }

    private static IReadOnlyList<InterestLine> On(decimal rate, params LedgerRow[] rows) =>
        InterestLine.On(Statement.Of("A", rows[0].Currency, rows.Select(r => new OpenItem(r, r.Open)), AsOf, AgeingRule.Default), rate);
}
