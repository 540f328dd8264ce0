using Rendal.Core.Customers;
using Rendal.Core.Reminders;
using Rendal.Core.Templates;
using static Rendal.Core.Templates.WordingReason;

namespace Rendal.Core.Tests.Templates;

public sealed class WordingInUseTests
{
    private const long Usual = 1,
        German = 2,
        Own = 3,
        OfLevelTwo = 4,
        GermanOfLevelTwo = 5,
        ForReminders = 6,
        GermanFriendly = 7,
        Gone = 99;

    private static readonly Dictionary<long, (string Name, string Language)> Wordings = new()
    {
        [Usual] = ("Month-end statement", "en"),
        [German] = ("Kontoauszug", "de"),
        [Own] = ("Friendly", "en"),
        [OfLevelTwo] = ("Second reminder", "en"),
        [GermanOfLevelTwo] = ("Zweite Mahnung", "de"),
        [ForReminders] = ("friendly ", "en"),
        [GermanFriendly] = ("Friendly", "de"),
    };

    private static readonly TemplateAssignment[] Uses =
    [
        new("statement", "", Usual),
        new("statement", "de", German),
        new("reminder", "", ForReminders),
        new("reminder-2", "de", GermanOfLevelTwo),
    ];

    private static readonly ReminderRules Levels = new([new(7, 0), new(21, 14) { Wording = OfLevelTwo }, new(35, 14) { Wording = Gone }]);

    [Theory]
    [InlineData("en", null, RoundKind.Statements, null, Usual, OfPurpose)]
    [InlineData("de", null, RoundKind.Statements, null, German, OfPurposeInLanguage)]
    [InlineData("fr", null, RoundKind.Statements, null, Usual, OfPurpose)]
    [InlineData("de", Own, RoundKind.Statements, null, Own, OnCard)]
    [InlineData("de", Gone, RoundKind.Statements, null, German, OfPurposeInLanguage)]
    [InlineData("en", Own, RoundKind.Reminders, 1, ForReminders, OfPurpose)]
    [InlineData("en", null, RoundKind.Reminders, 2, OfLevelTwo, OfLevel)]
    [InlineData("de", null, RoundKind.Reminders, 2, GermanOfLevelTwo, OfPurposeInLanguage)]
    [InlineData("fr", null, RoundKind.Reminders, 2, OfLevelTwo, OfLevel)]
    [InlineData("en", null, RoundKind.Reminders, 3, ForReminders, OfPurpose)]
    [InlineData("en", null, RoundKind.Reminders, 9, ForReminders, OfPurpose)]
    [InlineData("de", Own, RoundKind.Confirmations, null, Usual, First)]
    public void Where_none_is_picked_the_cards_own_comes_first_then_what_is_in_the_customers_language(
        string language,
        long? own,
        RoundKind kind,
        int? level,
        long expected,
        WordingReason why
    ) => Assert.Equal(new AssignedWording(expected, why), For(kind, null, language, own, level, []));

    [Theory]
    [InlineData("de", Own, RoundKind.Statements, null)]
    [InlineData("en", null, RoundKind.Reminders, 2)]
    public void One_that_is_picked_for_the_round_goes_before_the_card_the_level_and_the_language(
        string language,
        long? own,
        RoundKind kind,
        int? level
    ) => Assert.Equal(new AssignedWording(Usual, Picked), For(kind, Usual, language, own, level, []));

    [Fact]
    public void One_that_was_picked_and_is_gone_counts_for_none() =>
        Assert.Equal(new AssignedWording(Own, OnCard), For(RoundKind.Statements, Gone, "de", Own, null, []));

    [Theory]
    [InlineData("Zweite Mahnung", "en", GermanOfLevelTwo)]
    [InlineData("KONTOAUSZUG", "en", German)]
    [InlineData("friendly", "de", GermanFriendly)]
    public void What_the_rows_name_goes_before_all_in_capitals_or_not_and_of_several_of_one_name_it_is_that_of_the_language(
        string name,
        string language,
        long expected
    ) => Assert.Equal(new AssignedWording(expected, NamedInRow), For(RoundKind.Statements, Usual, language, Own, null, [name]));

    [Theory]
    [InlineData("en")]
    [InlineData("fr")]
    public void A_name_of_several_wordings_of_which_none_is_the_only_one_in_the_language_is_told(string language) =>
        Assert.Equal(
            new AssignedWording(Usual, Picked)
            {
                Problem = "“FRIENDLY” in “Words” is the name of more than one wording: give each a name of its own",
            },
            For(RoundKind.Statements, Usual, language, Own, null, ["FRIENDLY"])
        );

    [Fact]
    public void A_name_that_no_wording_has_and_two_names_are_told_and_the_one_that_would_go_is_kept()
    {
        Assert.Equal(
            new AssignedWording(German, OfPurposeInLanguage) { Problem = "“Soft” in “Words” is no wording of this book" },
            For(RoundKind.Statements, null, "de", null, null, ["Soft"])
        );
        Assert.Equal(
            new AssignedWording(Own, Picked)
            {
                Problem = "its rows name two wordings in “Words”, “Kontoauszug” and “Month-end statement”",
            },
            For(RoundKind.Statements, Own, "de", null, null, ["Kontoauszug", "Month-end statement", "Friendly"])
        );
    }

    private static AssignedWording For(
        RoundKind kind,
        long? picked,
        string language,
        long? own,
        int? level,
        IReadOnlyList<string> named
    ) =>
        new WordingInUse(kind, picked, Levels, Wordings, Uses).For(
            new Customer
            {
                Key = "AB01",
                Name = "Abbot’s Table",
                Language = language,
                OwnWording = own,
            },
            level,
            new NamedWording("Words", named)
        );
}
