using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Reminders;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Rounds;

/// <summary>A round that sends reminders: A is due the first, B the second, C none yet; D had them all.</summary>
public sealed class ReminderRoundTests
{
    private static readonly Choice Reminders = new() { AsOf = new DateOnly(2026, 10, 31), ReminderLevels = [1, 2, 3] };

    private static readonly LedgerRow[] Rows =
    [
        Row("A", 100m, "2026-09-01", "2026-10-01", "T-1"),
        Row("B", 50m, "2026-09-01", "2026-10-01", "T-2"),
        Row("B", 5m, "2026-10-30", "2026-11-30", "T-3"),
        Row("C", 20m, "2026-10-20", "2026-10-30", "T-4"),
        Row("D", 70m, "2026-05-01", "2026-06-01", "T-5"),
        Row("D", 7m, "2026-05-01", "2026-06-01", "T-6", Euro),
    ];

    private static readonly Dictionary<string, Reminded> Sent = new()
    {
        [ItemKey.Of(Rows[1]).Text] = new(1, new DateOnly(2026, 10, 10)),
        [ItemKey.Of(Rows[4]).Text] = new(3, new DateOnly(2026, 8, 1)),
    };

    [Fact]
    public void Each_gets_the_level_that_is_due_and_the_others_are_accounted_for()
    {
        var round = Choose(Reminders);
        Assert.Equal(
            [("A", "GBP", 1), ("B", "GBP", 2), ("D", "EUR", 1)],
            round.Statements.Select(s => (s.Customer, s.Currency.Code, s.ReminderLevel))
        );
        Assert.Equal(
            [("C", LeftOutReason.NoReminderDue, 20m), ("D", LeftOutReason.NoReminderDue, 70m)],
            round.LeftOut.Select(l => (l.Customer, l.Reason, l.Amount))
        );
        Assert.All(round.Proof, p => Assert.Equal(0m, p.Difference));
    }

    [Fact]
    public void They_are_counted_level_by_level_and_currency_by_currency()
    {
        Assert.Equal([new RemindersDue(1, 1, 100m), new RemindersDue(2, 1, 50m)], RemindersDue.Of(Choose(Reminders).Statements, Pounds));
        Assert.Equal([new RemindersDue(1, 1, 7m)], RemindersDue.Of(Choose(Reminders).Statements, Euro));
        var both = Choose(Reminders with { Groups = GroupStatements.Both }, officeOf: c => c is "B" or "C" ? "A" : c).Statements;
        Assert.Equal([new RemindersDue(1, 1, 170m), new RemindersDue(2, 1, 0m)], RemindersDue.Of(both, Pounds));
    }

    [Fact]
    public void Only_the_levels_that_are_wanted_go() =>
        Assert.Equal([("B", 2)], Choose(Reminders with { ReminderLevels = [2] }).Statements.Select(s => (s.Customer, s.ReminderLevel)));

    [Fact]
    public void In_a_round_of_statements_there_is_no_level() =>
        Assert.All(Choose(Reminders with { ReminderLevels = null }).Statements, s => Assert.Null(s.ReminderLevel));

    [Fact]
    public void Who_is_put_in_by_hand_gets_the_next_level_though_it_is_not_due()
    {
        var hand = new ByHand { Customers = [new CustomerByHand("C", true, "asked"), new CustomerByHand("D", true, "asked")] };
        Assert.Equal(
            [("A", 1), ("B", 2), ("C", 1), ("D", 1), ("D", 3)],
            Choose(Reminders, hand).Statements.Select(s => (s.Customer, s.ReminderLevel))
        );
        var early = Reminders with { AsOf = new DateOnly(2026, 10, 30) };
        Assert.Contains(Choose(early, hand).LeftOut, l => (l.Customer, l.Reason) == ("C", LeftOutReason.NoReminderDue));
    }

    [Fact]
    public void The_branch_with_the_oldest_item_says_which_reminder_its_head_office_gets()
    {
        var round = Choose(Reminders with { Groups = GroupStatements.HeadOffice }, officeOf: c => c is "B" or "C" ? "A" : c);
        Assert.Equal([("A", 1), ("D", 1)], round.Statements.Select(s => (s.Customer, s.ReminderLevel)));
        Assert.Equal(175m, round.Statements[0].Total);
        var older = Choose(Reminders with { Groups = GroupStatements.HeadOffice }, officeOf: c => c is "D" or "C" ? "B" : c);
        Assert.Equal(["B", "C", "D"], older.LeftOut.Where(l => l.Currency == Pounds).Select(l => l.Customer));
    }

    private static ChosenRound Choose(Choice choice, ByHand? hand = null, Func<string, string>? officeOf = null) =>
        Choosing.Choose(
            Rows,
            [],
            choice,
            SettlementRule.None,
            StatementRules.Default,
            c => new Reachability(false, true, null, HeadOffice: officeOf?.Invoke(c)),
            hand,
            Sent
        );
}
