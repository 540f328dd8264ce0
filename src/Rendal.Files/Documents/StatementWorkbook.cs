using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Rendal.Core.Layouts;

namespace Rendal.Files.Documents;

/// <summary>
/// A statement as a workbook, one sheet a currency: who it is from and to, then a table with real numbers and dates, then the total as a
/// sum of its column. Texts are texts whatever they begin with, so that none is reckoned as a formula.
/// </summary>
internal static class StatementWorkbook
{
    private const int LongestSheetName = 31;

    // The formats of cells, by their place in the styles below.
    private const uint Plain = 0,
        Strong = 1,
        Title = 2,
        Date = 3,
        Whole = 4,
        FirstAmount = 5,
        FirstStrongAmount = 10;

    /// <summary>The file.</summary>
    /// <param name="document">A document whose sections have their values.</param>
    public static byte[] Write(StatementDocument document)
    {
        using var stream = new MemoryStream();
        using (var file = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            file.PackageProperties.Title = XmlText.Clean(document.Title);
            file.PackageProperties.Creator = XmlText.Clean(document.Firm.Name);
            file.PackageProperties.Language = document.Language;
            var workbook = file.AddWorkbookPart();
            workbook.AddNewPart<WorkbookStylesPart>("styles").Stylesheet = Styles();
            var sheets = new Sheets();
            foreach (var (section, i) in document.Sections.Select((s, i) => (s, i)))
            {
                var sheet = section.Sheet ?? throw new ArgumentException("The document was set without its values.", nameof(document));
                var part = workbook.AddNewPart<WorksheetPart>(string.Create(CultureInfo.InvariantCulture, $"sheet{i + 1}"));
                part.Worksheet = Worksheet(document, sheet);
                sheets.Append(
                    new Sheet
                    {
                        Id = workbook.GetIdOfPart(part),
                        SheetId = (uint)(i + 1),
                        Name = document.Sections.Count > 1 ? sheet.Currency.Code : SheetName(XmlText.Clean(document.Title)),
                    }
                );
            }

            workbook.Workbook = new Workbook(sheets);
        }

        return SettledPackage.Of(stream.ToArray());
    }

    private static Worksheet Worksheet(StatementDocument document, StatementSheet sheet)
    {
        var data = new SheetData();
        uint row = 0;
        Add(Text(document.Title, Title));
        Add(Text(document.Firm.Name, Plain));
        Add(Text(document.AddressLines[0], Strong));
        foreach (var (label, value) in document.References)
        {
            Add(Text(label, Plain), Text(value, Plain));
        }

        Add(Text(document.CurrencyWord, Plain), Text(sheet.Currency.Code, Plain));
        Add();
        Add([.. sheet.Headings.Select(h => Text(h, Strong))]);
        var headings = row;
        foreach (var cells in sheet.Rows)
        {
            Add([.. cells.Select(cell => Of(cell, sheet.Currency.Decimals))]);
        }

        Total(sheet, headings, row, Add);
        return new Worksheet(Views(headings), Widths(sheet), data);

        void Add(params Cell[] cells)
        {
            row++;
            var line = new Row { RowIndex = row };
            for (var i = 0; i < cells.Length; i++)
            {
                cells[i].CellReference = ColumnName(i) + row.ToString(System.Globalization.CultureInfo.InvariantCulture);
                line.Append(cells[i]);
            }

            data.Append(line);
        }
    }

    /// <summary>
    /// The total under its column, as a formula with its value; under a running balance, and where the column is not there, as a value at
    /// the right.
    /// </summary>
    private static void Total(StatementSheet sheet, uint headings, uint last, Action<Cell[]> add)
    {
        var at = sheet.SumColumn ?? Math.Max(1, sheet.Headings.Count - 1);
        var strong = FirstStrongAmount + (uint)sheet.Currency.Decimals;
        var line = Enumerable.Range(0, at).Select(i => Text(i == 0 ? sheet.TotalLabel : "", Strong)).ToList();
        var total = Amount(sheet.Total, strong);
        if (sheet.SumColumn is not null && sheet.Rows.Count > 0)
        {
            total.CellFormula = new CellFormula($"SUM({ColumnName(at)}{headings + 1}:{ColumnName(at)}{last})");
        }

        add([.. line, total]);
        foreach (var (label, amount) in sheet.Interest)
        {
            add([.. Enumerable.Range(0, at).Select(i => Text(i == 0 ? label : "", Plain)), Amount(amount, strong)]);
        }
    }

