using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;

namespace Rendal.Web.Tests.Wordings;

/// <summary>Wordings saved as files, and taken into a book out of one.</summary>
public sealed class WordingFileTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_wording_goes_into_another_book_with_its_slots_and_pictures()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var other = await Desk.AtAsync(rendal);
        await PictureAsync(other, Other);
        var picture = await PictureAsync(desk, WordingTests.Dot);
        var slot = "<span data-slot=\"column.Tour\" data-or-else=\"&lt;none&gt;\"></span>";
        var made = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/wordings",
            new
            {
                name = "Month/end “A”",
                language = "de",
                subject = $"Saldo {slot}",
                body = $"<p>{slot}<img data-picture=\"{picture}\" alt=\"Logo\" width=\"90\"></p>",
            }
        );
        var answer = await desk.Browser.GetAsync($"{desk.Api}/wordings/{made.Id()}/file", Cancel);
        Assert.Equal("application/octet-stream", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal("Month_end “A”.html", answer.Content.Headers.ContentDisposition?.FileNameStar);
        var file = await answer.Content.ReadAsByteArrayAsync(Cancel);

        var taken = await (await TakeAsync(other, file)).JsonAsync();
        Assert.Equal(("Month/end “A”", "de", made.Text("subject")), (taken.Text("name"), taken.Text("language"), taken.Text("subject")));
        var number = await PictureAsync(other, WordingTests.Dot);
        Assert.NotEqual(picture, number);
        Assert.Equal(made.Text("body").Replace($"\"{picture}\"", $"\"{number}\""), taken.Text("body"));

        // Once more beside the first, which stays as it is.
        var again = await (await TakeAsync(other, file)).JsonAsync();
        Assert.Equal(("Month/end “A” (2)", taken.Text("body")), (again.Text("name"), again.Text("body")));
        var names = (await other.Browser.GetJsonAsync($"{other.Api}/wordings")).List("wordings").Select(w => w.Text("name"));
        Assert.Equal(["Month/end “A”", "Month/end “A” (2)"], names.Where(n => n.StartsWith("Month/", StringComparison.Ordinal)).Order());
    }

    [Fact]
    public async Task A_wording_of_another_book_is_not_there()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var other = await Desk.AtAsync(rendal);
        var id = (await other.Browser.GetJsonAsync($"{other.Api}/wordings")).List("wordings").First().Id();
        Assert.Equal(HttpStatusCode.NotFound, (await desk.Browser.GetAsync($"{desk.Api}/wordings/{id}/file", Cancel)).StatusCode);
    }

    [Fact]
    public async Task What_a_file_could_run_or_fetch_is_not_taken_along()
    {
        using var desk = await Desk.AtAsync(rendal);
        var taken = await (
            await TakeAsync(
                desk,
                Page("<script>x()</script><p onclick=\"x()\">Hello <a href=\"javascript:x()\">you</a></p><iframe src=\"/x\"></iframe>")
            )
        ).JsonAsync();
        Assert.Equal("<p>Hello <a>you</a></p>", taken.Text("body"));
    }

    [Fact]
    public async Task What_cannot_be_taken_is_told_with_the_file_and_nothing_of_it_is_added()
    {
        using var desk = await Desk.AtAsync(rendal);
        var before = (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").Count();
        foreach (
            var (file, says) in new (byte[], string)[]
            {
                ([], "“round.html” cannot be taken as a wording: it is not a page that “Download” made of a wording."),
                (
                    [0xFF, 0xFE, 0x3C, 0x00],
                    "“round.html” cannot be taken as a wording: it is not written in UTF-8; another program changed it."
                ),
                (Page("<p>m</p>", name: " "), "Give the wording a name."),
                (Page("<p>m</p>", name: new string('n', 201)), "The name of a wording has at most 200 characters."),
                (Page("<p>m</p>", language: "xx"), "“xx” is not a language that is known."),
                (Page("<img src=\"data:image/png;base64,AAAA\">"), "The picture has to be a PNG or JPEG picture."),
                (Page(new string('m', 200_001)), "The text of the file has more than 200,000 characters"),
                (new byte[6_000_001], "The file is larger than 6 MB. Make its pictures smaller."),
            }
        )
        {
            var answer = await TakeAsync(desk, file);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.StartsWith(says.TrimEnd('.'), (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel)).Text("detail"));
        }

        Assert.Equal(before, (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").Count());
    }

    /// <summary>A picture of one point in another colour.</summary>
    private const string Other = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==";

    private static byte[] Page(string body, string name = "n", string language = "en") =>
        Encoding.UTF8.GetBytes(
            $"<html lang=\"{language}\"><title>{name}</title><body><h1 id=\"subject\">s</h1><main id=\"message\">{body}</main>"
        );

    private static async Task<long> PictureAsync(Desk desk, string bytes) =>
        (await desk.Browser.PostJsonAsync($"{desk.Api}/pictures", new { bytes })).GetProperty("number").GetInt64();

    private static async Task<HttpResponseMessage> TakeAsync(Desk desk, byte[] file)
    {
        using var form = new MultipartFormDataContent { { new ByteArrayContent(file), "file", "round.html" } };
        return await desk.Browser.PostAsync($"{desk.Api}/wordings/file", form, Cancel);
    }
}
