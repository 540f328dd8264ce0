using CsCheck;
using Rendal.Core.Customers;
using Rendal.Core.Rounds;

namespace Rendal.Core.Tests.Rounds;

public sealed class SettingsMergeTests
{
    private static readonly RoundSettings Seen = new(
        "October",
        new Choice
        {
            AsOf = new DateOnly(2026, 10, 31),
            Units = new HashSet<string> { "Northgate" },
        },
        1,
        2,
        null
    );

    // Each changes one setting to one of two values.
    private static readonly (string Name, Func<RoundSettings, int, RoundSettings> Change)[] Changes =
    [
        (nameof(RoundSettings.Name), (s, to) => s with { Name = $"Round {to}" }),
        (nameof(RoundSettings.Wording), (s, to) => s with { Wording = 10 + to }),
        (nameof(RoundSettings.Sender), (s, to) => s with { Sender = 20 + to }),
        (nameof(RoundSettings.Layout), (s, to) => s with { Layout = 30 + to }),
        (nameof(Choice.LeastBalance), (s, to) => s with { Choice = s.Choice with { LeastBalance = 5 + to } }),
        (nameof(Choice.OverdueDays), (s, to) => s with { Choice = s.Choice with { OverdueDays = 7 + to } }),
        (nameof(Choice.Units), (s, to) => s with { Choice = s.Choice with
                {
                    Units = new HashSet<string> { "Northgate", $"Unit {to}" },
                } }),
        (nameof(Choice.Columns), (s, to) =>
            s with
            {
                Choice = s.Choice with
                {
                    Columns = new Dictionary<string, IReadOnlySet<string>> { ["Route"] = new HashSet<string> { $"{to}" } },
                },
            }
        ),
        (nameof(Choice.ReminderLevels), (s, to) => s with { Choice = s.Choice with { ReminderLevels = [to] } }),
        (nameof(Choice.Groups), (s, to) =>
            s with
            {
                Choice = s.Choice with { Groups = to == 1 ? GroupStatements.Both : GroupStatements.HeadOffice },
            }
        ),
        (nameof(Choice.WithCredits), (s, _) => s with { Choice = s.Choice with { WithCredits = false } }),
    ];

    /// <summary>
    /// Of any changes by two people: all that only one made stand, and what both made differently is named and nothing else.
    /// </summary>
    [Fact]
    public void Each_persons_changes_stand_unless_both_changed_the_same_to_something_else()
    {
        var changes = Gen.Select(Gen.Int[0, Changes.Length - 1], Gen.Int[1, 2])
            .Array[0, 6]
            .Select(all => all.DistinctBy(c => c.Item1).ToArray());
        Gen.Select(changes, changes)
            .Sample(
                (first, second) =>
                {
                    var (now, wanted) = (Apply(Seen, first), Apply(Seen, second));
                    var merge = SettingsMerge.Of(Seen, now, wanted);
                    var both = first.Join(
                        second,
                        c => c.Item1,
                        c => c.Item1,
                        (a, b) => (a.Item1, Differ: a.Item2 != b.Item2 && Changes[a.Item1].Name != nameof(Choice.WithCredits))
                    );
                    Assert.Equal(both.Where(b => b.Differ).Select(b => Changes[b.Item1].Name).Order(), merge.Contested.Order());
                    if (merge.Contested.Count == 0)
                    {
                        Assert.Empty(SettingsMerge.Differing(Apply(now, second), merge.Settings));
                    }
                }
            );
    }

    [Fact]
    public void A_set_in_another_order_and_an_amount_with_more_zeros_are_no_changes()
    {
        var seen = Seen with
        {
            Choice = Seen.Choice with
            {
                Units = new HashSet<string> { "a", "b" },
                LeastBalance = 10m,
            },
        };
        var same = seen with
        {
            Choice = seen.Choice with
            {
                Units = new HashSet<string> { "b", "a" },
                LeastBalance = 10.00m,
            },
        };
        Assert.Empty(SettingsMerge.Differing(seen, same));
    }

    /// <summary>A setting that nobody thought of here would be lost between two people without a word.</summary>
    [Fact]
    public void Every_setting_takes_part()
    {
        var properties = typeof(Choice)
            .GetProperties()
            .Where(p => p.CanWrite)
            .Select(p => p.Name)
            .Concat(["Name", "Wording", "Sender", "Layout"]);
        var all = new RoundSettings(
            "Other",
            new Choice
            {
                AsOf = new DateOnly(2026, 11, 30),
                Form = Core.Statements.StatementForm.BroughtForward,
                PeriodFrom = new DateOnly(2026, 11, 1),
                InterestPercent = 8,
                DatedFrom = new DateOnly(2026, 1, 1),
                DatedTo = new DateOnly(2026, 2, 1),
                DueFrom = new DateOnly(2026, 1, 1),
                DueTo = new DateOnly(2026, 2, 1),
                LeaveOutHeld = true,
                WithCredits = false,
                Units = null,
                Columns = new Dictionary<string, IReadOnlySet<string>> { ["Route"] = new HashSet<string> { "1" } },
                Groups = GroupStatements.Both,
                HeadOffices = new HashSet<string> { "H" },
                Customers = new HashSet<string> { "C" },
                LeastBalance = 1,
                OverdueDays = 1,
                NotWithinDays = 1,
                ColleagueColumn = "Looked after by",
                WordingColumn = "Words",
                ReminderLevels = [1],
                NeedsAddress = false,
                About = RoundKind.Invoices,
            },
            5,
            6,
            7
        );
        Assert.Equal(properties.Order(), SettingsMerge.Differing(Seen, all).Order());
    }

    private static RoundSettings Apply(RoundSettings to, (int Change, int Value)[] changes) =>
        changes.Aggregate(to, (s, c) => Changes[c.Change].Change(s, c.Value));
}
