using Rendal.Core.Customers;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// Reads the rows of a ledger file in the way that was recognised. A row that cannot be used is set aside with a finding; nothing is
/// guessed and nothing is dropped. Used once per file: counts and findings grow while the rows are gone through.
/// </summary>
public sealed class LedgerReader
{
    private readonly LedgerTable table;
    private readonly Reading reading;
    private readonly ReadingChange change;
    private readonly AppliedCorrections corrections;
    private readonly LedgerSurvey survey;
    private readonly ReadingSettings settings;
    private readonly LedgerCells cells;
    private readonly RowAmounts amounts;
    private readonly RowDates dates;
    private readonly CustomersSeen customers;
    private readonly ControlTotals controls;
    private readonly HiddenRows hidden;
    private readonly HiddenColumns hiddenColumns;
    private readonly ColumnChecks checks;
    private readonly FarDates farDates = new();
    private readonly Dictionary<UInt128, int> rowsSeen;
    private readonly Memo<ItemKind?> kinds;
    private readonly ColumnReading[] extras;
    private readonly string[] extraHeadings;
    private readonly RowFingerprint fingerprint = new();
    private readonly SortedDictionary<Currency, decimal> leftOut = [];
    private readonly List<Correction> ofLine = [];
    private readonly Action<Correction> applied;
    private readonly List<CorrectedRow> corrected = [];
    private readonly ReadingNotes notes = new();

    /// <summary>Prepares to read; nothing of the file is read before <see cref="Rows"/>.</summary>
    /// <param name="table">The file.</param>
    /// <param name="recognised">Its reading, from <see cref="Recognition"/>. It must lack nothing.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="termsOf">A customer's own terms; null where it has none.</param>
    /// <param name="change">What the person decided, of which the typed totals count here.</param>
    public LedgerReader(
        LedgerTable table,
        RecognisedReading recognised,
        ReadingSettings settings,
        Func<string, PaymentTerms?>? termsOf = null,
        ReadingChange? change = null
    )
    {
        (this.table, reading, survey, this.settings, corrections, this.change) = (
            table,
            recognised.Reading,
            recognised.Survey,
            settings,
            recognised.Corrections,
            change ?? ReadingChange.None
        );
        applied = ofLine.Add;
        controls = new ControlTotals(this.change.LeavesOutHidden == true);
        hidden = new HiddenRows(this.change.LeavesOutHidden == true);
        hiddenColumns = new HiddenColumns(reading);
        checks = new ColumnChecks(reading);
        cells = new LedgerCells(table, reading, Findings);
        amounts = new RowAmounts(cells, survey, settings);
        dates = new RowDates(cells, settings, termsOf ?? (_ => null), table.Traits.Dates1904);
        customers = new CustomersSeen(cells, survey, corrections);
        kinds = new Memo<ItemKind?>(word => KindWords.Of(word, reading.Kinds));
        extras = [.. reading.Columns.Where(c => c.Meaning == ColumnMeaning.Extra && !c.IsLeftOut)];
        extraHeadings = [.. extras.Select(c => c.Heading)];
        rowsSeen = new Dictionary<UInt128, int>(survey.RowCount);
        foreach (var finding in recognised.Findings)
        {
            Findings.Add(finding);
        }
    }

    /// <summary>
    /// What was noticed so far, what was noticed at recognition included; complete when <see cref="Rows"/> has come to its end.
    /// </summary>
    public FindingList Findings { get; } = new();

    /// <summary>The sheet that is read; null for a text file.</summary>
    public string? Sheet => table.Sheet;

    /// <summary>
    /// The headings of the columns without a meaning for the rules, in the order of the values that each row has for them.
    /// </summary>
    public IReadOnlyList<string> ExtraHeadings => extraHeadings;

    /// <summary>Whether the file has a column of this meaning; where it has none, every row is empty there.</summary>
    public bool Has(ColumnMeaning meaning) => reading.Has(meaning);

    /// <summary>
    /// Whether the file gives what is outstanding of each row. Else payments are set against invoices by the rule of the book.
    /// </summary>
    public bool HasOutstanding => reading.HasOutstanding;

