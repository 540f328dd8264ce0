using System.IO.Compression;
using System.Text;

namespace Rendal.Trials.Hostile;

/// <summary>Makes packed files of single parts.</summary>
internal static class Packed
{
    private const string Spreadsheet = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    /// <summary>An XLSX whose sheet is this XML, with the further parts.</summary>
    public static byte[] Xlsx(string sheetData, params (string Name, string Content)[] more) =>
        Xlsx(write => write($"<worksheet xmlns=\"{Spreadsheet}\">{sheetData}</worksheet>"), 1, more);

    /// <summary>An XLSX whose sheets are written piece by piece.</summary>
    public static byte[] Xlsx(Action<Action<string>> sheet, int sheets, params (string Name, string Content)[] more) =>
        Zip(put =>
        {
            put("[Content_Types].xml", w =>
                w(
                    """<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/></Types>"""
                )
            );
            put("xl/workbook.xml", w =>
            {
                w(
                    $"<workbook xmlns=\"{Spreadsheet}\" xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"><sheets>"
                );
                for (var i = 1; i <= sheets; i++)
                {
                    w($"<sheet name=\"S{i}\" sheetId=\"{i}\" r:id=\"r{i}\"/>");
                }

                w("</sheets></workbook>");
            });
            put("xl/_rels/workbook.xml.rels", w =>
            {
                w("""<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">""");
                for (var i = 1; i <= sheets; i++)
                {
                    w(
                        $"<Relationship Id=\"r{i}\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet1.xml\"/>"
                    );
                }

                foreach (var (name, _) in more)
                {
                    var type = Path.GetFileNameWithoutExtension(name);
                    w(
                        $"<Relationship Id=\"{type}\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/{type}\" Target=\"{name[3..]}\"/>"
                    );
                }

                w("</Relationships>");
            });
            put("xl/worksheets/sheet1.xml", sheet);
            foreach (var (name, content) in more)
            {
                put(name, w => w(content));
            }
        });

    /// <summary>An ODS whose sheets are this XML.</summary>
    public static byte[] Ods(string tables) =>
        Zip(put =>
        {
            put("mimetype", w => w("application/vnd.oasis.opendocument.spreadsheet"));
            put("content.xml", w =>
                w(
                    $"""<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet>{tables}</office:spreadsheet></office:body></office:document-content>"""
                )
            );
        });

    /// <summary>A DOCX whose body is this XML.</summary>
    public static byte[] Docx(string body, int otherParts = 0) =>
        Zip(put =>
        {
            put("[Content_Types].xml", w =>
                w(
                    """<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>"""
                )
            );
            put("_rels/.rels", w =>
                w(
                    """<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>"""
                )
            );
            put("word/document.xml", w =>
                w(
                    $"<w:document xmlns:w=\"http://schemas.openxmlformats.org/wordprocessingml/2006/main\"><w:body>{body}</w:body></w:document>"
                )
            );
            for (var i = 0; i < otherParts; i++)
            {
                put($"word/other{i}.xml", w => w("<a/>"));
            }
        });

    /// <summary>A text so many times over.</summary>
    public static string Times(this string text, int times) => new StringBuilder(text.Length * times).Insert(0, text, times).ToString();

    private static byte[] Zip(Action<Action<string, Action<Action<string>>>> fill)
    {
        using var packed = new MemoryStream();
        using (var zip = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            fill(
                (name, write) =>
                {
                    using var stream = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                    write(text => stream.Write(Encoding.UTF8.GetBytes(text)));
                }
            );
        }

        return packed.ToArray();
    }
}
