using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using MimeKit;
using UglyToad.PdfPig;

namespace Rendal.Web.Tests.Rounds;

/// <summary>One parcel is changed, and none of the others.</summary>
public class ParcelChangeTests(RunningRendal rendal)
{
    private static readonly string[] Ledger =
    [
        Desk.Headings,
        "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example",
        "CA01,Carding Inn,Invoice,T-3,2026-09-01,2026-10-01,30.00,c@carding.example",
    ];

    private static readonly object Nothing = new
    {
        recipients = (object?)null,
        words = (object?)null,
        documentNote = "",
    };

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_was_changed_on_one_parcel_arrives_as_it_was_shown_and_the_others_as_before()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await ChangedAsync(
            desk,
            round,
            "AB01",
            new
            {
                recipients = new
                {
                    to = new[] { "desk@abbot.example" },
                    copies = new[] { "owner@abbot.example" },
                    blindCopies = new[] { "joan@tarnbrook.example" },
                },
                words = new { subject = "For the desk", body = "<p>As we said: <span data-slot=\"statement.total\"></span>.</p>" },
                documentNote = "as agreed on the telephone\non Monday",
            }
        );

        // It survives that the round is prepared anew, and that the wording of all is another.
        await desk.WriteAsync("<p>Please pay today.</p>");
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        var view = await ViewAsync(desk, round, "AB01");
        Assert.Equal(
            ["For the desk", "desk@abbot.example", "owner@abbot.example", "joan@tarnbrook.example"],
            [view.Text("subject"), .. Texts(view, "to"), .. Texts(view, "copies"), .. Texts(view, "blindCopies")]
        );
        var pieces = view.GetProperty("difference").List("text").Select(p => (p.Text("kind"), p.Text("text").Trim())).ToList();
        Assert.Contains(pieces, p => p.Item1 == "removed" && p.Item2.Contains("Please", StringComparison.Ordinal));
        Assert.Contains(pieces, p => p.Item1 == "added" && p.Item2.Contains("said", StringComparison.Ordinal));
        Assert.Equal(["recipients", "words", "document"], Texts(await LineAsync(desk, round, "AB01"), "altered"));
        Assert.Empty(Texts(await LineAsync(desk, round, "BE02"), "altered"));

