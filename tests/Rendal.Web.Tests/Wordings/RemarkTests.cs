using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Rendal.Web.Tests.Wordings;

/// <summary>What catches the eye in the messages of a round, and a wording as it is being written.</summary>
public sealed class RemarkTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_catches_the_eye_is_told_of_the_round_and_of_each_parcel_until_it_is_meant_so()
    {
        using var desk = await Desk.AtAsync(rendal);
        var wording = (await desk.WriteAsync("<p>Hello,</p><p>Please pay the the balance.</p>")).Id();
        await TakeInAsync(desk, "Round");
        var round = await PrepareAsync(desk);
        var told = await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/remarks");
        var remark = told.List("remarks").Single();
        Assert.Equal((2, 2), (remark.GetProperty("count").GetInt32(), told.GetProperty("parcels").GetInt32()));
        Assert.Equal("doubled-word", remark.GetProperty("remark").Text("code"));
        Assert.Equal(["AB01", "BE02"], remark.List("first").Select(p => p.Text("customer")).Order());
        Assert.Equal(("Plain", 2), told.List("wordings").Select(w => (w.Text("name"), w.GetProperty("parcels").GetInt32())).Single());
        var parcel = remark.List("first").First().Id();
        Assert.Equal("A word stands twice: “the the”.", (await RemarksAsync(desk, parcel)).Single().Text("says"));

        var meant = new { code = "doubled-word", quote = "the the" };
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.PostAsJsonAsync($"{desk.Api}/wordings/{wording}/meant", meant, Cancel)).StatusCode
        );
        Assert.Empty(await RemarksAsync(desk, parcel));
        Assert.Empty((await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/remarks")).List("remarks"));

        // It is remembered by the wording, in the next round too.
        var next = await PrepareAsync(desk);
        Assert.Equal(0, (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{next.Id()}/remarks")).GetProperty("parcels").GetInt32());

        await desk.Browser.PostAsJsonAsync($"{desk.Api}/wordings/{wording}/meant-no-more", meant, Cancel);
        Assert.Single(await RemarksAsync(desk, parcel));
    }

    [Fact]
    public async Task Nothing_of_it_keeps_a_parcel_from_going()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.WriteAsync("<p>Hello,</p><p>Please pay Beacon Hotel of 1 January 2020 {now} ..</p>");
        await TakeInAsync(desk, "Round");
        var round = await PrepareAsync(desk);
        var remarks = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/remarks")).List("remarks").ToList();
        Assert.Equal(
            ["other-customer", "braces-left", "typed-date", "doubled-stop"],
            remarks.Select(r => r.GetProperty("remark").Text("code")).Distinct()
        );
        Assert.Equal(["AB01"], remarks[0].List("first").Select(p => p.Text("customer")));
        await (await desk.ReleaseAsync(round.Id(), 2)).JsonAsync();
    }

    [Fact]
    public async Task A_passage_on_a_value_that_nobody_has_is_told()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.WriteAsync(
            "<p>Hello,</p><p><span data-when=\"slot\" data-of=\"column.Round\" data-is=\"is\" data-with=\"N 7\">By van.</span></p>"
                + "<p><span data-when=\"interest\">Interest is charged.</span></p>"
        );
        await desk.TakeInAsync([
            "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,Round",
            .. Enumerable.Range(1, 6).Select(n => $"AB0{n},Abbot {n},Invoice,T-{n},2026-09-01,2026-10-01,10.00,a{n}@abbot.example,N7"),
        ]);
        var round = await PrepareAsync(desk);
        var told = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/remarks")).List("wordings").Single();
        Assert.Equal(
            ["The words under a condition on “Round” and “N 7” stand in no message."],
            told.List("passages").Select(p => p.GetString())
        );
    }

    [Fact]
    public async Task A_wording_is_shown_filled_as_it_is_being_written()
    {
        using var desk = await Desk.AtAsync(rendal);
        await TakeInAsync(desk, "Round");
        var shown = await PreviewAsync(desk, "To <span data-slot=\"customer.name\"></span>", "<p>Hello,</p><p>Gone  now</p>", "AB01");
        Assert.Equal(("To Abbot’s Table", 0), (shown.Text("subject"), shown.List("errors").Count()));
        Assert.Equal("Hello,\n\nGone now\n", shown.Text("plain"));
        Assert.True(shown.GetProperty("bytes").GetInt32() > 500);
        Assert.Equal(["doubled-space"], shown.List("remarks").Select(r => r.Text("code")));
        var broken = await PreviewAsync(desk, "s", "<p><span data-slot=\"customer.nmae\"></span></p>", "AB01");
        Assert.StartsWith("The body has a slot “customer.nmae”", Assert.Single(broken.List("errors")).GetString());
        Assert.Equal(HttpStatusCode.Conflict, (await PreviewRawAsync(desk, "s", "<p>a</p>", "nobody")).StatusCode);
    }

    [Fact]
    public async Task A_column_that_the_next_file_has_not_is_told_with_the_likely_one()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.WriteAsync("<p>Van <span data-slot=\"column.Delivery round\" data-or-else=\"–\"></span></p>");
        Assert.Empty((await ListAsync(desk)).List("gone"));
        await TakeInAsync(desk, "Delivery round");
        Assert.Empty((await ListAsync(desk)).List("gone"));
        await TakeInAsync(desk, "Delivery rounds");
        var gone = Assert.Single((await ListAsync(desk)).List("gone"));
        Assert.Equal(("Delivery round", "Delivery rounds"), (gone.Text("heading"), gone.Text("likely")));
    }

    // Not that of the desk, which writes words of its own.
    private static Task<JsonElement> PrepareAsync(Desk desk) =>
        desk.Browser.PostJsonAsync($"{desk.Api}/rounds", new { name = "October", asOf = "2026-10-31" });

    private static Task TakeInAsync(Desk desk, string column) =>
        desk.TakeInAsync(
            $"Code,Name,Kind,Number,Date,Due,Outstanding,E-mail,{column}",
            "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example,N7",
            "BE02,Beacon Hotel,Invoice,T-2,2026-09-01,2026-10-01,20.00,b@beacon.example,N7"
        );

    private static async Task<JsonElement> ListAsync(Desk desk) =>
        (await desk.Browser.GetJsonAsync($"{desk.Api}/wordings")).List("wordings").First();

    private static async Task<List<JsonElement>> RemarksAsync(Desk desk, long parcel) =>
        [.. (await desk.Browser.GetJsonAsync($"{desk.Api}/parcels/{parcel}")).List("remarks")];

    private static async Task<JsonElement> PreviewAsync(Desk desk, string subject, string body, string customer) =>
        await (await PreviewRawAsync(desk, subject, body, customer)).JsonAsync();

    private static Task<HttpResponseMessage> PreviewRawAsync(Desk desk, string subject, string body, string customer) =>
        desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/wordings/preview?customer={customer}",
            new
            {
                version = 0,
                name = "w",
                language = "en",
                subject,
                body,
            },
            Cancel
        );
}
