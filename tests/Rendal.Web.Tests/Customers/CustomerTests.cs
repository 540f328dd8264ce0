using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;

namespace Rendal.Web.Tests.Customers;

public class CustomerTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_list_fills_the_cards_of_customers_that_were_known_from_the_ledger_only()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB/01,Invoice,T-1,2026-09-01,2026-10-01,10.00,");
        Assert.True((await CardAsync(desk)).GetProperty("fromLedger").GetBoolean());
        var taken = await (await UploadAsync(desk, "Code,Name,Contact,E-mail\nAB/01,Abbot’s Table,Owen Farrow,a@abbot.example\nBE02,Beacon Lodge,,office@@beacon\n")).JsonAsync();
        Assert.Equal(2, taken.GetProperty("customers").GetInt32());
        Assert.Equal("bad-address", Assert.Single(taken.List("findings")).Text("code"));
        var card = await CardAsync(desk);
        Assert.Equal(("Abbot’s Table", "Owen Farrow", "a@abbot.example", false), (card.Text("name"), card.Text("contact"), card.Text("email"), card.GetProperty("fromLedger").GetBoolean()));
    }

    [Fact]
    public async Task A_file_that_is_no_customer_list_is_said_to_be_none()
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await UploadAsync(desk, "some,words\nand,more\n");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal("list.csv has no row of headings with a customer code or name; look whether it is the customer list.", await answer.DetailAsync());
    }

    [Fact]
    public async Task A_customer_on_hold_is_left_out_with_that_reason()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync("Code,Kind,Number,Date,Due,Outstanding,E-mail", "AB/01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@abbot.example");
        await (await desk.Browser.PutAsJsonAsync($"{desk.Api}/customers/card?key=AB%2F01", new { name = "Abbot’s Table", contact = "", title = "", postalLines = Array.Empty<string>(), country = "", email = "a@abbot.example", language = "en", onHold = true }, Cancel)).JsonAsync();
        var round = await desk.PrepareAsync();
        Assert.Empty(round.List("parcels"));
        Assert.Equal("on-hold", Assert.Single(round.List("leftOut")).Text("reason"));
    }

    private static Task<System.Text.Json.JsonElement> CardAsync(Desk desk) => desk.Browser.GetJsonAsync($"{desk.Api}/customers/card?key=AB%2F01");

    private static async Task<HttpResponseMessage> UploadAsync(Desk desk, string content)
    {
        using var form = new MultipartFormDataContent();
        var file = new ByteArrayContent(Encoding.UTF8.GetBytes(content));
        file.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
        form.Add(file, "file", "list.csv");
        return await desk.Browser.PostAsync($"{desk.Api}/customers/list", form, Cancel);
    }
}
