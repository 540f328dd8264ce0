using Rendal.Trials.Ledgers;

namespace Rendal.Core.Tests.Intake.Columns;

/// <summary>Any ledger is read at sight: measured over ledgers under headings of the trade, with the truth beside them.</summary>
public sealed class GeneratedLedgersTests
{
    [Fact]
    public void Of_a_hundred_under_headings_that_no_list_contains_ninety_five_are_read_wholly_right()
    {
        var trials = Enumerable
            .Range(1, 3_000)
            .AsParallel()
            .Select(s => LedgerTrial.Of(s, TradeHeadings.All))
            .Where(t => t.IsUnknown)
            .ToList();
        Assert.True(trials.Count > 500, $"only {trials.Count}");
        var right = trials.Count(t => t.IsRight);
        Assert.True(right * 100 >= trials.Count * 95, $"{right} of {trials.Count}\n{Worst(trials)}");
    }

    [Fact]
    public void Of_a_hundred_under_listed_headings_ninety_nine_are_read_wholly_right()
    {
        var trials = Enumerable.Range(1, 1_000).AsParallel().Select(s => LedgerTrial.Of(s, TradeHeadings.Listed)).ToList();
        var right = trials.Count(t => t.IsRight);
        Assert.True(right * 100 >= trials.Count * 99, $"{right} of {trials.Count}\n{Worst(trials)}");
    }

    [Fact]
    public void No_wrong_total_is_taken_as_sure()
    {
        var wrong = Enumerable
            .Range(1, 10_000)
            .AsParallel()
            .Select(s => LedgerTrial.Of(s, TradeHeadings.All))
            .FirstOrDefault(t => t.IsWrongAndSure);
        Assert.True(wrong is null, $"{wrong?.What}\n{wrong?.Ledger}");
    }

    private static string Worst(List<LedgerTrial> trials) =>
        string.Join(
            '\n',
            trials
                .GroupBy(t => t.Ledger.Language)
                .Select(g => $"{g.Key}: {g.Count(t => t.IsRight)} of {g.Count()}, {g.Count(t => t.IsAsked)} asked")
        )
        + "\n\n"
        + string.Join("\n\n", trials.Where(t => !t.IsRight).Take(25).Select(t => $"{t.What}\n{t.Ledger}"));
}
