using CsCheck;
using Rendal.Core.Ledger;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Rounds;

public class ChoosingTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);
    private static readonly Choice Everyone = new() { AsOf = AsOf };
    private static readonly Reachability Reachable = new(false, true, null);

    [Theory]
    [InlineData(LeftOutReason.AfterTheDate, 10, "2026-11-01")]
    [InlineData(LeftOutReason.CreditBalance, -10, "2026-10-01")]
    [InlineData(LeftOutReason.NothingOpen, 0, "2026-10-01")]
    public void Leaves_out_with_the_reason(LeftOutReason reason, int amount, string date)
    {
        var round = Choose(Everyone, Row("A", amount, date));
        Assert.Empty(round.Statements);
        Assert.Equal(new LeftOut("A", Pounds, reason, amount, 1), Assert.Single(round.LeftOut));
    }

    [Fact]
    public void Each_choice_gives_its_own_reason()
    {
        var row = Row("A", 10m, "2026-10-01", "2026-10-20", held: "short delivery", unit: "Harbour");
        Assert.Equal(LeftOutReason.HeldBack, Reason(Everyone with { LeaveOutHeld = true }, row));
        Assert.Equal(LeftOutReason.OutsideTheDates, Reason(Everyone with { DatedFrom = new(2026, 10, 2) }, row));
        Assert.Equal(LeftOutReason.OutsideTheDates, Reason(Everyone with { DatedTo = new(2026, 9, 30) }, row));
        Assert.Equal(LeftOutReason.OtherUnit, Reason(Everyone with { Units = new HashSet<string> { "Northgate" } }, row));
        Assert.Equal(LeftOutReason.RemovedByHand, Reason(Everyone with { Removed = new Dictionary<string, string> { ["A"] = "has paid" } }, row));
        Assert.Equal(LeftOutReason.NotChosen, Reason(Everyone with { Customers = new HashSet<string> { "B" } }, row));
        Assert.Equal(LeftOutReason.BelowTheMinimum, Reason(Everyone with { LeastBalance = 10.01m }, row));
        Assert.Equal(LeftOutReason.NotOverdueEnough, Reason(Everyone with { OverdueDays = 12 }, row));
        Assert.Equal(LeftOutReason.OnHold, Reason(Everyone, row, new Reachability(true, true, null)));
        Assert.Equal(LeftOutReason.NoWayToReach, Reason(Everyone, row, new Reachability(false, false, null)));
        Assert.Equal(LeftOutReason.WrittenToRecently, Reason(Everyone with { NotWithinDays = 7 }, row, new Reachability(false, true, new(2026, 10, 25))));
        Assert.Equal(LeftOutReason.CreditsNotWanted, Reason(Everyone with { WithCredits = false }, Row("A", -1m, "2026-10-01")));
    }

    [Fact]
    public void The_edges_are_on_the_side_of_sending()
    {
        var row = Row("A", 10m, "2026-10-01", "2026-10-20");
        Assert.Single(Choose(Everyone with { LeastBalance = 10m, OverdueDays = 11, DatedFrom = new(2026, 10, 1), DatedTo = new(2026, 10, 1) }, row).Statements);
        Assert.Single(Choose(Everyone with { NotWithinDays = 7 }, _ => new Reachability(false, true, new(2026, 10, 24)), [], row).Statements);
    }

    [Fact]
    public void A_row_that_could_not_be_read_blocks_its_customer_in_its_currency()
    {
        var setAside = new RowSetAside("A", Pounds, 5m, new SourceRef("f", null, 9));
        var round = Choose(Everyone, _ => Reachable, [setAside], Row("A", 10m, "2026-10-01"), Row("A", 7m, "2026-10-01", currency: Euro), Row("B", 1m, "2026-10-01"));
        Assert.Equal([("A", "EUR"), ("B", "GBP")], round.Statements.Select(s => (s.Customer, s.Currency.Code)));
        Assert.Equal(new LeftOut("A", Pounds, LeftOutReason.Error, 15m, 2), Assert.Single(round.LeftOut));
        Assert.Equal(0m, round.Proof.Single(p => p.Currency == Pounds).Difference);
        Assert.Equal(16m, round.Proof.Single(p => p.Currency == Pounds).Ledger);
    }

    [Fact]
    public void A_row_whose_currency_is_unknown_blocks_its_customer_in_all()
    {
        var round = Choose(Everyone, _ => Reachable, [new RowSetAside("A", null, 0m, new SourceRef("f", null, 9))], Row("A", 10m, "2026-10-01"), Row("A", 7m, "2026-10-01", currency: Euro));
        Assert.Empty(round.Statements);
    }

    [Fact]
    public void A_customer_with_rows_after_the_date_only_has_just_that_line()
    {
        Assert.Equal([LeftOutReason.AfterTheDate], Choose(Everyone, Row("A", 10m, "2026-11-01")).LeftOut.Select(l => l.Reason));
        Assert.Equal([LeftOutReason.AfterTheDate, LeftOutReason.NothingOpen], Choose(Everyone, Row("A", 10m, "2026-11-01"), Row("A", 0m, "2026-10-01")).LeftOut.Select(l => l.Reason));
    }

    [Fact]
    public void Currencies_are_never_added()
    {
        var round = Choose(Everyone, Row("A", 10m, "2026-10-01"), Row("A", 7m, "2026-10-01", currency: Euro), Row("A", -8m, "2026-10-01", currency: Euro));
        Assert.Equal(10m, Assert.Single(round.Statements).Total);
        Assert.Equal(new LeftOut("A", Euro, LeftOutReason.CreditBalance, -1m, 2), Assert.Single(round.LeftOut));
        Assert.Equal(["EUR", "GBP"], round.Proof.Select(p => p.Currency.Code));
    }

    [Fact]
    public void The_proof_closes_for_every_ledger_and_every_choice()
    {
        var choice = Gen.Select(Gen.Bool, Gen.Bool, Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[0, 2], (held, credits, least, overdue, units) => Everyone with
        {
            LeaveOutHeld = held,
            WithCredits = credits,
            LeastBalance = least * 50m,
            OverdueDays = overdue == 0 ? null : overdue * 20,
            Units = units == 0 ? null : new HashSet<string> { "Northgate" },
            DatedFrom = units == 2 ? new DateOnly(2026, 8, 1) : null,
        });
        var aside = Gen.Select(Gen.Int[0, 12], Gen.Int[0, 3], Gen.Long[-9_000, 9_000], (who, currency, pennies) =>
            new RowSetAside(who == 0 ? null : $"C{who:00}", currency switch { 0 => null, 1 => Euro, _ => Pounds }, currency == 0 ? 0 : pennies / 100m, new SourceRef("f", null, 1))).List[0, 3];
        Gen.Select(RandomLedger.OfCustomers(12), aside, choice, Gen.Enum<SettlementRule>()).Sample((rows, setAside, chosen, rule) =>
        {
            var round = Choosing.Choose(rows, setAside, chosen, rule, AgeingRule.Default, c => new Reachability(c == "C01", c != "C02", null));
            foreach (var currency in new[] { Pounds, Euro })
            {
                var counted = rows.Where(r => r.Currency == currency).Sum(r => r.Open) + setAside.Where(r => r.Currency == currency).Sum(r => r.Amount);
                var proof = round.Proof.SingleOrDefault(p => p.Currency == currency);
                Assert.Equal(counted, proof?.Ledger ?? 0m);
                Assert.Equal(0m, proof?.Difference ?? 0m);
                Assert.Equal(round.Statements.Where(s => s.Currency == currency).Sum(s => s.Items.Sum(i => i.Open)), proof?.Statements ?? 0m);
                Assert.Equal(round.LeftOut.Where(l => l.Currency == currency).Sum(l => l.Amount), proof?.LeftOut ?? 0m);
            }

            Assert.All(round.Statements, s => Assert.True(s.Total > 0 && s.Total == s.Ageing.Bands.Sum() + s.Ageing.Credits));
        }, iter: 5_000);
    }

    [Theory]
    [InlineData(LeftOutReason.CreditBalance, "credit-balance")]
    [InlineData(LeftOutReason.AfterTheDate, "after-the-date")]
    [InlineData(LeftOutReason.Error, "error")]
    public void Reasons_have_names_for_files(LeftOutReason reason, string code) => Assert.Equal(code, reason.Code());

    private static LeftOutReason Reason(Choice choice, LedgerRow row, Reachability? of = null) => Assert.Single(Choose(choice, _ => of ?? Reachable, [], row).LeftOut).Reason;

    private static ChosenRound Choose(Choice choice, params LedgerRow[] rows) => Choose(choice, _ => Reachable, [], rows);

    private static ChosenRound Choose(Choice choice, Func<string, Reachability> of, RowSetAside[] setAside, params LedgerRow[] rows) =>
        Choosing.Choose(rows, setAside, choice, SettlementRule.None, AgeingRule.Default, of);
}
