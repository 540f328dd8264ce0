using AngleSharp.Html.Parser;
using CsCheck;
using Rendal.Core.Wordings;

namespace Rendal.Html.Tests;

/// <summary>Choices of a word, ways of writing, and conditions on columns.</summary>
public sealed class WordingMarksTests
{
    private const string Their =
        "<span data-choice=\"customer.title\" data-words='[[\"Mr\",\"his\"],[\"Ms\",\"her\"]]' data-or-else=\"their\"></span>";

    [Theory]
    [InlineData("Mr", "his")]
    [InlineData("mr", "his")]
    [InlineData("Herr", "his")]
    [InlineData("Mrs", "her")]
    [InlineData("Señora", "her")]
    [InlineData("Dr", "their")]
    [InlineData("", "their")]
    public void A_word_is_chosen_by_the_title_in_whatever_language_it_is(string title, string word) =>
        Assert.Equal($"<p>{word} account</p>", Fill($"<p>{Their} account</p>", ("customer.title", title)));

    [Fact]
    public void A_word_is_chosen_by_a_number_and_may_be_none()
    {
        const string plural = "invoice<span data-choice=\"statement.invoices\" data-words='[[\"1\",\"\"]]' data-or-else=\"s\"></span>";
        Assert.Equal("<p>invoice</p>", Fill($"<p>{plural}</p>", ("statement.invoices", "1")));
        Assert.Equal("<p>invoices</p>", Fill($"<p>{plural}</p>", ("statement.invoices", "11")));
    }

    [Theory]
    [InlineData("is", "N7", "n7 ", true)]
    [InlineData("is", "N7", "N71", false)]
    [InlineData("is-not", "N7", "N71", true)]
    [InlineData("is-not", "N7", "", true)]
    [InlineData("contains", "n7", "S1, N71", true)]
    [InlineData("contains", "N7", "", false)]
    [InlineData("contains-not", "N7", "S1", true)]
    [InlineData("is-empty", "", " ", true)]
    [InlineData("is-empty", "", "x", false)]
    [InlineData("is-not-empty", "", "x", true)]
    public void Words_stand_by_the_value_of_a_column(string comparison, string with, string value, bool stands)
    {
        var body =
            "<p>a</p><p><span data-when=\"slot\" data-of=\"column.Round, &quot;N&quot;\" "
            + $"data-is=\"{comparison}\" data-with=\"{with}\">b</span></p>";
        Assert.Equal(stands ? "<p>a</p><p>b</p>" : "<p>a</p>", Fill(body, ("column.Round, \"N\"", value)));
    }

    [Fact]
    public void Conditions_stand_in_one_another_and_an_empty_slot_under_one_that_does_not_hold_is_not_missed()
    {
        const string body =
            "<p><span data-when=\"overdue\">Pay<span data-when=\"slot\" data-of=\"customer.language\" data-is=\"is\" "
            + "data-with=\"Deutsch\"> bitte, <span data-slot=\"customer.contact\"></span></span>.</span></p>";
        Assert.Equal("<p>Pay.</p>", Fill(body, ("customer.language", "English")));
        var german = Read(body).Fill(Values(("customer.language", "Deutsch")), Holding);
        Assert.Equal("customer.contact", Assert.Single(german.EmptySlots).Name);
    }

    [Fact]
    public void A_slot_is_written_in_the_way_that_was_picked()
    {
        const string body =
            "<p><span data-slot=\"statement.date\" data-format=\"month\" data-capital=\"\"></span> "
            + "<span data-slot=\"statement.date\" data-format=\"short\"></span> <span data-slot=\"statement.total\" "
            + "data-format=\"bare\"></span></p>";
        Assert.Equal(
            "<p>Octubre 31/10/2026 5,00</p>",
            Fill(body, ("statement.date:month", "octubre"), ("statement.date:short", "31/10/2026"), ("statement.total:bare", "5,00"))
        );
    }

    [Theory]
    [InlineData("<span data-slot=\"statement.date\" data-format=\"roman\"></span>", "written as “roman”")]
    [InlineData("<span data-slot=\"customer.name\" data-format=\"short\"></span>", "written as “short”")]
    [InlineData("<span data-slot=\"statement.table\" data-format=\"number,colour\"></span>", "columns that are not known")]
    [InlineData("<span data-slot=\"statement.table\" data-format=\"number,number\"></span>", "columns that are not known")]
    [InlineData("<span data-choice=\"customer.title\"></span>", "has no words for it")]
    [InlineData("<span data-choice=\"customer.title\" data-words='[[\"Mr\"]]'></span>", "has no words for it")]
    [InlineData("<span data-choice=\"customer.title\" data-words='{\"a\":1}'></span>", "has no words for it")]
    [InlineData("<span data-choice=\"customer.titel\" data-words='[[\"Mr\",\"his\"]]'></span>", "did you mean “Title”?")]
    [InlineData("<span data-choice=\"statement.table\" data-words='[[\"Mr\",\"his\"]]'></span>", "which is no text")]
    [InlineData("<i data-when=\"slot\" data-of=\"customer.nam\" data-is=\"is\" data-with=\"x\">a</i>", "did you mean “Customer”?")]
    [InlineData("<span data-when=\"slot\" data-of=\"customer.name\" data-is=\"like\" data-with=\"x\">a</span>", "asks nothing")]
    [InlineData("<span data-when=\"slot\" data-of=\"customer.name\" data-is=\"is\">a</span>", "compares it with nothing")]
    [InlineData("<i data-slot=\"signature\"></i><i data-slot=\"signature\"></i>", "The signature stands twice")]
    public void What_is_not_known_is_an_error_of_the_wording(string mark, string says) =>
        Assert.Contains(says, Assert.Single(Read($"<p>{mark}</p>").Errors), StringComparison.Ordinal);

