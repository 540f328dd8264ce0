using System.Text.RegularExpressions;
using Rendal.Core.Customers;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Core.Statements;
using Rendal.Core.Templates;
using Rendal.Core.Wordings;
using Rendal.Html;
using static Rendal.Core.Tests.Ledgers;

namespace Rendal.Core.Tests.Wordings;

public class ReadyMadeWordingTests
{
    private static readonly string[] OfEveryLanguage =
    [
        Purposes.Statement,
        "reminder-1",
        "reminder-2",
        "reminder-3",
        Purposes.Confirmation,
        Purposes.InvoiceList,
    ];

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    [InlineData("fr")]
    [InlineData("es")]
    [InlineData("it")]
    [InlineData("nl")]
    public void There_is_one_for_each_purpose_that_fills_without_a_gap(string language)
    {
        Assert.All(OfEveryLanguage, purpose =>
        {
            var template = WordingReader.Read(ReadyMadeWording.Find(purpose, language)!);
            Assert.Empty(template.Errors);
            var filled = Fill(template, language, 1234.5m);
            Assert.Empty(filled.EmptySlots);
            Assert.DoesNotContain("{", filled.Subject + filled.Body);
            Assert.Contains("KR04", filled.Body);
        });
    }

    [Theory]
    [InlineData("en", 1234.5, "you owe us €1,234.50", "we owe")]
    [InlineData("en", -1234.5, "we owe you €1,234.50", "you owe")]
    [InlineData("de", 1234.5, "Sie schulden uns 1.234,50 €", "wir schulden")]
    [InlineData("de", -1234.5, "wir schulden Ihnen 1.234,50 €", "Sie schulden")]
    [InlineData("fr", -1234.5, "nous vous devons 1 234,50 €", "vous nous devez")]
    [InlineData("es", -1234.5, "le debemos 1.234,50 €", "nos debe ")]
    [InlineData("it", -1234.5, "noi Le dobbiamo 1.234,50 €", "Lei ci deve")]
    [InlineData("nl", -1234.5, "zijn wij u 1.234,50 € verschuldigd", "bent u ons")]
    public void A_confirmation_says_who_owes_whom(string language, double total, string says, string not)
    {
        var body = Plain(Fill(WordingReader.Read(ReadyMadeWording.Find(Purposes.Confirmation, language)!), language, (decimal)total).Body);
        Assert.Contains(says, body);
        Assert.DoesNotContain(not, body);
    }

    /// <summary>What is looked at is what goes: beside the values stands where they are from, and nothing else differs.</summary>
    [Fact]
    public void A_traced_message_says_the_same_as_the_one_that_goes() => Assert.All(ReadyMadeWording.All, w =>
        {
            var template = WordingReader.Read(w.Wording);
            var traced = Fill(template, w.Wording.Language, 1234.5m, traced: true);
            var goes = Fill(template, w.Wording.Language, 1234.5m);
            Assert.Equal(goes.Subject, traced.Subject);
            Assert.Equal(goes.EmptySlots, traced.EmptySlots);
            Assert.Contains("data-from=\"slot ", traced.Body);
            Assert.DoesNotContain("data-from", goes.Body);
            Assert.Equal(goes.Body, Regex.Replace(traced.Body, "<span data-from=\"[^\"]+\">([^<]*)</span>", "$1"));
        });

    [Fact]
    public void With_two_currencies_each_side_is_told_with_its_own()
    {
        var filled = Fill(WordingReader.Read(ReadyMadeWording.Find(Purposes.Confirmation, "en")!), "en", 10m, Pounds, -4m);
        Assert.Contains("you owe us €10.00. According to our books, we owe you £4.00.", Plain(filled.Body));
    }

    private static FilledWording Fill(
        WordingTemplate template,
        string language,
        decimal total,
        Currency? second = null,
        decimal ofSecond = 0,
        bool traced = false
    )
    {
        var asOf = new DateOnly(2026, 10, 31);
        var customer = new Customer
        {
            Key = "KR04",
            Name = "Gasthof zur Krone",
            Contacts = [new Contact { Name = "Łucja Brandt", Title = "Ms" }],
            Language = language,
        };
        List<Statement> statements = [Of(Currency.Of("EUR"), total)];
        if (second is { } also)
        {
            statements.Add(Of(also, ofSecond));
        }

        var slots = ParcelSlots.Of(
            customer,
            statements,
            new Firm("Tarnbrook Linen Hire", [], [], []),
            "Credit control",
            new RoundIdentity("October"),
            1
        );
        slots["statement.table"] = "<table></table>";
        slots["signature"] = "Credit control";
        return template.Fill(slots, TextConditions.Holding(statements, 1), traced);

        Statement Of(Currency currency, decimal amount)
        {
            var row = Row("KR04", amount, "2026-10-01") with { Currency = currency };
            return Statement.Of("KR04", currency, [new OpenItem(row, row.Open)], asOf, AgeingRule.Default);
        }
    }

    private static string Plain(string html) => System.Net.WebUtility.HtmlDecode(html).Replace('\u00A0', ' ').Replace('\u202F', ' ');
}
