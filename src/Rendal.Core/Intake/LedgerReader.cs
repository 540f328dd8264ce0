using System.IO.Hashing;
using System.Runtime.InteropServices;
using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// Reads the rows of a ledger file in the way that was recognised. A row that cannot be used is set aside with a
/// finding; nothing is guessed and nothing is dropped. Used once per file: counts and findings grow while the rows are gone through.
/// </summary>
public sealed class LedgerReader
{
    private readonly LedgerTable table;
    private readonly Reading reading;
    private readonly LedgerSurvey survey;
    private readonly ReadingSettings settings;
    private readonly Func<string, int?> termsOf;
    private readonly ControlTotals controls = new();
    private readonly Dictionary<UInt128, int> rowsSeen = [];
    private readonly Dictionary<string, CustomerSeen> customers = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> customerByAddress = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> firstSpelling = new(StringComparer.Ordinal);
    private readonly ColumnReading?[] columns;
    private int derivedDueDates;

    /// <summary>Prepares to read.</summary>
    /// <param name="table">The file.</param>
    /// <param name="recognised">Its reading, from <see cref="Recognition"/>. It must lack nothing.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="termsOf">A customer's own terms in days; null where it has none.</param>
    public LedgerReader(LedgerTable table, RecognisedReading recognised, ReadingSettings settings, Func<string, int?>? termsOf = null)
    {
        (this.table, reading, survey, this.settings) = (table, recognised.Reading, recognised.Survey, settings);
        this.termsOf = termsOf ?? (_ => null);
        columns = [.. Enum.GetValues<ColumnMeaning>().Select(reading.Of)];
        foreach (var finding in recognised.Findings)
        {
            Findings.Add(finding);
        }
    }

    /// <summary>What was noticed so far.</summary>
    public FindingList Findings { get; } = new();

    /// <summary>Whether the file gives what is outstanding.</summary>
    public bool HasOutstanding => reading.HasOutstanding;

    /// <summary>Rows with content below the headings, total lines not counted.</summary>
    public int RowsRead { get; private set; }

    /// <summary>Rows that became ledger rows.</summary>
    public int RowsKept { get; private set; }

    /// <summary>Total and subtotal lines.</summary>
    public int TotalLineCount { get; private set; }

    /// <summary>Rows that could not be used.</summary>
    public int RowsSetAside => RowsRead - RowsKept;

    /// <summary>The customers met so far, with what their rows say of them.</summary>
    public IReadOnlyDictionary<string, CustomerSeen> Customers => customers;

    /// <summary>Goes through the file, a row at a time. To be called once.</summary>
    public IEnumerable<ReadRow> Rows()
    {
        foreach (var row in table.Rows)
        {
            if (row.Number <= reading.HeadingRow || row.Cells.All(c => c.IsEmpty))
            {
                continue;
            }

            if (TotalLines.Is(row, reading))
            {
                TotalLineCount++;
                CompareTotal(row);
                continue;
            }

            RowsRead++;
            var read = Read(row);
            RowsKept += read.Row is null ? 0 : 1;
            yield return read;
        }

        if (derivedDueDates > 0)
        {
            Findings.Add(new Finding(FindingCodes.DueDateDerived, Severity.Note, new SourceRef(table.File, table.Sheet, 0), reading.Of(ColumnMeaning.DueDate)?.Heading, null,
                derivedDueDates == 1
                    ? "The due date of one row was worked out from its document date and the terms."
                    : $"The due dates of {derivedDueDates} rows were worked out from their document dates and the terms.", ""));
        }
    }

    /// <summary>Notes the customers that nothing could be sent to. To be called once, after all rows were gone through.</summary>
    /// <param name="reachable">The customers with an address on their cards; an address on a row serves as well.</param>
    public void NoteMissingAddresses(IReadOnlySet<string> reachable)
    {
        foreach (var finding in MissingAddresses.Among(customers.Values, reachable.Contains))
        {
            Findings.Add(finding);
        }
    }