    /// <summary>
    /// Rows with content below the headings; total lines, lines that name the customer of others, and rows left out by a person are not
    /// counted.
    /// </summary>
    public int RowsRead { get; private set; }

    /// <summary>Rows that became ledger rows so far.</summary>
    public int RowsKept { get; private set; }

    /// <summary>Total and subtotal lines so far. They are compared with the rows above them and become no ledger rows.</summary>
    public int TotalLineCount { get; private set; }

    /// <summary>Rows that a person left out by a correction; hidden rows that are left out as a whole are not among them.</summary>
    public int RowsLeftOut { get; private set; }

    /// <summary>What the rows left out come to, by currency, as far as their amounts can be read.</summary>
    public IReadOnlyDictionary<Currency, decimal> LeftOutSums => leftOut;

    /// <summary>Rows that could not be used, each with a finding that says why; they are kept beside the ledger.</summary>
    public int RowsSetAside => RowsRead - RowsKept;

    /// <summary>The customers met so far, with what their rows say of them.</summary>
    public IReadOnlyDictionary<string, CustomerSeen> Customers => customers.All;

    /// <summary>
    /// The ledger rows that are not what the file says, each with the correction that made it so; a row with two stands twice.
    /// </summary>
    public IReadOnlyList<CorrectedRow> Corrected => corrected;

    /// <summary>The totals that were compared with the rows they are over: lines of the file, and what a person typed in.</summary>
    public IReadOnlyList<ControlCheck> Checks => controls.Checks;

    /// <summary>Goes through the file, a row at a time. To be called once.</summary>
    public IEnumerable<ReadRow> Rows()
    {
        foreach (var line in LedgerLines.Of(table, reading, corrections, ReportSuperseded, applied))
        {
            if (line.Role == RowRole.Total)
            {
                TotalLineCount++;
                CompareTotal(line.Row);
            }
            else if (line.Role == RowRole.Item && (line.LeftOut is not null || (line.Row.IsHidden && change.LeavesOutHidden == true)))
            {
                LeaveOut(line.Row);
            }
            else if (line.Role == RowRole.Item)
            {
                RowsRead++;
                var read = Read(line);
                RowsKept += read.Row is null ? 0 : 1;
                if (read.Row is not null && ofLine.Count > 0)
                {
                    corrected.AddRange(ofLine.Select(c => new CorrectedRow(line.Row.Number, c)));
                }

                yield return read;
            }

            ofLine.Clear();
        }

        CloseUp();
    }

    /// <summary>Notes the customers that nothing could be sent to. To be called once, after all rows were gone through.</summary>
    /// <param name="reachable">The customers with an address on their cards; an address on a row serves as well.</param>
    public void NoteMissingAddresses(IReadOnlySet<string> reachable)
    {
        foreach (var finding in MissingAddresses.Among(Customers.Values, reachable.Contains))
        {
            Findings.Add(finding);
        }
    }

