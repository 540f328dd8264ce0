using Rendal.Core.Customers;

namespace Rendal.Core.Intake;

/// <summary>The customers of one ledger file, as its rows tell of them.</summary>
internal sealed class CustomersSeen(LedgerCells cells, LedgerSurvey survey, AppliedCorrections corrections)
{
    private readonly Dictionary<string, CustomerSeen> customers = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> customerByAddress = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> firstSpelling = new(StringComparer.Ordinal);
    private readonly RowChains chains = new();
    private readonly Memo<string> folded = new(FoldedName.Of);

    /// <summary>Those met so far, by their keys.</summary>
    public IReadOnlyDictionary<string, CustomerSeen> All => customers;

    /// <summary>Whose a line is, customers that were joined as one; null with a finding where it says neither code nor name.</summary>
    public string? Whose(LedgerLine line, Action<Correction> applied)
    {
        var key =
            line.Code.Length > 0 ? line.Code
            : line.Name.Length > 0 ? survey.CodeOf(line.Name) ?? KeyByName(line.Name)
            : null;
        if (key is null)
        {
            cells.Add(
                FindingCodes.NoCustomer,
                Severity.Error,
                line.Row,
                cells.Column(ColumnMeaning.CustomerCode) is null ? ColumnMeaning.CustomerName : ColumnMeaning.CustomerCode,
                null,
                "The row has neither a customer code nor a name.",
                "Say whose it is, or leave the row out."
            );
            return null;
        }

        return corrections.CustomerOf(key, applied);
    }

    /// <summary>Notes how a row writes its customer, and gives what is known of that customer with this row counted.</summary>
    public CustomerSeen Note(LedgerLine line, string customer)
    {
        if (!customers.TryGetValue(customer, out var seen))
        {
            seen = new CustomerSeen(customer, line.Name, cells.Source(line.Row), cells.Column(ColumnMeaning.Email)?.Heading, chains);
            customers.Add(customer, seen);
        }
        else if (
            line.Name.Length > 0
            && seen.Name.Length > 0
            && !ReferenceEquals(line.Name, seen.Name)
            && line.Name != seen.Name
            && !IsJoined(line)
            && folded.Of(line.Name) != folded.Of(seen.Name)
            && (seen.Names ??= new(StringComparer.Ordinal)).Add(folded.Of(line.Name))
        )
        {
            cells.Add(
                FindingCodes.CodeWithTwoNames,
                Severity.Warning,
                line.Row,
                ColumnMeaning.CustomerName,
                customer,
                $"{customer} is called “{LedgerCells.Short(line.Name)}” here and “{LedgerCells.Short(seen.Name)}” in row "
                    + $"{seen.First.Row}.",
                "Say whether they are one customer; until then the first name stands."
            );
        }

        if (seen.Name.Length == 0)
        {
            seen.Name = line.Name;
        }

        NoteAddresses(line.Row, seen);
        return seen;
    }

    /// <summary>Two spellings that fold to the same are one customer, under the spelling that came first.</summary>
    private string KeyByName(string name)
    {
        var plain = folded.Of(name);
        if (!firstSpelling.TryGetValue(plain, out var first))
        {
            firstSpelling.Add(plain, first = name);
        }

        return first;
    }

    private bool IsJoined(LedgerLine line) => corrections.IsJoined(line.Code.Length > 0 ? line.Code : line.Name);

    private void NoteAddresses(FileRow row, CustomerSeen seen)
    {
        var field = cells.Text(row, ColumnMeaning.Email);
        if (field.Length == 0 || field == seen.LastField)
        {
            return;
        }

        var isFirst = seen.LastField.Length == 0;
        seen.Fields ??= isFirst ? null : new HashSet<string>([seen.LastField], StringComparer.Ordinal);
        seen.LastField = field;
        if (seen.Fields?.Add(field) == false)
        {
            return;
        }

        var list = AddressList.Read(field);
        foreach (var bad in list.Bad)
        {
            cells.Add(
                FindingCodes.BadAddress,
                Severity.Warning,
                row,
                ColumnMeaning.Email,
                seen.Key,
                $"“{LedgerCells.Short(bad)}” is not an e-mail address.",
                list.Good.Count > 0
                    ? "Correct it; the other addresses of the field still serve."
                    : "Correct it; until then nothing can be sent there."
            );
        }

        foreach (var address in list.Good.Where(a => !seen.Addresses.Contains(a, StringComparer.OrdinalIgnoreCase)))
        {
            seen.Add(address);
            if (!customerByAddress.TryAdd(address, seen.Key) && customerByAddress[address] is var other && other != seen.Key)
            {
                cells.Add(
                    FindingCodes.AddressOfTwoCustomers,
                    Severity.Warning,
                    row,
                    ColumnMeaning.Email,
                    seen.Key,
                    $"{address} is the address of {other} too.",
                    "Look whether both are to go to the same place, or are one customer under two codes.",
                    other
                );
            }
        }
    }
}
