namespace Rendal.Core.Intake;

/// <summary>A row of a ledger file with what it is there for and whose it is.</summary>
/// <param name="Row">The row, with corrections.</param>
/// <param name="Written">The row as it stands in the file.</param>
/// <param name="Role">What it is there for.</param>
/// <param name="Code">The customer's code, its own or carried down; empty where none is known.</param>
/// <param name="Name">The customer's name, its own or carried down; empty where none is known.</param>
/// <param name="IsCarried">Whether the customer comes from a row above.</param>
/// <param name="LeftOut">Why a person left it out; null where it counts.</param>
public readonly record struct LedgerLine(
    FileRow Row,
    FileRow Written,
    RowRole Role,
    string Code,
    string Name,
    bool IsCarried,
    string? LeftOut
);

/// <summary>Goes through the rows of a ledger file, carrying customers down where the reading says so.</summary>
public static class LedgerLines
{
    /// <summary>The lines of a file, title lines and headings included.</summary>
    /// <param name="table">The file.</param>
    /// <param name="reading">How it is read.</param>
    /// <param name="corrections">What was put right.</param>
    /// <param name="superseded">Is told each correction that the source no longer needs, with its row and what it says now.</param>
    /// <param name="applied">Is told each correction that changes the next line that is returned.</param>
    public static IEnumerable<LedgerLine> Of(
        LedgerTable table,
        Reading reading,
        AppliedCorrections corrections,
        Action<FileRow, Correction, string>? superseded = null,
        Action<Correction>? applied = null
    )
    {
        var roles = new RowRoles(reading);
        var code = reading.Of(ColumnMeaning.CustomerCode);
        var name = reading.Of(ColumnMeaning.CustomerName);
        var hasColumn = code is not null || name is not null;
        var (carriedCode, carriedName) = ("", "");
        foreach (var written in table.Rows)
        {
            var (row, leftOut) =
                written.Number <= reading.HeadingRow ? (written, null) : corrections.Correct(written, superseded, applied);
            var role = roles.Of(row);
            var own = (Code: Text(row, code), Name: Text(row, name));
            var carried = false;
            if (role == RowRole.Item && (IsError(row, code) || (own.Code.Length == 0 && IsError(row, name))))
            {
                // Whose this row is, and the rows below that name nobody, is not known.
                (own, carriedCode, carriedName) = (("", ""), "", "");
            }
            else if (reading.CarriesDown && !hasColumn && role == RowRole.Above && roles.IsGroup(row))
            {
                // The headings stand again below each customer’s line, so the first of those is above them all.
                (carriedCode, carriedName) = row.Number == reading.HeadingRow - 1 ? GroupLine.Read(row) : ("", "");
            }
            else if (reading.CarriesDown && role is RowRole.Item or RowRole.Group)
            {
                if (!hasColumn && role == RowRole.Group)
                {
                    own = GroupLine.Read(row);
                }

                carried = own.Code.Length == 0 && own.Name.Length == 0;
                (carriedCode, carriedName) = carried ? (carriedCode, carriedName) : own;
                own = (carriedCode, carriedName);
            }
            else if (role == RowRole.Total)
            {
                // Below the total of a customer the next one has to be named, or the row would go to the wrong one.
                (carriedCode, carriedName) = ("", "");
            }

            yield return new LedgerLine(row, written, role, own.Code, own.Name, carried, leftOut);
        }
    }

    private static string Text(FileRow row, ColumnReading? column) =>
        column is null || row[column.Index].IsError ? "" : row[column.Index].Text;

    private static bool IsError(FileRow row, ColumnReading? column) => column is not null && row[column.Index].IsError;
}
