using System.Globalization;
using ExcelNumberFormat;
using Rendal.Core.Intake;

namespace Rendal.Files.Workbooks;

/// <summary>A number format of a workbook (ISO/IEC 29500-1, 18.8.31): <c>#,##0.00</c>, <c>0%</c>, <c>£#,##0;[Red]-£#,##0</c>.</summary>
internal sealed class ExcelCellFormat : CellFormat
{
    private const int LongestFormat = 255;

    private readonly NumberFormat format;

    private ExcelCellFormat(NumberFormat format) => this.format = format;

    /// <summary>That of a cell; null where it displays the plain number, or where the format is none.</summary>
    public static ExcelCellFormat? Of(string? written) =>
        written is { Length: > 0 and <= LongestFormat }
        && !string.Equals(written, "General", StringComparison.OrdinalIgnoreCase)
        && new NumberFormat(written) is { IsValid: true, IsDateTimeFormat: false, IsTimeSpanFormat: false } format
            ? new ExcelCellFormat(format)
            : null;

    /// <inheritdoc/>
    public override string Show(decimal number)
    {
        var shown = format.Format((double)number, CultureInfo.InvariantCulture).Trim();
        return shown.Length > 0 ? shown : number.ToString(CultureInfo.InvariantCulture);
    }
}
