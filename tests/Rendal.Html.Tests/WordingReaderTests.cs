using CsCheck;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Html.Tests;

public class WordingReaderTests
{
    private const string Name = "<span data-slot=\"customer.name\"></span>";

    [Fact]
    public void Slots_are_filled_in_subject_and_body()
    {
        var filled = Fill($"Statement for {Name}", $"<p>Dear {Name},</p>", ("customer.name", "Inn at Kell"));
        Assert.Equal("Statement for Inn at Kell", filled.Subject);
        Assert.Equal("<p>Dear Inn at Kell,</p>", filled.Body);
        Assert.Empty(filled.EmptySlots);
    }

    [Fact]
    public void An_empty_slot_is_named_unless_it_has_a_fallback()
    {
        Assert.Equal("Contact", Assert.Single(Fill("s", "<p><span data-slot=\"customer.contact\"></span></p>").EmptySlots).Label);
        var filled = Fill("s", "<p><span data-slot=\"customer.contact\" data-or-else=\"Guest’s “host”\"></span></p>");
        Assert.Empty(filled.EmptySlots);
        Assert.Equal("<p>Guest’s “host”</p>", filled.Body);
    }

    [Fact]
    public void Words_under_a_condition_stand_only_where_it_holds()
    {
        const string subject = "Your <span data-when=\"one-item\">invoice</span><span data-when=\"several-items\">invoices</span>";
        const string body =
            "<p>Hello.</p><p><span data-when=\"overdue\">Please pay<span data-when=\"several-items\"> them "
            + "all</span>.</span></p><ul><li><span data-when=\"not-overdue\">All is well.</span></li><li>Thanks</li></ul>";
        var one = Fill(subject, body);
        Assert.Equal(("Your invoice", "<p>Hello.</p><p>Please pay.</p><ul><li>Thanks</li></ul>"), (one.Subject, one.Body));
        var several = Fill(subject, body, [TextWhen.NotOverdue, TextWhen.SeveralItems]);
        Assert.Equal(("Your invoices", "<p>Hello.</p><ul><li>All is well.</li><li>Thanks</li></ul>"), (several.Subject, several.Body));
    }

    [Fact]
    public void An_empty_slot_stops_nothing_where_its_words_do_not_stand()
    {
        const string body = "<p>Hello <span data-when=\"reminder\">for the <span data-slot=\"reminder.level\"></span>. time</span></p>";
        Assert.Empty(Fill("s", body).EmptySlots);
        Assert.Equal("Reminder level", Assert.Single(Fill("s", body, [TextWhen.Reminder]).EmptySlots).Label);
    }

    [Fact]
    public void A_table_stands_in_no_paragraph()
    {
        const string table = "<span data-slot=\"statement.table\"></span>";
        Assert.Equal(
            "<p>One</p><table></table><p>Two</p>",
            Fill("s", $"<p>One</p><p>{table}</p><p>Two</p>", ("statement.table", "<table></table>")).Body
        );
        Assert.Equal(
            "<table></table>",
            Fill("s", $"<p><span data-when=\"overdue\">{table}</span></p>", ("statement.table", "<table></table>")).Body
        );
        Assert.Equal("<p>See <table></table></p>", Fill("s", $"<p>See {table}</p>", ("statement.table", "<table></table>")).Body);
    }

    [Fact]
    public void A_slot_beside_a_condition_does_not_fall_under_it()
    {
        const string body = "<p><span data-when=\"not-overdue\">Thank you, </span><span data-slot=\"customer.name\"></span></p>";
        Assert.Equal("<p>Inn</p>", Fill("s", body, ("customer.name", "Inn")).Body);
    }

    [Fact]
    public void A_condition_that_is_not_known_is_an_error_of_the_wording() =>
        Assert.Equal(
            [
                "The body has words under “overdu”, which is no condition that is known; there are overdue, not-overdue, "
                    + "reminder, no-reminder, one-item, several-items, they-owe, we-owe, balanced, credits, interest, group, copies, no-copies.",
            ],
            WordingReader.Read(new Wording("w", "en", "s", "<p><span data-when=\"overdu\">x</span></p>")).Errors
        );

    [Fact]
    public void A_column_of_the_files_is_a_slot_whatever_it_is_called() =>
        Assert.Equal(
            "<p>Round N7 &amp; “8”</p>",
            Fill(
                "s",
                "<p>Round <span data-slot=\"column.Delivery round, [no.] &quot;1&quot;\"></span></p>",
                ("column.Delivery round, [no.] \"1\"", "N7 & “8”")
            ).Body
        );

