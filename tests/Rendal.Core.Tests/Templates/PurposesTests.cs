using Rendal.Core.Customers;
using Rendal.Core.Templates;

namespace Rendal.Core.Tests.Templates;

public sealed class PurposesTests
{
    private static readonly TemplateAssignment[] Uses =
    [
        new("statement", "", 1),
        new("statement", "de", 2),
        new("reminder", "", 3),
        new("reminder", "fr", 4),
        new("reminder-2", "", 5),
        new("reminder-3", "de", 6),
        new("confirmation", "", 7),
        new("confirmation", "es", 8),
        new("invoice-list", "de", 9),
    ];

    [Theory]
    [InlineData(RoundKind.Statements, null, "en", 1)]
    [InlineData(RoundKind.Statements, null, "de", 2)]
    [InlineData(RoundKind.Reminders, 1, "en", 3)]
    [InlineData(RoundKind.Reminders, 1, "fr", 4)]
    [InlineData(RoundKind.Reminders, 2, "en", 5)]
    [InlineData(RoundKind.Reminders, 2, "fr", 5)]
    [InlineData(RoundKind.Reminders, 3, "de", 6)]
    [InlineData(RoundKind.Reminders, 3, "en", 3)]
    [InlineData(RoundKind.Confirmations, null, "en", 7)]
    [InlineData(RoundKind.Confirmations, null, "es", 8)]
    [InlineData(RoundKind.Invoices, null, "de", 9)]
    public void The_level_comes_before_the_language_and_both_before_what_is_for_all(
        RoundKind kind,
        int? level,
        string language,
        long expected
    ) => Assert.Equal(expected, Purposes.Find(Uses, Purposes.Of(kind, level), language));

    [Fact]
    public void Where_nothing_is_said_none_is_found()
    {
        Assert.Null(Purposes.Find([], ["statement"], "en"));
        Assert.Null(Purposes.Find(Uses, Purposes.Of(RoundKind.Invoices, null), "en"));
        Assert.Null(Purposes.Find([new("statement", "", 1)], Purposes.Of(RoundKind.Reminders, 1), "en"));
    }

    [Fact]
    public void Every_kind_of_round_that_a_ledger_makes_has_a_purpose_that_can_be_set() =>
        Assert.All(new[] { RoundKind.Statements, RoundKind.Reminders, RoundKind.Invoices, RoundKind.Confirmations }, kind =>
            Assert.All(Purposes.Of(kind, null), p => Assert.Contains(p, Purposes.All))
        );
}
