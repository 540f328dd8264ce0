using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Xml;
using Rendal.Core.Budgets;
using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>
/// An ODS workbook (ISO/IEC 26300), read as it streams by. Values are taken from the attributes that hold them, never from the text that
/// was displayed.
/// </summary>
internal sealed class OdsWorkbook : Workbook
{
    private const string Office = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
    private const string Table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private const string Text = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";
    private const string Calc = "urn:org:documentfoundation:names:experimental:calc:xmlns:calcext:1.0";
    private const string Style = "urn:oasis:names:tc:opendocument:xmlns:style:1.0";

    // Programs write alike rows below each other as one; thousands of them are blank ones.
    private const int MostRepeated = 10_000;

    private readonly string name;
    private readonly PackedFile packed;

    /// <summary>Opens an ODS workbook.</summary>
    /// <param name="name">Its name, for messages.</param>
    /// <param name="open">Opens it anew.</param>
    /// <exception cref="FileRefused">It is damaged or under a password.</exception>
    public OdsWorkbook(string name, Func<Stream> open)
    {
        this.name = name;
        packed = new PackedFile(name, open);
        if (packed.Text("META-INF/manifest.xml")?.Contains("encryption-data", StringComparison.Ordinal) == true)
        {
            throw FileSignature.UnderPassword(name);
        }
    }

    public override void Dispose() => packed.Dispose();