    private ReadRow Read(FileRow row)
    {
        var errors = Findings.CountOf(Severity.Error);
        var customer = ReadCustomer(row);
        var currency = ReadCurrency(row);
        var kind = ReadKind(row);
        var amounts = currency is { } known ? ReadAmounts(row, kind, known, customer) : null;
        if (kind is null && amounts is { } settled)
        {
            kind = settled.Open < 0 || settled.Original < 0 ? ItemKind.CreditNote : ItemKind.Invoice;
            ReportUnknownKind(row, kind.Value, customer);
        }

        var date = ReadDate(row, ColumnMeaning.Date, customer);
        var due = ReadDate(row, ColumnMeaning.DueDate, customer) ?? DeriveDue(row, date, customer);
        var source = Source(row);
        if (amounts is { } counted)
        {
            controls.Count(currency!.Value, counted.Open);
        }

        NoteCustomer(row, customer);
        if (Findings.CountOf(Severity.Error) > errors || customer is null || amounts is null || due is null)
        {
            return new ReadRow(null, new RowSetAside(customer, currency, amounts?.Open ?? 0, source));
        }

        var ledgerRow = new LedgerRow
        {
            Customer = customer,
            CustomerName = Text(row, ColumnMeaning.CustomerName),
            Kind = kind!.Value,
            Number = Text(row, ColumnMeaning.Number),
            Date = date,
            Due = due.Value,
            Currency = currency!.Value,
            Original = amounts.Value.Original,
            Open = amounts.Value.Open,
            Reference = Text(row, ColumnMeaning.Reference),
            Held = HeldNote(Text(row, ColumnMeaning.Held)),
            Unit = Text(row, ColumnMeaning.Unit),
            Email = Text(row, ColumnMeaning.Email),
            Extra = Extras(row),
            Source = source,
        };
        derivedDueDates += Cell(row, ColumnMeaning.DueDate).IsEmpty ? 1 : 0;
        ReportTwice(ledgerRow);
        return new ReadRow(ledgerRow, null);
    }

    private string? ReadCustomer(FileRow row)
    {
        var code = Text(row, ColumnMeaning.CustomerCode);
        var name = Text(row, ColumnMeaning.CustomerName);
        if (code.Length > 0)
        {
            return code;
        }

        if (name.Length > 0)
        {
            return survey.CodeOf(name) ?? KeyByName(name);
        }

        Add(FindingCodes.NoCustomer, Severity.Error, row, ColumnMeaning.CustomerCode, null,
            "The row has neither a customer code nor a name.", "Say whose it is, or leave the row out.");
        return null;
    }

    /// <summary>Two spellings that fold to the same are one customer, under the spelling that came first.</summary>
    private string KeyByName(string name)
    {
        var folded = FoldedName.Of(name);
        if (!firstSpelling.TryGetValue(folded, out var first))
        {
            firstSpelling.Add(folded, first = name);
        }

        return first;
    }

    private Currency? ReadCurrency(FileRow row)
    {
        var cell = Cell(row, ColumnMeaning.Currency);
        if (!cell.IsEmpty)
        {
            if (Currency.TryParse(cell.Text, out var currency))
            {
                return currency;
            }

            Add(FindingCodes.CurrencyUnknown, Severity.Error, row, ColumnMeaning.Currency, Text(row, ColumnMeaning.CustomerCode),
                $"“{cell.Text}” is not a currency code.", "Write the three letters of ISO 4217, for example GBP or EUR.");
            return null;
        }

        foreach (var meaning in new[] { ColumnMeaning.Outstanding, ColumnMeaning.Amount })
        {
            if (WrittenAmount.TryTake(Cell(row, meaning).Text, out var amount) && amount.Currency is { } written)
            {
                return written;
            }
        }

        return settings.Currency;
    }

    private ItemKind? ReadKind(FileRow row)
    {
        var cell = Cell(row, ColumnMeaning.Kind);
        return cell.IsEmpty ? null : KindWords.Of(cell.Text);
    }

