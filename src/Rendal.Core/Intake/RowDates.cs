using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>Reads the dates of a ledger row, and works out the due date where none is written.</summary>
internal sealed class RowDates
{
    // Terms, interest and the order of rows are reckoned with dates; near the ends of the calendar there is nothing to reckon with.
    private static readonly DateOnly First = new(1900, 1, 1);
    private static readonly DateOnly Last = new(2199, 12, 31);

    private readonly LedgerCells cells;
    private readonly ReadingSettings settings;
    private readonly Func<string, PaymentTerms?> termsOf;
    private readonly bool dates1904;
    private readonly Dictionary<ColumnMeaning, Memo<DateOnly?>> days;

    /// <summary>Reads the dates of one file.</summary>
    /// <param name="cells">Its cells, by what they mean.</param>
    /// <param name="settings">What holds where the file says nothing: terms among it.</param>
    /// <param name="termsOf">The terms of a customer; null where the card says none.</param>
    /// <param name="dates1904">Whether the workbook counts days from 1904.</param>
    public RowDates(LedgerCells cells, ReadingSettings settings, Func<string, PaymentTerms?> termsOf, bool dates1904)
    {
        (this.cells, this.settings, this.termsOf, this.dates1904) = (cells, settings, termsOf, dates1904);
        days = new[] { ColumnMeaning.Date, ColumnMeaning.DueDate }.ToDictionary(
            meaning => meaning,
            meaning => new Memo<DateOnly?>(text =>
                WrittenDate.TryTake(text, out var written) && written.TryDay(cells.Column(meaning)!.Order!.Value, out var day) ? day : null
            )
        );
    }

    /// <summary>The date of a column; null where nothing is written, and with a finding where it is no date.</summary>
    public DateOnly? Read(FileRow row, ColumnMeaning meaning, string? customer)
    {
        var cell = cells.Cell(row, meaning);
        if (cell.IsEmpty)
        {
            return null;
        }

        var read = cell.Date ?? Written(row, meaning, cell, customer);
        if (read is not { } date || (date >= First && date <= Last))
        {
            return read;
        }

        cells.Add(
            FindingCodes.DateUnreadable,
            Severity.Error,
            row,
            meaning,
            customer,
            $"“{LedgerCells.Short(cell.Text)}” lies outside of {First.Year} to {Last.Year}, so it is not a date of business.",
            "Correct it."
        );
        return null;
    }

    private DateOnly? Written(FileRow row, ColumnMeaning meaning, Cell cell, string? customer)
    {
        var day = cell.Number is { } number ? SerialDay.Of(number, dates1904) : days[meaning].Of(cell.Text);
        if (day is null)
        {
            var order = cell.Number is null ? cells.Column(meaning)!.Order!.Value : DateOrder.YearFirst;
            cells.Add(
                FindingCodes.DateUnreadable,
                Severity.Error,
                row,
                meaning,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” is not a date{Condition(order)}.",
                "Correct it, or set the order of the column."
            );
        }

        return day;
    }

    /// <summary>The due date from the document date and the terms; null with a finding where there is no document date either.</summary>
    public DateOnly? DeriveDue(FileRow row, DateOnly? date, string? customer)
    {
        if (date is { } from)
        {
            return ((customer is null ? null : termsOf(customer)) ?? new PaymentTerms(settings.TermsDays)).DueOn(from);
        }

        if (cells.Cell(row, ColumnMeaning.Date).IsEmpty && cells.Cell(row, ColumnMeaning.DueDate).IsEmpty)
        {
            cells.Add(
                FindingCodes.DateMissing,
                Severity.Error,
                row,
                ColumnMeaning.Date,
                customer,
                "The row has neither a document date nor a due date.",
                "Fill one of them in, or leave the row out."
            );
        }

        return null;
    }

    private static string Condition(DateOrder order) =>
        order switch
        {
            DateOrder.MonthFirst => " when the month comes first",
            DateOrder.DayFirst => " when the day comes first",
            _ => "",
        };
}
