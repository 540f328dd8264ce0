using System.Net;
using System.Net.Http.Json;

namespace Rendal.Web.Tests.Wordings;

public class WordingTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_slot_that_names_nothing_known_is_an_error_and_no_parcel_is_ready()
    {
        using var desk = await Desk.AtAsync(rendal);
        await TakeInAsync(desk);
        var round = await desk.PrepareAsync();
        var view = await desk.WriteAsync("<p>Dear <span data-slot=\"customer.nmae\"></span></p>");
        Assert.StartsWith("The body has a slot “customer.nmae” that names nothing known", Assert.Single(view.List("errors")).GetString());
        var again = await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel)).JsonAsync();
        Assert.Equal("the wording has an error", again.List("parcels").Single().Text("problem"));
        Assert.Equal(HttpStatusCode.Conflict, (await desk.ReleaseAsync(round.Id(), 0)).StatusCode);
    }

    [Fact]
    public async Task An_empty_slot_stops_its_parcel_and_not_the_round()
    {
        using var desk = await Desk.AtAsync(rendal);
        await TakeInAsync(desk);
        await desk.PutCardAsync("AB01", "Abbot’s Table", "a@abbot.example", contact: "Owen Farrow", title: "Mr");
        await desk.TakeInAsync(
            "Code,Kind,Number,Date,Due,Outstanding,E-mail",
            "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example",
            "BE02,Invoice,T-2,2026-09-01,2026-10-01,10.00,b@beacon.example"
        );
        var round = await desk.PrepareAsync();
        await desk.WriteAsync("<p><span data-slot=\"customer.salutation\"></span>,</p>");
        var again = await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel)).JsonAsync();
        Assert.Equal(
            [("AB01", "prepared", ""), ("BE02", "needs-you", "salutation is empty")],
            again.List("parcels").Select(p => (p.Text("customer"), p.Text("status"), p.Text("problem"))).Order()
        );
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        var settled = await desk.SettledAsync(round.Id());
        Assert.Equal("needs-you", settled.List("parcels").Single(p => p.Text("customer") == "BE02").Text("status"));
    }

    [Fact]
    public async Task Slots_show_what_they_hold_of_a_customer()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,Delivery round",
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,GBP,10.00,North 2"
        );
        Assert.Equal(("Abbot’s Table", "£10.00", "North 2", ""), await HeldAsync("AB01"));
        Assert.Equal(("", "", "", ""), await HeldAsync("nobody"));

        async Task<(string, string, string, string)> HeldAsync(string customer)
        {
            var slots = (await desk.Browser.GetJsonAsync($"{desk.Api}/slots?customer={customer}"))
                .EnumerateArray()
                .ToDictionary(s => s.Text("name"), s => s.Text("example"));
            return (slots["customer.name"], slots["statement.total"], slots["column.Delivery round"], slots["reminder.level"]);
        }
    }

    [Fact]
    public async Task What_could_run_or_fetch_is_taken_out_of_a_wording()
    {
        using var desk = await Desk.AtAsync(rendal);
        var view = await desk.WriteAsync(
            "<p onclick=\"x()\">Good day<script>alert(1)</script><img src=\"https://tracker.example/1.gif\"><iframe "
                + "src=\"https://x.example\"></iframe></p>"
        );
        Assert.Equal("<p>Good day</p>", view.Text("body"));
    }

    [Fact]
    public async Task Liquid_and_markup_in_the_data_stay_text()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            "AB01,{{ firm.name }} <b>& Sons</b>,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example"
        );
        var round = await desk.PrepareAsync();
        await desk.WriteAsync(
            "<p>To <span data-slot=\"customer.name\"></span>, {{ customer.code }}</p>",
            "For <span data-slot=\"customer.name\"></span>"
        );
        await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel)).JsonAsync();
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single().Id();
        Assert.Equal(
            "For {{ firm.name }} <b>& Sons</b>",
            (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).Text("subject")
        );
        var page = await desk.MessageAsync(parcel);
        Assert.Contains("To {{ firm.name }} &lt;b&gt;&amp; Sons&lt;/b&gt;, {{ customer.code }}", page);
    }

    [Fact]
    public async Task A_picture_goes_inside_each_message_and_is_seen_wherever_the_message_is()
    {
        using var desk = await Desk.AtAsync(rendal);
        await TakeInAsync(desk);
        var picture = (await (await desk.Browser.PostAsJsonAsync($"{desk.Api}/pictures", new { bytes = Dot }, Cancel)).JsonAsync())
            .GetProperty("number")
            .GetInt64();
        Assert.Equal(
            picture,
            (await (await desk.Browser.PostAsJsonAsync($"{desk.Api}/pictures", new { bytes = Dot }, Cancel)).JsonAsync())
                .GetProperty("number")
                .GetInt64()
        );
        Assert.Equal(Convert.FromBase64String(Dot), await desk.Browser.GetByteArrayAsync($"{desk.Api}/pictures/{picture}", Cancel));
        var round = await desk.PrepareAsync();
        await desk.WriteAsync($"<p><img data-picture=\"{picture}\" alt=\"Tarnbrook Linen Hire\" width=\"180\"></p><p>Good day</p>");
        await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel)).JsonAsync();
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single().Id();
        Assert.Contains($"src=\"data:image/png;base64,{Dot}\"", await desk.MessageAsync(parcel), StringComparison.Ordinal);
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));
        Assert.Contains(
            $"src=\"data:image/png;base64,{Dot}\"",
            await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/{parcel}/messages/0/page", Cancel),
            StringComparison.Ordinal
        );
        Assert.EndsWith(
            ".pdf",
            Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch/{parcel}/messages/0")).List("enclosures")).Text("name"),
            StringComparison.Ordinal
        );
        var eml = await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/{parcel}/messages/0/message.eml", Cancel);
        Assert.Contains("Content-Id: <picture-", eml, StringComparison.OrdinalIgnoreCase);
        Assert.Contains(
            "src=\"cid:picture-",
            eml.Replace("=\r\n", "", StringComparison.Ordinal).Replace("=3D", "=", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_picture_of_another_book_is_not_there_and_what_is_no_picture_is_refused()
    {
        using var desk = await Desk.AtAsync(rendal);
        using var other = await Desk.AtAsync(rendal);
        var picture = (await (await other.Browser.PostAsJsonAsync($"{other.Api}/pictures", new { bytes = Dot }, Cancel)).JsonAsync())
            .GetProperty("number")
            .GetInt64();
        Assert.Equal(HttpStatusCode.NotFound, (await desk.Browser.GetAsync($"{desk.Api}/pictures/{picture}", Cancel)).StatusCode);
        Assert.Equal(
            "A picture of the message is not one of this book. Take it out, and put it in again from its file.",
            await RefusedAsync(await desk.PutWordingAsync($"<p><img data-picture=\"{picture}\"></p>"))
        );
        Assert.Equal(
            "The picture has to be a PNG or JPEG picture.",
            await RefusedAsync(
                await desk.Browser.PostAsJsonAsync($"{desk.Api}/pictures", new { bytes = Convert.ToBase64String("<svg/>"u8) }, Cancel)
            )
        );
        Assert.StartsWith(
            "The picture has 300 kB, and goes with each message",
            await RefusedAsync(
                await desk.Browser.PostAsJsonAsync(
                    $"{desk.Api}/pictures",
                    new { bytes = Convert.ToBase64String(new byte[300_001]) },
                    Cancel
                )
            ),
            StringComparison.Ordinal
        );
    }

    /// <summary>A picture of one point.</summary>
    internal const string Dot = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";

    private static async Task<string?> RefusedAsync(HttpResponseMessage answer)
    {
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        return (await answer.Content.ReadFromJsonAsync<System.Text.Json.JsonElement>(Cancel)).Text("detail");
    }

    private static Task TakeInAsync(Desk desk) =>
        desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");

    [Theory]
    [InlineData("{")]
    [InlineData("{{{")]
    [InlineData("&#123;")]
    [InlineData("{% if")]
    [InlineData("<span>{</span>{")]
    public async Task A_brace_before_a_slot_is_a_brace(string brace)
    {
        using var desk = await Desk.AtAsync(rendal);
        await TakeInAsync(desk);
        var round = await desk.PrepareAsync();
        var shown = brace.Replace("&#123;", "{", StringComparison.Ordinal).Replace("<span>{</span>", "{", StringComparison.Ordinal);
        await desk.WriteAsync(
            $"<p>{brace}<span data-slot=\"customer.name\"></span></p><p>{brace}<span data-when=\"overdue\">late</span></p>",
            $"{brace}<span data-slot=\"customer.name\"></span>}}"
        );
        Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds")).List("rounds"));
        await (await desk.Browser.PostAsync($"{desk.Api}/rounds/{round.Id()}/prepare", null, Cancel)).JsonAsync();
        var parcel = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}")).List("parcels").Single();
        Assert.Equal($"{shown}AB01}}", (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel.Id()}")).Text("subject"));
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        Assert.Equal("sent", (await desk.SettledAsync(round.Id())).List("parcels").Single().Text("status"));
        Assert.Contains(
            $"{shown}AB01",
            System.Net.WebUtility.HtmlDecode(
                await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/{parcel.Id()}/messages/0/page", Cancel)
            ),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Of_two_who_change_one_wording_the_second_is_told_who_was_first()
    {
        using var desk = await Desk.AtAsync(rendal);
        var wording = (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").First();
        Task<HttpResponseMessage> SaveAsync(long version, string subject) =>
            desk.Browser.PutAsJsonAsync(
                $"{desk.Api}/wordings/{wording.Id()}",
                new
                {
                    version,
                    name = "Plain",
                    language = "en",
                    subject,
                    body = "<p>Good day</p>",
                },
                Cancel
            );

        var opened = wording.GetProperty("version").GetInt64();
        var both = await Task.WhenAll(SaveAsync(opened, "One"), SaveAsync(opened, "Two"));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(a => a.StatusCode).Order());
        Assert.StartsWith("odile changed this wording since you opened it.", await both.Single(a => !a.IsSuccessStatusCode).DetailAsync());
        var kept = await both.Single(a => a.IsSuccessStatusCode).JsonAsync();
        Assert.Equal(
            kept.Text("subject"),
            (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").First(w => w.Id() == wording.Id()).Text("subject")
        );
        Assert.Equal(HttpStatusCode.OK, (await SaveAsync(kept.GetProperty("version").GetInt64(), "Three")).StatusCode);
    }
}
