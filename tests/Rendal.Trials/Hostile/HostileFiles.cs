using System.Buffers.Binary;
using System.Globalization;
using System.Text;
using static Rendal.Trials.Hostile.HostilePlace;

namespace Rendal.Trials.Hostile;

/// <summary>All files that are made to do harm.</summary>
internal static class HostileFiles
{
    private const string Headings = "Code,Name,Kind,Number,Date,Due,Outstanding,E-mail\n";
    private const string Row = "AB01,Inn at Kell,Invoice,T-1,2026-09-01,2026-10-01,10.00,a@inn.example\n";
    private const string Damaged = "is damaged or cut short";
    private const string SheetOver = "which is the most that is worked through. Save what you need of it as CSV, and take that in.";
    private const string MarkupOver = "which is the most that is worked through. Shorten it, or take formatting out.";

    public static IReadOnlyList<HostileFile> All { get; } =
    [
        // Workbooks.
        new("a string of 900 kB in 2,000 cells", Ledger, "a.xlsx", "the cell holds 900000 characters", () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(2_000, "<c t=\"s\"><v>0</v></c>")}</sheetData>",
                (
                    "xl/sharedStrings.xml",
                    $"<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><si><t>{"x".Times(900_000)}</t></si></sst>"
                )
            )
        ),
        new("a string of 30 kB in 20,000 cells", Ledger, "a.xlsx", "has more than 250,000,000 characters, " + SheetOver, () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(20_000, "<c t=\"s\"><v>0</v></c>")}</sheetData>",
                (
                    "xl/sharedStrings.xml",
                    $"<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><si><t>{"x".Times(30_000)}</t></si></sst>"
                )
            )
        ),
        new("a number format of 500,000 noughts", Ledger, "a.xlsx", null, () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(2_000, "<c s=\"0\"><v>7</v></c>")}</sheetData>",
                (
                    "xl/styles.xml",
                    "<styleSheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><numFmts "
                        + $"count=\"1\"><numFmt numFmtId=\"200\" formatCode=\"{"0".Times(500_000)}\"/></numFmts><cellXfs "
                        + "count=\"1\"><xf numFmtId=\"200\" applyNumberFormat=\"1\"/></cellXfs></styleSheet>"
                )
            )
        ),
        new("a row with the number 2,147,483,647", Ledger, "a.xlsx", "has a row beyond 1048576", () =>
            Packed.Xlsx("<sheetData><row r=\"2147483647\"><c><v>1</v></c></row></sheetData>")
        ),
        new("a row just beyond the last", Ledger, "a.xlsx", "has a row beyond 1048576", () =>
            Packed.Xlsx("<sheetData><row r=\"1\"><c><v>1</v></c></row><row r=\"1048577\"><c><v>1</v></c></row></sheetData>")
        ),
        new("a cell in a column that no sheet has", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx("<sheetData><row r=\"1\"><c r=\"ZZZZZZZ1\"><v>1</v></c></row></sheetData>")
        ),
        new("6,000 columns", Ledger, "a.xlsx", "columns; the most that are read is 5000", () =>
            Packed.Xlsx($"<sheetData><row r=\"1\">{"<c><v>1</v></c>".Times(6_000)}</row></sheetData>")
        ),
        new("elements nested 200,000 deep in a sheet", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx($"<sheetData><row r=\"1\">{"<c>".Times(200_000)}")
        ),
        new("entities of entities in a sheet", Ledger, "a.xlsx", Damaged, () =>
            Packed.Xlsx(
                w =>
                    w(
                        "<!DOCTYPE a [<!ENTITY a "
                            + $"\"{"x".Times(1_000)}\">{Entities("a", "b")}{Entities("b", "c")}{Entities("c", "d")}]><worksheet "
                            + "xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData><row><c "
                            + "t=\"inlineStr\"><is><t>&d;</t></is></c></row></sheetData></worksheet>"
                    ),
                1
            )
        ),
        new("a sheet that unpacks to two gigabytes", Ledger, "a.xlsx", "would unpack to more than 1024 MB", () =>
            Packed.Xlsx(w => Repeat(w, " ".Times(1 << 20), 2_000), 1)
        ),
        new("texts that unpack to 300 MB", Ledger, "a.xlsx", "would unpack to more than 256 MB", () =>
            Packed.Xlsx("<sheetData/>", ("xl/sharedStrings.xml", " ".Times(300_000_000)))
        ),
        new("2,000 sheets", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx(
                w =>
                    w(
                        "<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData><row "
                            + "r=\"1\"><c><v>1</v></c></row></sheetData></worksheet>"
                    ),
                2_000
            )
        ),
        new("100,000 number formats", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(5, "<c s=\"0\"><v>7</v></c>")}</sheetData>",
                (
                    "xl/styles.xml",
                    "<styleSheet "
                        + $"xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><numFmts>{string.Concat(Enumerable.Range(200, 100_000).Select(i => $"<numFmt numFmtId=\"{i}\" formatCode=\"0.00\"/>"))}</numFmts><cellXfs><xf "
                        + "numFmtId=\"200\"/></cellXfs></styleSheet>"
                )
            )
        ),
        new("a text that is not there", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(3, "<c t=\"s\"><v>999999999</v></c>")}</sheetData>",
                ("xl/sharedStrings.xml", "<sst xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"/>")
            )
        ),
        new("cells joined 100,000 times", Ledger, "a.xlsx", "", () =>
            Packed.Xlsx(
                $"<sheetData>{Rows(3, "<c><v>1</v></c>")}</sheetData><mergeCells>{"<mergeCell ref=\"A1:XFD1048576\"/>".Times(100_000)}</mergeCells>"
            )
        ),
        new("a filled row 16,000,000 times over", Ledger, "a.ods", "times over; a filled row is read 10000 times at the most", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row table:number-rows-repeated=\"16000000\"><table:table-cell "
                    + "office:value-type=\"float\" office:value=\"1\"/></table:table-row></table:table>"
            )
        ),
        new("a filled row 10,000 times over with 5,000 columns", Ledger, "a.ods", "has more than 20,000,000 cells, " + SheetOver, () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row table:number-rows-repeated=\"10000\"><table:table-cell "
                    + "office:value-type=\"float\" office:value=\"1\" "
                    + "table:number-columns-repeated=\"5000\"/></table:table-row></table:table>"
            )
        ),
        new("2,147,483,647 blank rows and one filled", Ledger, "a.ods", "and none beyond 1048576", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row "
                    + "table:number-rows-repeated=\"2147483647\"><table:table-cell/></table:table-row><table:table-row><table:table-cell "
                    + "office:value-type=\"float\" office:value=\"1\"/></table:table-row></table:table>"
            )
        ),
        new("a cell 16,384 times over", Ledger, "a.ods", "more than 5000 columns", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row><table:table-cell office:value-type=\"float\" "
                    + "office:value=\"1\" table:number-columns-repeated=\"16384\"/></table:table-row></table:table>"
            )
        ),
        new("spaces multiplied by 2,000,000,000", Ledger, "a.ods", "", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row><table:table-cell "
                    + "office:value-type=\"string\"><text:p>a<text:s "
                    + "text:c=\"2000000000\"/>b</text:p></table:table-cell></table:table-row></table:table>"
            )
        ),
        new("spans nested 100,000 deep in a cell", Ledger, "a.ods", "", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row><table:table-cell "
                    + $"office:value-type=\"string\"><text:p>{"<text:span>".Times(100_000)}a{"</text:span>".Times(100_000)}</text:p></table:table-cell></table:table-row></table:table>"
            )
        ),
        new("10,000 tables", Ledger, "a.ods", "", () =>
            Packed.Ods(
                "<table:table table:name=\"S\"><table:table-row><table:table-cell office:value-type=\"float\" office:value=\"1\"/></table:table-row></table:table>".Times(
                    10_000
                )
            )
        ),
        new("a packed file of nothing", Ledger, "a.xlsx", "", () =>
            [0x50, 0x4B, 5, 6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0]
        ),
        // Text files.
        new("10 MB in one cell", Ledger, "a.csv", "is longer than 1000000 bytes", () => Text(Headings + "AB01," + "x".Times(10_000_000))),
        new("a quotation mark that never ends, and 20 MB after it", Ledger, "a.csv", "a quotation mark", () =>
            Text(Headings + "AB01,\"" + Row.Times(280_000))
        ),
        new("5,001 columns", Ledger, "a.csv", "the most that are read is 5000", () => Text(",".Times(5_000) + "\n")),
        new("4,000 headings of 200 characters", Ledger, "a.csv", "", () =>
            Text(string.Join(',', Enumerable.Range(0, 4_000).Select(i => $"{i:0000}{"h".Times(196)}")) + "\n" + "1,".Times(3_999) + "1\n")
        ),
        new(
            "5,000,000 blank lines",
            Ledger,
            "a.csv",
            "a.csv has more than 3,000,000 rows, which is the most that is worked through. Leave out",
            () => Text(Headings + "\n".Times(5_000_000) + Row)
        ),
        new("a number of 1,000 characters without a space", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("T-1", "9".Times(1_000), StringComparison.Ordinal))
        ),
        new("a number of 9,000 characters without a space", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("T-1", "9".Times(9_000), StringComparison.Ordinal))
        ),
        new("a code of 5,000 characters", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("AB01", "A".Times(5_000), StringComparison.Ordinal))
        ),
        new("a name of 30,000 characters", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("Inn at Kell", "W".Times(30_000), StringComparison.Ordinal))
        ),
        new("an address of 30,000 @", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("a@inn.example", "@".Times(30_000), StringComparison.Ordinal))
        ),
        new("10,000 addresses in one cell", Customers, "a.csv", null, () =>
            Text("Code,Name,E-mail\nAB01,Inn," + string.Join(';', Enumerable.Range(0, 3_000).Select(i => $"a{i}@b.example")) + "\n")
        ),
        new("dates at the end of the calendar", Ledger, "a.csv", null, () =>
            Text(
                Headings
                    + Row.Replace("2026-10-01", "", StringComparison.Ordinal).Replace("2026-09-01", "9999-12-31", StringComparison.Ordinal)
            )
        ),
        new("an amount of 400 digits", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("10.00", "9".Times(400), StringComparison.Ordinal))
        ),
        new("the largest amount there is, many times", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("10.00", "79228162514264337593543950335", StringComparison.Ordinal).Times(50))
        ),
        new("terms of 2,147,483,647 days", Customers, "a.csv", null, () =>
            Text("Code,Name,Terms\nAB01,Inn,2147483647 days\nBE02,Bell,end of month + 2147483647\n")
        ),
        new("NUL in every cell", Ledger, "a.csv", "", () =>
            Text(Headings + Row.Replace("Inn", "I\0n", StringComparison.Ordinal).Times(10))
        ),
        new("half characters in UTF-16", Ledger, "a.csv", "", () =>
            [0xFF, 0xFE, .. Encoding.Unicode.GetBytes(Headings), 0x00, 0xD8, 0x41]
        ),
        new("a chain of 5,000 head offices", Customers, "a.csv", null, () =>
            Text("Code,Name,Head office\n" + string.Concat(Enumerable.Range(0, 5_000).Select(i => $"H{i:0000},Inn {i},H{i + 1:0000}\n")))
        ),
        new("100,000 rows that are each no row", Ledger, "a.csv", null, () =>
            Text(Headings + ",,Nonsense,,31/02/2026,never,one,@\n".Times(100_000))
        ),
        new("formulas in every cell", Ledger, "a.csv", null, () =>
            Text(Headings + Row.Replace("Inn at Kell", "=cmd|' /C calc'!A0", StringComparison.Ordinal).Times(20))
        ),
        // Letters.
        new("20,000 content controls in one another", Letter, "a.docx", "has more than 200 levels", () =>
            Packed.Docx("<w:sdt><w:sdtContent>".Times(20_000) + "</w:sdtContent></w:sdt>".Times(20_000))
        ),
        new("300,000 paragraphs", Letter, "a.docx", "has more than 200,000 elements", () => Packed.Docx("<w:p/>".Times(300_000))),
        new("3,000 parts", Letter, "a.docx", "unpacks to more than a letter can be", () => Packed.Docx("<w:p/>", 3_000)),
        new("20,000 pairs of braces in a paragraph", Letter, "a.docx", "", () =>
            Packed.Docx($"<w:p><w:r><w:t>{"{{ x }} ".Times(20_000)}</w:t></w:r></w:p>")
        ),
        new("5,000 conditions that never end", Letter, "a.docx", "", () =>
            Packed.Docx("<w:p><w:r><w:t>{{ if overdue }}</w:t></w:r></w:p>".Times(5_000))
        ),
        // Words.
        new("2,000 conditions in one another", Wording, "", MarkupOver, () => Text("<span data-when=\"overdue\">".Times(2_000))),
        new("3,000 slots", Wording, "", "", () => Text("<span data-slot=\"customer.name\"></span>".Times(3_000))),
        new("20,000 blocks in one another", Wording, "", MarkupOver, () => Text("<div>".Times(20_000))),
        new("2,000 bold words that are never closed", Wording, "", MarkupOver, () => Text("<p><b>a".Times(2_000))),
        new("190,000 opening brackets", Wording, "", MarkupOver, () => Text("<".Times(190_000))),
        new("10,000 declarations of style", Wording, "", "", () => Text($"<p style=\"{"color:red;".Times(10_000)}\">a</p>")),
        new("braces and nothing else", Wording, "", "", () =>
            Text("<p>" + "{".Times(50_000) + "<span data-slot=\"customer.name\"></span>" + "}".Times(50_000) + "</p>")
        ),
        // Mail.
        new("a header of 20 MB", Returned, "a.eml", "A header of the message has more than 1,000,000 characters", () =>
            Text("From: a@inn.example\r\nSubject: x\r\nX-Long: " + "word \r\n ".Times(2_500_000) + "\r\n\r\nhello\r\n")
        ),
        new("a header of 20 MB in a part", Returned, "a.eml", "A header of the message has more than 1,000,000 characters", () =>
            Text(
                "From: a@inn.example\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain; name=\""
                    + "x\r\n ".Times(5_000_000)
                    + "\"\r\n\r\nhello\r\n"
            )
        ),
        new("parts within parts, 10,000 deep", Returned, "a.eml", null, () =>
            Text("From: a@inn.example\r\nSubject: x\r\n" + Nested(10_000))
        ),
        new("2,000,000 parts", Returned, "a.eml", "The message has more than 10,000 parts", () =>
            Text(
                "From: a@inn.example\r\nSubject: x\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n"
                    + "--b\r\n\r\na\r\n".Times(2_000_000)
                    + "--b--\r\n"
            )
        ),
        new("HTML nested 100,000 deep", Returned, "a.eml", null, () =>
            Text("From: mailer-daemon@mx.example\r\nSubject: Undelivered\r\nContent-Type: text/html\r\n\r\n" + "<div>".Times(100_000))
        ),
        new("1,000,000 letters that could be an address", Returned, "a.eml", null, () =>
            Text("From: mailer-daemon@mx.example\r\nSubject: Undelivered\r\n\r\n" + "a".Times(1_000_000))
        ),
        // Pictures.
        new("a picture of 30,000 by 30,000 points", Logo, "", "has 30000 by 30000 points", Picture),
    ];

    private static byte[] Text(string text) => Encoding.UTF8.GetBytes(text);

    private static string Rows(int count, string cells) =>
        string.Concat(
            Enumerable.Range(1, count).Select(i => string.Create(CultureInfo.InvariantCulture, $"<row r=\"{i}\">{cells}</row>"))
        );

    private static string Entities(string of, string name) => $"<!ENTITY {name} \"{$"&{of};".Times(100)}\">";

    private static void Repeat(Action<string> write, string piece, int times)
    {
        for (var i = 0; i < times; i++)
        {
            write(piece);
        }
    }

    private static string Nested(int levels) =>
        string.Concat(
            Enumerable
                .Range(0, levels)
                .Select(i =>
                    string.Create(CultureInfo.InvariantCulture, $"Content-Type: multipart/mixed; boundary=b{i}\r\n\r\n--b{i}\r\n")
                )
        ) + "\r\nhello\r\n";

    /// <summary>The head of a PNG (ISO/IEC 15948) that says how large it is, and nothing of it.</summary>
    private static byte[] Picture()
    {
        byte[] head =
        [
            0x89,
            0x50,
            0x4E,
            0x47,
            0x0D,
            0x0A,
            0x1A,
            0x0A,
            0,
            0,
            0,
            13,
            (byte)'I',
            (byte)'H',
            (byte)'D',
            (byte)'R',
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            8,
            6,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
        ];
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(16), 30_000);
        BinaryPrimitives.WriteInt32BigEndian(head.AsSpan(20), 30_000);
        BinaryPrimitives.WriteUInt32BigEndian(head.AsSpan(29), System.IO.Hashing.Crc32.HashToUInt32(head.AsSpan(12, 17)));
        return [.. head, 0, 0, 0, 0, (byte)'I', (byte)'D', (byte)'A', (byte)'T', 0x35, 0xAF, 0x06, 0x1E];
    }
}
