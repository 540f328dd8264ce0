using System.Text.Json.Serialization;
using Rendal.Core.Ledger;
using Rendal.Core.Statements;

namespace Rendal.Core.Reminders;

/// <summary>
/// When which reminder is to be sent. The oldest open item of an account decides: level n is due once that item is past due by the days of
/// level n and level n−1 was sent for it at least the gap of level n before. A newer item changes nothing about it.
/// </summary>
public sealed record ReminderRules
{
    /// <summary>The most levels.</summary>
    public const int MostLevels = 9;

    private const int MostDays = 3_650;

    /// <summary>Makes rules.</summary>
    /// <param name="levels">The levels from the first, one to <see cref="MostLevels"/>; the days of each are more than those of the one
    /// before.</param>
    /// <param name="maySkip">Whether an item may get the level that its age calls for without those below it: 40 days past due and never
    /// reminded, it gets level 3 at once.</param>
    /// <param name="mayRepeat">Whether the last level is sent again, its gap after the last time, for as long as the item is open.</param>
    /// <exception cref="ArgumentException">The levels are none or too many, their days do not grow, or a figure is no number of
    /// days.</exception>
    public ReminderRules(IReadOnlyList<ReminderLevel> levels, bool maySkip = false, bool mayRepeat = false)
    {
        if (levels.Count is 0 or > MostLevels)
        {
            throw new ArgumentException($"There are one to {MostLevels} reminder levels.");
        }

        for (var i = 0; i < levels.Count; i++)
        {
            if (levels[i].Days is < 1 or > MostDays || levels[i].Gap is < 0 or > MostDays)
            {
                throw new ArgumentException($"Level {i + 1} wants 1 to {MostDays} days past due and a gap of 0 to {MostDays} days.");
            }

            if (i > 0 && levels[i].Days <= levels[i - 1].Days)
            {
                throw new ArgumentException(
                    $"Level {i + 1} comes at {levels[i].Days} days past due, not later than level {i} at {levels[i - 1].Days}."
                );
            }
        }

        (Levels, MaySkip, MayRepeat) = ([.. levels], maySkip, mayRepeat);
    }

    /// <summary>Three levels at 7, 21 and 35 days past due, 14 days apart, none skipped and none repeated.</summary>
    public static ReminderRules Default { get; } = new([new(7, 0), new(21, 14), new(35, 14)]);

    /// <summary>The levels from the first.</summary>
    public IReadOnlyList<ReminderLevel> Levels { get; }

    /// <summary>Their numbers, from 1.</summary>
    [JsonIgnore]
    public IReadOnlyList<int> Numbers => [.. Enumerable.Range(1, Levels.Count)];

    /// <summary>Whether levels may be skipped.</summary>
    public bool MaySkip { get; }

    /// <summary>Whether the last level is repeated.</summary>
    public bool MayRepeat { get; }

    /// <summary>
    /// The reminder that is next for an item. With the default rules, on 1 November: 7 days past due and never reminded, level 1 is due;
    /// 21 days past due and level 1 sent on 18 October, level 2 is due, sent on 19 October it is not yet; once the last level was sent
    /// none is due.
    /// </summary>
    /// <param name="daysPastDue">The days that the item is past due.</param>
    /// <param name="last">How far its reminders have come; null while none was sent.</param>
    /// <param name="asOf">The day for which is asked.</param>
    public ReminderStep StepOf(int daysPastDue, Reminded? last, DateOnly asOf)
    {
        var sent = last?.Level ?? 0;
        if (sent >= Levels.Count)
        {
            return new ReminderStep(Levels.Count, MayRepeat && IsDue(Levels.Count));
        }

        var next = sent + 1;
        while (MaySkip && next < Levels.Count && daysPastDue >= Levels[next].Days)
        {
            next++;
        }

        return new ReminderStep(next, IsDue(next));

        bool IsDue(int level) =>
            daysPastDue >= Levels[level - 1].Days
            && (last is not { } before || asOf.DayNumber - before.On.DayNumber >= Levels[level - 1].Gap);
    }

    /// <summary>
    /// The reminder that is next for an account: that of its oldest item past due; of several equally old, the gentlest. Where nothing is
    /// past due, level 1, not due.
    /// </summary>
    /// <param name="account">The statement of one account.</param>
    /// <param name="reminded">How far the reminders about single items have come, by <see cref="ItemKey"/> as text.</param>
    public ReminderStep StepOf(Statement account, IReadOnlyDictionary<string, Reminded> reminded)
    {
        var oldest = account.OldestDaysPastDue;
        ReminderStep? step = null;
        foreach (var item in account.Items)
        {
            if (oldest > 0 && item.Open > 0 && item.DaysPastDue == oldest)
            {
                var of = StepOf(oldest, LastOf(item.Row, reminded), account.AsOf);
                step = step is { } before ? ReminderStep.Gentler(before, of) : of;
            }
        }

        return step ?? new ReminderStep(1, false);
    }

    /// <summary>
    /// What a reminder counts as for each item past due on it. An item does not skip a level because it stands beside an older one: on a
    /// reminder of level 3 an item that was never reminded of has got its first.
    /// </summary>
    /// <param name="statement">The statement that goes with the reminder.</param>
    /// <param name="level">Its level.</param>
    /// <param name="reminded">How far the reminders about single items had come before.</param>
    public IReadOnlyList<ItemReminded> Counted(Statement statement, int level, IReadOnlyDictionary<string, Reminded> reminded) =>
        [
            .. statement
                .Items.Where(i => i.Open > 0 && i.DaysPastDue > 0)
                .Select(i => new ItemReminded(
                    ItemKey.Of(i.Row).Text,
                    MaySkip ? level : Math.Min(level, (LastOf(i.Row, reminded)?.Level ?? 0) + 1)
                ))
                .DistinctBy(i => i.Item),
        ];

    private static Reminded? LastOf(LedgerRow row, IReadOnlyDictionary<string, Reminded> reminded) =>
        reminded.Count > 0 && reminded.TryGetValue(ItemKey.Of(row).Text, out var last) ? last : null;
}
