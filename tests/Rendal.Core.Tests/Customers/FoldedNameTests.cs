using CsCheck;
using Rendal.Core.Customers;

namespace Rendal.Core.Tests.Customers;

public class FoldedNameTests
{
    [Theory]
    [InlineData("Abbot’s  Table", "ABBOTS TABLE")]
    [InlineData("Smith & Sons, Ltd.", "smith & sons ltd")]
    [InlineData("Ｈｏｔｅｌ Krone", "Hotel Krone")]
    [InlineData("Café", "Cafe\u0301")]
    public void Names_that_people_take_for_the_same_fold_alike(string one, string other) =>
        Assert.Equal(FoldedName.Of(one), FoldedName.Of(other));

    [Theory]
    [InlineData("Hotel Łabędź", "Hotel Labedz")]
    [InlineData("Beacon Lodge", "Beacon Lodge 2")]
    public void Names_that_only_look_alike_stay_apart(string one, string other) =>
        Assert.NotEqual(FoldedName.Of(one), FoldedName.Of(other));

    [Fact]
    public void Spaces_and_case_never_matter() =>
        Gen.String[Gen.Char['a', 'z'], 1, 20]
            .Sample(name =>
                Assert.Equal(FoldedName.Of(name), FoldedName.Of($"  {string.Join(' ', name.ToUpperInvariant().ToCharArray())} "))
            );

    [Fact]
    public void Folding_twice_is_folding_once() =>
        Gen.String[1, 30]
            .Where(s => !s.Any(char.IsSurrogate))
            .Sample(name => Assert.Equal(FoldedName.Of(name), FoldedName.Of(FoldedName.Of(name))));
}
