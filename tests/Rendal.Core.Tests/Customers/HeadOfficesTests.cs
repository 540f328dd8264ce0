using CsCheck;
using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class HeadOfficesTests
{
    [Fact]
    public void Chains_of_any_depth_end_at_the_top()
    {
        var offices = Of(("BAY", "COAST"), ("COAST", "GROUP"));
        Assert.Equal(("GROUP", "GROUP", "ALONE"), (offices.TopOf("BAY"), offices.TopOf("GROUP"), offices.TopOf("ALONE")));
        Assert.Empty(offices.Loops());
    }

    [Fact]
    public void A_loop_is_named_once_and_has_no_top()
    {
        var offices = Of(("B", "C"), ("C", "A"), ("A", "B"), ("LEAF", "B"), ("SELF", "SELF"));
        Assert.Equal(
            [
                ["A", "B", "C"],
                ["SELF"],
            ],
            offices.Loops()
        );
        Assert.Null(offices.TopOf("LEAF"));
    }

    [Fact]
    public void A_customer_has_a_top_unless_its_chain_runs_into_a_loop_that_is_named() =>
        Gen.Select(Gen.Int[0, 9], Gen.Int[-1, 9])
            .Array[0, 12]
            .Sample(pairs =>
            {
                var of = pairs.Where(p => p.Item2 >= 0).DistinctBy(p => p.Item1).ToDictionary(p => $"{p.Item1}", p => $"{p.Item2}");
                var offices = new HeadOffices(of);
                var looped = offices.Loops().SelectMany(l => l).ToHashSet();
                foreach (var key in of.Keys)
                {
                    var steps = Enumerable.Range(0, 20).Aggregate(key, (now, _) => of.GetValueOrDefault(now, now));
                    Assert.Equal(looped.Contains(steps), offices.TopOf(key) is null);
                }
            });

    private static HeadOffices Of(params (string Branch, string Office)[] pairs) => new(pairs.ToDictionary(p => p.Branch, p => p.Office));
}
