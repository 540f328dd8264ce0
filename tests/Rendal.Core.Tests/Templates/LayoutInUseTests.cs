using Rendal.Core.Customers;
using Rendal.Core.Templates;

namespace Rendal.Core.Tests.Templates;

public sealed class LayoutInUseTests
{
    private const long Picked = 1,
        OwnOfCard = 2,
        OfBook = 3,
        German = 4,
        OfLevelTwo = 5;

    private static readonly TemplateAssignment[] Uses =
    [
        new("statement", "", OfBook),
        new("statement", "de", German),
        new("reminder-2", "", OfLevelTwo),
    ];

    [Theory]
    [InlineData(Picked, OwnOfCard, "en", RoundKind.Statements, null, Picked)]
    [InlineData(null, OwnOfCard, "de", RoundKind.Statements, null, OwnOfCard)]
    [InlineData(null, null, "de", RoundKind.Statements, null, German)]
    [InlineData(null, null, "fr", RoundKind.Statements, null, OfBook)]
    [InlineData(null, OwnOfCard, "en", RoundKind.Reminders, 2, OfLevelTwo)]
    [InlineData(null, OwnOfCard, "en", RoundKind.Reminders, 1, null)]
    public void The_one_picked_for_the_round_comes_before_the_cards_and_the_books(
        long? picked,
        long? own,
        string language,
        RoundKind kind,
        int? level,
        long? expected
    ) =>
        Assert.Equal(
            expected,
            new LayoutInUse(kind, picked, Uses).For(
                new Customer
                {
                    Key = "AB01",
                    Name = "Abbot’s Table",
                    Language = language,
                    OwnLayout = own,
                },
                level
            )
        );
}
