using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Rendal.Files.Documents;

/// <summary>
/// Writes tables of texts as XLSX, row by row, so that a long one takes little memory. Every cell is a text, whatever it begins with: none
/// is reckoned as a formula.
/// </summary>
public static class TextWorkbook
{
    /// <summary>Writes rows on one sheet; the first stays in view.</summary>
    /// <param name="stream">A stream that can be wound back.</param>
    /// <param name="sheet">The name of the sheet, at most 31 characters, without <c>\ / ? * [ ] :</c>.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="cancel">Stops it.</param>
    public static async Task WriteAsync(
        Stream stream,
        string sheet,
        IAsyncEnumerable<IReadOnlyList<string>> rows,
        CancellationToken cancel
    )
    {
        using var file = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook);
        var workbook = file.AddWorkbookPart();
        var part = workbook.AddNewPart<WorksheetPart>();
        using (var writer = OpenXmlWriter.Create(part))
        {
            writer.WriteStartElement(new Worksheet());
            writer.WriteElement(
                new SheetViews(
                    new SheetView(
                        new Pane
                        {
                            VerticalSplit = 1,
                            TopLeftCell = "A2",
                            ActivePane = PaneValues.BottomLeft,
                            State = PaneStateValues.Frozen,
                        }
                    )
                    {
                        WorkbookViewId = 0,
                    }
                )
            );
            writer.WriteStartElement(new SheetData());
            await foreach (var row in rows.WithCancellation(cancel))
            {
                writer.WriteElement(
                    new Row(
                        row.Select(cell => new Cell
                        {
                            DataType = CellValues.InlineString,
                            InlineString = new InlineString(new Text(XmlText.Clean(cell)) { Space = SpaceProcessingModeValues.Preserve }),
                        })
                    )
                );
            }

            writer.WriteEndElement();
            writer.WriteEndElement();
        }

        workbook.Workbook = new Workbook(
            new Sheets(
                new Sheet
                {
                    Id = workbook.GetIdOfPart(part),
                    SheetId = 1,
                    Name = sheet,
                }
            )
        );
    }
}
