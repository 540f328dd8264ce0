using System.IO.Compression;
using System.Text;
using Rendal.Core.Intake;

namespace Rendal.Files.Tests.Awkward;

/// <summary>Files that are made to use up time or memory.</summary>
public class OversizeTests
{
    private const string Sheet = """<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>""";

    [Fact]
    public void A_workbook_that_would_unpack_to_gigabytes_is_refused_before_it_is_unpacked()
    {
        var bomb = Xlsx(sheet =>
        {
            sheet.Write(Encoding.ASCII.GetBytes(Sheet));
            var blank = Encoding.ASCII.GetBytes(new string(' ', 1 << 20));
            for (var i = 0; i < 1_100; i++)
            {
                sheet.Write(blank);
            }
        });
        Assert.InRange(bomb.Length, 1, 4 << 20);
        Assert.Contains("would unpack to more than 1024 MB", Refusal("bomb.xlsx", bomb), StringComparison.Ordinal);
    }

    [Fact]
    public void A_workbook_that_lies_about_its_size_is_refused()
    {
        var honest = Xlsx(sheet => sheet.Write(Encoding.ASCII.GetBytes(Sheet + Rows(2_000) + "</sheetData></worksheet>")));
        using var zip = new ZipArchive(new MemoryStream(honest));
        var size = BitConverter.GetBytes((int)zip.GetEntry("xl/worksheets/sheet1.xml")!.Length);
        for (var at = honest.AsSpan().IndexOf(size); at >= 0; at = honest.AsSpan().IndexOf(size))
        {
            BitConverter.GetBytes(1_000).CopyTo(honest, at);
        }

        Assert.Contains("is damaged or cut short", Refusal("lie.xlsx", honest), StringComparison.Ordinal);
    }

    [Fact]
    public void Ten_megabytes_in_one_cell_are_refused_with_the_place()
    {
        var xlsx = Xlsx(sheet =>
            sheet.Write(
                Encoding.ASCII.GetBytes(
                    $"""{Sheet}<row r="3"><c r="B3" t="inlineStr"><is><t>{new string('x', 10_000_000)}</t></is></c></row></sheetData></worksheet>"""
                )
            )
        );
        Assert.Contains(
            "sheet “S”, row 3, column 2: the cell holds 10000000 characters",
            Refusal("cell.xlsx", xlsx),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "row 2 is longer than",
            Refusal("cell.csv", Encoding.ASCII.GetBytes("a,b\n" + new string('x', 10_000_000))),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void More_than_five_thousand_columns_are_refused_with_the_row()
    {
        var cells = string.Concat(Enumerable.Range(0, 6_000).Select(_ => "<c><v>1</v></c>"));
        Assert.Contains(
            "columns; the most that are read is 5000",
            Refusal(
                "wide.xlsx",
                Xlsx(sheet => sheet.Write(Encoding.ASCII.GetBytes($"{Sheet}<row r=\"1\">{cells}</row></sheetData></worksheet>")))
            ),
            StringComparison.Ordinal
        );
        var ods = Ods(
            """<table:table-row><table:table-cell office:value-type="float" office:value="1" table:number-columns-repeated="16384"/></table:table-row>"""
        );
        Assert.Contains("more than 5000 columns", Refusal("wide.ods", ods), StringComparison.Ordinal);
    }

    [Fact]
    public void Blank_rows_and_columns_by_the_million_cost_nothing()
    {
        var ods = Ods(
            """
            <table:table-row table:number-rows-repeated="1000000"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>
            <table:table-row><table:table-cell office:value-type="string"><text:p>Account</text:p></table:table-cell>
                <table:table-cell office:value-type="string"><text:p>Balance</text:p></table:table-cell></table:table-row>
            """
        );
        Assert.Equal(1_000_001, Assert.Single(TableFile.Open("far.ods", () => new MemoryStream(ods), FileOpening.Unsaid).Rows).Number);
    }

    [Fact]
    public void Spaces_in_an_ods_cell_cannot_be_multiplied_without_end()
    {
        var ods = Ods(
            """<table:table-row><table:table-cell office:value-type="string"><text:p>a<text:s text:c="2000000000"/>b</text:p></table:table-cell></table:table-row>"""
        );
        Assert.Equal(
            1_002,
            Assert.Single(TableFile.Open("spaces.ods", () => new MemoryStream(ods), FileOpening.Unsaid).Rows)[0].Text.Length
        );
    }

    private static string Refusal(string name, byte[] content) =>
        Assert.Throws<FileRefused>(() => TableFile.Open(name, () => new MemoryStream(content), FileOpening.Unsaid).Rows.Count()).Message;

    private static string Rows(int count) =>
        string.Concat(Enumerable.Range(1, count).Select(i => $"<row r=\"{i}\"><c r=\"A{i}\"><v>{i}</v></c></row>"));

    private static byte[] Xlsx(Action<Stream> sheet)
    {
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            Put(
                zip,
                "[Content_Types].xml",
                """<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>"""
            );
            Put(
                zip,
                "xl/workbook.xml",
                """<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>"""
            );
            Put(
                zip,
                "xl/_rels/workbook.xml.rels",
                """<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>"""
            );
            using var stream = zip.CreateEntry("xl/worksheets/sheet1.xml").Open();
            sheet(stream);
        }

        return packed.ToArray();
    }

    private static byte[] Ods(string rows)
    {
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            Put(zip, "mimetype", "application/vnd.oasis.opendocument.spreadsheet");
            Put(
                zip,
                "content.xml",
                $"""<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet><table:table table:name="S">{rows}</table:table></office:spreadsheet></office:body></office:document-content>"""
            );
        }

        return packed.ToArray();
    }

    private static void Put(ZipArchive zip, string name, string text)
    {
        using var stream = zip.CreateEntry(name).Open();
        stream.Write(Encoding.UTF8.GetBytes(text));
    }
}