    private ReadRow Read(LedgerLine line)
    {
        var row = line.Row;
        if (!cells.DemandNoErrors(row))
        {
            var (of, amount) = Silently(row);
            Count(row, amount is null ? null : of, amount ?? 0);
            return new ReadRow(
                null,
                new RowSetAside(
                    line.Code.Length + line.Name.Length == 0 ? null : customers.Whose(line, applied),
                    of,
                    amount ?? 0,
                    cells.Source(row)
                )
            );
        }

        var errors = Findings.CountOf(Severity.Error);
        var customer = customers.Whose(line, applied);
        if (line.IsCarried)
        {
            notes.CountCarried();
        }

        cells.DemandLengths(row, customer);
        if (customer?.Length > LedgerCells.LongestCustomer)
        {
            // Named on a line above its rows; those have no cell of their own for it.
            Findings.Add(
                new Finding(
                    FindingCodes.ValueTooLong,
                    Severity.Error,
                    cells.Source(row),
                    null,
                    null,
                    LedgerCells.TooLong(customer, LedgerCells.LongestCustomer),
                    "Look whether the right column was taken for it."
                )
            );
            customer = null;
        }

        var currency = amounts.ReadCurrency(row, customer);
        var written = cells.Text(row, ColumnMeaning.Kind);
        var kind = written.Length == 0 ? null : kinds.Of(written);
        var read = currency is { } known ? amounts.Read(row, kind, known, customer) : null;
        if (kind is null && read is { } settled)
        {
            kind = settled.Open < 0 || settled.Original < 0 ? ItemKind.CreditNote : ItemKind.Invoice;
            ReportUnknownKind(row, kind.Value, customer);
        }

        var date = dates.Read(row, ColumnMeaning.Date, customer);
        var due = dates.Read(row, ColumnMeaning.DueDate, customer);
        var derived = due is null && cells.Cell(row, ColumnMeaning.DueDate).IsEmpty;
        due ??= dates.DeriveDue(row, date, customer);
        Count(row, read is null ? null : currency, read?.Open ?? 0);

        var seen = customer is null
            ? null
            : customers.Note(line.Name.Length > LedgerCells.LongestCustomer ? line with { Name = "" } : line, customer);
        if (Findings.CountOf(Severity.Error) > errors || customer is null || seen is null || read is null || due is null)
        {
            return new ReadRow(null, new RowSetAside(customer, currency, read?.Open ?? 0, cells.Source(row)));
        }

        if (derived)
        {
            notes.CountDueDate();
        }

        if (row.IsMoved)
        {
            notes.CountMoved(row.Number);
        }

        var ledgerRow = new LedgerRow
        {
            Customer = customer,
            CustomerName = line.Name,
            Kind = kind!.Value,
            Number = cells.Text(row, ColumnMeaning.Number),
            Date = date,
            Due = due.Value,
            Currency = currency!.Value,
            Original = read.Value.Original,
            Open = read.Value.Open,
            Reference = cells.Text(row, ColumnMeaning.Reference),
            Held = HeldNote(cells.Text(row, ColumnMeaning.Held)),
            Unit = cells.Text(row, ColumnMeaning.Unit),
            Email = cells.Text(row, ColumnMeaning.Email),
            Extra = Extras(row),
            Source = cells.Source(row),
        };
        seen.Add(row.Number, ledgerRow.Currency, ledgerRow.Open);
        farDates.Count(due.Value, row.Number, customer);
        checks.Show(row, ledgerRow);
        ReportTwice(ledgerRow);
        return new ReadRow(ledgerRow, null);
    }

    /// <summary>A row left out is not in the ledger; its amount still belongs to what a total line of the file counts.</summary>
    private void LeaveOut(FileRow row)
    {
        RowsLeftOut++;
        var (currency, amount) = Silently(row);
        Count(row, amount is null ? null : currency, amount ?? 0);
        if (currency is { } known && amount is { } counted)
        {
            leftOut[known] = leftOut.GetValueOrDefault(known) + counted;
        }
    }

    /// <summary>Counts what total lines are compared with, and what is hidden.</summary>
    private void Count(FileRow row, Currency? currency, decimal amount)
    {
        if (currency is { } known)
        {
            controls.Count(known, amount, row.IsHidden);
        }

        if (row.IsHidden)
        {
            hidden.Count(row.Number, currency, amount);
        }

        hiddenColumns.Count(row);
    }

    /// <summary>The currency and the amount of a row, each null where it cannot be read; nothing is noted of it.</summary>
    private (Currency? Currency, decimal? Amount) Silently(FileRow row)
    {
        var apart = new RowAmounts(new LedgerCells(table, reading, new FindingList()), survey, settings);
        return apart.ReadCurrency(row, null) is { } currency
            ? (currency, apart.Read(row, kinds.Of(cells.Text(row, ColumnMeaning.Kind)), currency, null)?.Open)
            : (null, null);
    }

