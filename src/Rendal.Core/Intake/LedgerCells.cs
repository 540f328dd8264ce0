using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>The cells of a ledger row by what they mean, and findings with their place.</summary>
internal sealed class LedgerCells(LedgerTable table, Reading reading, FindingList findings)
{
    /// <summary>The most characters of a customer's code or name.</summary>
    public const int LongestCustomer = 200;

    private static readonly (ColumnMeaning Meaning, int Longest)[] Longest =
    [
        (ColumnMeaning.CustomerCode, LongestCustomer),
        (ColumnMeaning.CustomerName, LongestCustomer),
        (ColumnMeaning.Number, 300),
        (ColumnMeaning.Reference, 200),
        (ColumnMeaning.Unit, 200),
    ];

    private readonly ColumnReading?[] columns = [.. Enum.GetValues<ColumnMeaning>().Select(reading.Of)];

    /// <summary>The column of a meaning; null where the file has none.</summary>
    public ColumnReading? Column(ColumnMeaning meaning) => columns[(int)meaning];

    /// <summary>The cell of a meaning in a row; empty where the file has no such column.</summary>
    public Cell Cell(FileRow row, ColumnMeaning meaning) => Column(meaning) is { } column ? row[column.Index] : Intake.Cell.Empty;

    /// <summary>What it says as text; empty where the file has no such column.</summary>
    public string Text(FileRow row, ColumnMeaning meaning) => Cell(row, meaning).Text;

    /// <summary>The place of a row, for findings.</summary>
    public SourceRef Source(FileRow row) => new(table.File, table.Sheet, row.Number);

    /// <summary>Notes a finding about one cell of a row, under the heading of its column.</summary>
    public void Add(
        string code,
        Severity severity,
        FileRow row,
        ColumnMeaning meaning,
        string? customer,
        string message,
        string remedy,
        string? other = null
    ) =>
        findings.Add(
            new Finding(
                code,
                severity,
                Source(row),
                Column(meaning)?.Heading,
                string.IsNullOrEmpty(customer) ? null : customer,
                message,
                remedy
            )
            {
                Other = other,
            }
        );

    /// <summary>Notes values that are longer than anything they could mean: what something is known by is looked up by an index.</summary>
    public void DemandLengths(FileRow row, string? customer)
    {
        foreach (var (meaning, longest) in Longest)
        {
            if (Cell(row, meaning).Length > longest)
            {
                Add(
                    FindingCodes.ValueTooLong,
                    Severity.Error,
                    row,
                    meaning,
                    customer?.Length <= LongestCustomer ? customer : null,
                    TooLong(Text(row, meaning), longest),
                    "Look whether the right column was taken for it."
                );
            }
        }
    }

    /// <summary>
    /// Notes cells that hold the error of a formula: what should stand there is not known. True where none of a meaning does.
    /// </summary>
    public bool DemandNoErrors(FileRow row)
    {
        var isClean = true;
        foreach (var column in reading.Columns)
        {
            if (row[column.Index].IsError)
            {
                var counts = column.Meaning != ColumnMeaning.Extra;
                isClean &= !counts;
                findings.Add(
                    new Finding(
                        FindingCodes.CellError,
                        counts ? Severity.Error : Severity.Warning,
                        Source(row),
                        column.Heading,
                        null,
                        $"The cell holds the error {row[column.Index].Text} of a formula{(counts ? "" : "; it counts as empty")}.",
                        "Correct it in the workbook or here."
                    )
                );
            }
        }

        return isClean;
    }

    /// <summary>The sentence about a text that is longer than so many characters.</summary>
    public static string TooLong(string text, int longest) =>
        $"“{Short(text)}” has {text.Length} characters; there are {longest} at the most.";

    /// <summary>A text as it stands in a sentence: at most 60 characters, cut ones with an ellipsis.</summary>
    public static string Short(string text) => text.Length <= 60 ? text : text[..59] + "…";
}