        await desk.LookAtAsync(round);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        await desk.SettledAsync(round);
        var delivered = await DeliveredAsync(desk);
        var own = delivered["For the desk"];
        Assert.Equal(
            ("desk@abbot.example", "owner@abbot.example", ""),
            (own.To.Mailboxes.Single().Address, own.Cc.Mailboxes.Single().Address, own.Bcc.ToString())
        );
        Assert.Contains("As we said: £10.00.", own.TextBody, StringComparison.Ordinal);
        var words = DocumentOf(own);
        Assert.Contains("as agreed on the telephone on Monday", words, StringComparison.Ordinal);
        Assert.True(words.IndexOf("as agreed", StringComparison.Ordinal) < words.IndexOf("T-1", StringComparison.Ordinal));
        var other = delivered.Values.First(m => m.To.Mailboxes.Single().Address == "b@beacon.example");
        Assert.Contains("Please pay today.", other.TextBody, StringComparison.Ordinal);
        Assert.DoesNotContain("as agreed", DocumentOf(other), StringComparison.Ordinal);
        Assert.Contains("joan@tarnbrook.example", rendal.Mailbox.Of($"book-{desk.Book}").SelectMany(m => m.Recipients));
    }

    [Fact]
    public async Task A_sentence_put_in_takes_no_word_beside_it_away_at_the_ends_of_lines()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await desk.WriteAsync("<p>Please pay.</p><p>With regards<br>Tarnbrook</p>");
        await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/prepare", new { });
        var body = "<p>Please pay.</p><p>Half of it will do. With regards<br>By hand: Tarnbrook</p>";
        await ChangedAsync(desk, round, "AB01", With(words: new { subject = "Statement", body }));
        var pieces = (await ViewAsync(desk, round, "AB01"))
            .GetProperty("difference")
            .List("text")
            .Select(p => (p.Text("kind"), p.Text("text").Trim()));
        Assert.Equal(
            [
                ("same", "Please pay."),
                ("added", "Half of it will do."),
                ("same", "With regards"),
                ("added", "By hand:"),
                ("same", "Tarnbrook"),
            ],
            pieces
        );
    }

    [Fact]
    public async Task What_was_changed_can_be_put_back_and_what_is_as_all_have_it_is_no_change()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var before = await ViewAsync(desk, round, "AB01");
        await ChangedAsync(desk, round, "AB01", With(words: new { subject = "Own", body = "<p>Own.</p>" }, note: "own"));
        Assert.Equal("Own", (await ViewAsync(desk, round, "AB01")).Text("subject"));
        await ChangedAsync(desk, round, "AB01", Nothing);
        var after = await ViewAsync(desk, round, "AB01");
        Assert.Equal((before.Text("subject"), before.Text("message")), (after.Text("subject"), after.Text("message")));
        Assert.Equal(JsonValueKind.Null, after.GetProperty("difference").ValueKind);

        // Saved as it stands, it is the wording of all, and follows that.
        var written = before.GetProperty("written");
        await ChangedAsync(desk, round, "AB01", With(words: new { subject = written.Text("subject"), body = written.Text("body") }));
        Assert.Empty(Texts(await LineAsync(desk, round, "AB01"), "altered"));
    }

    [Fact]
    public async Task Recipients_are_set_for_good_on_the_card()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        var line = await LineAsync(desk, round, "AB01");
        var answer = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/parcels/{line.Id()}/recipients-for-good?revision={await desk.RevisionAsync(round)}",
            new
            {
                to = new[] { "a@abbot.example" },
                copies = new[] { "owner@abbot.example" },
                blindCopies = Array.Empty<string>(),
            },
            Cancel
        );
        Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
        var view = await ViewAsync(desk, round, "AB01");
        Assert.Equal(
            ["a@abbot.example", "copied to", "owner@abbot.example"],
            [.. Texts(view, "to"), "copied to", .. Texts(view, "copies")]
        );
        Assert.Empty(Texts(await LineAsync(desk, round, "AB01"), "altered"));
        var card = await desk.Browser.GetJsonAsync($"{desk.Api}/customers/card?key=AB01");
        Assert.Equal(
            [("a@abbot.example", "to"), ("owner@abbot.example", "copy")],
            card.List("contacts").Select(c => (c.Text("address"), c.Text("role")))
        );
        var offered = await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{line.Id()}/addresses");
        Assert.Equal(["a@abbot.example", "owner@abbot.example"], offered.EnumerateArray().Select(a => a.Text("address")));
    }

    [Theory]
    [InlineData("desk@@abbot", "“desk@@abbot” is no address.")]
    [InlineData("", "A message needs somebody whom it is to. Hold the parcel, or take it out, if it is not to go.")]
    [InlineData("many", "A message goes to 50 addresses at the most; these are 51.")]
    [InlineData("x@y.example\r\nBcc: z@y.example", "“Bcc:” is no address.")]
    public async Task Recipients_that_cannot_be_are_refused_in_words_and_nothing_is_changed(string to, string detail)
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        string[] all = to == "many" ? [.. Enumerable.Range(0, 51).Select(i => $"a{i}@abbot.example")] : [to];
        var refused = await ChangeAsync(desk.Browser, desk, round, "AB01", With(recipients: To(all)), await desk.RevisionAsync(round));
        Assert.Equal((HttpStatusCode.UnprocessableEntity, detail), (refused.StatusCode, await refused.DetailAsync()));
        Assert.Equal(["a@abbot.example"], Texts(await ViewAsync(desk, round, "AB01"), "to"));
    }

    [Fact]
    public async Task Who_changes_what_a_colleague_changed_is_told_and_after_the_release_it_is_too_late()
    {
        using var desk = await DeskAsync();
        using var colleague = await desk.ColleagueAsync(rendal);
        var round = (await desk.PrepareAsync()).Id();
        var seen = await desk.RevisionAsync(round);
        Assert.True((await ChangeAsync(colleague, desk, round, "AB01", With(note: "first"), seen)).IsSuccessStatusCode);
        var second = await ChangeAsync(desk.Browser, desk, round, "AB01", With(note: "second"), seen);
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.Matches("^colleague-.* changed the parcel of Abbot’s Table at ", await second.DetailAsync());
        Assert.True((await ChangeAsync(desk.Browser, desk, round, "BE02", With(note: "of another"), seen)).IsSuccessStatusCode);

        // What the first one was shown before is not released.
        var shown = await desk.SummaryAsync(round);
        await ChangedAsync(desk, round, "CA01", With(note: "third"));
        Assert.Equal(HttpStatusCode.Conflict, (await desk.ReleaseSeenAsync(round, shown)).StatusCode);
        await (await desk.ReleaseSeenAsync(round, await desk.SummaryAsync(round))).JsonAsync();
        var late = await ChangeAsync(desk.Browser, desk, round, "AB01", Nothing, await desk.RevisionAsync(round));
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        await desk.SettledAsync(round);
    }

    [Fact]
    public async Task The_marked_ones_are_held_released_and_the_rest_goes_later_with_what_was_changed_on_it()
    {
        using var desk = await DeskAsync();
        var round = (await desk.PrepareAsync()).Id();
        await ChangedAsync(desk, round, "CA01", With(words: new { subject = "For Carding Inn", body = "<p>Own.</p>" }));
        var keys = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}/parcels/keys")).EnumerateArray().ToList();
        Assert.Equal(["AB01", "BE02", "CA01"], keys.Select(k => k.Text("customer")));
        long[] marked = [keys[0].Id(), keys[1].Id()];
        var sum = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/parcels/marked", new { parcels = marked });
        Assert.Equal(
            (2, 2, "30.00"),
            (sum.GetProperty("parcels").GetInt32(), sum.GetProperty("ready").GetInt32(), sum.List("totals").Single().Text("amount"))
        );
        var shown = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/summary", new { parcels = marked });
        Assert.Equal(1, shown.GetProperty("othersReady").GetInt32());
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round}/release",
            new
            {
                parcels = marked,
                revision = shown.GetProperty("revision").GetInt64(),
                seen = shown.Text("seen"),
            }
        );
        await desk.SettledAsync(round);
        Assert.Equal("prepared", (await LineAsync(desk, round, "CA01")).Text("status"));
        Assert.DoesNotContain("For Carding Inn", (await DeliveredAsync(desk)).Keys);

        var rest = (await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{round}/rest", new { })).Id();
        Assert.Equal("For Carding Inn", (await ViewAsync(desk, rest, "CA01")).Text("subject"));
        await (await desk.ReleaseSeenAsync(rest, await desk.SummaryAsync(rest))).JsonAsync();
        await desk.SettledAsync(rest);
        Assert.Contains("For Carding Inn", (await DeliveredAsync(desk)).Keys);
    }

    [Fact]
    public async Task Letting_the_marked_ones_go_takes_back_that_they_are_held_and_not_that_one_was_put_in()
    {
        using var desk = await DeskAsync();
        var seen = await desk.PrepareAsync();
        var round = seen.Id();
        var changed = await desk.Browser.PutAsJsonAsync(
            $"{desk.Api}/rounds/{round}?revision={await desk.RevisionAsync(round)}",
            RoundTests.Changed(seen, s => s["leastBalance"] = 15),
            Cancel
        );
        Assert.Equal(["BE02", "CA01"], (await changed.JsonAsync()).List("parcels").Select(p => p.Text("customer")));
        await DecideAsync(desk, round, "put-in", "AB01");
        await DecideAsync(desk, round, "held", "BE02");
        await DecideAsync(desk, round, "let-go", "AB01", "BE02", "CA01");
        Assert.Equal(
            [("AB01", "prepared"), ("BE02", "prepared"), ("CA01", "prepared")],
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}"))
                .List("parcels")
                .Select(p => (p.Text("customer"), p.Text("status")))
        );
    }

    private static async Task DecideAsync(Desk desk, long round, string decision, params string[] customers) =>
        await desk.Browser.PostJsonAsync(
            $"{desk.Api}/rounds/{round}/decisions?revision={await desk.RevisionAsync(round)}",
            new
            {
                customers,
                decision,
                reason = "asked to",
            }
        );

    private async Task<Desk> DeskAsync()
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        return desk;
    }

    private static object To(params string[] to) =>
        new
        {
            to,
            copies = Array.Empty<string>(),
            blindCopies = Array.Empty<string>(),
        };

    private static object With(object? recipients = null, object? words = null, string note = "") =>
        new
        {
            recipients,
            words,
            documentNote = note,
        };

    private static async Task ChangedAsync(Desk desk, long round, string customer, object change)
    {
        var answer = await ChangeAsync(desk.Browser, desk, round, customer, change, await desk.RevisionAsync(round));
        Assert.True(answer.StatusCode == HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync(Cancel));
    }

    private static async Task<HttpResponseMessage> ChangeAsync(
        HttpClient browser,
        Desk desk,
        long round,
        string customer,
        object change,
        long seen
    ) =>
        await browser.PutAsJsonAsync(
            $"{desk.Api}/parcels/{(await LineAsync(desk, round, customer)).Id()}/change?revision={seen}",
            change,
            Cancel
        );

    private static async Task<JsonElement> LineAsync(Desk desk, long round, string customer) =>
        (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round}")).List("parcels").Single(p => p.Text("customer") == customer);

    private static async Task<JsonElement> ViewAsync(Desk desk, long round, string customer) =>
        await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{(await LineAsync(desk, round, customer)).Id()}");

    private static string?[] Texts(JsonElement of, string name) => [.. of.List(name).Select(t => t.GetString())];

    private async Task<Dictionary<string, MimeMessage>> DeliveredAsync(Desk desk)
    {
        var messages = new Dictionary<string, MimeMessage>();
        foreach (var message in rendal.Mailbox.Of($"book-{desk.Book}"))
        {
            using var raw = new MemoryStream(rendal.Mailbox.Bytes(message));
            var read = await MimeMessage.LoadAsync(raw, Cancel);
            messages[messages.ContainsKey(read.Subject ?? "") ? $"{read.Subject} {read.To}" : read.Subject ?? ""] = read;
        }

        return messages;
    }

    private static string DocumentOf(MimeMessage message)
    {
        using var bytes = new MemoryStream();
        message.BodyParts.OfType<MimePart>().First(p => p.IsAttachment).Content!.DecodeTo(bytes);
        using var document = PdfDocument.Open(bytes.ToArray());
        return string.Join(' ', document.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
    }
}