    private (decimal Original, decimal Open)? ReadAmounts(FileRow row, ItemKind? kind, Currency currency, string? customer)
    {
        if (Column(ColumnMeaning.Outstanding) is null && Column(ColumnMeaning.Amount) is null)
        {
            return ReadDebitAndCredit(row, currency, customer) is { } net ? (net, net) : null;
        }

        var open = (Column(ColumnMeaning.Outstanding) is not null) ? ReadSigned(row, ColumnMeaning.Outstanding, kind, currency, customer, needed: true) : null;
        var original = Column(ColumnMeaning.Amount) is not null ? ReadSigned(row, ColumnMeaning.Amount, kind, currency, customer, needed: Column(ColumnMeaning.Outstanding) is null) : null;
        return ((Column(ColumnMeaning.Outstanding) is not null) ? open : original) is { } counted ? (original ?? counted, counted) : null;
    }

    private decimal? ReadDebitAndCredit(FileRow row, Currency currency, string? customer)
    {
        var debit = Cell(row, ColumnMeaning.Debit);
        var credit = Cell(row, ColumnMeaning.Credit);
        if (debit.IsEmpty && credit.IsEmpty)
        {
            Add(FindingCodes.AmountMissing, Severity.Error, row, ColumnMeaning.Debit, customer, "Neither debit nor credit is filled.", "Fill one of them, or leave the row out.");
            return null;
        }

        decimal? charged = debit.IsEmpty ? 0 : ReadPlain(row, ColumnMeaning.Debit, currency, customer);
        decimal? credited = credit.IsEmpty ? 0 : ReadPlain(row, ColumnMeaning.Credit, currency, customer);
        if (charged is null || credited is null)
        {
            return null;
        }

        if (charged != 0 && credited != 0)
        {
            Add(FindingCodes.DebitAndCredit, Severity.Warning, row, ColumnMeaning.Debit, customer,
                $"Debit {currency.Plain(charged.Value)} and credit {currency.Plain(credited.Value)} are both filled; the difference of {currency.Plain(charged.Value - credited.Value)} counts.", "Look whether the row should be two.");
        }

        return charged - credited;
    }

    private decimal? ReadSigned(FileRow row, ColumnMeaning meaning, ItemKind? kind, Currency currency, string? customer, bool needed)
    {
        if (Cell(row, meaning).IsEmpty)
        {
            if (needed)
            {
                Add(FindingCodes.AmountMissing, Severity.Error, row, meaning, customer, "The amount is missing.", "Fill it in, or leave the row out.");
            }

            return null;
        }

        var value = ReadPlain(row, meaning, currency, customer);
        if (value is null || kind?.IsCredit() != true || value == 0)
        {
            return value;
        }

        var signs = survey.Signs(Column(meaning)!.Index);
        if (signs.Tied || (signs.Mixed && value < 0 == signs.Unsigned))
        {
            var (is_, most) = value < 0 ? ("with a minus", "without") : ("without a minus", "with one");
            Add(FindingCodes.SignUnclear, Severity.Error, row, meaning, customer,
                $"This {kind.Value.Code().Replace('-', ' ')} stands {is_}, {(signs.Tied ? "as many others" : "most others")} {most}, so it is unclear which way it counts.",
                "Say whether it lowers what the customer owes.");
        }

        return Column(meaning)!.UnsignedCredits && value > 0 ? -value : value;
    }

