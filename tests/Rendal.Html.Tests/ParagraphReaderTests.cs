namespace Rendal.Html.Tests;

public sealed class ParagraphReaderTests
{
    [Theory]
    [InlineData("<p>One</p><p>Two</p>", "One|Two")]
    [InlineData("<p>One<br>line</p>", "One\nline")]
    [InlineData("<p>A <strong>strong</strong> word</p>", "A [strong] word")]
    [InlineData("<p>See <a href=\"https://pay.example/1\">here</a>.</p>", "See here(https://pay.example/1).")]
    [InlineData("<ul><li>one</li><li><p>two</p></li></ul>", "• one|• two")]
    [InlineData("<ol><li>one</li><li>two</li></ol>", "1. one|2. two")]
    [InlineData("<p></p><p>  </p>", "")]
    [InlineData("words alone", "words alone")]
    [InlineData("<p>many\n   spaces  and <b>b</b> c</p>", "many spaces and [b] c")]
    [InlineData("<p>&lt;b&gt; &amp; {{ x }}</p>", "<b> & {{ x }}")]
    [InlineData("<table><tr><td>a</td><td>b</td></tr><tr><td>c</td></tr></table>", "ab|c")]
    public void A_text_comes_apart_into_paragraphs_of_words_that_look_alike(string html, string expected) =>
        Assert.Equal(
            expected,
            string.Join(
                '|',
                ParagraphReader
                    .Of(html)
                    .Select(p =>
                        (p.Mark.Length > 0 ? p.Mark + " " : "")
                        + string.Concat(
                            p.Runs.Select(r => (r.IsStrong ? $"[{r.Text}]" : r.Text) + (r.Link is { } link ? $"({link})" : ""))
                        )
                    )
            )
        );
}
