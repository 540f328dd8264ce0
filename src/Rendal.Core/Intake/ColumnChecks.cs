using Rendal.Core.Intake.Columns;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>
/// Checks, while the rows stream by, that columns are further down what they are in the first rows, by which it was found out: two
/// exports below each other may have their columns in another order.
/// </summary>
/// <param name="reading">How the file is read.</param>
internal sealed class ColumnChecks(Reading reading)
{
    // So many rows below each other are no slip of a row any more.
    private const int LeastRun = 10;

    private readonly HashSet<int> codes = [];
    private readonly HashSet<int> numbers = [];
    private readonly Run open = new();
    private readonly Run due = new();
    private readonly Run code = new();
    private readonly Run number = new();
    private readonly bool hasBothAmounts = reading.Has(ColumnMeaning.Outstanding) && reading.Has(ColumnMeaning.Amount);
    private readonly bool hasBothDates = reading.Has(ColumnMeaning.Date) && reading.Has(ColumnMeaning.DueDate);
    private readonly ColumnReading? codeColumn = reading.Of(ColumnMeaning.CustomerCode);
    private readonly ColumnReading? numberColumn = reading.Of(ColumnMeaning.Number);
    private int count;

    /// <summary>Looks at a row that was read.</summary>
    /// <param name="file">The row as it stands.</param>
    /// <param name="row">What was read of it.</param>
    public void Show(FileRow file, LedgerRow row)
    {
        var isFirst = ++count <= SampleRows.MostRows;
        if (hasBothAmounts)
        {
            var isMore = Math.Abs(row.Open) > Math.Abs(row.Original) || (row.Open != 0 && Math.Sign(row.Open) != Math.Sign(row.Original));
            open.Show(file.Number, isMore, isFirst);
        }

        if (hasBothDates && row.Date is { } date)
        {
            due.Show(file.Number, row.Due < date, isFirst);
        }

        if (codeColumn is null || numberColumn is null)
        {
            return;
        }

        var (ofCode, ofNumber) = (Shape(file[codeColumn.Index].Text), Shape(file[numberColumn.Index].Text));
        if (isFirst)
        {
            codes.Add(ofCode);
            numbers.Add(ofNumber);
        }
        else
        {
            code.Show(file.Number, !codes.Contains(ofCode) && numbers.Contains(ofCode), isFirst);
            number.Show(file.Number, !numbers.Contains(ofNumber) && codes.Contains(ofNumber), isFirst);
        }
    }

    /// <summary>What turned out otherwise below the first rows; nothing for a file of no more than those.</summary>
    /// <param name="at">The place of a row.</param>
    public IEnumerable<Finding> Findings(Func<int, SourceRef> at)
    {
        var outstanding = reading.Of(ColumnMeaning.Outstanding)?.Heading;
        var amount = reading.Of(ColumnMeaning.Amount)?.Heading;
        return new[]
        {
            Differs(open, outstanding, $"“{outstanding}” is more than “{amount}” or has another sign"),
            Differs(
                due,
                reading.Of(ColumnMeaning.DueDate)?.Heading,
                $"“{reading.Of(ColumnMeaning.DueDate)?.Heading}” is before “{reading.Of(ColumnMeaning.Date)?.Heading}”"
            ),
            Differs(code, codeColumn?.Heading, $"“{codeColumn?.Heading}” is written as “{numberColumn?.Heading}” is above"),
            Differs(number, numberColumn?.Heading, $"“{numberColumn?.Heading}” is written as “{codeColumn?.Heading}” is above"),
        }.OfType<Finding>();

        Finding? Differs(Run run, string? column, string what) =>
            run.Longest < LeastRun || run.IsUsual
                ? null
                : new Finding(
                    FindingCodes.ColumnDiffers,
                    Severity.Warning,
                    at(run.From),
                    column,
                    null,
                    $"From row {run.From} on, in {run.Longest} rows below each other, {what}; in the rows before that it is not so.",
                    "Look whether the columns are the same there. Where they are not, take those rows in as a file of their own."
                );
    }

    /// <summary>How a value is written: which runs of letters, figures and other signs it has, whatever they are.</summary>
    private static int Shape(string text)
    {
        var shape = new HashCode();
        var before = '\0';
        foreach (var c in text)
        {
            var kind =
                char.IsLetter(c) ? 'a'
                : char.IsDigit(c) ? '9'
                : c;
            if (kind != before)
            {
                shape.Add(kind);
                before = kind;
            }
        }

        return shape.ToHashCode();
    }

    /// <summary>Rows below each other in which something is not as it should be.</summary>
    private sealed class Run
    {
        private int first;
        private int firstBroken;
        private int length;
        private int start;

        /// <summary>The row that the longest run began with; 0 where there was none.</summary>
        public int From { get; private set; }

        /// <summary>How many rows below each other did not fit, at the most.</summary>
        public int Longest { get; private set; }

        /// <summary>Whether it was so in the first rows already, now and then.</summary>
        public bool IsUsual => firstBroken * 50 > first;

        /// <summary>Goes on by a row.</summary>
        /// <param name="row">Its number in the file.</param>
        /// <param name="isBroken">Whether it does not fit.</param>
        /// <param name="isFirst">Whether it is among the rows by which columns were found out; such are no finding.</param>
        public void Show(int row, bool isBroken, bool isFirst)
        {
            first += isFirst ? 1 : 0;
            firstBroken += isFirst && isBroken ? 1 : 0;
            if (!isBroken || isFirst)
            {
                length = 0;
                return;
            }

            start = length == 0 ? row : start;
            length++;
            if (length > Longest)
            {
                (From, Longest) = (start, length);
            }
        }
    }
}
