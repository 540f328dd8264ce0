using MimeKit;

namespace Rendal.Web.Tests.Layouts;

/// <summary>A desk with a small ledger of two customers, and what was enclosed for each.</summary>
internal static class LayoutDesk
{
    private static readonly string[] Ledger =
    [
        "Code,Name,Kind,Number,Date,Due,Currency,Outstanding,Delivery round,E-mail",
        "AB01,Abbot’s Table,Invoice,T-1,2026-08-01,2026-09-01,GBP,100.00,N7,a@abbot.example",
        "AB01,Abbot’s Table,Invoice,T-2,2026-08-01,2026-09-01,GBP,20.00,N7,a@abbot.example",
        "BE02,Beacon Lodge,Invoice,T-3,2026-09-20,2026-10-20,GBP,60.00,N8,b@beacon.example",
    ];

    public static async Task<Desk> AtAsync(RunningRendal rendal)
    {
        var desk = await Desk.AtAsync(rendal);
        await desk.TakeInAsync(Ledger);
        foreach (
            var (key, name, address) in new[]
            {
                ("AB01", "Abbot’s Table", "a@abbot.example"),
                ("BE02", "Beacon Lodge", "b@beacon.example"),
            }
        )
        {
            await (await desk.PutCardAsync(key, name, address)).JsonAsync();
        }

        return desk;
    }

    /// <summary>The files that went with the message to a customer.</summary>
    public static async Task<List<(string Name, byte[] Bytes)>> EnclosedAsync(Desk desk, string customer)
    {
        var cancel = TestContext.Current.CancellationToken;
        var entry = (await desk.Browser.GetJsonAsync($"{desk.Api}/dispatch")).EnumerateArray().Single(e => e.Text("customer") == customer);
        using var stream = new MemoryStream(
            await desk.Browser.GetByteArrayAsync(
                $"{desk.Api}/dispatch/{entry.GetProperty("parcel").GetInt64()}/messages/0/message.eml",
                cancel
            )
        );
        var enclosed = new List<(string, byte[])>();
        foreach (var part in (await MimeMessage.LoadAsync(stream, cancel)).Attachments.OfType<MimePart>())
        {
            using var content = new MemoryStream();
            await part.Content!.DecodeToAsync(content, cancel);
            enclosed.Add((part.FileName!, content.ToArray()));
        }

        return enclosed;
    }
}
