using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
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
        Assert.Equal(LeftOutReason.RemovedByHand, Reason(Everyone, row, byHand: new ByHand { Customers = [new("A", false, "has paid")] }));
        Assert.Equal(LeftOutReason.NotChosen, Reason(Everyone with { Customers = new HashSet<string> { "B" } }, row));
        Assert.Equal(LeftOutReason.BelowTheMinimum, Reason(Everyone with { LeastBalance = 10.01m }, row));
        Assert.Equal(LeftOutReason.NotOverdueEnough, Reason(Everyone with { OverdueDays = 12 }, row));
        Assert.Equal(LeftOutReason.OnHold, Reason(Everyone, row, new Reachability(true, true, null)));
        Assert.Equal(LeftOutReason.NoWayToReach, Reason(Everyone, row, new Reachability(false, false, null)));
        Assert.Equal(
            LeftOutReason.WrittenToRecently,
            Reason(Everyone with { NotWithinDays = 7 }, row, new Reachability(false, true, new(2026, 10, 25)))
        );
        Assert.Equal(LeftOutReason.CreditsNotWanted, Reason(Everyone with { WithCredits = false }, Row("A", -1m, "2026-10-01")));
    }

    [Fact]
    public void A_balance_is_confirmed_whoever_owes_it()
    {
        var confirmations = Everyone with { About = RoundKind.Confirmations };
        Assert.Equal(-10m, Assert.Single(Choose(confirmations, Row("A", -10m, "2026-10-01")).Statements).Total);
        Assert.Equal(LeftOutReason.NothingOpen, Reason(confirmations, Row("A", 0m, "2026-10-01")));
        Assert.Equal(LeftOutReason.BelowTheMinimum, Reason(confirmations with { LeastBalance = 10.01m }, Row("A", -10m, "2026-10-01")));
        Assert.Single(Choose(confirmations with { LeastBalance = 10m }, Row("A", -10m, "2026-10-01")).Statements);
    }

    [Fact]
    public void Spans_columns_and_head_offices_choose()
    {
        var row = Row("A", 10m, "2026-10-01", "2026-10-20") with { Extra = new ExtraColumns(["Van", "Order"], ["N3", ""]) };
        Assert.Equal(LeftOutReason.OutsideTheDates, Reason(Everyone with { DueFrom = new(2026, 10, 21) }, row));
        Assert.Equal(LeftOutReason.OutsideTheDates, Reason(Everyone with { DueTo = new(2026, 10, 19) }, row));
        Assert.Equal(LeftOutReason.OtherUnit, Reason(Everyone with { Columns = Column("Van", "N1", "N2") }, row));
        Assert.Equal(LeftOutReason.OtherUnit, Reason(Everyone with { Columns = Column("Order", "PO 7") }, row));
        Assert.Equal(
            LeftOutReason.NotChosen,
            Reason(Everyone with { HeadOffices = new HashSet<string> { "B" } }, row, Reachable with { HeadOffice = "H" })
        );
        Assert.Equal(LeftOutReason.NotChosen, Reason(Everyone with { HeadOffices = new HashSet<string> { "B" } }, row));
        var all = Everyone with
        {
            DueFrom = new(2026, 10, 20),
            DueTo = new(2026, 10, 20),
            HeadOffices = new HashSet<string> { "H" },
            Columns = new Dictionary<string, IReadOnlySet<string>>
            {
                ["Van"] = new HashSet<string> { "N3" },
                ["Order"] = new HashSet<string> { "" },
            },
        };
        Assert.Single(Choose(all, _ => Reachable with { HeadOffice = "H" }, [], row).Statements);

        static Dictionary<string, IReadOnlySet<string>> Column(string heading, params string[] values) =>
            new() { [heading] = values.ToHashSet() };
    }

    [Fact]
    public void Items_are_taken_out_held_back_and_put_in_by_hand()
    {
        var (one, two) = (Row("A", 10m, "2026-10-01", number: "T-1"), Row("A", 5m, "2026-10-01", number: "T-2", held: "short delivery"));
        Assert.Equal(
            new LeftOut("A", Pounds, LeftOutReason.TakenOut, 10m, 1),
            Assert.Single(ByHandOn(Everyone, new ByHand { Items = [new(Key(one), false, "paid")] }).LeftOut)
        );
        Assert.Equal(
            new LeftOut("A", Pounds, LeftOutReason.HeldBack, 10m, 1),
            Assert.Single(ByHandOn(Everyone, new ByHand { Holds = [new(Key(one), "asked about", AsOf.AddDays(1))] }).LeftOut)
        );
        Assert.Empty(ByHandOn(Everyone, new ByHand { Holds = [new(Key(one), "asked about", AsOf)] }).LeftOut);
        Assert.Equal(
            15m,
            Assert
                .Single(
                    ByHandOn(
                        Everyone with
                        {
                            LeaveOutHeld = true,
                        },
                        new ByHand { Items = [new(Key(two), true, "settled with them")] }
                    ).Statements
                )
                .Total
        );

        ChosenRound ByHandOn(Choice choice, ByHand hand) =>
            Choosing.Choose([one, two], [], choice, SettlementRule.None, StatementRules.Default, _ => Reachable, hand);
    }

    [Fact]
    public void A_customer_who_is_put_in_passes_by_what_was_chosen_but_not_by_what_forbids()
    {
        var row = Row("A", 10m, "2026-10-01", "2026-10-20");
        var strict = Everyone with
        {
            LeastBalance = 11m,
            OverdueDays = 60,
            NotWithinDays = 7,
            Customers = new HashSet<string> { "B" },
        };
        var hand = new ByHand { Customers = [new("A", true, "asked for it")] };
        var written = Reachable with { LastWritten = AsOf };
        Assert.Single(Choosing.Choose([row], [], strict, SettlementRule.None, StatementRules.Default, _ => written, hand).Statements);
        Assert.Equal(LeftOutReason.OnHold, Reason(strict, row, written with { OnHold = true }, hand));
        Assert.Equal(LeftOutReason.NoWayToReach, Reason(strict, row, written with { HasAddress = false }, hand));
    }

    [Fact]
    public void The_items_of_a_customer_say_where_each_of_them_ends()
    {
        var rows = new[]
        {
            Row("A", -10m, "2026-10-03", number: "P"),
            Row("A", 10m, "2026-10-01", number: "T-1"),
            Row("A", 5m, "2026-10-02", number: "T-2", held: "short"),
            Row("A", 7m, "2026-11-02", number: "T-3"),
        };
        var items = Choosing.Items(rows, Everyone with { LeaveOutHeld = true }, SettlementRule.Oldest, ByHand.Nothing);
        Assert.Equal(
            [("T-1", 0m, null), ("T-2", 5m, LeftOutReason.HeldBack), ("P", 0m, null), ("T-3", 7m, LeftOutReason.AfterTheDate)],
            items.Select(i => (i.Item.Row.Number, i.Item.Open, i.Reason))
        );
    }

    [Fact]
    public void The_edges_are_on_the_side_of_sending()
    {
        var row = Row("A", 10m, "2026-10-01", "2026-10-20");
        Assert.Single(
            Choose(
                Everyone with
                {
                    LeastBalance = 10m,
                    OverdueDays = 11,
                    DatedFrom = new(2026, 10, 1),
                    DatedTo = new(2026, 10, 1),
                },
                row
            ).Statements
        );
        Assert.Single(
            Choose(Everyone with { NotWithinDays = 7 }, _ => new Reachability(false, true, new(2026, 10, 24)), [], row).Statements
        );
    }

    [Fact]
    public void A_row_that_could_not_be_read_blocks_its_customer_in_its_currency()
    {
        var setAside = new RowSetAside("A", Pounds, 5m, new SourceRef("f", null, 9));
        var round = Choose(
            Everyone,
            _ => Reachable,
            [setAside],
            Row("A", 10m, "2026-10-01"),
            Row("A", 7m, "2026-10-01", currency: Euro),
            Row("B", 1m, "2026-10-01")
        );
        Assert.Equal([("A", "EUR"), ("B", "GBP")], round.Statements.Select(s => (s.Customer, s.Currency.Code)));
        Assert.Equal(new LeftOut("A", Pounds, LeftOutReason.Error, 15m, 2), Assert.Single(round.LeftOut));
        Assert.Equal(0m, round.Proof.Single(p => p.Currency == Pounds).Difference);
        Assert.Equal(16m, round.Proof.Single(p => p.Currency == Pounds).Ledger);
    }

    [Fact]
    public void A_row_whose_currency_is_unknown_blocks_its_customer_in_all()
    {
        var round = Choose(
            Everyone,
            _ => Reachable,
            [new RowSetAside("A", null, 0m, new SourceRef("f", null, 9))],
            Row("A", 10m, "2026-10-01"),
            Row("A", 7m, "2026-10-01", currency: Euro)
        );
        Assert.Empty(round.Statements);
    }

    [Fact]
    public void A_customer_with_rows_after_the_date_only_has_just_that_line()
    {
        Assert.Equal([LeftOutReason.AfterTheDate], Choose(Everyone, Row("A", 10m, "2026-11-01")).LeftOut.Select(l => l.Reason));
        Assert.Equal(
            [LeftOutReason.AfterTheDate, LeftOutReason.NothingOpen],
            Choose(Everyone, Row("A", 10m, "2026-11-01"), Row("A", 0m, "2026-10-01")).LeftOut.Select(l => l.Reason)
        );
    }

    [Fact]
    public void Currencies_are_never_added()
    {
        var round = Choose(
            Everyone,
            Row("A", 10m, "2026-10-01"),
            Row("A", 7m, "2026-10-01", currency: Euro),
            Row("A", -8m, "2026-10-01", currency: Euro)
        );
        Assert.Equal(10m, Assert.Single(round.Statements).Total);
        Assert.Equal(new LeftOut("A", Euro, LeftOutReason.CreditBalance, -1m, 2), Assert.Single(round.LeftOut));
        Assert.Equal(["EUR", "GBP"], round.Proof.Select(p => p.Currency.Code));
    }

    [Fact]
    public void The_proof_closes_for_every_ledger_and_every_choice()
    {
        var choice = Gen.Select(
            Gen.Bool,
            Gen.Bool,
            Gen.Int[0, 3],
            Gen.Int[0, 3],
            Gen.Int[0, 2],
            Gen.Int[0, 3],
            (held, credits, least, overdue, units, groups) =>
                Everyone with
                {
                    Groups = groups == 0 ? null : (GroupStatements)(groups - 1),
                    Form = overdue == 3 ? StatementForm.BroughtForward : null,
                    LeaveOutHeld = held,
                    WithCredits = credits,
                    LeastBalance = least * 50m,
                    OverdueDays = overdue == 0 ? null : overdue * 20,
                    Units = units == 0 ? null : new HashSet<string> { "Northgate" },
                    ReminderLevels = least switch
                    {
                        1 => [1],
                        2 => [1, 2, 3],
                        _ => null,
                    },
                    DatedFrom = units == 2 ? new DateOnly(2026, 8, 1) : null,
                }
        );
        var aside = Gen.Select(Gen.Int[0, 12], Gen.Int[0, 3], Gen.Long[-9_000, 9_000], (who, currency, pennies) => new RowSetAside(
                who == 0 ? null : $"C{who:00}",
                currency switch
                {
                    0 => null,
                    1 => Euro,
                    _ => Pounds,
                },
                currency == 0 ? 0 : pennies / 100m,
                new SourceRef("f", null, 1)
            )).List[0, 3];
        Gen.Select(RandomLedger.OfCustomers(12), aside, choice, Gen.Enum<SettlementRule>(), Gen.Int[0, 7])
            .Sample(
                (rows, setAside, chosen, rule, handed) =>
                {
                    var keys = rows.Select(Key).Distinct().ToList();
                    var hand =
                        handed == 0
                            ? ByHand.Nothing
                            : new ByHand
                            {
                                Customers =
                                [
                                    .. rows.Select(r => r.Customer)
                                        .Distinct()
                                        .Where((_, i) => i % 4 == 1)
                                        .Select((c, i) => new CustomerByHand(c, i % 2 == 0, "by hand")),
                                ],
                                Items =
                                [
                                    .. keys.Where((_, i) => i % 5 == handed % 5)
                                        .Select((k, i) => new ItemByHand(k, i % 2 == 0, "by hand")),
                                ],
                                Holds =
                                [
                                    .. keys.Where((_, i) => i % 7 == handed % 7)
                                        .Select(k => new ItemHold(k, "asked", AsOf.AddDays(handed - 3))),
                                ],
                                Settlements =
                                [
                                    .. rows.Zip(rows.Skip(1))
                                        .Where(p => p.First.Customer == p.Second.Customer)
                                        .Select(p => new CustomerSettlement(
                                            p.First.Customer,
                                            new SettledByHand(Key(p.First), handed == 7 ? null : Key(p.Second), handed)
                                        )),
                                ],
                            };
                    var reminded = keys.Where((_, i) => i % 3 == 0)
                        .Select((k, i) => (k, i))
                        .ToDictionary(k => k.k, k => new Reminded((k.i % 3) + 1, AsOf.AddDays(-k.i * 7)));
                    var round = Choosing.Choose(rows, setAside, chosen, rule, StatementRules.Default, Of, hand, reminded);
                    foreach (var currency in new[] { Pounds, Euro })
                    {
                        var counted =
                            rows.Where(r => r.Currency == currency).Sum(r => r.Open)
                            + setAside.Where(r => r.Currency == currency).Sum(r => r.Amount);
                        var proof = round.Proof.SingleOrDefault(p => p.Currency == currency);
                        Assert.Equal(counted, proof?.Ledger ?? 0m);
                        Assert.Equal(0m, proof?.Difference ?? 0m);
                        Assert.Equal(
                            round.Statements.Where(s => s.Currency == currency && s.AlsoOn is null).Sum(s => s.Items.Sum(i => i.Open)),
                            proof?.Statements ?? 0m
                        );
                        Assert.Equal(round.LeftOut.Where(l => l.Currency == currency).Sum(l => l.Amount), proof?.LeftOut ?? 0m);
                    }

                    Assert.All(round.Statements, s => Assert.True(s.Total > 0 && s.Total == s.Ageing.Bands.Sum() + s.Ageing.Credits));

                    // What is counted from the sums of the accounts alone is what is chosen, also where other customers are wanted than
                    // the sums were made for.
                    var others = Choosing.Choose(rows, setAside, chosen.OfItems(), rule, StatementRules.Default, Of, hand, reminded);
                    var count = Choosing.Count(others.Accounts, others.ItemsLeftOut, setAside, chosen, Of, hand);
                    Assert.Equal(round.Statements.DistinctBy(s => s.Customer).Count(), count.Parcels);
                    Assert.All(round.Proof, p => Assert.Equal(p.Statements, count.Sums.GetValueOrDefault(p.Currency)));
                    Assert.Equal(
                        round
                            .LeftOut.GroupBy(l => (l.Currency, l.Reason))
                            .Select(g => new LeftOutShare(g.Key.Currency, g.Key.Reason, g.Count(), g.Sum(l => l.Amount)))
                            .OrderBy(s => s.Currency)
                            .ThenBy(s => s.Reason),
                        count.LeftOut.OrderBy(s => s.Currency).ThenBy(s => s.Reason)
                    );
                    Assert.Equal(round.Statements.Count, round.Statements.DistinctBy(s => (s.Customer, s.Currency)).Count());
                },
                iter: 5_000
            );

        static Reachability Of(string c) =>
            new(
                c == "C01",
                c != "C02",
                null,
                null,
                OfficeOf(c),
                c == "C00" ? GroupStatements.Both
                    : c == "C04" ? GroupStatements.HeadOffice
                    : default
            );
    }

    [Theory]
    [InlineData(LeftOutReason.CreditBalance, "credit-balance")]
    [InlineData(LeftOutReason.AfterTheDate, "after-the-date")]
    [InlineData(LeftOutReason.Error, "error")]
    public void Reasons_have_names_for_files(LeftOutReason reason, string code) => Assert.Equal(code, reason.Code());

    /// <summary>Four customers to a head office, which is the first of them: C00 of C01 to C03, C04 of C05 to C07.</summary>
    private static string OfficeOf(string customer) => int.TryParse(customer[1..], out var number) ? $"C{number / 4 * 4:00}" : customer;

    private static string Key(LedgerRow row) => ItemKey.Of(row).Text;

    private static LeftOutReason Reason(Choice choice, LedgerRow row, Reachability? of = null, ByHand? byHand = null) =>
        Assert
            .Single(Choosing.Choose([row], [], choice, SettlementRule.None, StatementRules.Default, _ => of ?? Reachable, byHand).LeftOut)
            .Reason;

    private static ChosenRound Choose(Choice choice, params LedgerRow[] rows) => Choose(choice, _ => Reachable, [], rows);

    private static ChosenRound Choose(Choice choice, Func<string, Reachability> of, RowSetAside[] setAside, params LedgerRow[] rows) =>
        Choosing.Choose(rows, setAside, choice, SettlementRule.None, StatementRules.Default, of);
}
