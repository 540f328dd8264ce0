using System.Text;
using Rendal.Core.Intake;

namespace Rendal.Files.Tests.Csv;

public class CsvLedgerTests
{
    [Fact]
    public void Rows_are_numbered_as_a_spreadsheet_shows_them()
    {
        var rows = CsvLedgerOf("title\n\na,b\n\"line\nbreak\",2\nlast,3\n");
        Assert.Equal([1, 2, 3, 4, 5], rows.Select(r => r.Number));
        Assert.Equal("line\nbreak", rows[3][0].Text);
        Assert.Equal("last", rows[4][0].Text);
    }

    [Theory]
    [InlineData("a,b,c\n1,2,3\n")]
    [InlineData("a;b;c\n1,5;2;3\n")]
    [InlineData("a\tb\tc\n1\t2\t3\n")]
    [InlineData("a|b|c\n1|2|3\n")]
    [InlineData("Title, with comma\na;b;c\n1;2;3\n1;2;3\n")]
    [InlineData("\"x;y;z;w\",b,c\n1,2,3\n")]
    public void The_delimiter_is_found(string text) => Assert.Equal(3, CsvLedgerOf(text)[^1].Cells.Length);

    [Fact]
    public void Every_encoding_of_the_trade_is_read()
    {
        const string text = "Name,Ort\nMüller & Łoś,Košice €\n";
        foreach (
            var encoding in new Encoding[]
            {
                new UTF8Encoding(false),
                new UTF8Encoding(true),
                Encoding.Unicode,
                Encoding.BigEndianUnicode,
                new UnicodeEncoding(false, false),
            }
        )
        {
            byte[] bytes = [.. encoding.GetPreamble(), .. encoding.GetBytes(text)];
            Assert.Equal("Müller & Łoś", Read(bytes)[1][0].Text);
            Assert.Equal("Košice €", Read(bytes)[1][1].Text);
        }

        Assert.Equal("Müller €", Read([.. "a,b\nM"u8, 0xFC, .. "ller "u8, 0x80, .. ",x\n"u8])[1][0].Text);
    }

    [Fact]
    public void White_space_and_composed_letters_are_folded()
    {
        Assert.Equal("Café Łódź", CsvLedgerOf("\u00A0 Cafe\u0301\u00A0Łódź \u202F,b\n")[0][0].Text);
    }

    [Theory]
    [InlineData("", "is empty")]
    [InlineData("  \n \n", "white space")]
    [InlineData("%PDF-1.7 x", "a PDF")]
    [InlineData("PK\u0003\u0004xx", "damaged")]
    public void What_is_no_ledger_is_refused_by_name(string content, string says)
    {
        var refused = Assert.Throws<FileRefused>(() => Read(Encoding.Latin1.GetBytes(content)));
        Assert.StartsWith("ledger.csv", refused.Message);
        Assert.Contains(says, refused.Message);
    }

    [Fact]
    public void A_quote_that_never_ends_is_refused_with_its_row()
    {
        var refused = Assert.Throws<FileRefused>(() => CsvLedgerOf("a,b\n1,2\n3,\"" + new string('x', 200_000)));
        Assert.Contains("row 3", refused.Message);
        Assert.Contains("quotation mark", refused.Message);
    }

    [Fact]
    public void Too_many_columns_are_refused_with_their_number()
    {
        Assert.Contains("5001 columns", Assert.Throws<FileRefused>(() => CsvLedgerOf(new string(',', 5_000) + "\n")).Message);
    }

    private static List<FileRow> CsvLedgerOf(string text) => Read(Encoding.UTF8.GetBytes(text));

    private static List<FileRow> Read(byte[] bytes) =>
        [.. TableFile.Open("ledger.csv", () => new MemoryStream(bytes), FileOpening.Unsaid).Rows];
}
