namespace Rendal.Core.Intake;

/// <summary>How a workbook displays the numbers of a cell; what a number is does not depend on it.</summary>
public abstract class CellFormat
{
    /// <summary>A number as the cell displays it: 1234.5 as <c>1,234.50</c>. Full stop and comma stand as in English.</summary>
    public abstract string Show(decimal number);
}
