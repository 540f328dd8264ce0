using CsCheck;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Statements;

public class BroughtForwardTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Period October = new(new(2026, 10, 1), AsOf);

    [Fact]
    public void The_balance_before_is_brought_forward_and_runs_on_with_each_movement()
    {
        var forward = BroughtForward.Of(
            [
                Row("A", 100m, "2026-09-30", number: "T-1"),
                Row("A", -40m, "2026-10-05", number: "P-1"),
                Row("A", 25m, "2026-10-02", number: "T-2"),
                Row("A", 7m, "2026-10-02", number: "T-10"),
                Row("A", 9m, "2026-11-01"),
            ],
            October
        );
        Assert.Equal(100m, forward.Opening);
        Assert.Equal(
            [("T-10", 7m, 0m, 107m), ("T-2", 25m, 0m, 132m), ("P-1", 0m, 40m, 92m)],
            forward.Movements.Select(m => (m.Row.Number, m.Debit, m.Credit, m.Balance))
        );
        Assert.Equal(92m, forward.Closing);
    }

    [Fact]
    public void Without_a_movement_it_closes_as_it_opened() =>
        Assert.Equal(100m, BroughtForward.Of([Row("A", 100m, "2026-09-30")], October).Closing);

    [Fact]
    public void For_every_ledger_of_movements_it_closes_with_what_is_open()
    {
        var choice = new Choice
        {
            AsOf = AsOf,
            Form = StatementForm.BroughtForward,
            PeriodFrom = October.From,
        };
        Gen.Select(RandomLedger.OfCustomers(5), Gen.Enum<SettlementRule>(), Gen.Int[0, 200])
            .Sample(
                (rows, rule, days) =>
                {
                    var round = Choosing.Choose(
                        rows,
                        [],
                        choice with
                        {
                            PeriodFrom = AsOf.AddDays(-days),
                        },
                        rule,
                        StatementRules.Default,
                        _ => new Reachability(false, true, null)
                    );
                    Assert.All(round.Statements, s =>
                    {
                        Assert.Equal(0m, s.ForwardDifference);
                        Assert.Equal(s.Total, s.Forward!.Opening + s.Forward.Movements.Sum(m => m.Debit - m.Credit));
                        Assert.All(s.Forward.Movements, m =>
                            Assert.True(m.Debit >= 0 && m.Credit >= 0 && (m.Debit == 0 || m.Credit == 0))
                        );
                    });
                },
                iter: 1_000
            );
    }

    [Fact]
    public void A_ledger_of_open_items_whose_payments_are_not_in_it_shows_the_difference()
    {
        var partPaid = Row("A", 60m, "2026-10-02", number: "T-1") with { Original = 100m };
        var round = Choosing.Choose(
            [partPaid],
            [],
            new Choice { AsOf = AsOf, Form = StatementForm.BroughtForward },
            SettlementRule.None,
            StatementRules.Default,
            _ => new Reachability(false, true, null)
        );
        Assert.Equal(40m, Assert.Single(round.Statements).ForwardDifference);
    }

    [Fact]
    public void The_period_begins_with_the_month_where_nobody_says_otherwise()
    {
        var round = Choosing.Choose(
            [Row("A", 60m, "2026-09-02")],
            [],
            new Choice { AsOf = new(2026, 10, 15), Form = StatementForm.BroughtForward },
            SettlementRule.None,
            StatementRules.Default,
            _ => new Reachability(false, true, null)
        );
        Assert.Equal(new Period(new(2026, 10, 1), new(2026, 10, 15)), Assert.Single(round.Statements).Forward!.Period);
    }

    [Fact]
    public void Movements_of_another_unit_are_in_neither_the_balance_nor_the_lines()
    {
        var rows = new[]
        {
            Row("A", 60m, "2026-09-02", unit: "Northgate"),
            Row("A", 10m, "2026-09-03", unit: "Harbour"),
            Row("A", 0m, "2026-10-03", unit: "Harbour"),
        };
        var choice = new Choice
        {
            AsOf = AsOf,
            Form = StatementForm.BroughtForward,
            Units = new HashSet<string> { "Northgate" },
        };
        var statement = Assert.Single(
            Choosing
                .Choose(rows, [], choice, SettlementRule.None, StatementRules.Default, _ => new Reachability(false, true, null))
                .Statements
        );
        Assert.Equal((60m, 0), (statement.Forward!.Closing, statement.Forward.Movements.Count));
    }
}
