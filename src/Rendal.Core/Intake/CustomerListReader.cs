using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>A customer of a list: what the list says of it, field by field.</summary>
/// <param name="Key">The code, or the name where the list has no codes.</param>
/// <param name="Fields">What is filled, as written; the lines of an address joined by line ends, several addresses by semicolons.</param>
/// <param name="Extra">The filled columns without a meaning, by heading.</param>
/// <param name="Source">The row.</param>
public sealed record ListedCustomer(
    string Key,
    IReadOnlyDictionary<CardField, string> Fields,
    IReadOnlyDictionary<string, string> Extra,
    SourceRef Source
);

/// <summary>A customer list as read.</summary>
/// <param name="Reading">How it was read.</param>
/// <param name="Customers">The customers in the order of the list, each once.</param>
/// <param name="RowsRead">Rows with content below the headings.</param>
/// <param name="Findings">What was noticed.</param>
public sealed record CustomerList(CardReading Reading, IReadOnlyList<ListedCustomer> Customers, int RowsRead, FindingList Findings);

/// <summary>Reads a list of customers, or a list of extra columns for them: one row each, with a code or a name.</summary>
public static class CustomerListReader
{
    private static readonly CardField[] Postal = [CardField.Address, CardField.Town, CardField.Postcode];

    /// <summary>
    /// Reads the list in the way that was recognised, which must lack nothing. Of a code that stands twice the first row counts.
    /// </summary>
    public static CustomerList Read(LedgerTable table, CardReading reading)
    {
        var customers = new Dictionary<string, ListedCustomer>(StringComparer.Ordinal);
        var findings = new FindingList();
        var hidden = new HiddenRows(leftOut: false);
        var rows = 0;
        foreach (var row in table.Rows)
        {
            if (row.Number <= reading.HeadingRow || row.IsBlank)
            {
                continue;
            }

            rows++;
            if (row.IsHidden)
            {
                hidden.Count(row.Number, null, 0);
            }

            if (ReadRow(row, reading, table, findings) is { } customer && !customers.TryAdd(customer.Key, customer))
            {
                findings.Add(
                    new Finding(
                        FindingCodes.SameRowTwice,
                        Severity.Warning,
                        customer.Source,
                        null,
                        customer.Key,
                        $"{customer.Key} stands in the list in row {customers[customer.Key].Source.Row} too; the first row counts.",
                        "Take one of the rows out of the list."
                    )
                );
            }
        }

        if (
            hidden.Finding(
                new SourceRef(table.File, table.Sheet, 0),
                "Look whether they count. What does not is to be taken out of the list."
            ) is
            { } rowsHidden
        )
        {
            findings.Add(rowsHidden);
        }

        return new CustomerList(reading, [.. customers.Values], rows, findings);
    }

    private static ListedCustomer? ReadRow(FileRow row, CardReading reading, LedgerTable table, FindingList findings)
    {
        var source = new SourceRef(table.File, table.Sheet, row.Number);
        var fields = new Dictionary<CardField, string>();
        var extra = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var column in reading.Columns.Where(c => !row[c.Index].IsEmpty))
        {
            var text = row[column.Index].Text;
            if (row[column.Index].IsError)
            {
                var isCode = column.Field == CardField.Code;
                findings.Add(
                    new Finding(
                        FindingCodes.CellError,
                        isCode ? Severity.Error : Severity.Warning,
                        source,
                        column.Heading,
                        null,
                        $"The cell holds the error {text} of a formula{(isCode ? "" : "; it counts as empty")}.",
                        "Correct it in the workbook."
                    )
                );
                if (isCode)
                {
                    return null;
                }

                continue;
            }

            if (column.Field == CardField.Extra)
            {
                extra[column.Heading] = row[column.Index].Shown;
            }
            else
            {
                fields[column.Field] = fields.TryGetValue(column.Field, out var before)
                    ? before + (column.Field == CardField.Address ? "\n" : "; ") + text
                    : text;
            }
        }

        JoinPostalLines(fields);
        var name = fields.GetValueOrDefault(CardField.Name, "");
        var key = fields.GetValueOrDefault(CardField.Code, name);
        if (key.Length == 0)
        {
            findings.Add(
                new Finding(
                    FindingCodes.NoCustomer,
                    Severity.Error,
                    source,
                    null,
                    null,
                    "The row has neither a customer code nor a name.",
                    "Fill one of them in, or take the row out of the list."
                )
            );
            return null;
        }

        if (key.Length > LedgerCells.LongestCustomer || name.Length > LedgerCells.LongestCustomer)
        {
            var longest = key.Length > LedgerCells.LongestCustomer ? key : name;
            findings.Add(
                new Finding(
                    FindingCodes.ValueTooLong,
                    Severity.Error,
                    source,
                    null,
                    null,
                    LedgerCells.TooLong(longest, LedgerCells.LongestCustomer),
                    "Look whether the right column was taken for it."
                )
            );
            return null;
        }

        fields.Remove(CardField.Code);
        foreach (var field in fields.Keys.ToList())
        {
            if (CardText.Problem(field, fields[field]) is { } problem)
            {
                findings.Add(
                    new Finding(
                        problem.Code,
                        Severity.Warning,
                        source,
                        reading.Columns.First(c => c.Field == field).Heading,
                        key,
                        problem.Message,
                        problem.Remedy
                    )
                );
                if (problem.Code == FindingCodes.ValueUnknown)
                {
                    fields.Remove(field);
                }
            }
        }

        return new ListedCustomer(key, fields, extra, source);
    }

    private static void JoinPostalLines(Dictionary<CardField, string> fields)
    {
        var town = $"{fields.GetValueOrDefault(CardField.Town)} {fields.GetValueOrDefault(CardField.Postcode)}".Trim();
        string[] lines = [fields.GetValueOrDefault(CardField.Address, ""), town];
        foreach (var part in Postal)
        {
            fields.Remove(part);
        }

        if (string.Join('\n', lines.Where(l => l.Length > 0)) is { Length: > 0 } address)
        {
            fields[CardField.Address] = address;
        }
    }
}