    private decimal? ReadPlain(FileRow row, ColumnMeaning meaning, Currency currency, string? customer)
    {
        var column = Column(meaning)!;
        var cell = row[column.Index];
        decimal value;
        if (cell.Number is { } number)
        {
            value = number;
        }
        else if (cell.Date is not null || !WrittenAmount.TryTake(cell.Text, out var amount))
        {
            Add(FindingCodes.AmountUnreadable, Severity.Error, row, meaning, customer, $"“{Short(cell.Text)}” is not an amount.", "Correct it, or leave the row out.");
            return null;
        }
        else if (amount.Currency is { } written && written != currency)
        {
            Add(FindingCodes.CurrencyUnknown, Severity.Error, row, meaning, customer, $"“{cell.Text}” is in {written}, but the row is in {currency}.", "Correct one of the two.");
            return null;
        }
        else if (!amount.TryValue(column.Mark!.Value, out value))
        {
            Add(FindingCodes.AmountUnreadable, Severity.Error, row, meaning, customer,
                $"“{Short(cell.Text)}” does not go with the column’s {column.Notation}.", "Correct it, or set the decimal mark of the column.");
            return null;
        }

        var rounded = currency.Round(value);
        if (rounded != value)
        {
            Add(FindingCodes.AmountFinerThanUnit, Severity.Warning, row, meaning, customer,
                $"{cell.Text} is finer than {currency} goes; it counts as {currency.Plain(rounded)}.", "Look whether the file holds unrounded amounts.");
        }

        return rounded;
    }

    private DateOnly? ReadDate(FileRow row, ColumnMeaning meaning, string? customer)
    {
        var cell = Cell(row, meaning);
        if (cell.IsEmpty || cell.Date is not null)
        {
            return cell.Date;
        }

        var order = Column(meaning)!.Order!.Value;
        if (WrittenDate.TryTake(cell.Text, out var written) && written.TryDay(order, out var day))
        {
            return day;
        }

        Add(FindingCodes.DateUnreadable, Severity.Error, row, meaning, customer,
            $"“{Short(cell.Text)}” is not a date{(order == DateOrder.MonthFirst ? " when the month comes first" : order == DateOrder.DayFirst ? " when the day comes first" : "")}.",
            "Correct it, or set the order of the column.");
        return null;
    }

    private DateOnly? DeriveDue(FileRow row, DateOnly? date, string? customer)
    {
        if (date is { } from)
        {
            return from.AddDays((customer is null ? null : termsOf(customer)) ?? settings.TermsDays);
        }

        if (Cell(row, ColumnMeaning.Date).IsEmpty && Cell(row, ColumnMeaning.DueDate).IsEmpty)
        {
            Add(FindingCodes.DateMissing, Severity.Error, row, ColumnMeaning.Date, customer, "The row has neither a document date nor a due date.", "Fill one of them in, or leave the row out.");
        }

        return null;
    }

    private void ReportUnknownKind(FileRow row, ItemKind taken, string? customer)
    {
        var cell = Cell(row, ColumnMeaning.Kind);
        if (!cell.IsEmpty)
        {
            Add(FindingCodes.KindUnknown, Severity.Warning, row, ColumnMeaning.Kind, customer,
                $"“{Short(cell.Text)}” is not a kind that is known; by its sign it counts as {(taken == ItemKind.Invoice ? "an invoice" : "a credit note")}.", "Look whether that is right.");
        }
    }

    private void ReportTwice(LedgerRow row)
    {
        var key = MemoryMarshal.AsBytes($"{row.Customer}\u0000{(int)row.Kind}\u0000{row.Number}\u0000{row.Date?.DayNumber}\u0000{row.Open}\u0000{row.Original}".AsSpan());
        if (!rowsSeen.TryAdd(XxHash128.HashToUInt128(key), row.Source.Row))
        {
            var first = rowsSeen[XxHash128.HashToUInt128(key)];
            Findings.Add(new Finding(FindingCodes.SameRowTwice, Severity.Warning, row.Source, null, row.Customer,
                $"{(row.Number.Length > 0 ? row.Number : "This row")} of {row.Currency.Plain(row.Open)} stands in row {first} too; both count.",
                "If it is one and the same, leave one of the rows out."));
        }
    }

