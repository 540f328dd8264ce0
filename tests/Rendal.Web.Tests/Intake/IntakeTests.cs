using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Rendal.Core.Tests;

namespace Rendal.Web.Tests.Intake;

public class IntakeTests(RunningRendal rendal)
{
    private const string Good = "AB01,Abbot’s Table,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example";
    private const string Bad = "BE02,Beacon Lodge,Invoice,T-2,2026-09-31,2026-10-01,20.00,b@beacon.example";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_value_is_put_right_in_place_kept_over_the_next_file_and_taken_back()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync("ledger", Desk.Headings, Good, Bad);
        Assert.Equal(1, (await desk.LookAsync(intake)).GetProperty("errors").GetInt32());
        await PostAsync(
            desk,
            "corrections/value",
            new
            {
                intake,
                row = 3,
                column = 4,
                becomes = "2026-09-30",
                everywhere = false,
            }
        );
        var look = await desk.LookAsync(intake);
        Assert.Equal((0, 2), (look.GetProperty("errors").GetInt32(), look.GetProperty("rowsKept").GetInt32()));
        var row = (await desk.Browser.GetJsonAsync($"{desk.Api}/intakes/{intake}/rows?from=3&count=1")).List("rows").Single();
        Assert.Equal(("2026-09-31", "2026-09-30"), (row.List("cells").ElementAt(4).GetString(), row.GetProperty("corrected").Text("4")));

