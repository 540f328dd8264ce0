using System.Globalization;
using CsCheck;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Reminders;

public sealed class ReminderRulesTests
{
    private static readonly DateOnly Day = new(2026, 11, 1);
    private static readonly ReminderRules Usual = ReminderRules.Default;

    [Theory]
    [InlineData(0, 0, 0, 1, false)]
    [InlineData(6, 0, 0, 1, false)]
    [InlineData(7, 0, 0, 1, true)]
    [InlineData(90, 0, 0, 1, true)]
    [InlineData(20, 1, 14, 2, false)]
    [InlineData(21, 1, 13, 2, false)]
    [InlineData(21, 1, 14, 2, true)]
    [InlineData(34, 2, 14, 3, false)]
    [InlineData(35, 2, 14, 3, true)]
    [InlineData(200, 3, 100, 3, false)]
    public void A_level_is_due_by_its_days_once_the_one_before_is_a_gap_ago(int pastDue, int sent, int daysAgo, int level, bool isDue) =>
        Assert.Equal(new ReminderStep(level, isDue), Usual.StepOf(pastDue, Last(sent, daysAgo), Day));

    [Theory]
    [InlineData(7, 0, 0, 1, true)]
    [InlineData(21, 0, 0, 2, true)]
    [InlineData(90, 0, 0, 3, true)]
    [InlineData(90, 1, 13, 3, false)]
    [InlineData(90, 1, 14, 3, true)]
    public void Where_it_is_so_set_the_level_of_its_age_goes_at_once(int pastDue, int sent, int daysAgo, int level, bool isDue) =>
        Assert.Equal(
            new ReminderStep(level, isDue),
            new ReminderRules(Usual.Levels, maySkip: true).StepOf(pastDue, Last(sent, daysAgo), Day)
        );

    [Theory]
    [InlineData(3, 13, false)]
    [InlineData(3, 14, true)]
    [InlineData(4, 14, true)]
    public void Where_it_is_so_set_the_last_level_goes_again_after_its_gap(int sent, int daysAgo, bool isDue) =>
        Assert.Equal(new ReminderStep(3, isDue), new ReminderRules(Usual.Levels, mayRepeat: true).StepOf(200, Last(sent, daysAgo), Day));

    [Fact]
    public void The_oldest_item_decides_and_a_new_one_does_not_begin_anew()
    {
        var old = Row("A", 100m, "2026-09-01", "2026-10-01", "T-1");
        var newer = Row("A", 50m, "2026-10-01", "2026-10-20", "T-2");
        var reminded = Reminded((old, 1, 14));
        Assert.Equal(new ReminderStep(2, true), Usual.StepOf(Account(old, newer), reminded));
        Assert.Equal(new ReminderStep(1, true), Usual.StepOf(Account(newer), reminded));
    }

    [Fact]
    public void An_older_item_that_all_levels_were_sent_for_stands_before_a_newer_one()
    {
        var old = Row("A", 100m, "2026-05-01", "2026-06-01", "T-1");
        Assert.Equal(
            new ReminderStep(3, false),
            Usual.StepOf(Account(old, Row("A", 50m, "2026-09-01", "2026-10-01", "T-2")), Reminded((old, 3, 60)))
        );
    }

    [Fact]
    public void Of_items_equally_old_the_one_that_is_less_far_decides()
    {
        var reminded = Row("A", 100m, "2026-09-01", "2026-10-01", "T-1");
        var other = Row("A", 100m, "2026-09-02", "2026-10-01", "T-2");
        Assert.Equal(new ReminderStep(1, true), Usual.StepOf(Account(reminded, other), Reminded((reminded, 1, 20))));
    }

    [Fact]
    public void Credits_and_items_not_yet_due_bring_no_reminder()
    {
        var credit = Row("A", -100m, "2026-05-01", "2026-06-01", "C-1");
        Assert.Equal(
            new ReminderStep(1, false),
            Usual.StepOf(Account(credit, Row("A", 300m, "2026-10-20", "2026-11-19", "T-1")), Reminded())
        );
    }

    [Fact]
    public void An_item_beside_an_older_one_has_got_its_own_next_level()
    {
        var old = Row("A", 100m, "2026-05-01", "2026-06-01", "T-1");
        var newer = Row("A", 50m, "2026-09-01", "2026-10-01", "T-2");
        var notDue = Row("A", 50m, "2026-10-30", "2026-11-30", "T-3");
        var statement = Account(old, newer, notDue);
        var reminded = Reminded((old, 2, 20));
        Assert.Equal([new ItemReminded(Key(old), 3), new ItemReminded(Key(newer), 1)], Usual.Counted(statement, 3, reminded));
        Assert.Equal([3, 3], new ReminderRules(Usual.Levels, maySkip: true).Counted(statement, 3, reminded).Select(i => i.Level));
    }

