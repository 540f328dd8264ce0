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

    /// <summary>
    /// That of a cell; null where it displays the plain number, where the format is none, and for fractions, which amounts are not
    /// displayed as.
    /// </summary>
    public static ExcelCellFormat? Of(string? written) =>
        written is { Length: > 0 and <= LongestFormat }
        && !string.Equals(written, "General", StringComparison.OrdinalIgnoreCase)
        && !written.Contains('/', StringComparison.Ordinal)
        && new NumberFormat(written) is { IsValid: true, IsDateTimeFormat: false, IsTimeSpanFormat: false } format
            ? new ExcelCellFormat(format)
            : null;

    /// <inheritdoc/>
    public override string Show(decimal number)
    {
        var plain = number.ToString(CultureInfo.InvariantCulture);
        try
        {
            return format.Format((double)number, CultureInfo.InvariantCulture).Trim() is { Length: > 0 } shown ? shown : plain;
        }
        catch (Exception e)
            when (e is ArithmeticException or FormatException or ArgumentException or IndexOutOfRangeException or InvalidOperationException
            )
        {
            // The library trips over formats that no spreadsheet program writes, such as an exponent of 250 figures. The number is known.
            return plain;
        }
    }
}