    [Theory]
    [InlineData("<b>bold</b> & co", "&lt;b&gt;bold&lt;/b&gt; &amp; co")]
    [InlineData("{{ customer.code }}", "{{ customer.code }}")]
    [InlineData("{% for x in y %}", "{% for x in y %}")]
    [InlineData("<script>alert(1)</script>", "&lt;script&gt;alert(1)&lt;/script&gt;")]
    public void A_value_never_becomes_markup_or_liquid(string value, string shown)
    {
        Assert.Equal($"<p>{shown}</p>", Fill("s", $"<p>{Name}</p>", ("customer.name", value)).Body);
    }

    [Fact]
    public void A_value_cannot_break_the_subject_line()
    {
        Assert.Equal("To Inn Bcc: x@y.example!", Fill($"To {Name}!", "b", ("customer.name", "Inn\r\nBcc: x@y.example")).Subject);
        Assert.Equal("Fish & Co <b>", Fill(Name, "b", ("customer.name", "Fish & Co <b>")).Subject);
    }

    [Fact]
    public void Braces_that_were_typed_stay_braces()
    {
        var filled = Fill("{{ x }} {% y %}", "<p>{{ customer.name }} {% if %}</p>", ("customer.name", "no"));
        Assert.Equal("{{ x }} {% y %}", filled.Subject);
        Assert.Equal("<p>{{ customer.name }} {% if %}</p>", filled.Body);
    }

    [Theory]
    [InlineData("{", "")]
    [InlineData("{{{", "}}}")]
    [InlineData("&#123;", "&#125;")]
    [InlineData("{%", "%}")]
    [InlineData("{{ value[0] }}", "{% raw %}")]
    public void A_brace_beside_a_slot_is_a_brace(string before, string after)
    {
        var (first, last) = (System.Net.WebUtility.HtmlDecode(before), System.Net.WebUtility.HtmlDecode(after));
        var filled = Fill(
            $"{before}{Name}{after}",
            $"<p>{before}{Name}{after}</p><p>{before}<span data-when=\"overdue\">{before}x</span></p>",
            ("customer.name", "Inn")
        );
        Assert.Equal($"{first}Inn{last}", filled.Subject);
        Assert.Equal($"<p>{first}Inn{last}</p><p>{first}{first}x</p>", filled.Body);
    }

    [Fact]
    public void Whatever_is_typed_beside_slots_stands_as_it_was_typed() =>
        Gen.Select(Gen.Char["{}%#$[]().|'\"&<>; abvalueif0123\u00A0\uE000\uE001"].Array[0, 12], Gen.Char["{}%<>&'\" aö0"].Array[1, 8])
            .Sample(
                (typed, given) =>
                {
                    var (words, value) = (new string(typed), "x" + new string(given));
                    var escaped = System.Net.WebUtility.HtmlEncode(words);
                    var filled = Fill($"{escaped}{Name}{escaped}", $"<p>{escaped}{Name}{escaped}</p>", ("customer.name", value));
                    var page = new AngleSharp.Html.Parser.HtmlParser().ParseDocument(filled.Body);
                    Assert.Equal(words + value + words, page.Body!.TextContent);
                    Assert.Equal("P", Assert.Single(page.Body.QuerySelectorAll("*")).TagName);
                }
            );

    [Fact]
    public void An_or_else_never_becomes_markup_even_in_the_place_of_a_table()
    {
        const string slot = "<span data-slot=\"statement.table\" data-or-else=\"&lt;script&gt;x&lt;/script&gt;\"></span>";
        Assert.Equal("&lt;script&gt;x&lt;/script&gt;", Fill("s", slot).Body);
    }

    [Fact]
    public void Too_much_nested_is_an_error_of_the_wording_and_keeps_nothing_busy()
    {
        var nested = string.Concat(Enumerable.Repeat("<div>", 20_000));
        Assert.Equal(
            "The text has more than 60 levels, which is the most that is worked through. Shorten it, or take formatting out.",
            Assert.Throws<OverBudget>(() => WordingReader.Sanitised(nested)).Message
        );
        var conditions = string.Concat(Enumerable.Repeat("<span data-when=\"overdue\">", 2_000));
        var slots = string.Concat(Enumerable.Repeat(Name, 3_000));
        foreach (var body in new[] { nested, conditions, slots })
        {
            Assert.NotEmpty(WordingReader.Read(new Wording("w", "en", "s", body)).Errors);
        }
    }

    [Fact]
    public void Paragraphs_and_entries_that_are_not_closed_are_not_nested()
    {
        var list = "<ul>" + string.Concat(Enumerable.Repeat("<li><p>one", 200)) + "</ul>";
        Assert.Empty(WordingReader.Read(new Wording("w", "en", "s", list)).Errors);
    }

