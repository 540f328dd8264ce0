using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Rounds;

/// <summary>A head office H with the branches B1 and B2, and Z who belongs to nobody.</summary>
public sealed class GroupTests
{
    private static readonly Choice OfAll = new() { AsOf = new DateOnly(2026, 10, 31) };

    private static readonly LedgerRow[] Rows =
    [
        Row("H", 10m, "2026-09-01"),
        Row("B1", 100m, "2026-09-01", number: "T-1"),
        Row("B1", -30m, "2026-09-02", number: "C-1"),
        Row("B2", 50m, "2026-10-30", "2026-11-29"),
        Row("Z", 7m, "2026-09-01"),
    ];

    [Fact]
    public void Branches_get_their_own_unless_the_head_office_says_otherwise() =>
        Assert.Equal(
            [("B1", 70m), ("B2", 50m), ("H", 10m), ("Z", 7m)],
            Choose(OfAll, GroupStatements.Branches).Statements.Select(s => (s.Customer, s.Total))
        );

    [Fact]
    public void A_head_office_gets_one_with_a_part_for_each_branch_after_its_own()
    {
        var round = Choose(OfAll, GroupStatements.HeadOffice);
        Assert.Equal([("H", 130m), ("Z", 7m)], round.Statements.Select(s => (s.Customer, s.Total)));
        var gathered = round.Statements[0];
        Assert.Equal([("H", 10m), ("B1", 70m), ("B2", 50m)], gathered.Parts.Select(p => (p.Customer, p.Total)));
        Assert.Equal(["H", "B1", "B1", "B2"], gathered.Items.Select(i => i.Row.Customer));
        Assert.Equal(110m, gathered.Overdue);
        Assert.Equal(-30m, gathered.Ageing.Credits);
        Assert.Empty(round.LeftOut);
        Assert.Equal(137m, Assert.Single(round.Proof).Statements);
    }

    [Fact]
    public void What_both_get_is_counted_once()
    {
        var round = Choose(OfAll, GroupStatements.Both);
        Assert.Equal(
            [("B1", "H", 70m), ("B2", "H", 50m), ("H", null, 130m), ("Z", null, 7m)],
            round.Statements.Select(s => (s.Customer, s.AlsoOn, s.Total))
        );
        Assert.Equal((137m, 0m), (round.Proof[0].Statements, round.Proof[0].Difference));
    }

    [Fact]
    public void A_branch_whose_own_copy_cannot_go_is_told_without_an_amount()
    {
        var round = Choose(OfAll, GroupStatements.Both, cannotBeReached: "B2");
        Assert.Equal(["B1", "H", "Z"], round.Statements.Select(s => s.Customer));
        Assert.Equal(new LeftOut("B2", Pounds, LeftOutReason.NoWayToReach, 0m, 0), Assert.Single(round.LeftOut));
        Assert.Equal(0m, round.Proof[0].Difference);
    }

    [Fact]
    public void Where_the_head_office_cannot_be_reached_the_branches_own_count()
    {
        var round = Choose(OfAll, GroupStatements.Both, cannotBeReached: "H");
        Assert.Equal([("B1", null), ("B2", null), ("Z", null)], round.Statements.Select(s => (s.Customer, s.AlsoOn)));
        Assert.Equal(new LeftOut("H", Pounds, LeftOutReason.NoWayToReach, 10m, 1), Assert.Single(round.LeftOut));
        Assert.Equal(
            [10m, 70m, 50m],
            Choose(OfAll, GroupStatements.HeadOffice, cannotBeReached: "H")
                .LeftOut.OrderBy(l => l.Customer == "H" ? 0 : 1)
                .Select(l => l.Amount)
        );
    }

    [Fact]
    public void A_round_can_have_it_otherwise_than_the_card()
    {
        Assert.Equal(4, Choose(OfAll with { Groups = GroupStatements.Branches }, GroupStatements.HeadOffice).Statements.Count);
        Assert.Equal(2, Choose(OfAll with { Groups = GroupStatements.HeadOffice }, GroupStatements.Branches).Statements.Count);
    }

    [Fact]
    public void Reasons_of_a_branch_leave_out_the_branch_and_those_of_the_whole_leave_out_all()
    {
        var hand = new ByHand { Customers = [new CustomerByHand("B1", false, "asked")] };
        var without = Choosing.Choose(Rows, [], OfAll, SettlementRule.None, StatementRules.Default, Of(GroupStatements.HeadOffice), hand);
        Assert.Equal(
            ("B1", LeftOutReason.RemovedByHand, 70m),
            Assert.Single(without.LeftOut.Select(l => (l.Customer, l.Reason, l.Amount)))
        );
        Assert.Equal(60m, without.Statements[0].Total);

        var all = Choosing.Choose(
            Rows,
            [],
            OfAll,
            SettlementRule.None,
            StatementRules.Default,
            Of(GroupStatements.HeadOffice),
            new ByHand { Customers = [new CustomerByHand("H", false, "asked")] }
        );
        Assert.Equal(["Z"], all.Statements.Select(s => s.Customer));
        Assert.Equal(130m, all.LeftOut.Sum(l => l.Amount));

        var least = Choose(OfAll with { LeastBalance = 100m }, GroupStatements.HeadOffice);
        Assert.Equal("H", Assert.Single(least.Statements).Customer);
    }