    [Fact]
    public void Levels_that_make_no_sense_are_refused()
    {
        Assert.Contains("one to 9", Assert.Throws<ArgumentException>(() => new ReminderRules([])).Message);
        Assert.Contains("Level 2 comes at 7", Assert.Throws<ArgumentException>(() => new ReminderRules([new(7, 0), new(7, 14)])).Message);
        Assert.Contains("Level 1 wants", Assert.Throws<ArgumentException>(() => new ReminderRules([new(0, 0)])).Message);
        Assert.Contains("Level 1 wants", Assert.Throws<ArgumentException>(() => new ReminderRules([new(7, -1)])).Message);
        Assert.Throws<ArgumentException>(() => new ReminderRules([.. Enumerable.Range(1, 10).Select(d => new ReminderLevel(d, 1))]));
    }

    /// <summary>Reminders sent day after day, as they become due, over random accounts and rules.</summary>
    [Fact]
    public void No_item_ever_skips_a_level_or_gets_one_twice_and_the_gap_is_kept()
    {
        var rules = Gen.Select(Gen.Int[1, 20], Gen.Int[1, 20], Gen.Int[0, 20], Gen.Int[0, 20], (first, more, gap, last) =>
            new ReminderRules([new(first, 0), new(first + more, gap), new(first + more + 5, last)])
        );
        Gen.Select(rules, Gen.Select(Gen.Int[-60, 20], Gen.Bool).Array[1, 5], Gen.Int[1, 9])
            .Sample(
                (rule, items, everyDays) =>
                {
                    var rows = items
                        .Select(
                            (item, i) =>
                                Row(
                                    "A",
                                    item.Item2 ? 10m : 20m,
                                    Day.AddDays(item.Item1 - 30).ToString("O", CultureInfo.InvariantCulture),
                                    Day.AddDays(item.Item1).ToString("O", CultureInfo.InvariantCulture),
                                    $"T-{i}",
                                    row: i + 2
                                )
                        )
                        .ToArray();
                    var reminded = new Dictionary<string, Reminded>();
                    var before = new Reminded(0, default);
                    for (var day = Day; day < Day.AddDays(120); day = day.AddDays(everyDays))
                    {
                        var statement = Statement.Of("A", Pounds, rows.Select(r => new OpenItem(r, r.Open)), day, AgeingRule.Default);
                        var step = rule.StepOf(statement, reminded);
                        if (!step.IsDue)
                        {
                            continue;
                        }

                        Assert.True(statement.OldestDaysPastDue >= rule.Levels[step.Level - 1].Days);
                        Assert.True(before.Level == 0 || day >= before.On.AddDays(step.Level == 1 ? 0 : rule.Levels[step.Level - 1].Gap));
                        foreach (var item in rule.Counted(statement, step.Level, reminded))
                        {
                            var last = reminded.TryGetValue(item.Item, out var known) ? known.Level : 0;
                            Assert.InRange(item.Level, last, last + 1);
                            Assert.True(item.Level <= step.Level);
                            reminded[item.Item] = new Reminded(item.Level, day);
                        }

                        Assert.Equal(step.Level, reminded[Key(statement.Items[0].Row)].Level);
                        before = new Reminded(step.Level, day);
                    }

                    // The oldest had each level, one after the other, and was then left in peace.
                    Assert.Equal(3, before.Level);
                },
                iter: 3_000
            );
    }

    private static Reminded? Last(int level, int daysAgo) => level == 0 ? null : new Reminded(level, Day.AddDays(-daysAgo));

    private static Statement Account(params LedgerRow[] rows) =>
        Statement.Of(rows[0].Customer, rows[0].Currency, rows.Select(r => new OpenItem(r, r.Open)), Day, AgeingRule.Default);

    private static Dictionary<string, Reminded> Reminded(params (LedgerRow Row, int Level, int DaysAgo)[] sent) =>
        sent.ToDictionary(s => Key(s.Row), s => new Reminded(s.Level, Day.AddDays(-s.DaysAgo)));

    private static string Key(LedgerRow row) => ItemKey.Of(row).Text;
}
