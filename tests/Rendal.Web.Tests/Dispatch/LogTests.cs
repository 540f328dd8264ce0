using System.Net;
using System.Text;
using Microsoft.Extensions.DependencyInjection;

namespace Rendal.Web.Tests.Dispatch;

/// <summary>The log: what it finds, what is added to it, and how it is saved and shown.</summary>
public class LogTests(RunningRendal rendal)
{
    private const string FetchesNothing = "default-src 'none'; style-src 'unsafe-inline'; img-src data:";

    /// <summary>What a message carries while it is looked at, and not when it goes.</summary>
    private const string OwnPolicy = $"<meta http-equiv=\"Content-Security-Policy\" content=\"{FetchesNothing}\">";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Cells_of_the_saved_log_that_could_be_formulas_are_made_harmless()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,\"=HYPERLINK(\"\"x\"\")\",Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var csv = await desk.Browser.GetStringAsync($"{desk.Api}/dispatch/log.csv", Cancel);
        Assert.Contains("a@abbot.example", csv);
        Assert.Matches(@"\r\n\d{4}-\d\d-\d\d \d\d:\d\d:\d\d\+0[01]:00,", csv);
        Assert.DoesNotContain(",\"=", csv);
        Assert.DoesNotContain(",=", csv);

        var xlsx = await desk.Browser.GetByteArrayAsync($"{desk.Api}/dispatch/log.xlsx?outcome=accepted", Cancel);
        using var file = new MemoryStream(xlsx);
        using var workbook = new System.IO.Compression.ZipArchive(file);
        using var reader = new StreamReader(
            workbook.Entries.Single(e => e.FullName.Contains("worksheets/", StringComparison.Ordinal)).Open()
        );
        var sheet = await reader.ReadToEndAsync(Cancel);
        Assert.Contains("=HYPERLINK(", sheet, StringComparison.Ordinal);
        Assert.DoesNotContain("<x:f", sheet, StringComparison.Ordinal);
        Assert.Contains("a@abbot.example", sheet, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Notes_are_added_to_the_record_with_who_wrote_them_and_stay()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        var parcel = round.List("parcels").Single().Id();
        Assert.Equal(HttpStatusCode.NotFound, (await NoteAsync("too early")).StatusCode);
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        await (await NoteAsync("Ms Caldera rang: it was sent to the wrong inn.")).JsonAsync();
        var notes = await (await NoteAsync("Put right on the card.")).JsonAsync();
        Assert.Equal(
            [("odile", "Ms Caldera rang: it was sent to the wrong inn."), ("odile", "Put right on the card.")],
            notes.EnumerateArray().Select(n => (n.Text("by"), n.Text("text")))
        );
        Assert.Equal("A note has words, and at most 2000 characters.", await (await NoteAsync("  ")).DetailAsync());

        Task<HttpResponseMessage> NoteAsync(string text) =>
            System.Net.Http.Json.HttpClientJsonExtensions.PostAsJsonAsync(
                desk.Browser,
                $"{desk.Api}/dispatch/{parcel}/notes",
                new { text },
                Cancel
            );
    }

    [Theory]
    [InlineData("search=T-1", 1)]
    [InlineData("search=T-2", 0)]
    [InlineData("search=abbot", 1)]
    [InlineData("outcome=accepted", 1)]
    [InlineData("outcome=refused", 0)]
    [InlineData("from=2026-01-01&to=2099-01-01&outcome=accepted&search=T-1", 1)]
    [InlineData("to=2025-12-31", 0)]
    [InlineData("from=2099-01-01", 0)]
    public async Task The_log_is_searched_by_text_number_outcome_and_day(string query, int found)
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        Assert.Equal(found, (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch?{query}")).GetArrayLength());
    }

    [Fact]
    public async Task The_html_of_a_message_is_served_so_that_it_can_run_and_fetch_nothing()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        var round = await desk.PrepareAsync();
        var parcel = round.List("parcels").Single().Id();
        Assert.Contains($"<head>{OwnPolicy}", await desk.MessageAsync(parcel), StringComparison.Ordinal);

        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var page = await desk.Browser.GetAsync($"{desk.Api}/dispatch/{parcel}/messages/0/page", Cancel);
        var policy = string.Join(' ', page.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("sandbox;", policy);
        Assert.Contains(FetchesNothing, policy);
        Assert.Equal("no-store", page.Headers.CacheControl!.ToString());
        Assert.DoesNotContain(
            "<script",
            Encoding.UTF8.GetString(await page.Content.ReadAsByteArrayAsync(Cancel)),
            StringComparison.OrdinalIgnoreCase
        );
    }
}