    private void CloseUp()
    {
        var file = new SourceRef(table.File, table.Sheet, 0);
        foreach (var (code, total) in change.Totals)
        {
            if (Currency.TryParse(code, out var currency) && controls.CompareTyped(total, currency, file) is { } differs)
            {
                Findings.Add(differs);
            }
        }

        if (hidden.Finding(file, "Look whether they count, or leave them out.") is { } rowsHidden)
        {
            Findings.Add(rowsHidden);
        }

        if (hiddenColumns.Finding(file, change.LeavesOutHiddenColumns == true) is { } columnsHidden)
        {
            Findings.Add(columnsHidden);
        }

        foreach (var differs in checks.Findings(row => file with { Row = row }))
        {
            Findings.Add(differs);
        }

        foreach (var far in farDates.Findings(row => file with { Row = row }, reading.Of(ColumnMeaning.DueDate)?.Heading))
        {
            Findings.Add(far);
        }

        foreach (var note in notes.Findings(file, reading.Of(ColumnMeaning.DueDate)?.Heading))
        {
            Findings.Add(note);
        }
    }

    private void ReportSuperseded(FileRow row, Correction correction, string now) =>
        Findings.Add(
            new Finding(
                FindingCodes.CorrectionSuperseded,
                Severity.Warning,
                cells.Source(row),
                correction.Column,
                null,
                $"You once put “{LedgerCells.Short(correction.Becomes)}” for “{LedgerCells.Short(correction.Was)}” here; the "
                    + $"file now says “{LedgerCells.Short(now)}”, and that counts.",
                "Look which is right; take the correction back if it is done with."
            )
        );

    private void ReportUnknownKind(FileRow row, ItemKind taken, string? customer)
    {
        var cell = cells.Cell(row, ColumnMeaning.Kind);
        if (!cell.IsEmpty)
        {
            cells.Add(
                FindingCodes.KindUnknown,
                Severity.Warning,
                row,
                ColumnMeaning.Kind,
                customer,
                $"“{LedgerCells.Short(cell.Text)}” is not a kind that is known; by its sign it counts as "
                    + $"{(taken == ItemKind.Invoice ? "an invoice" : "a credit note")}.",
                "Look whether that is right, or say what the word means."
            );
        }
    }

    private void ReportTwice(LedgerRow row)
    {
        var key = fingerprint.Of(row);
        if (!rowsSeen.TryAdd(key, row.Source.Row))
        {
            Findings.Add(
                new Finding(
                    FindingCodes.SameRowTwice,
                    Severity.Warning,
                    row.Source,
                    null,
                    row.Customer,
                    $"{(row.Number.Length > 0 ? row.Number : "This row")} of {row.Currency.Plain(row.Open)} stands in row "
                        + $"{rowsSeen[key]} too; both count.",
                    "If it is one and the same, leave one of the rows out."
                )
            );
        }
    }

    private void CompareTotal(FileRow row)
    {
        if (amounts.ReadTotal(row) is not { } total)
        {
            return;
        }

        Currency? currency = Currency.TryParse(cells.Text(row, ColumnMeaning.Currency), out var written) ? written : CurrencyOf(row);
        if (controls.Compare(total.Said, currency, cells.Source(row), total.Column.Heading) is { } finding)
        {
            Findings.Add(finding);
        }
    }

    /// <summary>
    /// The currency that the words of a total line name, of those that stand above it: “Total EUR”. Null where none or several do.
    /// </summary>
    private Currency? CurrencyOf(FileRow row)
    {
        var named = row
            .Cells.FirstOrDefault(c => c.IsText)
            .Text.Split([' ', ':', '(', ')', '/', '-'], StringSplitOptions.RemoveEmptyEntries)
            .Select(word => Currency.TryParse(word, out var currency) && controls.Has(currency) ? currency : (Currency?)null)
            .OfType<Currency>()
            .Distinct()
            .ToList();
        return named is [var one] ? one : null;
    }

    private ExtraColumns Extras(FileRow row)
    {
        if (extras.Length == 0)
        {
            return ExtraColumns.None;
        }

        var values = new string[extras.Length];
        for (var i = 0; i < values.Length; i++)
        {
            var cell = row[extras[i].Index];
            values[i] = cell.IsError ? "" : cell.Shown;
        }

        return new ExtraColumns(extraHeadings, values);
    }

    private static string HeldNote(string written) => written.Length == 0 || YesNo.IsNo(written) ? "" : written;
}
