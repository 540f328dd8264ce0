using CsCheck;
using Rendal.Core.Rounds;
using Rendal.Core.Statements;

namespace Rendal.Core.Tests.Rounds;

public class ChoiceTests
{
    private static readonly Choice October = new()
    {
        AsOf = new DateOnly(2026, 10, 31),
        PeriodFrom = new DateOnly(2026, 10, 1),
        DatedFrom = new DateOnly(2026, 8, 15),
        DatedTo = new DateOnly(2026, 10, 31),
        DueTo = new DateOnly(2026, 10, 30),
        LeastBalance = 5m,
        NotWithinDays = 7,
    };

    [Fact]
    public void The_days_of_a_choice_move_along_with_its_date_by_months() =>
        Assert.Equal(
            October with
            {
                AsOf = new DateOnly(2026, 11, 30),
                PeriodFrom = new DateOnly(2026, 11, 1),
                DatedFrom = new DateOnly(2026, 9, 15),
                DatedTo = new DateOnly(2026, 11, 30),
                DueTo = new DateOnly(2026, 11, 30),
            },
            October.At(new DateOnly(2026, 11, 30))
        );

    [Fact]
    public void Within_a_month_they_move_by_days()
    {
        var week = October.At(new DateOnly(2026, 10, 24));
        Assert.Equal((new DateOnly(2026, 9, 24), new DateOnly(2026, 10, 24)), (week.PeriodFrom!.Value, week.DatedTo!.Value));
        Assert.Equal(October, October.At(October.AsOf));
    }

    /// <summary>A whole month stays a whole month, and what has no day gets none, whatever the dates.</summary>
    [Fact]
    public void A_month_that_is_wanted_as_a_whole_is_wanted_as_a_whole_of_any_other() =>
        Gen.Select(Gen.Int[0, 3_000], Gen.Int[0, 3_000])
            .Sample(
                (from, to) =>
                {
                    var (was, wanted) = (new DateOnly(2024, 1, 1).AddDays(from), new DateOnly(2024, 1, 1).AddDays(to));
                    var whole = Period.MonthOf(was);
                    var moved = new Choice
                    {
                        AsOf = was,
                        DatedFrom = whole.From,
                        DatedTo = whole.To,
                    }.At(wanted);
                    Assert.Equal(wanted, moved.AsOf);
                    Assert.Null(moved.DueFrom);
                    if ((was.Year, was.Month) != (wanted.Year, wanted.Month))
                    {
                        Assert.Equal(Period.MonthOf(wanted), new Period(moved.DatedFrom!.Value, moved.DatedTo!.Value));
                    }
                },
                iter: 500
            );
}
