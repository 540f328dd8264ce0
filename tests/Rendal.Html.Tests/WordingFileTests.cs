using System.Text;
using AngleSharp.Html.Parser;
using CsCheck;
using Rendal.Core.Budgets;
using Rendal.Core.Wordings;

namespace Rendal.Html.Tests;

/// <summary>Wordings as files of their own.</summary>
public sealed class WordingFileTests
{
    private static readonly MessagePicture Logo = new(41, "image/png", [0x89, 0x50, 0x4E, 0x47, 1, 2, 3]);
    private static readonly MessagePicture Photo = new(7, "image/jpeg", [0xFF, 0xD8, 0xFF, 9]);

    public static TheoryData<string, string> ReadyMade => [.. ReadyMadeWording.All.Select(r => (r.Wording.Language, r.Wording.Name))];

    [Theory]
    [MemberData(nameof(ReadyMade))]
    public void A_ready_made_wording_comes_back_out_of_its_file_as_it_was(string language, string name)
    {
        var wording = ReadyMadeWording.All.Single(r => (r.Wording.Language, r.Wording.Name) == (language, name)).Wording;
        wording = wording with { Subject = WordingReader.Sanitised(wording.Subject), Body = WordingReader.Sanitised(wording.Body) };
        Assert.Equal(wording, WordingFile.Read(Bytes(WordingFile.Write(wording, []))).Wording);
    }

    [Fact]
    public void Whatever_a_wording_holds_comes_back_out_of_its_file()
    {
        var text = Gen.String[Gen.Char["<>&\"'=/ {}öß\u00A0€data-slot"], 1, 20];
        var piece = Gen.OneOf(
            text.Select(t => System.Net.WebUtility.HtmlEncode(t)),
            Gen.Const("<span data-slot=\"customer.name\" data-or-else=\"&quot;&gt;&lt;b&gt;\"></span>"),
            Gen.Const("<span data-slot=\"column.No such &lt;column&gt;\"></span>"),
            Gen.Const("<span data-choice=\"customer.title\" data-words='[[\"Mr\",\"his\"]]' data-or-else=\"their\"></span>"),
            text.Select(t => $"<span data-when=\"overdue\">{System.Net.WebUtility.HtmlEncode(t)}</span>"),
            Gen.Const("<strong>now</strong><br>"),
            Gen.Const("<img data-picture=\"41\" alt=\"a “logo”\" width=\"120\">"),
            Gen.Const("<img data-picture=\"7\" alt=\"\">")
        );
        Gen.Select(text, text, piece.Array[0, 12])
            .Sample(
                (name, subject, pieces) =>
                {
                    var wording = new Wording(
                        name,
                        "en",
                        WordingReader.Sanitised(System.Net.WebUtility.HtmlEncode(subject)),
                        WordingReader.Sanitised($"<p>{string.Concat(pieces)}</p>", withPictures: true)
                    );
                    var (read, pictures) = WordingFile.Read(Bytes(WordingFile.Write(wording, [Logo, Photo])));
                    var given = PicturePlaces.Of(wording.Body).Select(n => n == Logo.Number ? Logo : Photo).ToList();
                    Assert.Equal(wording with { Body = "" }, read with { Body = "" });

                    // A picture that stands twice is twice in the file; the book keeps it once.
                    var numbers = pictures.Select(p => p.SequenceEqual(Logo.Bytes) ? Logo.Number : Photo.Number).ToList();
                    Assert.Equal(given.Select(p => p.Number), numbers.Distinct());
                    Assert.Equal(wording.Body, PicturePlaces.Renumbered(read.Body, n => numbers[(int)n - 1]));
                }
            );
    }

    [Fact]
    public void A_browser_shows_the_labels_of_slots_and_the_pictures_and_nothing_is_fetched_for_it()
    {
        var page = new HtmlParser().ParseDocument(
            WordingFile.Write(
                new Wording(
                    "Month’s end",
                    "de",
                    "Saldo <span data-slot=\"statement.date\"></span>",
                    "<p><span data-slot=\"column.Tour\"></span><img data-picture=\"41\" alt=\"\"><img data-picture=\"99\" alt=\"\"></p>"
                ),
                [Logo]
            )
        );
        Assert.Equal(("Month’s end", "de"), (page.Title, page.DocumentElement.GetAttribute("lang")));
        Assert.Equal("Saldo {Statement date}", page.QuerySelector("h1")!.TextContent);
        Assert.Equal("{Tour}", page.QuerySelector("main")!.TextContent);
        Assert.Equal(["data:image/png;base64,iVBORwECAw=="], page.QuerySelectorAll("[src]").Select(e => e.GetAttribute("src")));
    }

    [Theory]
    [InlineData("<p>Dear customer</p>", "it is not a page that “Download” made of a wording")]
    [InlineData(
        "<h1 id=subject>s</h1><main id=message><img src=\"https://logo.example/a.png\"></main>",
        "a picture is not in it, but elsewhere"
    )]
    [InlineData("<h1 id=subject>s</h1><main id=message><img data-picture=\"3\"></main>", "a picture is not in it, but elsewhere")]
    [InlineData("<h1 id=subject>s</h1><main id=message><img src=\"data:image/png;base64,%%%\"></main>", "its picture 1 is damaged")]
    public void What_is_no_such_file_is_told_with_the_reason(string page, string reason) =>
        Assert.StartsWith(reason, Assert.Throws<FormatException>(() => WordingFile.Read(Bytes(page))).Message);

    [Fact]
    public void A_file_in_another_encoding_is_told_and_a_mark_of_the_encoding_is_not_taken_for_text()
    {
        const string page = "<h1 id=subject>Größe</h1><main id=message>m</main>";
        Assert.Equal(
            "it is not written in UTF-8; another program changed it",
            Assert.Throws<FormatException>(() => WordingFile.Read(Encoding.Latin1.GetBytes(page))).Message
        );
        Assert.Equal("Größe", WordingFile.Read([0xEF, 0xBB, 0xBF, .. Bytes(page)]).Wording.Subject);
    }

    [Fact]
    public void A_file_that_would_keep_the_machine_busy_is_refused()
    {
        var nested = string.Concat(Enumerable.Repeat("<div>", 20_000));
        Assert.Throws<OverBudget>(() => WordingFile.Read(Bytes($"<h1 id=subject>s</h1><main id=message>{nested}</main>")));
    }

    private static byte[] Bytes(string page) => Encoding.UTF8.GetBytes(page);
}