    [Fact]
    public void The_columns_of_a_table_are_read_from_its_slot()
    {
        var place = Assert.Single(
            Read("<p><span data-slot=\"statement.table\" data-format=\"number,extra%3ARound%2C%20N,open\"></span></p>").Blocks
        );
        Assert.Equal(["number", "extra:Round, N", "open"], TableColumns.Read(place.Format)!.Select(c => c.Field));
    }

    [Fact]
    public void What_a_wording_uses_is_told_whatever_it_uses_it_for() =>
        Assert.Equal(
            ["column.A", "column.B", "column.C", "customer.name"],
            Read(
                "<p><span data-slot=\"column.A\"></span><span data-choice=\"column.B\" data-words='[[\"1\",\"a\"]]'></span>"
                    + "<span data-when=\"slot\" data-of=\"column.C\" data-is=\"is-empty\"><i data-slot=\"customer.name\"></i></span></p>"
            )
                .Uses.Order(StringComparer.Ordinal)
        );

    /// <summary>No value becomes markup, a header or a link target, in whatever slot, format, choice or condition it lands.</summary>
    [Fact]
    public void A_value_is_text_wherever_it_lands() =>
        Gen.Select(
                Gen.String[Gen.Char["<>&\"'=/\r\n\t{}[]()ahref:javscript onl0\u2028\u0000"], 1, 40],
                Gen.String[Gen.Char["<>&\"' ab"], 0, 12]
            )
            .Sample(
                (value, word) =>
                {
                    var encoded = System.Net.WebUtility.HtmlEncode(
                        System.Text.Json.JsonSerializer.Serialize(new[] { new[] { "x", word } })
                    );
                    var orElse = System.Net.WebUtility.HtmlEncode(word);
                    var slot = $"<span data-slot=\"customer.name\" data-capital=\"\" data-or-else=\"{orElse}\"></span>";
                    var date = $"<span data-slot=\"statement.date\" data-format=\"short\" data-or-else=\"{orElse}\"></span>";
                    var choice = $"<span data-choice=\"customer.title\" data-words=\"{encoded}\" data-or-else=\"{orElse}\"></span>";
                    var condition =
                        $"<span data-when=\"slot\" data-of=\"customer.name\" data-is=\"contains\" data-with=\"{orElse}a\">{slot}</span>";
                    var body = $"<p>{slot}{date}{choice}<a href=\"https://tarnbrook.example/\">{slot}</a></p><p>{condition}.</p>";
                    var filled = WordingReader
                        .Read(new Wording("w", "en", slot + date + choice, body))
                        .Fill(Values(("customer.name", value), ("statement.date:short", value), ("customer.title", value)), Holding);
                    Assert.DoesNotContain(filled.Subject, char.IsControl);
                    var page = new HtmlParser().ParseDocument(filled.Body);
                    Assert.Equal(["p", "a", "p"], page.Body!.QuerySelectorAll("*").Select(e => e.LocalName));
                    Assert.All(page.Body.QuerySelectorAll("*"), e =>
                        Assert.Equal(e.LocalName == "a" ? ["href"] : [], e.Attributes.Select(a => a.Name))
                    );
                    Assert.Equal("https://tarnbrook.example/", page.QuerySelector("a")!.GetAttribute("href"));
                }
            );

    private static readonly IReadOnlySet<TextWhen> Holding = new HashSet<TextWhen> { TextWhen.Always, TextWhen.Overdue };

    private static WordingTemplate Read(string body) => WordingReader.Read(new Wording("w", "en", "s", body));

    private static string Fill(string body, params (string Slot, string Value)[] values)
    {
        var template = Read(body);
        Assert.Empty(template.Errors);
        return template.Fill(Values(values), Holding).Body;
    }

    private static Dictionary<string, string> Values(params (string Slot, string Value)[] values) =>
        values.ToDictionary(v => v.Slot, v => v.Value, StringComparer.Ordinal);
}
