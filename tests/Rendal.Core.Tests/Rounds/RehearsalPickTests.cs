using CsCheck;
using Rendal.Core.Parcels;
using Rendal.Core.Rounds;

namespace Rendal.Core.Tests.Rounds;

public class RehearsalPickTests
{
    [Fact]
    public void The_unusual_the_longest_and_the_shortest_are_picked_with_why()
    {
        var picked = RehearsalPick.Of([
            Of(1, 5),
            Of(2, 41),
            Of(3, 1),
            Of(4, 7) with
            {
                Name = "Sørlandet Łódź Spa",
                Sums = [Sum("GBP", 10m), Sum("EUR", -4m)],
            },
            Of(5, 6) with
            {
                OnPaper = true,
            },
        ]);
        Assert.Equal(
            [
                (4L, "two currencies, a credit balance, letters beyond the English ones"),
                (2L, "the longest, 41 items"),
                (3L, "the shortest, one item"),
            ],
            picked.Select(p => (p.Parcel, p.Why))
        );
    }

    [Fact]
    public void Of_parcels_that_are_all_alike_the_first_ones_are_picked() =>
        Assert.Equal([1, 2, 3], RehearsalPick.Of([Of(1, 2), Of(2, 2), Of(3, 2), Of(4, 2)]).Select(p => p.Parcel));

    /// <summary>However the parcels are, three of them or all are picked, each once, the longest and the shortest among them.</summary>
    [Fact]
    public void Three_are_picked_each_once_and_none_is_longer_or_shorter_than_all_of_them() =>
        Gen.Select(Gen.Int[1, 9], Gen.Bool, Gen.Int[-1, 1])
            .Array[0, 9]
            .Sample(
                all =>
                {
                    var candidates = all.Select((a, i) => Of(i + 1, a.Item1) with { OnPaper = a.Item2, Sums = [Sum("GBP", a.Item3)] })
                        .ToList();
                    var picked = RehearsalPick.Of(candidates);
                    Assert.Equal(Math.Min(3, candidates.Count), picked.Select(p => p.Parcel).Distinct().Count());
                    Assert.Equal(picked.Count, picked.Distinct().Count());
                    if (candidates.Count > 0)
                    {
                        var items = picked.Select(p => candidates.Single(c => c.Parcel == p.Parcel).Items).ToList();
                        Assert.Equal(candidates.Max(c => c.Items), items.Max());
                    }

                    if (candidates.Count > 2)
                    {
                        Assert.Contains(picked, p => candidates.Single(c => c.Parcel == p.Parcel).Items == candidates.Min(c => c.Items));
                    }
                },
                iter: 500
            );

    private static RehearsalCandidate Of(long parcel, int items) =>
        new(parcel, items, [Sum("GBP", 10m)], "Abbot’s Table"[..5], 1, false, false);

    private static ParcelSum Sum(string currency, decimal total) => new(currency, total, 0m, [], 0m);
}