        var next = await desk.BeginAsync("ledger", Desk.Headings, Bad, Good);
        Assert.Equal(0, (await desk.LookAsync(next)).GetProperty("errors").GetInt32());
        var correction = Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray());
        Assert.Equal(
            ("cell", "Date", "BE02, Beacon Lodge, Invoice, T-2", 3),
            (correction.Text("kind"), correction.Text("column"), correction.Text("concerns"), correction.GetProperty("row").GetInt32())
        );
        await desk.Browser.DeleteAsync($"{desk.Api}/corrections/{correction.Id()}", Cancel);
        Assert.Equal(1, (await desk.LookAsync(next)).GetProperty("errors").GetInt32());
    }

    [Fact]
    public async Task What_was_put_right_is_told_beside_the_figure_in_a_round_also_once_it_was_taken_back()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync("ledger", Desk.Headings, Good, Bad);
        await PostAsync(
            desk,
            "corrections/value",
            new
            {
                intake,
                row = 3,
                column = 4,
                becomes = "2026-09-30",
                everywhere = false,
            }
        );
        await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{intake}/keep", new { });
        var round = await desk.PrepareAsync();
        await desk.Browser.DeleteAsync(
            $"{desk.Api}/corrections/{(await desk.Browser.GetJsonAsync($"{desk.Api}/corrections")).EnumerateArray().Single().Id()}",
            Cancel
        );

        var item = (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/accounts/BE02")).List("items").Single();
        var correction = item.List("corrections").Single();
        Assert.Equal(
            ("Date", "2026-09-31", "2026-09-30"),
            (correction.Text("column"), correction.Text("was"), correction.Text("becomes"))
        );
        Assert.Empty(
            (await desk.Browser.GetJsonAsync($"{desk.Api}/rounds/{round.Id()}/accounts/AB01")).List("items").Single().List("corrections")
        );
    }

    [Fact]
    public async Task A_row_is_left_out_with_a_reason_and_stands_apart_in_the_sums()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync("ledger", Desk.Headings, Good, Bad.Replace("31", "30", StringComparison.Ordinal));
        var without = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/corrections/row",
            new
            {
                intake,
                row = 3,
                reason = " ",
            },
            Cancel
        );
        Assert.Equal("Say why the row is left out; whoever looks at the figures later will ask.", await without.DetailAsync());
        await PostAsync(
            desk,
            "corrections/row",
            new
            {
                intake,
                row = 3,
                reason = "paid in cash",
            }
        );
        var look = await desk.LookAsync(intake);
        Assert.Equal(
            (1, 1, "20.00"),
            (
                look.GetProperty("rowsKept").GetInt32(),
                look.GetProperty("rowsLeftOut").GetInt32(),
                look.List("leftOutSums").Single().Text("amount")
            )
        );
    }

    [Fact]
    public async Task Two_customers_are_made_one_and_a_circle_is_refused()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync(
            "ledger",
            Desk.Headings,
            Good,
            Good.Replace("AB01", "AB-01", StringComparison.Ordinal).Replace("T-1", "T-2", StringComparison.Ordinal)
        );
        Assert.Equal(2, (await desk.LookAsync(intake)).GetProperty("customers").GetInt32());
        await PostAsync(desk, "corrections/customers", new { customer = "AB-01", with = "AB01" });
        Assert.Equal(1, (await desk.LookAsync(intake)).GetProperty("customers").GetInt32());
        var circle = await desk.Browser.PostAsJsonAsync(
            $"{desk.Api}/corrections/customers",
            new { customer = "AB01", with = "AB-01" },
            Cancel
        );
        Assert.Equal(HttpStatusCode.Conflict, circle.StatusCode);
    }

    [Fact]
    public async Task The_reading_is_found_again_by_the_headings_and_travels_as_a_file()
    {
        using var desk = await Desk.AtAsync(rendal);
        string[] odd = ["Wer,Wann,Rest,Farbe", "H1,03/04/2026,\"1,234\",rot"];
        var first = await desk.BeginAsync("ledger", odd);
        var change = new
        {
            headingRow = 1,
            meanings = new Dictionary<int, string>
            {
                [0] = "customer-code",
                [1] = "date",
                [2] = "outstanding",
            },
            marks = new Dictionary<int, string> { [2] = "comma" },
            orders = new Dictionary<int, string> { [1] = "month-first" },
        };
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.PutAsJsonAsync($"{desk.Api}/intakes/{first}/reading", change, Cancel)).StatusCode
        );
        await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{first}/keep", new { });
        var reading = await desk.Browser.GetByteArrayAsync($"{desk.Api}/intakes/{first}/reading.json", Cancel);

        var again = await desk.UploadAsync("next.csv", Encoding.UTF8.GetBytes("Farbe,Rest,Wer,Wann\nblau,\"5,678\",H2,05/06/2026\n"));
        var begun = await again.JsonAsync();
        Assert.True(begun.GetProperty("knownReading").GetBoolean());
        Assert.Equal("5.68", (await desk.LookAsync(begun.Id())).List("sums").Single().Text("amount"));

        using var other = await Desk.AtAsync(rendal);
        var there = await other.BeginAsync("ledger", odd);
        Assert.NotEmpty((await other.LookAsync(there)).List("lacks"));
        using var form = new MultipartFormDataContent
        {
            {
                new ByteArrayContent(reading) { Headers = { ContentType = new MediaTypeHeaderValue("application/json") } },
                "file",
                "odd reading.json"
            },
        };
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await other.Browser.PostAsync($"{other.Api}/intakes/{there}/reading.json", form, Cancel)).StatusCode
        );
        Assert.Equal("1.23", (await other.LookAsync(there)).List("sums").Single().Text("amount"));
    }

    [Fact]
    public async Task Pasted_cells_are_taken_like_a_file()
    {
        using var desk = await Desk.AtAsync(rendal);
        var begun = await desk.Browser.PostJsonAsync(
            $"{desk.Api}/intakes/paste",
            new { text = "Account\tName\tDate\tBalance\r\nH1\t\"Inn\nat Kell\"\t01/10/2026\t1.234,50\r\n", kind = "ledger" }
        );
        var look = await desk.LookAsync(begun.Id());
        Assert.Equal(("1234.50", "\t"), (look.List("sums").Single().Text("amount"), look.GetProperty("opening").Text("delimiter")));
        var nothing = await desk.Browser.PostAsJsonAsync($"{desk.Api}/intakes/paste", new { text = " \n", kind = "ledger" }, Cancel);
        Assert.StartsWith("Nothing was pasted.", await nothing.DetailAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_newer_file_is_compared_with_the_ledger_before_it_is_kept()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            Desk.Headings,
            Good,
            Good.Replace("T-1", "T-2", StringComparison.Ordinal),
            Good.Replace("T-1", "T-3", StringComparison.Ordinal)
        );
        var newer = await desk.BeginAsync(
            "ledger",
            Desk.Headings,
            Good,
            Good.Replace("T-1", "T-2", StringComparison.Ordinal).Replace("10.00", "4.00", StringComparison.Ordinal),
            Good.Replace("T-1", "T-4", StringComparison.Ordinal)
        );
        var changes = await desk.Browser.GetJsonAsync($"{desk.Api}/intakes/{newer}/changes");
        Assert.Equal(
            [("altered", "T-2"), ("new", "T-4"), ("settled", "T-3")],
            changes.List("items").Select(i => (i.Text("change"), i.Text("number"))).Order()
        );
        var altered = changes.List("items").Single(i => i.Text("change") == "altered");
        Assert.Equal(("10.00", "4.00"), (altered.GetProperty("before").Text("open"), altered.GetProperty("after").Text("open")));
        var customer = changes.List("customers").Single();
        Assert.Equal(("30.00", "24.00", 1), (customer.Text("before"), customer.Text("after"), customer.GetProperty("new").GetInt32()));
    }

    [Fact]
    public async Task A_file_that_looks_like_another_firms_asks_first()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Desk.Headings, Good);
        var other = await desk.BeginAsync("ledger", Desk.Headings, Good.Replace("AB01", "XX99", StringComparison.Ordinal));
        var doubt = Assert.Single((await desk.LookAsync(other)).List("doubts")).GetString();
        Assert.Equal("Only 0 of its 1 customers are in the ledger as it is: it may be another firm’s.", doubt);
        var unsure = await desk.Browser.PostAsync($"{desk.Api}/intakes/{other}/keep", null, Cancel);
        Assert.Equal((HttpStatusCode.Conflict, doubt), (unsure.StatusCode, await unsure.DetailAsync()));
        await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{other}/keep?sure=true", new { });
    }

    [Fact]
    public async Task The_same_file_is_taken_in_again_to_put_something_right_and_stands_in_the_ledgers_place()
    {
        using var desk = await Desk.AtAsync(rendal);
        var first = await desk.TakeInAsync(Desk.Headings, Good, Bad);
        Assert.Equal(1, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("rowsSetAside").GetInt32());
        var again = (await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{first}/again", new { })).Id();
        await PostAsync(
            desk,
            "corrections/value",
            new
            {
                intake = again,
                row = 3,
                column = 4,
                becomes = "2026-09-30",
                everywhere = false,
            }
        );
        await desk.Browser.PostJsonAsync($"{desk.Api}/intakes/{again}/keep", new { });
        Assert.Equal(0, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("rowsSetAside").GetInt32());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.PostAsync($"{desk.Api}/intakes/{again}/undo", null, Cancel)).StatusCode
        );
        Assert.Equal(1, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("rowsSetAside").GetInt32());
    }

    [Fact]
    public async Task Whoever_listens_hears_how_far_a_look_has_come_and_what_came_of_it()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync(
            "ledger",
            [Desk.Headings, .. Enumerable.Range(0, 50_000).Select(i => $"C{i % 900},,Invoice,T-{i},2026-09-01,,10.00,")]
        );
        using var request = new HttpRequestMessage(HttpMethod.Get, $"{desk.Api}/intakes/{intake}");
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("text/event-stream"));
        var answer = await desk.Browser.SendAsync(request, Cancel);
        Assert.Equal("text/event-stream", answer.Content.Headers.ContentType!.MediaType);
        var events = (await answer.Content.ReadAsStringAsync(Cancel)).Split("\n\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.All(events[..^1], e => Assert.StartsWith("event: progress\ndata: {\"stage\":", e, StringComparison.Ordinal));
        Assert.StartsWith("event: done\n", events[^1], StringComparison.Ordinal);
        Assert.Equal(
            50_000,
            JsonDocument
                .Parse(events[^1][(events[^1].IndexOf("data: ", StringComparison.Ordinal) + 6)..])
                .RootElement.GetProperty("rowsKept")
                .GetInt32()
        );
    }

    [Fact]
    public async Task Going_away_while_a_file_is_kept_leaves_nothing_behind()
    {
        using var desk = await Desk.AtAsync(rendal);
        var intake = await desk.BeginAsync(
            "ledger",
            [Desk.Headings, .. Enumerable.Range(0, 200_000).Select(i => $"C{i % 900},,Invoice,T-{i},2026-09-01,,10.00,")]
        );
        await desk.LookAsync(intake);
        using var gone = new CancellationTokenSource();
        using var request = new HttpRequestMessage(HttpMethod.Post, $"{desk.Api}/intakes/{intake}/keep");
        request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("text/event-stream"));
        var answer = await desk.Browser.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, gone.Token);
        await gone.CancelAsync();
        answer.Dispose();

        // Once the request is over, the transaction is gone with it and the file can be kept as if nothing had been. Where the
        // machine was done before the going away reached it, all of it is kept already.
        await Eventually.HoldsAsync(async () =>
            (await desk.Browser.PostAsync($"{desk.Api}/intakes/{intake}/keep", null, Cancel)).StatusCode == HttpStatusCode.OK
            || (await desk.LookAsync(intake)).Text("state") == "kept"
        );

        Assert.Equal(200_000, (await desk.Browser.GetJsonAsync($"{desk.Api}/ledger")).GetProperty("rows").GetInt32());
        Assert.Single((await desk.Browser.GetJsonAsync($"{desk.Api}/intakes")).EnumerateArray(), i => i.Text("state") == "kept");
    }

    private static async Task PostAsync(Desk desk, string path, object body)
    {
        var answer = await desk.Browser.PostAsJsonAsync($"{desk.Api}/{path}", body, Cancel);
        Assert.True(answer.StatusCode == HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync(Cancel));
    }
}
