using System.Net.Http.Json;
using System.Text.Json.Nodes;
using MimeKit;

namespace Rendal.Web.Tests.Wordings;

/// <summary>A code in the message, scanned to pay.</summary>
public sealed class PaymentCodeTests(RunningRendal rendal)
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_code_that_was_looked_at_goes_inside_the_message_and_one_who_cannot_have_one_waits()
    {
        using var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(
            "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,E-mail",
            "AB01,Abbot’s Table,Invoice,T-1,2026-08-01,2026-09-01,EUR,100.00,a@abbot.example",
            "BE02,Beacon Lodge,Invoice,T-3,2026-09-20,2026-10-20,GBP,60.00,b@beacon.example",
            "CA03,Carrow House,Credit,C-1,2026-09-20,2026-10-20,EUR,-5.00,c@carrow.example"
        );
        await UseAccountAsync(desk);
        var prepared = await desk.PrepareAsync();
        await desk.WriteAsync("<p>Scan to pay:</p><p><span data-slot=\"payment.code\"></span></p>");
        var round = await desk.Browser.PostJsonAsync($"{desk.Api}/rounds/{prepared.Id()}/prepare", new { });
        Assert.Equal(
            [("AB01", "prepared", ""), ("BE02", "needs-you", "payment code is empty")],
            round.List("parcels").Select(p => (p.Text("customer"), p.Text("status"), p.Text("problem"))).Order()
        );
        var parcel = round.List("parcels").Single(p => p.Text("customer") == "AB01").Id();
        const string asked = ", DE89 3704 0044 0532 0130 00, COBADEFFXXX, EUR 100.00, AB01 ";
        var seen = Image(await desk.MessageAsync(parcel));
        Assert.Contains(asked, seen.Alt, StringComparison.Ordinal);
        var drawn = Convert.FromBase64String(seen.Source["data:image/png;base64,".Length..]);

        await (await desk.ReleaseAsync(round.Id(), 1)).JsonAsync();
        await desk.SettledAsync(round.Id());
        var sent = Assert.Single(rendal.Mailbox.Of($"book-{desk.Book}"));
        using var bytes = new MemoryStream(rendal.Mailbox.Bytes(sent));
        var message = await MimeMessage.LoadAsync(bytes, Cancel);
        var part = message.BodyParts.OfType<MimePart>().Single(p => p.ContentType.MediaType == "image");
        Assert.Equal($"cid:{part.ContentId}", Image(message.HtmlBody!).Source);
        using var content = new MemoryStream();
        await part.Content!.DecodeToAsync(content, Cancel);
        Assert.Equal(drawn, content.ToArray());
        Assert.Contains(asked, message.TextBody!, StringComparison.Ordinal);
    }

    private static (string Alt, string Source) Image(string page)
    {
        var image = new AngleSharp.Html.Parser.HtmlParser().ParseDocument(page).QuerySelector("img")!;
        return (image.GetAttribute("alt")!, image.GetAttribute("src")!);
    }

    private static async Task UseAccountAsync(Desk desk)
    {
        var builtIn = (await desk.Browser.GetJsonAsync($"{desk.Api}/layouts")).GetProperty("builtIn").GetRawText();
        var layout = JsonNode.Parse(builtIn)!.AsObject();
        layout["name"] = "With our account";
        var payment = layout["parts"]!.AsArray().Single(p => p!.AsObject().ContainsKey("iban"))!;
        (payment["iban"], payment["bic"]) = ("DE89 3704 0044 0532 0130 00", "COBADEFFXXX");
        var id = (await desk.Browser.PostJsonAsync($"{desk.Api}/layouts", layout)).Id();
        (
            await desk.Browser.PostAsJsonAsync(
                $"{desk.Api}/layouts/use",
                new
                {
                    purpose = "statement",
                    language = "",
                    id,
                },
                Cancel
            )
        ).EnsureSuccessStatusCode();
    }
}
