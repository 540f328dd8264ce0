using System.Text;
using Rendal.Files.Csv;

namespace Rendal.Files.Tests.Csv;

public class CsvTextTests
{
    [Theory]
    [InlineData("=cmd()", "'=cmd()")]
    [InlineData("@x", "'@x")]
    [InlineData("+44 1632", "'+44 1632")]
    [InlineData("-12.00", "-12.00")]
    [InlineData("\t=1", "'\t=1")]
    [InlineData("Inn", "Inn")]
    [InlineData("", "")]
    public void A_cell_cannot_become_a_formula(string cell, string written) => Assert.Equal(written, CsvText.Harmless(cell));

    [Fact]
    public async Task Quotes_and_line_breaks_are_kept()
    {
        var stream = new MemoryStream();
        await CsvText.WriteAsync(stream, Rows(), TestContext.Current.CancellationToken);
        Assert.Equal("\uFEFFa,\"b \"\"c\"\"\nd\"\r\n", Encoding.UTF8.GetString(stream.ToArray()));

        static async IAsyncEnumerable<IReadOnlyList<string>> Rows()
        {
            await Task.CompletedTask;
            yield return ["a", "b \"c\"\nd"];
        }
    }
}
