using CsCheck;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Statements;

public class SettlementTests
{
    private static readonly DateOnly AsOf = new(2026, 10, 31);

    private static readonly LedgerRow First = Row("A", 100m, "2026-02-01", "2026-03-01", "1");
    private static readonly LedgerRow Second = Row("A", 50m, "2026-03-01", "2026-04-01", "2");

    [Fact]
    public void Oldest_first_settles_in_order_of_due_date()
    {
        Assert.Equal([0m, 30m, 0m], Open(SettlementRule.Oldest, First, Second, Row("A", -120m, "2026-05-01")));
    }

    [Fact]
    public void A_named_document_is_settled_first_and_the_rest_goes_to_the_oldest()
    {
        Assert.Equal([30m, 0m, 0m], Open(SettlementRule.Oldest, First, Second, Row("A", -120m, "2026-05-01", reference: "2")));
    }

    [Fact]
    public void By_reference_alone_the_rest_stays_a_credit()
    {
        Assert.Equal([100m, 0m, -70m], Open(SettlementRule.Reference, First, Second, Row("A", -120m, "2026-05-01", reference: "2")));
    }

    [Fact]
    public void Without_settlement_everything_stays_as_it_is()
    {
        Assert.Equal([100m, -120m], Open(SettlementRule.None, First, Row("A", -120m, "2026-05-01", reference: "1")));
    }

    [Fact]
    public void Rows_after_the_date_take_no_part()
    {
        Assert.Equal([100m, -100m], Open(SettlementRule.Oldest, First, Row("A", -100m, "2026-11-01", reference: "1")));
    }

    [Fact]
    public void References_are_served_in_order_of_the_credits_date_then_number()
    {
        Assert.Equal(
            [0m, -20m, 0m],
            Open(
                SettlementRule.Reference,
                First,
                Row("A", -60m, "2026-05-02", number: "P1", reference: "1"),
                Row("A", -60m, "2026-05-01", number: "P2", reference: "1")
            )
        );
    }

    [Fact]
    public void Each_amount_says_what_settled_what_and_why()
    {
        var payment = Row("A", -120m, "2026-05-01", number: "P1", reference: "2");
        var told = Settlement.Explain(new CustomerAccount("A", Pounds, [payment, First, Second]), AsOf, SettlementRule.Oldest);
        Assert.Equal([new Settling(payment, Second, 50m, SettledBy.Reference), new Settling(payment, First, 70m, SettledBy.Age)], told);
    }

    [Fact]
    public void What_a_person_has_said_comes_first_and_the_rest_goes_by_the_rule()
    {
        var payment = Row("A", -120m, "2026-05-01", number: "P1");
        Assert.Equal([10m, 20m, 0m], OpenByHand(SettlementRule.Oldest, [Said(payment, Second, 30m)], First, Second, payment));
        Assert.Equal([100m, 20m, -90m], OpenByHand(SettlementRule.None, [Said(payment, Second, 30m)], First, Second, payment));
        Assert.Equal([100m, 0m, -70m], OpenByHand(SettlementRule.Reference, [Said(payment, Second, null)], First, Second, payment));
    }

    [Fact]
    public void A_payment_that_is_kept_stays_a_credit_whatever_the_rule()
    {
        var payment = Row("A", -120m, "2026-05-01", number: "P1", reference: "1");
        Assert.Equal([100m, 50m, -120m], OpenByHand(SettlementRule.Oldest, [Said(payment, null, null)], First, Second, payment));
    }

    [Fact]
    public void Never_more_is_set_than_is_open_and_what_is_not_there_rests()
    {
        var payment = Row("A", -60m, "2026-05-01", number: "P1");
        Assert.Equal(
            [40m, 50m, 0m],
            OpenByHand(
                SettlementRule.None,
                [Said(payment, First, 500m), Said(payment, Second, null), Said(Row("A", -1m, "2026-05-01", number: "gone"), First, null)],
                First,
                Second,
                payment
            )
        );
        var later = Row("A", -60m, "2026-11-01", number: "P1");
        Assert.Equal([100m, 50m, -60m], OpenByHand(SettlementRule.None, [Said(later, First, null)], First, Second, later));
    }

