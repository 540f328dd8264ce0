using System.Globalization;
using System.Runtime.InteropServices;
using System.Text;
using System.Xml;
using ExcelDataReader;
using ExcelDataReader.Exceptions;
using Rendal.Core.Budgets;
using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>An XLSX or XLS workbook. Values are taken as the cells hold them, formulas by their last result.</summary>
internal sealed class ExcelWorkbook : Workbook
{
    // A longer format of noughts is none of a code.
    private const int LongestCode = 40;

    private readonly string name;
    private readonly Stream stream;
    private readonly IExcelDataReader reader;
    private readonly SheetMarks marks;

    // A date of 1904 that the reader does not know of is as many days too early.
    private readonly int missedDays;
    private readonly Dictionary<string, ExcelCellFormat?> formats = new(StringComparer.Ordinal);
    private bool wasRead;

    static ExcelWorkbook() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Opens a workbook.</summary>
    /// <param name="name">Its name, for messages.</param>
    /// <param name="format">What its content says that it is.</param>
    /// <param name="open">Opens it anew.</param>
    /// <exception cref="FileRefused">It is damaged or under a password.</exception>
    public ExcelWorkbook(string name, FileFormat format, Func<Stream> open)
    {
        this.name = name;
        var said = format == FileFormat.Xlsx ? Dates1904Said(name, open) : null;
        Dates1904 = XlsxParts.IsTrue(said);
        missedDays = Dates1904 && said != "1" ? new DateOnly(1904, 1, 1).DayNumber - new DateOnly(1899, 12, 30).DayNumber : 0;
        marks = new SheetMarks(name, format, open);
        stream = open();
        reader = Guarded(() => ExcelReaderFactory.CreateReader(stream, new ExcelReaderConfiguration { LeaveOpen = true }));
    }

    public override bool Dates1904 { get; }

    public override bool HasOneSheet => reader.ResultsCount == 1;

    public override IEnumerable<Sheet> Sheets()
    {
        if (wasRead)
        {
            // To begin again goes through the whole sheet, so it is not done without need.
            Guarded(() =>
            {
                reader.Reset();
                return true;
            });
        }

        wasRead = true;
        do
        {
            var hidden = new SortedSet<int>();
            yield return new Sheet(new SheetSeen(reader.Name, reader.VisibleState is not "visible"), Rows(hidden), hidden);
        } while (Guarded(reader.NextResult));
    }

    public override void Dispose()
    {
        reader.Dispose();
        stream.Dispose();
        marks.Dispose();
    }

    private IEnumerable<FileRow> Rows(SortedSet<int> hidden)
    {
        var number = 0;
        var merges = MergedCells.Of(Guarded(() => reader.MergeCells));
        var marked = Guarded(() => marks.Of(reader.Name));
        // A damaged sheet may say that it has fewer than none; and the reader goes through all that is said of columns for each of them.
        // Of those beyond nothing depends on any, and it does not matter whether they are hidden.
        var width = Math.Clamp(reader.FieldCount, 0, Recognition.ColumnsToldApart);
        hidden.UnionWith(Enumerable.Range(0, width).Where(i => Guarded(() => reader.GetColumnWidth(i)) == 0 || marked.HidesColumn(i)));
        while (Guarded(reader.Read))
        {
            // Blank rows are gone through one by one: a single cell far below would take minutes.
            if (++number > Limits.Sheet.Most(Cost.Rows))
            {
                throw new FileRefused(
                    $"{name}, sheet “{reader.Name}” has a row beyond {Limits.Sheet.Most(Cost.Rows)}, where sheets end. Save it "
                        + "anew in your spreadsheet program."
                );
            }

            var count = reader.FieldCount;
            while (count > 0 && reader.GetValue(count - 1) is null)
            {
                count--;
            }

            var (filled, errors) = (count, marked.ErrorsOf(number));
            count = Math.Max(count, errors.Count == 0 ? 0 : errors.Max(e => e.Column) + 1);
            if (count == 0)
            {
                merges.Fill(number, []);
                continue;
            }

            if (count > TableFile.MostColumns)
            {
                throw new FileRefused(
                    $"{name}, sheet “{reader.Name}”, row {number} has {count} columns; the most that are read is {TableFile.MostColumns}."
                );
            }

            var cells = new Cell[count];
            for (var i = 0; i < filled; i++)
            {
                cells[i] = CellAt(i, number);
            }

            foreach (var (column, shown) in errors)
            {
                cells[column] = Cell.OfError(shown);
            }

            yield return new FileRow(
                number,
                merges.Fill(number, ImmutableCollectionsMarshal.AsImmutableArray(cells)),
                reader.RowHeight == 0 || marked.Hidden.Contains(number)
            );
        }
    }

    private Cell CellAt(int column, int row)
    {
        switch (reader.GetValue(column))
        {
            case null:
                return Cell.Empty;
            case string text:
                return text.Length <= TableFile.LongestCell
                    ? Cell.Of(text)
                    : throw new FileRefused(
                        $"{name}, sheet “{reader.Name}”, row {row}, column {column + 1}: the cell holds {text.Length} "
                            + $"characters; the most that are read is {TableFile.LongestCell}."
                    );
            case double number:
                return Number(number, column);
            case int whole:
                return Cell.Of(whole);
            case DateTime date:
                return Cell.Of(DateOnly.FromDateTime(date.AddDays(missedDays)));
            case bool truth:
                return Cell.Of(truth ? "TRUE" : "FALSE");
            case var other:
                return Cell.Of(Convert.ToString(other, CultureInfo.InvariantCulture));
        }
    }

    private Cell Number(double number, int column)
    {
        if (!double.IsFinite(number) || Math.Abs(number) > (double)decimal.MaxValue / 2)
        {
            return Cell.Of(number.ToString(CultureInfo.InvariantCulture));
        }

        // The conversion keeps 15 figures, as spreadsheets do, so that 0.1 + 0.2 is 0.3.
        var value = (decimal)number;
        return reader.GetNumberFormatString(column) is { Length: > 1 and <= LongestCode } format
            && value >= 0
            && value == decimal.Truncate(value)
            && format.All(c => c == '0')
                ? Cell.Of(value, value.ToString(format, CultureInfo.InvariantCulture))
            : FormatOf(column) is { } shows ? Cell.Of(value, shows)
            : Cell.Of(value);
    }

    /// <summary>How a cell displays its number; a workbook has few formats, and thousands of cells of each.</summary>
    private ExcelCellFormat? FormatOf(int column)
    {
        var written = reader.GetNumberFormatString(column) ?? "";
        if (!formats.TryGetValue(written, out var format))
        {
            formats[written] = format = ExcelCellFormat.Of(written);
        }

        return format;
    }

    private static string? Dates1904Said(string name, Func<Stream> open)
    {
        using var packed = new PackedFile(name, open);
        if (packed.Open("xl/workbook.xml") is not { } content)
        {
            return null;
        }

        try
        {
            using var xml = XmlReader.Create(content, new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CloseInput = true });
            return xml.ReadToFollowing("workbookPr") ? xml.GetAttribute("date1904") : null;
        }
        catch (XmlException)
        {
            // The reader that comes next says what is wrong with it.
            return null;
        }
    }

    /// <summary>What the reader throws at a damaged file is of every kind; all of it means that the file is no good.</summary>
    private T Guarded<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (InvalidPasswordException)
        {
            throw FileSignature.UnderPassword(name);
        }
        catch (Exception e) when (e is not (FileRefused or OperationCanceledException or OutOfMemoryException))
        {
            throw FileSignature.Damaged(name, e);
        }
    }
}
