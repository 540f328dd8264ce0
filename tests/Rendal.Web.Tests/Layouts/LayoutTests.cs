using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Layouts;

public class LayoutTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_goes_is_set_by_the_layout_in_use_and_what_went_stays_as_it_was()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, l =>
        {
            AddText(l, "First words for <span data-slot=\"customer.name\"></span>");
            l["fileName"] = "../<span data-slot=\"customer.name\"></span>: <span data-slot=\"statement.day\"></span>";
        });
        await UseAsync(desk, "statement", made.Id());
        var round = await desk.PrepareAsync();
        Assert.Contains("First words for Abbot’s Table", await DocumentAsync(desk, round, "AB01"));
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());

        await ChangeAsync(desk, made, l => l["parts"]!.AsArray()[^1]!["text"] = "<p>Other words</p>");
        Assert.Contains("Other words", await DocumentAsync(desk, await desk.PrepareAsync(), "AB01"));
        Assert.Contains(
            "First words for Abbot’s Table",
            await DocumentAsync(desk, await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}"), "AB01")
        );
        Assert.Contains("First words for Abbot’s Table", await EnclosureAsync(desk, "AB01", "_Abbot’s Table_ 2026-10-31.pdf"));
    }

    [Fact]
    public async Task What_was_looked_at_by_another_version_is_not_released_unseen()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, l => l["accent"] = "#112233");
        await UseAsync(desk, "statement", made.Id());
        var round = await desk.PrepareAsync();
        await ChangeAsync(desk, made, l => l["accent"] = "#445566");
        Assert.Equal("Since this round was looked through, the layout (2 parcels) changed.", await desk.UnseenAsync(round.Id()));
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
    }

    [Fact]
    public async Task Reminders_have_a_layout_of_their_own_and_a_round_can_have_another()
    {
        using var desk = await DeskAsync();
        var reminders = await AddAsync(desk, l => AddText(l, "Please pay"));
        var picked = await AddAsync(desk, l => AddText(l, "Picked for once"));
        await UseAsync(desk, "reminder", reminders.Id());
        Assert.DoesNotContain("Please pay", await DocumentAsync(desk, await desk.PrepareAsync(), "AB01"));
        var round = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Reminders",
                asOf = "2026-10-31",
                about = "reminders",
            }
        );
        Assert.Contains("Please pay", await DocumentAsync(desk, round, "AB01"));
        Assert.Contains("Reminder", await DocumentAsync(desk, round, "AB01"));
        Assert.Contains(
            "Picked for once",
            await DocumentAsync(desk, await Rounds.RoundTests.ChangeAsync(desk, round, s => s["layoutId"] = picked.Id()), "AB01")
        );
        var list = await desk.Browser.GetJsonAsync($"{desk.Api}/layouts");
        Assert.Equal(
            [("reminder", "", reminders.Id())],
            list.List("uses").Select(u => (u.Text("purpose"), u.Text("language"), u.GetProperty("id").GetInt64()))
        );
        Assert.Equal(["Delivery round"], list.List("columns").Select(c => c.GetString()));

        await UseAsync(desk, "reminder", null);
        Assert.DoesNotContain(
            "Please pay",
            await DocumentAsync(desk, await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { }), "BE02")
        );
    }

    [Fact]
    public async Task A_language_a_level_and_a_customer_can_have_one_of_their_own()
    {
        using var desk = await DeskAsync();
        var (german, second, own) = (
            await AddAsync(desk, l => AddText(l, "Vielen Dank")),
            await AddAsync(desk, l => AddText(l, "Second time")),
            await AddAsync(desk, l => AddText(l, "For you alone"))
        );
        await UseAsync(desk, "statement", german.Id(), "de");
        await UseAsync(desk, "reminder-2", second.Id());
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "b@beacon.example", ownLayout: own.Id())).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.DoesNotContain("Vielen Dank", await DocumentAsync(desk, round, "AB01"));
        Assert.Contains("For you alone", await DocumentAsync(desk, round, "BE02"));
        var card = JsonNode.Parse((await desk.Browser.GetJsonAsync($"{desk.Api}/customers/card?key=AB01")).GetRawText())!.AsObject();
        card["language"] = "de";
        await (await desk.Browser.PutAsJsonAsync($"{desk.Api}/customers/card?key=AB01", card, Cancel)).JsonAsync();
        Assert.Contains(
            "Vielen Dank",
            await DocumentAsync(desk, await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round.Id()}/prepare", new { }), "AB01")
        );

        await Rounds.RulesTests.PutAsync(desk, rules => rules["maySkip"] = true);
        var reminders = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds",
            new
            {
                name = "Reminders",
                asOf = "2026-10-31",
                about = "reminders",
            }
        );
        Assert.DoesNotContain("Second time", await DocumentAsync(desk, reminders, "AB01"));
        var later = await Rounds.RoundTests.ChangeAsync(desk, reminders, s => s["asOf"] = "2026-11-15");
        Assert.Contains("Second time", await DocumentAsync(desk, later, "BE02"));
    }

    [Fact]
    public async Task A_layout_is_taken_away_once_nothing_uses_it_and_what_went_stays_as_it_was()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, l => AddText(l, "Only in October"));
        await UseAsync(desk, "statement", made.Id());
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var refused = await desk.Browser.DeleteAsync($"{desk.Api}/layouts/{made.Id()}", Cancel);
        Assert.Equal(
            (HttpStatusCode.Conflict, "This layout is still used for statements."),
            (refused.StatusCode, await refused.DetailAsync())
        );
        await UseAsync(desk, "statement", null);
        Assert.Equal(HttpStatusCode.NoContent, (await desk.Browser.DeleteAsync($"{desk.Api}/layouts/{made.Id()}", Cancel)).StatusCode);
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/layouts")).List("layouts"));
        Assert.Equal(HttpStatusCode.NotFound, (await desk.Browser.GetAsync($"{desk.Api}/layouts/{made.Id()}", Cancel)).StatusCode);
        Assert.Contains(
            "Only in October",
            await DocumentAsync(desk, await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}"), "AB01")
        );
    }

    [Theory]
    [InlineData("party", "", "“party” is nothing that layouts and wordings are used for.")]
    [InlineData("statement", "xx", "“xx” is not a language that is known.")]
    public async Task What_a_layout_cannot_be_used_for_is_refused(string purpose, string language, string expected)
    {
        using var desk = await DeskAsync();
        var answer = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/layouts/use",
            new
            {
                purpose,
                language,
                id = (long?)null,
            },
            Cancel
        );
        Assert.Equal((HttpStatusCode.UnprocessableEntity, expected), (answer.StatusCode, await answer.DetailAsync()));
    }

    [Fact]
    public async Task Every_change_is_a_version_that_can_be_looked_at_and_nobody_overwrites_another()
    {
        using var desk = await DeskAsync();
        var first = await AddAsync(desk, l => l["footer"] = "one");
        var second = await ChangeAsync(desk, first, l => l["footer"] = "two");
        Assert.Equal(2, second.GetProperty("version").GetInt32());
        Assert.Equal(2, (await ChangeAsync(desk, second, _ => { })).GetProperty("version").GetInt32());
        Assert.Equal(
            [2, 1],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/layouts/{first.Id()}/versions"))
                .EnumerateArray()
                .Select(v => v.GetProperty("version").GetInt32())
        );
        Assert.Equal(
            "one",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/layouts/{first.Id()}/versions/1")).GetProperty("layout").Text("footer")
        );
        var late = await PutAsync(desk, first, l => l["footer"] = "three");
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        Assert.Contains("changed this layout meanwhile", await late.DetailAsync());
    }

    [Fact]
    public async Task A_slot_without_a_value_stops_the_parcel_and_says_where()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, l => AddText(l, "Dear <span data-slot=\"customer.contact\"></span>"));
        await UseAsync(desk, "statement", made.Id());
        await (await desk.PutCardAsync("BE02", "Beacon Lodge", "b@beacon.example", contact: "Tom Reeve")).JsonAsync();
        var parcels = (await desk.PrepareAsync()).List("parcels").OrderBy(p => p.Text("customer"), StringComparer.Ordinal);
        Assert.Equal(["contact is empty on the document", ""], parcels.Select(p => p.Text("problem")));
    }

    [Fact]
    public async Task A_layout_that_cannot_be_used_is_refused_in_words()
    {
        using var desk = await DeskAsync();
        Assert.Equal(
            "Part 9, text: The body has a slot “no.such” that names nothing known.",
            await RefusedAsync(desk, l => AddText(l, "<span data-slot=\"no.such\"></span>"))
        );
        Assert.Equal("A layout without parts is an empty sheet; add one.", await RefusedAsync(desk, l => l["parts"] = new JsonArray()));
        Assert.Equal(
            "The logo has to be a PNG or JPEG picture.",
            await RefusedAsync(desk, l => l["parts"]!.AsArray()[0]!["logo"] = Convert.ToBase64String("<svg/>"u8))
        );
        var unknown = await BuiltInAsync(desk);
        unknown["parts"]!.AsArray().Add(new JsonObject { ["part"] = "fireworks" });
        Assert.Equal(HttpStatusCode.BadRequest, (await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts", unknown, Cancel)).StatusCode);
    }

    [Fact]
    public async Task Scripts_have_no_place_in_a_text()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, l => AddText(l, "<script>alert(1)</script><b onclick=\"x()\">bold</b>"));
        Assert.Equal("<p><b>bold</b></p>", made.GetProperty("layout").List("parts").Last().Text("text"));
    }

    [Fact]
    public async Task The_preview_is_the_document_of_any_customer_and_the_longest_and_shortest_are_known()
    {
        using var desk = await DeskAsync();
        Assert.Equal(
            [("AB01", 2), ("BE02", 1)],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/layouts/samples"))
                .EnumerateArray()
                .Select(s => (s.Text("customer"), s.GetProperty("rows").GetInt32()))
        );
        var layout = await BuiltInAsync(desk);
        layout["parts"]!.AsArray()[4]!["groupBy"] = "extra:Delivery round";
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts/preview?customer=AB01", layout, Cancel);
        Assert.Contains("Delivery round N7", TextOf(await answer.Content.ReadAsByteArrayAsync(Cancel)));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts/preview?customer=ZZ99", layout, Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task Another_books_layout_is_not_there()
    {
        using var desk = await DeskAsync();
        var made = await AddAsync(desk, _ => { });
        using var other = await DeskAsync();
        Assert.Equal(HttpStatusCode.NotFound, (await other.Browser.GetAsync($"{other.Api}/layouts/{made.Id()}", Cancel)).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await other.Browser.PostAsJsonAsync(
                    $"{other.Api}/layouts/use",
                    new
                    {
                        purpose = "statement",
                        language = "",
                        id = made.Id(),
                    },
                    Cancel
                )
            ).StatusCode
        );
    }

    private static async Task<JsonObject> BuiltInAsync(Desk desk) =>
        JsonNode.Parse((await desk.Browser.GetJsonAsync($"{desk.Api}/layouts")).GetProperty("builtIn").GetRawText())!.AsObject();

    private static async Task<JsonElement> AddAsync(Desk desk, Action<JsonObject> change)
    {
        var layout = await BuiltInAsync(desk);
        change(layout);
        return await desk.Browser.PostJsonAsync($"{desk.Api}/layouts", layout);
    }

    private static async Task<string> RefusedAsync(Desk desk, Action<JsonObject> change)
    {
        var layout = await BuiltInAsync(desk);
        change(layout);
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/layouts", layout, Cancel);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        return await answer.DetailAsync();
    }

    private static Task<HttpResponseMessage> PutAsync(Desk desk, JsonElement from, Action<JsonObject> change)
    {
        var layout = JsonNode.Parse(from.GetProperty("layout").GetRawText())!.AsObject();
        change(layout);
        return desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/layouts/{from.Id()}",
            new { version = from.GetProperty("version").GetInt32(), layout },
            Cancel
        );
    }

    private static async Task<JsonElement> ChangeAsync(Desk desk, JsonElement from, Action<JsonObject> change) =>
        await (await PutAsync(desk, from, change)).JsonAsync();

    private static void AddText(JsonObject layout, string html) =>
        layout["parts"]!
            .AsArray()
            .Add(
                new JsonObject
                {
                    ["part"] = "text",
                    ["text"] = $"<p>{html}</p>",
                    ["when"] = "always",
                }
            );

    private static async Task UseAsync(Desk desk, string purpose, long? id, string language = "")
    {
        var answer = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/layouts/use",
            new
            {
                purpose,
                language,
                id,
            },
            Cancel
        );
        Assert.True(answer.IsSuccessStatusCode);
    }

    private static async Task<string> DocumentAsync(Desk desk, JsonElement round, string customer) =>
        TextOf(
            await desk.Browser.GetByteArrayAsync(
                $"{desk.Api}/parcels/{round.List("parcels").Single(p => p.Text("customer") == customer).Id()}/document",
                Cancel
            )
        );

    private static async Task<string> EnclosureAsync(Desk desk, string customer, string name)
    {
        var (called, bytes) = Assert.Single(await LayoutDesk.EnclosedAsync(desk, customer));
        Assert.Equal(name, called);
        return TextOf(bytes);
    }

    private static string TextOf(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return string.Join(' ', document.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
    }

    private Task<Desk> DeskAsync() => LayoutDesk.AtAsync(rendal);
}
