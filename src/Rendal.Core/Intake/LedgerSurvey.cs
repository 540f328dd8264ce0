using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// What is learnt from going through a whole file once before any row is read: the notations of its columns, whether its credits carry a
/// sign, whether customers stand once above their rows, and which code goes with which name. Its memory grows with the number of
/// customers, not of rows.
/// </summary>
public sealed class LedgerSurvey
{
    private readonly Dictionary<int, AmountColumn> amounts = [];
    private readonly Dictionary<int, DateColumn> dates = [];
    private readonly Dictionary<int, CreditSigns> signs = [];
    private readonly RowRoles roles;
    private NamesWithCodes? names;
    private int named;
    private int withoutCode;
    private int unnamed;
    private int firstGroup;
    private int firstItem;
    private int namedAbove;
    private int lastCouldName;
    private bool areHeadingsBelowNames;

    private LedgerSurvey(Reading reading) => roles = new RowRoles(reading);

    /// <summary>How many rows with content stand below the headings, total lines included.</summary>
    public int RowCount { get; private set; }

    /// <summary>
    /// Goes through all rows of the table once, after the meanings of its columns are known: what amounts, signs and dates look like over
    /// all of them decides how each is read.
    /// </summary>
    public static LedgerSurvey Of(LedgerTable table, Reading reading, AppliedCorrections corrections)
    {
        var survey = new LedgerSurvey(reading);
        foreach (var column in reading.Columns)
        {
            if (column.Meaning.IsAmount())
            {
                survey.amounts.Add(column.Index, new AmountColumn());
                survey.signs.Add(column.Index, new CreditSigns());
            }
            else if (column.Meaning.IsDate())
            {
                survey.dates.Add(column.Index, new DateColumn());
            }
        }

        var hasCustomer = reading.Has(ColumnMeaning.CustomerCode) || reading.Has(ColumnMeaning.CustomerName);
        var kind = reading.Of(ColumnMeaning.Kind);
        var isCredit = new Memo<bool>(word => KindWords.Of(word, reading.Kinds)?.IsCredit() == true);
        var signed = new[] { reading.Of(ColumnMeaning.Outstanding), reading.Of(ColumnMeaning.Amount) }.OfType<ColumnReading>().ToList();
        foreach (var line in LedgerLines.Of(table, reading with { CarriesDown = false }, corrections))
        {
            if (!hasCustomer)
            {
                survey.ShowHeading(line, reading.HeadingRow);
            }

            if (!Counts(line))
            {
                continue;
            }

            var row = line.Row;
            survey.RowCount++;
            survey.ShowNotations(row);
            if (line.Role == RowRole.Total)
            {
                continue;
            }

            if (kind is not null && isCredit.Of(row[kind.Index].Text))
            {
                foreach (var column in signed)
                {
                    survey.signs[column.Index].Show(row[column.Index]);
                }
            }

            survey.ShowCustomer(line);
        }

        // In most files every row has its code, and to look each name up takes half as long as all the rest.
        if (survey.withoutCode > 0 && reading.Has(ColumnMeaning.CustomerCode))
        {
            survey.names = new NamesWithCodes(
                Lines(table, reading, corrections).Where(line => line.Role == RowRole.Item && !survey.roles.IsGroup(line.Row))
            );
        }

        return survey;
    }

    /// <summary>Which decimal mark the amounts of a column have, by what all its values say, with the reason.</summary>
    public AmountColumn Amounts(int column) => amounts[column];

    /// <summary>Whether credits carry a sign in this column of amounts.</summary>
    public CreditSigns Signs(int column) => signs[column];

    /// <summary>In which order day and month stand in the dates of a column, by what all its values say, with the reason.</summary>
    public DateColumn Dates(int column) => dates[column];

    /// <summary>The one code that stands beside this name elsewhere in the file; null where none or several do.</summary>
    public string? CodeOf(string name) => names?.CodeOf(name);

    /// <summary>
    /// Whether customers are named once above their rows: where there is a column for them, a quarter of the rows or more name none; where
    /// there is none, a line that could be a name stands above the first row. With the reason in plain words, empty where every row names
    /// its customer.
    /// </summary>
    public (bool CarriesDown, string Reason) Carrying(bool hasColumn) =>
        hasColumn
            ? unnamed == 0
                ? (false, "")
                : unnamed > 1 && unnamed * 4 >= named + unnamed && (firstGroup > 0 || named > 0)
                    ? (true, $"{unnamed} of {named + unnamed} rows name none")
                    : (false, $"only {unnamed} of {named + unnamed} rows {(unnamed == 1 ? "names" : "name")} none")
            : firstGroup > 0 && firstGroup < firstItem
                ? (true, $"row {firstGroup} names one above its rows")
                : areHeadingsBelowNames && namedAbove > 0
                    ? (true, $"row {namedAbove} names one above its headings")
                    : (false, "");

    private static IEnumerable<LedgerLine> Lines(LedgerTable table, Reading reading, AppliedCorrections corrections) =>
        LedgerLines.Of(table, reading with { CarriesDown = false }, corrections).Where(Counts);

    private static bool Counts(LedgerLine line) => line.Role is RowRole.Item or RowRole.Total && line.LeftOut is null;

    /// <summary>Headings that stand again, each below a line that could name a customer, as the first ones do.</summary>
    private void ShowHeading(LedgerLine line, int headingRow)
    {
        var couldName = !line.Row.IsBlank && roles.IsGroup(line.Row);
        if (line.Row.Number == headingRow - 1 && couldName)
        {
            namedAbove = line.Row.Number;
        }

        if (line.Role == RowRole.Heading && line.Row.Number > headingRow && lastCouldName == line.Row.Number - 1)
        {
            areHeadingsBelowNames = true;
        }

        lastCouldName = couldName ? line.Row.Number : lastCouldName;
    }

    private void ShowNotations(FileRow row)
    {
        foreach (var (index, column) in amounts)
        {
            if (row[index] is { IsText: true } cell)
            {
                column.Show(cell.Text, row.Number);
            }
        }

        foreach (var (index, column) in dates)
        {
            if (row[index] is { IsText: true } cell)
            {
                column.Show(cell.Text, row.Number);
            }
        }
    }

    private void ShowCustomer(LedgerLine line)
    {
        withoutCode += line.Code.Length == 0 && line.Name.Length > 0 ? 1 : 0;
        if (roles.IsGroup(line.Row))
        {
            firstGroup = firstGroup == 0 ? line.Row.Number : firstGroup;
            return;
        }

        firstItem = firstItem == 0 ? line.Row.Number : firstItem;
        if (line.Code.Length == 0 && line.Name.Length == 0)
        {
            unnamed++;
            return;
        }

        named++;
    }
}