    public override IEnumerable<Sheet> Sheets()
    {
        var content = packed.Open("content.xml")
            ?? throw FileSignature.Damaged(name, new InvalidDataException("There is no content.xml."));
        using var xml = XmlReader.Create(content, new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CloseInput = true });
        var hidden = new HashSet<string>(StringComparer.Ordinal);
        var style = "";
        while (Read(xml))
        {
            if (xml.NodeType != XmlNodeType.Element)
            {
                continue;
            }

            if (xml.NamespaceURI == Style && xml.LocalName == "style")
            {
                style = xml.GetAttribute("name", Style) ?? "";
            }
            else if (xml.NamespaceURI == Style && xml.LocalName == "table-properties" && xml.GetAttribute("display", Table) == "false")
            {
                hidden.Add(style);
            }
            else if (xml.NamespaceURI == Table && xml.LocalName == "table" && !xml.IsEmptyElement)
            {
                var depth = xml.Depth;
                var sheet = xml.GetAttribute("name", Table) ?? "";
                var hiddenColumns = new SortedSet<int>();
                yield return new Sheet(
                    new SheetSeen(sheet, hidden.Contains(xml.GetAttribute("style-name", Table) ?? "")),
                    Rows(xml, depth, sheet, hiddenColumns),
                    hiddenColumns
                );
                while (!(xml.NodeType == XmlNodeType.EndElement && xml.Depth == depth) && Read(xml))
                {
                    // To the end of the sheet, whose rows were perhaps not gone through.
                }
            }
        }
    }

    private IEnumerable<FileRow> Rows(XmlReader xml, int depth, string sheet, SortedSet<int> hiddenColumns)
    {
        var number = 1;
        var columns = 0;
        var merges = new MergedCells();
        while (Read(xml) && !(xml.NodeType == XmlNodeType.EndElement && xml.Depth == depth))
        {
            if (xml.NodeType == XmlNodeType.Element && xml.NamespaceURI == Table && xml.LocalName == "table-column")
            {
                var many = Math.Min(Times(xml, "number-columns-repeated"), TableFile.MostColumns);
                if (xml.GetAttribute("visibility", Table) is "collapse" or "filter")
                {
                    hiddenColumns.UnionWith(Enumerable.Range(columns, many));
                }

                columns = Math.Min(columns + many, TableFile.MostColumns);
            }

            if (xml.NodeType != XmlNodeType.Element || xml.NamespaceURI != Table || xml.LocalName != "table-row")
            {
                continue;
            }

            var times = Times(xml, "number-rows-repeated");
            var isHidden = xml.GetAttribute("visibility", Table) is "collapse" or "filter";
            var cells = merges.Fill(number, Cells(xml, sheet, number, merges), times);
            if (cells.Length > 0 && (times > MostRepeated || number + times > Limits.Sheet.Most(Cost.Rows)))
            {
                throw new FileRefused(
                    $"{name}, sheet “{sheet}” has row {number} {times} times over; a filled row is read {MostRepeated} times "
                        + $"at the most, and none beyond {Limits.Sheet.Most(Cost.Rows)}. Save it anew in your spreadsheet program."
                );
            }

            // Known before the first of them is read.
            new Budget($"{name}, sheet “{sheet}”,", Limits.Sheet).AtMost(Cost.Cells, (long)times * cells.Length);
            for (var i = 0; i < times && cells.Length > 0; i++)
            {
                yield return new FileRow(number + i, cells, isHidden);
            }

            number += times;
        }
    }

    private ImmutableArray<Cell> Cells(XmlReader xml, string sheet, int row, MergedCells merges)
    {
        var cells = new List<Cell>();
        if (xml.IsEmptyElement)
        {
            return [];
        }

        var depth = xml.Depth;
        var blanks = 0;
        while (Read(xml) && !(xml.NodeType == XmlNodeType.EndElement && xml.Depth == depth))
        {
            if (
                xml.NodeType != XmlNodeType.Element
                || xml.NamespaceURI != Table
                || xml.LocalName is not ("table-cell" or "covered-table-cell")
            )
            {
                continue;
            }

            var times = Times(xml, "number-columns-repeated");
            var rows = Times(xml, "number-rows-spanned");
            var cell = CellAt(xml, sheet, row, cells.Count + blanks + 1);
            if (rows > 1 && !cell.IsEmpty)
            {
                merges.Begin(cells.Count + blanks, cell, rows - 1);
            }

            if (cell.IsEmpty)
            {
                // Blank cells count only where a filled one follows: rows end in thousands of them.
                blanks += times;
                continue;
            }

            if (cells.Count + blanks + times > TableFile.MostColumns)
            {
                throw new FileRefused(
                    $"{name}, sheet “{sheet}”, row {row} has more than {TableFile.MostColumns} columns; that is the most that are read."
                );
            }

            cells.AddRange(Enumerable.Repeat(Cell.Empty, blanks));
            cells.AddRange(Enumerable.Repeat(cell, times));
            blanks = 0;
        }

        return [.. cells];
    }

    private Cell CellAt(XmlReader xml, string sheet, int row, int column)
    {
        var covered = xml.LocalName == "covered-table-cell";
        var type = xml.GetAttribute("value-type", Office);
        var value = xml.GetAttribute("value", Office);
        var date = xml.GetAttribute("date-value", Office);
        var truth = xml.GetAttribute("boolean-value", Office);
        var said = xml.GetAttribute("string-value", Office);
        var isError = xml.GetAttribute("value-type", Calc) == "error";
        var text = xml.IsEmptyElement ? "" : TextOf(xml, sheet, row, column);
        if (covered)
        {
            return Cell.Empty;
        }

        return isError
            ? Cell.OfError(text.Length > 0 ? text : "#ERROR!")
            : type switch
            {
                "float"
                or "currency"
                or "percentage" when decimal.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) => Number(
                    number,
                    text
                ),
                "date"
                    when date is { Length: >= 10 }
                        && DateOnly.TryParseExact(
                            date.AsSpan(0, 10),
                            "yyyy-MM-dd",
                            CultureInfo.InvariantCulture,
                            DateTimeStyles.None,
                            out var day
                        ) => Cell.Of(day),
                "boolean" => Cell.Of(truth == "true" ? "TRUE" : "FALSE"),
                _ => Cell.Of(string.IsNullOrEmpty(said) ? text : said),
            };
    }

    /// <summary>A number that is shown with leading zeros is a code.</summary>
    private static Cell Number(decimal number, string shown) =>
        shown.Length > 1 && shown[0] == '0' && shown.All(char.IsAsciiDigit) && decimal.Parse(shown, CultureInfo.InvariantCulture) == number
            ? Cell.Of(number, shown)
        : shown.Length == 0 || shown == number.ToString(CultureInfo.InvariantCulture) ? Cell.Of(number)
        : Cell.OfDisplayed(number, shown);

    private string TextOf(XmlReader xml, string sheet, int row, int column)
    {
        var text = new StringBuilder();
        var depth = xml.Depth;
        var paragraphs = 0;
        var notes = 0;
        while (Read(xml) && !(xml.NodeType == XmlNodeType.EndElement && xml.Depth == depth))
        {
            // A note on a cell stands inside it and is none of its text.
            if (xml.NamespaceURI == Office && xml.LocalName == "annotation" && !xml.IsEmptyElement)
            {
                notes +=
                    xml.NodeType == XmlNodeType.Element ? 1
                    : xml.NodeType == XmlNodeType.EndElement ? -1
                    : 0;
            }

            if (notes > 0)
            {
                continue;
            }

            if (
                xml.NodeType is XmlNodeType.Text or XmlNodeType.Whitespace or XmlNodeType.SignificantWhitespace or XmlNodeType.CDATA
                && xml.Depth > depth + 1
            )
            {
                text.Append(xml.Value);
            }
            else if (xml.NodeType == XmlNodeType.Element && xml.NamespaceURI == Text)
            {
                _ = xml.LocalName switch
                {
                    "p" => paragraphs++ > 0 ? text.Append('\n') : text,
                    "s" => text.Append(
                        ' ',
                        Math.Min(
                            int.TryParse(xml.GetAttribute("c", Text), NumberStyles.None, CultureInfo.InvariantCulture, out var spaces)
                                ? spaces
                                : 1,
                            1000
                        )
                    ),
                    "tab" => text.Append('\t'),
                    "line-break" => text.Append('\n'),
                    _ => text,
                };
            }

            if (text.Length > TableFile.LongestCell)
            {
                throw new FileRefused(
                    $"{name}, sheet “{sheet}”, row {row}, column {column}: the cell holds more than {TableFile.LongestCell} "
                        + "characters; that is the most that are read."
                );
            }
        }

        return text.ToString();
    }

    private static int Times(XmlReader xml, string attribute) =>
        int.TryParse(xml.GetAttribute(attribute, Table), NumberStyles.None, CultureInfo.InvariantCulture, out var times) && times > 0
            ? Math.Min(times, 1 << 24)
            : 1;

    private bool Read(XmlReader xml)
    {
        try
        {
            return xml.Read();
        }
        catch (Exception e) when (e is XmlException || PackedFile.IsDamage(e))
        {
            throw FileSignature.Damaged(name, e);
        }
    }
}