    private void NoteCustomer(FileRow row, string? customer)
    {
        if (customer is null)
        {
            return;
        }

        var name = Text(row, ColumnMeaning.CustomerName);
        if (!customers.TryGetValue(customer, out var seen))
        {
            seen = new CustomerSeen(customer, name, Source(row), Column(ColumnMeaning.Email)?.Heading);
            customers.Add(customer, seen);
        }
        else if (name.Length > 0 && seen.Name.Length > 0 && FoldedName.Of(name) != FoldedName.Of(seen.Name) && seen.Names.Add(FoldedName.Of(name)))
        {
            Add(FindingCodes.CodeWithTwoNames, Severity.Warning, row, ColumnMeaning.CustomerName, customer,
                $"{customer} is called “{Short(name)}” here and “{Short(seen.Name)}” in row {seen.First.Row}.", "Say whether they are one customer; until then the first name stands.");
        }

        if (seen.Name.Length == 0)
        {
            seen.Name = name;
        }

        NoteAddresses(row, seen);
    }

    private void NoteAddresses(FileRow row, CustomerSeen seen)
    {
        var field = Text(row, ColumnMeaning.Email);
        if (field.Length == 0 || !seen.Fields.Add(field))
        {
            return;
        }

        var list = AddressList.Read(field);
        foreach (var bad in list.Bad)
        {
            Add(FindingCodes.BadAddress, Severity.Warning, row, ColumnMeaning.Email, seen.Key,
                $"“{Short(bad)}” is not an e-mail address.", list.Good.Count > 0 ? "Correct it; the other addresses of the field still serve." : "Correct it; until then nothing can be sent there.");
        }

        foreach (var address in list.Good.Where(a => !seen.Addresses.Contains(a, StringComparer.OrdinalIgnoreCase)))
        {
            seen.Addresses.Add(address);
            if (!customerByAddress.TryAdd(address, seen.Key) && customerByAddress[address] is var other && other != seen.Key)
            {
                Add(FindingCodes.AddressOfTwoCustomers, Severity.Warning, row, ColumnMeaning.Email, seen.Key,
                    $"{address} is the address of {other} too.", "Look whether both are to go to the same place.");
            }
        }
    }

    private void CompareTotal(FileRow row)
    {
        var column = Column(ColumnMeaning.Outstanding) ?? Column(ColumnMeaning.Amount);
        if (column is null || row[column.Index].IsEmpty)
        {
            return;
        }

        var cell = row[column.Index];
        Currency? currency = Currency.TryParse(Cell(row, ColumnMeaning.Currency).Text, out var written) ? written : null;
        var total = cell.Number ?? (WrittenAmount.TryTake(cell.Text, out var amount) && amount.TryValue(column.Mark!.Value, out var value) ? value : null);
        if (total is { } said && controls.Compare(said, currency, Source(row), column.Heading) is { } finding)
        {
            Findings.Add(finding);
        }
    }

    private Dictionary<string, string> Extras(FileRow row)
    {
        var extras = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var column in reading.Columns)
        {
            if (column.Meaning == ColumnMeaning.Extra && !row[column.Index].IsEmpty)
            {
                extras[column.Heading] = row[column.Index].Text;
            }
        }

        return extras;
    }

    private static string HeldNote(string written) =>
        HeadingWords.Plain(written) is "" or "no" or "n" or "0" or "false" or "nein" or "non" or "nee" ? "" : written;

    private ColumnReading? Column(ColumnMeaning meaning) => columns[(int)meaning];

    private Cell Cell(FileRow row, ColumnMeaning meaning) => Column(meaning) is { } column ? row[column.Index] : Intake.Cell.Empty;

    private string Text(FileRow row, ColumnMeaning meaning) => Cell(row, meaning).Text;

    private SourceRef Source(FileRow row) => new(table.File, table.Sheet, row.Number);

    private static string Short(string text) => text.Length <= 60 ? text : text[..59] + "…";

    private void Add(string code, Severity severity, FileRow row, ColumnMeaning meaning, string? customer, string message, string remedy) =>
        Findings.Add(new Finding(code, severity, Source(row), Column(meaning)?.Heading, string.IsNullOrEmpty(customer) ? null : customer, message, remedy));
}
