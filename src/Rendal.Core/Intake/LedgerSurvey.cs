using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// What is learnt from going through a whole file once before any row is read: the notations of its columns, whether
/// its credits carry a sign, and which code goes with which name. Its memory grows with the number of customers, not of rows.
/// </summary>
public sealed class LedgerSurvey
{
    private readonly Dictionary<int, AmountColumn> amounts = [];
    private readonly Dictionary<int, DateColumn> dates = [];
    private readonly Dictionary<string, string?> codeByName = [];
    private readonly Dictionary<int, CreditSigns> signs = [];

    private LedgerSurvey()
    {
    }

    /// <summary>How many rows with content stand below the headings, total lines included.</summary>
    public int RowCount { get; private set; }

    /// <summary>Goes through the table with the meanings of its columns known.</summary>
    public static LedgerSurvey Of(LedgerTable table, int headingRow, IReadOnlyList<ColumnReading> columns)
    {
        var survey = new LedgerSurvey();
        var reading = new Reading(headingRow, columns);
        foreach (var column in columns)
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

        var kind = reading.Of(ColumnMeaning.Kind);
        var signed = new[] { reading.Of(ColumnMeaning.Outstanding), reading.Of(ColumnMeaning.Amount) }.OfType<ColumnReading>().ToList();
        var code = reading.Of(ColumnMeaning.CustomerCode);
        var name = reading.Of(ColumnMeaning.CustomerName);
        foreach (var row in table.Rows)
        {
            if (row.Number <= headingRow || row.Cells.All(c => c.IsEmpty))
            {
                continue;
            }

            survey.RowCount++;
            survey.ShowNotations(row);
            if (kind is not null && KindWords.Of(row[kind.Index].Text)?.IsCredit() == true)
            {
                signed.ForEach(column => survey.signs[column.Index].Show(row[column.Index]));
            }

            if (code is not null && name is not null)
            {
                survey.ShowName(row[code.Index].Text, row[name.Index].Text);
            }
        }

        return survey;
    }

    /// <summary>The column's decimal mark with the reason.</summary>
    public AmountColumn Amounts(int column) => amounts[column];

    /// <summary>Whether credits carry a sign in this column of amounts.</summary>
    public CreditSigns Signs(int column) => signs[column];

    /// <summary>The column's date order with the reason.</summary>
    public DateColumn Dates(int column) => dates[column];

    /// <summary>The one code that stands beside this name elsewhere in the file; null where none or several do.</summary>
    public string? CodeOf(string name) => codeByName.GetValueOrDefault(FoldedName.Of(name));

    private void ShowNotations(FileRow row)
    {
        foreach (var (index, column) in amounts)
        {
            if (row[index] is { IsEmpty: false, Number: null, Date: null } cell)
            {
                column.Show(cell.Text, row.Number);
            }
        }

        foreach (var (index, column) in dates)
        {
            if (row[index] is { IsEmpty: false, Number: null, Date: null } cell)
            {
                column.Show(cell.Text, row.Number);
            }
        }
    }

    private void ShowName(string code, string name)
    {
        if (code.Length == 0 || name.Length == 0)
        {
            return;
        }

        var folded = FoldedName.Of(name);
        codeByName[folded] = codeByName.TryGetValue(folded, out var known) && known != code ? null : code;
    }
}