    [Fact]
    public void Settlement_neither_makes_value_nor_turns_a_sign_and_does_not_depend_on_the_order()
    {
        Gen.Select(RandomLedger.Rows("A"), Gen.Select(Gen.Int[0, 39], Gen.Int[-1, 39], Gen.Int[-1, 900]).List[0, 4])
            .Sample(
                (rows, pairs) =>
                {
                    if (rows.Count == 0)
                    {
                        return;
                    }

                    var said = pairs.ConvertAll(p => new SettledByHand(
                        Key(rows[p.Item1 % rows.Count]),
                        p.Item2 < 0 ? null : Key(rows[p.Item2 % rows.Count]),
                        p.Item3 <= 0 ? null : p.Item3
                    ));
                    foreach (var rule in Enum.GetValues<SettlementRule>())
                    {
                        var account = new CustomerAccount("A", Pounds, rows);
                        var settled = Settlement.Settle(account, AsOf, rule, said);
                        Assert.Equal(rows.Sum(r => r.Open), settled.Sum(i => i.Open));
                        Assert.All(settled, i => Assert.True(Math.Abs(i.Open) <= Math.Abs(i.Row.Open) && i.Open * i.Row.Open >= 0));
                        var told = Settlement.Explain(account, AsOf, rule, said);
                        Assert.All(settled, i =>
                            Assert.Equal(
                                i.Row.Open - i.Open,
                                told.Where(t => ReferenceEquals(t.Charge, i.Row)).Sum(t => t.Amount)
                                    - told.Where(t => ReferenceEquals(t.Credit, i.Row)).Sum(t => t.Amount)
                            )
                        );
                    }

                    foreach (var rule in Enum.GetValues<SettlementRule>())
                    {
                        var reversed = Settlement.Settle(new CustomerAccount("A", Pounds, [.. rows.Reverse()]), AsOf, rule);
                        Assert.Equal(
                            Described(Settlement.Settle(new CustomerAccount("A", Pounds, rows), AsOf, rule)),
                            Described(reversed)
                        );
                    }
                },
                iter: 2_000
            );

        static IEnumerable<string> Described(IEnumerable<OpenItem> items) =>
            items.Select(i => $"{i.Row.Date} {i.Row.Due} {i.Row.Number} {i.Row.Reference} {i.Row.Open} {i.Open}").Order();
    }

    [Fact]
    public void Oldest_first_leaves_charges_or_credits_but_never_both()
    {
        RandomLedger
            .Rows("A")
            .Sample(
                rows =>
                {
                    var taking = rows.Where(r => !Settlement.IsAfter(r, AsOf)).ToList();
                    if (taking.Count == 0)
                    {
                        return;
                    }

                    var settled = Settlement.Settle(new CustomerAccount("A", Pounds, taking), AsOf, SettlementRule.Oldest);
                    Assert.False(settled.Any(i => i.Open > 0) && settled.Any(i => i.Open < 0));
                },
                iter: 2_000
            );
    }

    private static string Key(LedgerRow row) => ItemKey.Of(row).Text;

    private static SettledByHand Said(LedgerRow credit, LedgerRow? charge, decimal? amount) =>
        new(Key(credit), charge is null ? null : Key(charge), amount);

    private static IEnumerable<decimal> OpenByHand(SettlementRule rule, SettledByHand[] said, params LedgerRow[] rows) =>
        Settlement.Settle(new CustomerAccount("A", Pounds, rows), AsOf, rule, said).Select(i => i.Open);

    private static IEnumerable<decimal> Open(SettlementRule rule, params LedgerRow[] rows) =>
        Settlement.Settle(new CustomerAccount("A", Pounds, rows), AsOf, rule).Select(i => i.Open);
}