    [Fact]
    public void A_row_of_a_branch_that_could_not_be_read_blocks_the_whole_until_the_branch_is_taken_out()
    {
        RowSetAside[] aside = [new("B3", Pounds, 4m, new SourceRef("ledger.csv", null, 9))];
        var round = Choosing.Choose(Rows, aside, OfAll, SettlementRule.None, StatementRules.Default, Of(GroupStatements.HeadOffice));
        Assert.Equal(["Z"], round.Statements.Select(s => s.Customer));
        Assert.All(round.LeftOut, l => Assert.Equal(LeftOutReason.Error, l.Reason));

        var hand = new ByHand { Customers = [new CustomerByHand("B3", false, "to be put right")] };
        var without = Choosing.Choose(
            Rows,
            aside,
            OfAll,
            SettlementRule.None,
            StatementRules.Default,
            Of(GroupStatements.HeadOffice),
            hand
        );
        Assert.Equal([("H", 130m), ("Z", 7m)], without.Statements.Select(s => (s.Customer, s.Total)));
        Assert.Equal(0m, without.Proof[0].Difference);
    }

    [Fact]
    public void A_branch_that_is_all_settled_has_no_part()
    {
        var round = Choosing.Choose(
            [.. Rows, Row("B3", 0m, "2026-09-01")],
            [],
            OfAll,
            SettlementRule.None,
            StatementRules.Default,
            Of(GroupStatements.HeadOffice)
        );
        Assert.Equal(["H", "B1", "B2"], round.Statements[0].Parts.Select(p => p.Customer));
        Assert.Equal(("B3", LeftOutReason.NothingOpen), Assert.Single(round.LeftOut.Select(l => (l.Customer, l.Reason))));
    }

    [Fact]
    public void A_head_office_that_owes_alone_gets_an_ordinary_statement() =>
        Assert.Empty(
            Assert
                .Single(
                    Choosing
                        .Choose([Rows[0]], [], OfAll, SettlementRule.None, StatementRules.Default, Of(GroupStatements.HeadOffice))
                        .Statements
                )
                .Parts
        );

    [Fact]
    public void The_total_of_a_head_office_is_the_sum_of_its_branches_own_statements()
    {
        Gen.Select(RandomLedger.OfCustomers(9), Gen.Enum<SettlementRule>(), Gen.Bool, Gen.Bool)
            .Sample(
                (rows, rule, byDate, forward) =>
                {
                    var rules = new StatementRules(
                        new AgeingRule([30, 60, 90], AgeBy.Due, byDate),
                        forward ? StatementForm.BroughtForward : StatementForm.OpenItems
                    );
                    var choice = OfAll with { InterestPercent = 8 };
                    Reachability OneOffice(string customer) => new(false, true, null, null, "C00", GroupStatements.HeadOffice);
                    foreach (var whole in Choosing.Choose(rows, [], choice, rule, rules, OneOffice).Statements)
                    {
                        var own = rows.Where(r => r.Currency == whole.Currency)
                            .GroupBy(r => r.Customer)
                            .SelectMany(of => Choosing.Again(of.Key, null, of, choice, rule, rules, ByHand.Nothing))
                            .ToList();
                        Assert.Equal(own.Sum(s => s.Total), whole.Total);
                        Assert.Equal(own.Sum(s => s.ToPay), whole.ToPay);
                        Assert.Equal(own.Sum(s => s.Overdue), whole.Overdue);
                        Assert.Equal(Enumerable.Range(0, 5).Select(b => own.Sum(s => s.Ageing.Bands[b])), whole.Ageing.Bands);
                        Assert.Equal(whole.Total, whole.Ageing.Total);
                        Assert.Equal(whole.Total, whole.Accounts.Sum(p => p.Total));
                        Assert.Equal(whole.Items.Count, whole.Items.Distinct().Count());

                        var again = Choosing
                            .Again("C00", null, rows, choice, rule, rules, ByHand.Nothing)
                            .Single(s => s.Currency == whole.Currency);
                        Assert.Equal(whole.Items, again.Items);
                        Assert.Equal(whole.Ageing.Bands, again.Ageing.Bands);
                    }
                }
            );
    }

    private static ChosenRound Choose(Choice choice, GroupStatements groups, string cannotBeReached = "") =>
        Choosing.Choose(Rows, [], choice, SettlementRule.None, StatementRules.Default, Of(groups, cannotBeReached));

    private static Func<string, Reachability> Of(GroupStatements groups, string cannotBeReached = "") =>
        customer => new Reachability(
            false,
            customer != cannotBeReached,
            null,
            null,
            customer == "Z" ? "Z" : "H",
            customer == "H" ? groups : GroupStatements.Branches
        );
}
