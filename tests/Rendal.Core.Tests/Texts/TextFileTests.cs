using Rendal.Core.Layouts;
using Rendal.Core.Texts;
using Rendal.Core.Wordings;

namespace Rendal.Core.Tests.Texts;

/// <summary>The texts that customers read stand in files that a translator can write.</summary>
public sealed class TextFileTests
{
    public static TheoryData<string> Languages => [.. TextFile.Languages()];

    [Fact]
    public void Every_folder_is_in_the_list_of_languages() =>
        Assert.Equal(
            TextFile.Languages().Order(StringComparer.Ordinal),
            TextFile
                .Names()
                .Where(n => n.Contains('/', StringComparison.Ordinal))
                .Select(n => n.Split('/')[0])
                .Distinct()
                .Order(StringComparer.Ordinal)
        );

    [Theory]
    [MemberData(nameof(Languages))]
    public void A_language_has_all_texts(string language) => Assert.Equal(FilesOf("en"), FilesOf(language));

    [Theory]
    [MemberData(nameof(Languages))]
    public void Every_text_of_a_language_can_be_read(string language)
    {
        var of = Language.Of(language);
        Assert.Equal(12, of.Months.Count);
        Assert.Equal(TextFile.Read(language, "document.txt")["Title"], DocumentWords.In(of).Title);
        Assert.Equal(
            FilesOf(language).Count(f => f.StartsWith("wordings/", StringComparison.Ordinal)),
            ReadyMadeWording.All.Count(w => w.Wording.Language == language)
        );

        // The replies are parts of the confirmations.
        Assert.Equal(
            FilesOf(language)
                .Count(f => f.StartsWith("layouts/", StringComparison.Ordinal) && !f.EndsWith("reply.txt", StringComparison.Ordinal)),
            ReadyMade.All.Count(l => l.Language == language)
        );
    }

    [Fact]
    public void Paragraphs_stand_with_an_empty_line_between_and_may_go_over_several_lines()
    {
        var text = TextFile.Parse(
            "test",
            """
            # A remark.
            Name: Month end

            {customer.salutation},

            your account {customer.code}
            is&nbsp;open. [overdue]Please pay. [/]

            Yours<br>
            {sender.name}

            """
        );
        Assert.Equal("Month end", text["Name"]);
        Assert.Equal(
            "<p><span data-slot=\"customer.salutation\"></span>,</p><p>your account <span data-slot=\"customer.code\"></span> "
                + "is\u00A0open. <span data-when=\"overdue\">Please pay. </span></p><p>Yours<br><span "
                + "data-slot=\"sender.name\"></span></p>",
            text.Paragraphs
        );
        text.End();
    }

    [Theory]
    [InlineData("Name: A\nName: B", "test: “Name” stands twice, again in line 2.")]
    [InlineData("Nam: A", "test: There is no line “Name: …”.")]
    [InlineData("Name:", "test: “Name” is empty.")]
    [InlineData("Name: A {page}", "test: “Name” has braces, and nothing is filled in there.")]
    [InlineData("Name: A\nSubjet: B", "test: “Subjet” is not known.")]
    [InlineData("Name: A\n\nDear {customer.nam}", "test: There is no slot “{customer.nam}”.")]
    [InlineData("Name: A\n\n[we-ow]we owe you[/]", "test: There is no condition “[we-ow]”.")]
    [InlineData("Name: A\n\n[we-owe]we owe you", "test: A condition has no end, or an end no condition.")]
    public void A_mistake_in_a_file_is_named(string text, string mistake) =>
        Assert.Equal(
            mistake,
            Assert
                .Throws<InvalidDataException>(() =>
                {
                    var file = TextFile.Parse("test", text);
                    _ = file["Name"];
                    _ = file.Paragraphs;
                    file.End();
                })
                .Message
        );

    [Theory]
    [InlineData("Page: Page {page}")]
    [InlineData("Page: Page {page} of {page} of {pages}")]
    [InlineData("Page: Page {page} of {all}")]
    public void What_is_filled_in_has_to_stand_there_once(string text) =>
        Assert.Equal(
            "test: “Page” has to have {page} and {pages}, each once, and no other braces.",
            Assert.Throws<InvalidDataException>(() => TextFile.Parse("test", text)["Page", "page", "pages"]).Message
        );

    [Fact]
    public void What_is_filled_in_stays_as_it_is_whatever_braces_stand_in_it() =>
        Assert.Equal("Dear {name} Roux", TextFile.Fill("Dear {title} {name}", ("title", "{name}"), ("name", "Roux")));

    private static List<string> FilesOf(string language) =>
        [
            .. TextFile
                .Names()
                .Where(n => n.StartsWith($"{language}/", StringComparison.Ordinal))
                .Select(n => n[(language.Length + 1)..])
                .Order(StringComparer.Ordinal),
        ];
}
