using Rendal.Core.Customers;
using Rendal.Core.Reminders;
using Rendal.Core.Templates;

namespace Rendal.Core.Tests.Templates;

public sealed class WordingInUseTests
{
    private const long OfRound = 1,
        German = 2,
        OwnOfCard = 3,
        OfLevelTwo = 4,
        GermanOfLevelTwo = 5;

    private static readonly Dictionary<long, string> Languages = new()
    {
        [OfRound] = "en",
        [German] = "de",
        [OwnOfCard] = "en",
        [OfLevelTwo] = "en",
        [GermanOfLevelTwo] = "de",
    };

    private static readonly TemplateAssignment[] Uses =
    [
        new("statement", "", OfRound),
        new("statement", "de", German),
        new("reminder", "", OfRound),
        new("reminder-2", "de", GermanOfLevelTwo),
    ];

    private static readonly ReminderRules Levels = new([new(7, 0), new(21, 14) { Wording = OfLevelTwo }, new(35, 14) { Wording = 99 }]);

    [Theory]
    [InlineData("en", null, RoundKind.Statements, null, OfRound)]
    [InlineData("de", null, RoundKind.Statements, null, German)]
    [InlineData("fr", null, RoundKind.Statements, null, OfRound)]
    [InlineData("de", OwnOfCard, RoundKind.Statements, null, OwnOfCard)]
    [InlineData("de", 99L, RoundKind.Statements, null, German)]
    [InlineData("en", OwnOfCard, RoundKind.Reminders, 1, OfRound)]
    [InlineData("en", null, RoundKind.Reminders, 2, OfLevelTwo)]
    [InlineData("de", null, RoundKind.Reminders, 2, GermanOfLevelTwo)]
    [InlineData("en", null, RoundKind.Reminders, 3, OfRound)]
    [InlineData("en", null, RoundKind.Reminders, 9, OfRound)]
    public void The_cards_own_comes_first_then_that_of_the_level_each_in_the_customers_language(
        string language,
        long? own,
        RoundKind kind,
        int? level,
        long expected
    ) =>
        Assert.Equal(
            expected,
            new WordingInUse(kind, OfRound, Levels, Languages, Uses).For(
                new Customer
                {
                    Key = "AB01",
                    Name = "Abbot’s Table",
                    Language = language,
                    OwnWording = own,
                },
                level
            )
        );
}
