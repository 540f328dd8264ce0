using Rendal.Core.Layouts;

namespace Rendal.Core.Tests.Layouts;

public sealed class LayoutUsesTests
{
    private static readonly LayoutUse[] Uses =
    [
        new("statement", "", 1), new("statement", "de", 2), new("reminder", "", 3), new("reminder", "fr", 4), new("reminder-2", "", 5), new("reminder-3", "de", 6),
    ];

    [Theory]
    [InlineData(null, "en", 1)]
    [InlineData(null, "de", 2)]
    [InlineData(1, "en", 3)]
    [InlineData(1, "fr", 4)]
    [InlineData(2, "en", 5)]
    [InlineData(2, "fr", 5)]
    [InlineData(3, "de", 6)]
    [InlineData(3, "en", 3)]
    public void The_level_comes_before_the_language_and_both_before_what_is_for_all(int? level, string language, long expected) =>
        Assert.Equal(expected, LayoutUses.Find(Uses, level, language));

    [Fact]
    public void Where_nothing_is_said_the_one_that_comes_with_it_is_used()
    {
        Assert.Null(LayoutUses.Find([], null, "en"));
        Assert.Null(LayoutUses.Find([new("statement", "", 1)], 1, "en"));
        Assert.Null(LayoutUses.Find([new("statement", "de", 1)], null, "en"));
    }
}