    [Theory]
    [InlineData("background-image:url(http://far.example/x)")]
    [InlineData("list-style:url('http://far.example/x')")]
    [InlineData("background:u\\72l(http://far.example/x)")]
    [InlineData("cursor:url(http://far.example/x),auto")]
    [InlineData("border-image:url(http://far.example/x)")]
    public void A_style_fetches_nothing(string style)
    {
        var clean = WordingReader.Sanitised(
            $"<p style=\"color:red;{style}\">a</p><table background=\"http://far.example/x\"><tbody><tr><td>b</td></tr></tbody></table>"
        );
        Assert.DoesNotContain("far.example", clean, StringComparison.Ordinal);
        Assert.Contains("color", clean, StringComparison.Ordinal);
    }

    [Fact]
    public void A_table_is_a_piece_of_page_in_the_body_and_an_error_in_the_subject()
    {
        var table = "<span data-slot=\"statement.table\"></span>";
        Assert.Equal("<table></table>", Fill("s", table, ("statement.table", "<table></table>")).Body);
        Assert.Contains("Table of items", Assert.Single(WordingReader.Read(new Wording("w", "en", table, "b")).Errors));
    }

    [Fact]
    public void A_slot_that_names_nothing_known_is_an_error_of_the_wording()
    {
        var template = WordingReader.Read(new Wording("w", "en", "s", "<span data-slot=\"client.name\"></span>"));
        Assert.Equal(
            "The body has a slot “client.name” that names nothing known; did you mean “Customer”?",
            Assert.Single(template.Errors)
        );
        Assert.Throws<InvalidOperationException>(() => template.Fill(new Dictionary<string, string>(), new HashSet<TextWhen>()));
    }

    [Fact]
    public void What_has_no_place_in_a_message_is_taken_out()
    {
        var clean = WordingReader.Sanitised(
            "<p onclick=\"x()\">a<script>b</script><img src=\"http://far.example/p.png\"><a href=\"javascript:x\">c</a><a "
                + "href=\"mailto:a@b.example\">d</a></p>"
        );
        Assert.DoesNotContain("script", clean);
        Assert.DoesNotContain("onclick", clean);
        Assert.DoesNotContain("img", clean);
        Assert.Contains("mailto:a@b.example", clean);
    }

    [Fact]
    public void Only_the_pictures_of_the_book_stay_and_nothing_else_of_theirs()
    {
        const string body =
            "<p><img data-picture=\"12\" src=\"https://tracker.example/1.gif\" onerror=\"x()\" style=\"position:fixed\" "
            + "alt=\"Tarnbrook\" width=\"180\"><img src=\"https://tracker.example/2.gif\"><img data-picture=\"1 or 2\"><img "
            + "data-picture=\"-3\">a</p>";
        Assert.Equal(
            "<p><img data-picture=\"12\" alt=\"Tarnbrook\" width=\"180\">a</p>",
            WordingReader.Sanitised(body, withPictures: true)
        );
        Assert.Equal("<p>a</p>", WordingReader.Sanitised(body));
        Assert.Equal([12L], WordingReader.Read(new Wording("w", "en", "s", body)).Pictures);
    }

    [Fact]
    public void A_picture_beside_words_under_a_condition_stands_always()
    {
        const string body =
            "<p><img data-picture=\"12\"><span data-when=\"overdue\">Please pay.</span></p><p><span "
            + "data-when=\"overdue\"><img data-picture=\"13\"></span></p>";
        Assert.Equal(
            "<p><img data-picture=\"12\"></p>",
            WordingReader.Read(new Wording("w", "en", "s", body)).Fill(new Dictionary<string, string>(), new HashSet<TextWhen>()).Body
        );
    }

    [Fact]
    public void Pictures_keep_their_places_among_words_and_slots()
    {
        var filled = Fill(
            "s",
            $"<p><img data-picture=\"12\" alt=\"{{{{ x }}}}\"> {Name}</p><p><img data-picture=\"9\"><img data-picture=\"12\"></p>",
            ("customer.name", "<img data-picture=\"4\">")
        );
        Assert.Equal([12L, 9], PicturePlaces.Of(filled.Body));
        Assert.Contains("alt=\"{{ x }}\"", filled.Body, StringComparison.Ordinal);
        var put = PicturePlaces.Put(filled.Body, number => $"cid:{number}@tarnbrook.example");
        Assert.Equal(2, put.Split("src=\"cid:12@tarnbrook.example\"").Length - 1);
        Assert.Contains("&lt;img data-picture=", put, StringComparison.Ordinal);
    }

    private static FilledWording Fill(string subject, string body, params (string Slot, string Value)[] values) =>
        Fill(subject, body, [TextWhen.Always, TextWhen.Overdue, TextWhen.OneItem], values);

    private static FilledWording Fill(string subject, string body, TextWhen[] holding, params (string Slot, string Value)[] values) =>
        WordingReader
            .Read(new Wording("w", "en", subject, body))
            .Fill(values.ToDictionary(v => v.Slot, v => v.Value), holding.ToHashSet());
}