    private static Cell Of(SheetCell cell, int decimals) =>
        cell.Amount is { } amount ? Amount(amount, FirstAmount + (uint)decimals)
        : cell.Day is { } day
            ? new Cell { CellValue = new CellValue(day.DayNumber - new DateOnly(1899, 12, 30).DayNumber), StyleIndex = Date }
        : cell.Count is { } count ? new Cell { CellValue = new CellValue(count), StyleIndex = Whole }
        : Text(cell.Text ?? "", Plain);

    private static Cell Amount(decimal amount, uint style) => new() { CellValue = new CellValue(amount), StyleIndex = style };

    private static Cell Text(string text, uint style) =>
        new()
        {
            DataType = CellValues.InlineString,
            InlineString = new InlineString(new Text(XmlText.Clean(text)) { Space = SpaceProcessingModeValues.Preserve }),
            StyleIndex = style,
        };

    private static SheetViews Views(uint headings) =>
        new(
            new SheetView(
                new Pane
                {
                    VerticalSplit = headings,
                    TopLeftCell = $"A{headings + 1}",
                    ActivePane = PaneValues.BottomLeft,
                    State = PaneStateValues.Frozen,
                }
            )
            {
                WorkbookViewId = 0,
            }
        );

    private static Columns Widths(StatementSheet sheet)
    {
        var columns = new Columns();
        for (var i = 0; i < sheet.Headings.Count; i++)
        {
            var longest = sheet.Rows.Select(r => r[i].Text?.Length ?? 11).Append(sheet.Headings[i].Length).Max();
            columns.Append(
                new Column
                {
                    Min = (uint)(i + 1),
                    Max = (uint)(i + 1),
                    Width = Math.Clamp(longest + 2, 10, 50),
                    CustomWidth = true,
                }
            );
        }

        return columns;
    }

    private static Stylesheet Styles()
    {
        // By the decimals of the currency, 0 to 4: the first three come with the standard.
        const uint threeDecimals = 164,
            fourDecimals = 165;
        uint[] amounts = [3, 4, 4, threeDecimals, fourDecimals];
        return new Stylesheet(
            new NumberingFormats(
                new NumberingFormat { NumberFormatId = threeDecimals, FormatCode = "#,##0.000" },
                new NumberingFormat { NumberFormatId = fourDecimals, FormatCode = "#,##0.0000" }
            ),
            new Fonts(
                new Font(new FontSize { Val = 11 }, new FontName { Val = "Calibri" }),
                new Font(new Bold(), new FontSize { Val = 11 }, new FontName { Val = "Calibri" }),
                new Font(new Bold(), new FontSize { Val = 14 }, new FontName { Val = "Calibri" })
            ),
            new Fills(
                new Fill(new PatternFill { PatternType = PatternValues.None }),
                new Fill(new PatternFill { PatternType = PatternValues.Gray125 })
            ),
            new Borders(new Border()),
            new CellStyleFormats(new CellFormat()),
            new CellFormats([
                Format(0, 0),
                Format(0, 1),
                Format(0, 2),
                Format(14, 0),
                Format(1, 0),
                .. amounts.Select(a => Format(a, 0)),
                .. amounts.Select(a => Format(a, 1)),
            ])
        );
    }

    private static CellFormat Format(uint number, uint font) =>
        new()
        {
            NumberFormatId = number,
            FontId = font,
            FormatId = 0,
            ApplyNumberFormat = number > 0,
            ApplyFont = font > 0,
        };

    private static string ColumnName(int index) =>
        index < 26 ? ((char)('A' + index)).ToString() : ColumnName((index / 26) - 1) + (char)('A' + (index % 26));

    private static string SheetName(string title)
    {
        var name = string.Concat(title.Select(c => c is '[' or ']' or ':' or '*' or '?' or '/' or '\\' || char.IsControl(c) ? ' ' : c))
            .Trim(' ', '\'');
        return name.Length == 0 ? "1"
            : name.Length > LongestSheetName ? name[..LongestSheetName].Trim(' ', '\'')
            : name;
    }
}
