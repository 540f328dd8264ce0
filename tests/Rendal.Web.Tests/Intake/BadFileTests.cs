using System.Net;
using System.Text;

namespace Rendal.Web.Tests.Intake;

public class BadFileTests(RunningRendal rendal)
{
    private const string Headings = "Code,Kind,Number,Date,Due,Outstanding,E-mail\n";

    public static TheoryData<string, byte[], string> Files() =>
        new()
        {
            { "empty.csv", [], "empty.csv is empty." },
            { "blank.csv", Encoding.UTF8.GetBytes(" \n\n  "), "blank.csv holds nothing but white space." },
            {
                "ledger.csv",
                "%PDF-1.7 …"u8.ToArray(),
                "ledger.csv is a PDF; ask the accounting program for a workbook or a CSV file instead."
            },
            {
                "ledger.csv",
                [0x50, 0x4B, 0x03, 0x04, 0, 0],
                "ledger.csv is damaged or cut short; open it in a spreadsheet program, look whether it is whole, and save it anew."
            },
            {
                "ledger.csv",
                [0x89, 0x50, 0x4E, 0x47, 1, 2],
                "ledger.csv is a picture; ask the accounting program for a workbook or a CSV file instead."
            },
            {
                "quote.csv",
                Encoding.UTF8.GetBytes(Headings + "AB01,Invoice,\"T-1,2026-09-01,2026-10-01,10.00,a@b.example\n"),
                "quote.csv, row 2: a quotation mark lacks its second one, so that the rest of the file would be one cell."
            },
            {
                "wide.csv",
                Encoding.UTF8.GetBytes(new string(',', 6000)),
                "wide.csv, row 1 has 6001 columns; the most that are read is 5000."
            },
            {
                "cell.csv",
                Encoding.UTF8.GetBytes(Headings + "AB01," + new string('x', 10_000_000)),
                "cell.csv, row 2 is longer than 1000000 bytes; a quotation mark may lack its second one."
            },
        };

    [Theory]
    [MemberData(nameof(Files))]
    public async Task A_file_that_is_no_ledger_is_refused_with_what_it_is_and_what_to_do(string name, byte[] content, string says)
    {
        using var desk = await Desk.AtAsync(rendal);
        var answer = await desk.UploadAsync(name, content);
        answer = answer.IsSuccessStatusCode
            ? await desk.Browser.GetAsync($"{desk.Api}/intakes/{(await answer.JsonAsync()).Id()}", TestContext.Current.CancellationToken)
            : answer;
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(says, await answer.DetailAsync());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await desk.Browser.GetAsync($"{desk.Api}/ledger", TestContext.Current.CancellationToken)).StatusCode
        );
    }

    [Fact]
    public async Task A_file_without_headings_is_shown_and_says_what_it_lacks()
    {
        using var desk = await Desk.AtAsync(rendal);
        var view = await desk.LookAsync(
            (await (await desk.UploadAsync("notes.csv", Encoding.UTF8.GetBytes("just,some\nwords,here\n"))).JsonAsync()).Id()
        );
        Assert.Equal("No row of headings was found. Say which row has them.", Assert.Single(view.List("lacks")).GetString());
        Assert.Equal(2, view.GetProperty("lastRow").GetInt32());
        var kept = await desk.Browser.PostAsync($"{desk.Api}/intakes/{view.Id()}/keep", null, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, kept.StatusCode);
    }

    [Fact]
    public async Task A_path_in_a_file_name_leads_nowhere()
    {
        using var desk = await Desk.AtAsync(rendal);
        var view = await desk.LookAsync(
            (
                await (
                    await desk.UploadAsync(
                        "../../etc/ledger.csv",
                        Encoding.UTF8.GetBytes(Headings + "AB01,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@b.example\n")
                    )
                ).JsonAsync()
            ).Id()
        );
        Assert.Equal("ledger.csv", view.Text("file"));
    }
}
