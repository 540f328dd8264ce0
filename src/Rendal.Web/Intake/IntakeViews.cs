using System.ComponentModel.DataAnnotations;
using Rendal.App.Intake;
using Rendal.Core.Intake;
using Rendal.Core.Intake.Columns;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Rounds;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.Web.Intake;

/// <summary>An intake in a list.</summary>
internal sealed record IntakeLine(
    long Id,
    IntakeKind Kind,
    string File,
    string? Sheet,
    string State,
    DateTimeOffset MadeAt,
    DateTimeOffset? KeptAt,
    int RowsRead,
    int RowsKept,
    bool CanUndo,
    bool IsLedger
);

/// <summary>A column as it was taken: of a ledger by its meaning, of a customer list by its field.</summary>
internal sealed record ColumnView(
    int Index,
    string Heading,
    ColumnMeaning Meaning,
    CardField Field,
    string Reason,
    DecimalMark? Mark,
    DateOrder? Order,
    bool? UnsignedCredits,
    string Notation
)
{
    /// <summary>How certain the meaning is.</summary>
    public Confidence Confidence { get; init; }

    /// <summary>What else a column of a ledger could be, the likeliest first.</summary>
    public IReadOnlyList<OtherMeaning> Others { get; init; } = [];

    /// <summary>What else a column of a customer list could be, the likeliest first.</summary>
    public IReadOnlyList<CardField> OtherFields { get; init; } = [];

    /// <summary>Whether the workbook hides it.</summary>
    public bool IsHidden { get; init; }
}

/// <summary>A column that could be the amount, with what it comes to.</summary>
internal sealed record AmountChoiceView(int Column, string Heading, string Sum);

/// <summary>
/// Which of two columns is the amount, as it also stands among what the file lacks; the sums are over so many rows, the first of the file.
/// </summary>
internal sealed record AmountQuestionView(ColumnMeaning Meaning, string Says, IReadOnlyList<AmountChoiceView> Choices, int Rows)
{
    public static AmountQuestionView? Of(Reading? reading, Currency currency)
    {
        return reading?.Question is { } asked
            ? new(asked.Meaning, reading.Says(asked), [Choice(asked.Taken), Choice(asked.Other)], asked.Rows)
            : null;

        AmountChoiceView Choice(AmountChoice choice) =>
            new(choice.Index, ShownText.Of(reading!.Columns[choice.Index].Heading), currency.Plain(choice.Sum));
    }
}

/// <summary>What a file seems to be, as it also stands among what it lacks or what makes it doubtful.</summary>
internal sealed record OtherListView(OtherListKind Kind, string Says);

/// <summary>A finding with its place.</summary>
internal sealed record FindingView(
    string Code,
    Severity Severity,
    string File,
    string? Sheet,
    int Row,
    string? Column,
    string? Customer,
    string Message,
    string Remedy,
    string? Other
)
{
    public static FindingView Of(Finding f) =>
        new(
            f.Code,
            f.Severity,
            f.Source.File,
            f.Source.Sheet,
            f.Source.Row,
            f.Column is { } column ? ShownText.Of(column) : null,
            f.Customer is { } customer ? ShownText.Of(customer) : null,
            ShownText.Of(f.Message),
            f.Remedy,
            f.Other is { } other ? ShownText.Of(other) : null
        );
}

/// <summary>The findings of one kind: how many there are, and the first of them.</summary>
internal sealed record FindingGroupView(string Code, Severity Severity, int Count, IReadOnlyList<FindingView> First)
{
    private const int Shown = 100;

    public static IReadOnlyList<FindingGroupView> Of(FindingList findings) =>
        [
            .. findings
                .Listed()
                .GroupBy(f => f.Code)
                .Select(g => new FindingGroupView(
                    g.Key,
                    g.First().Severity,
                    findings.CountOf(g.Key),
                    [.. g.Take(Shown).Select(FindingView.Of)]
                )),
        ];

    public static IReadOnlyList<FindingGroupView> Of(IEnumerable<Finding> findings) =>
        [
            .. findings
                .GroupBy(f => f.Code)
                .Select(g => new FindingGroupView(g.Key, g.First().Severity, g.Count(), [.. g.Take(Shown).Select(FindingView.Of)])),
        ];
}

/// <summary>A sum in one currency, written for a file: full stop, the currency's decimals.</summary>
internal sealed record SumView(string Currency, string Amount)
{
    public static SumView Of(Currency currency, decimal amount) => new(currency.Code, currency.Plain(amount));

    public static IReadOnlyList<SumView> Of(IEnumerable<KeyValuePair<Currency, decimal>> sums) =>
        [.. sums.Select(s => Of(s.Key, s.Value))];
}

/// <summary>A total that was compared.</summary>
/// <param name="Row">The total line; 0 for one that was typed in.</param>
internal sealed record CheckView(int Row, string Currency, string Said, string Sum, bool Agrees)
{
    public static CheckView Of(ControlCheck c) =>
        new(c.Source.Row, c.Currency.Code, c.Currency.Plain(c.Said), c.Currency.Plain(c.Sum), c.Agrees);
}

/// <summary>A row of the file as it stands.</summary>
/// <param name="Number">The row as a spreadsheet shows it.</param>
/// <param name="Role">What it is there for.</param>
/// <param name="Cells">The cells as they are displayed, before any correction.</param>
/// <param name="Values">What numbers are that are displayed otherwise, by column.</param>
/// <param name="Corrected">What holds instead in cells that were put right, by column.</param>
/// <param name="LeftOut">Why it was left out; null where it counts.</param>
internal sealed record FileRowView(
    int Number,
    RowRole Role,
    IReadOnlyList<string> Cells,
    IReadOnlyDictionary<int, string> Values,
    IReadOnlyDictionary<int, string> Corrected,
    string? LeftOut
)
{
    public static FileRowView Of(FileRowSeen r) =>
        new(
            r.Row.Number,
            r.Role,
            ShownText.Of(r.Row),
            Enumerable
                .Range(0, r.Row.Cells.Length)
                .Where(i => r.Row[i].Format is not null || r.Row[i].DisplayedAs is not null)
                .ToDictionary(i => i, i => r.Row[i].Text),
            r.Corrected.ToDictionary(c => c.Key, c => ShownText.Of(c.Value)),
            r.LeftOut
        );
}

/// <summary>A part of a file's rows.</summary>
internal sealed record FileRowsView(int LastRow, IReadOnlyList<FileRowView> Rows);

/// <summary>How a file was opened.</summary>
internal sealed record OpeningView(
    IReadOnlyList<SheetSeen> Sheets,
    string? Sheet,
    string SheetReason,
    string? Delimiter,
    string DelimiterReason,
    string? Encoding,
    string EncodingReason
)
{
    public static OpeningView Of(LedgerTable table) =>
        new(
            table.Traits.Sheets,
            table.Sheet,
            table.Traits.SheetReason,
            table.Traits.Delimiter?.ToString(),
            table.Traits.DelimiterReason,
            table.Traits.Encoding,
            table.Traits.EncodingReason
        );
}

/// <summary>A file as it was looked at.</summary>
internal sealed record IntakeView(
    long Id,
    IntakeKind Kind,
    string File,
    string State,
    OpeningView Opening,
    int? HeadingRow,
    bool? CarriesDown,
    string CarryReason,
    IReadOnlyDictionary<string, ItemKind> Kinds,
    IReadOnlyDictionary<string, string> Totals,
    IReadOnlyList<ColumnView> Columns,
    IReadOnlyList<string> Lacks,
    int LastRow,
    int RowsRead,
    int RowsKept,
    int RowsSetAside,
    int RowsLeftOut,
    int TotalLines,
    int Customers,
    int NewCustomers,
    IReadOnlyList<SumView> Sums,
    IReadOnlyList<SumView> SetAsideSums,
    IReadOnlyList<SumView> LeftOutSums,
    IReadOnlyList<SumView> LedgerSums,
    IReadOnlyList<CheckView> Checks,
    int Errors,
    int Warnings,
    IReadOnlyList<FindingGroupView> Findings,
    IReadOnlyList<string> Doubts
)
{
    /// <summary>What only a person can tell; null where nothing is left open.</summary>
    public AmountQuestionView? Question { get; init; }

    /// <summary>What the file seems to be instead of a ledger; null where it may well be one.</summary>
    public OtherListView? SeemsToBe { get; init; }

    /// <summary>Whether hidden rows are left out.</summary>
    public bool LeavesOutHidden { get; init; }

    /// <summary>Whether hidden columns are left out.</summary>
    public bool LeavesOutHiddenColumns { get; init; }

    public static IntakeView Of(IntakeRecord intake, LedgerLook look, Currency currency)
    {
        var reading = look.Recognised?.Reading;
        return Of(
            intake,
            look.Table,
            reading?.HeadingRow,
            [
                .. reading?.Columns.Select(c => new ColumnView(
                    c.Index,
                    ShownText.Of(c.Heading),
                    c.Meaning,
                    CardField.Extra,
                    c.Reason,
                    c.Mark,
                    c.Order,
                    c.Meaning.IsAmount() ? c.UnsignedCredits : null,
                    c.Notation
                )
                {
                    Confidence = c.Confidence,
                    Others = [.. c.Others.Select(o => o with { First = [.. o.First.Select(ShownText.Of)] })],
                    IsHidden = c.IsHidden,
                })
                    ?? [],
            ],
            look.Lacks
        ) with
        {
            CarriesDown = reading is { CarryReason.Length: > 0 } ? reading.CarriesDown : null,
            CarryReason = reading?.CarryReason ?? "",
            Question = AmountQuestionView.Of(reading, currency),
            SeemsToBe = look.SeemsToBe is { } other ? new(other.Kind, ShownText.Of(other.Says)) : null,
            LeavesOutHidden = intake.Change.LeavesOutHidden == true,
            LeavesOutHiddenColumns = intake.Change.LeavesOutHiddenColumns == true,
            Kinds = intake.Change.Kinds,
            Totals = intake.Change.Totals.ToDictionary(t => t.Key, t => Currency.Of(t.Key).Plain(t.Value)),
        };
    }

    public static IntakeView Of(IntakeRecord intake, CustomerListLook look) =>
        Of(
            intake,
            look.Table,
            look.Reading?.HeadingRow,
            [
                .. look.Reading?.Columns.Select(c => new ColumnView(
                    c.Index,
                    ShownText.Of(c.Heading),
                    ColumnMeaning.Extra,
                    c.Field,
                    c.Reason,
                    null,
                    null,
                    null,
                    ""
                )
                {
                    Confidence = c.Confidence,
                    OtherFields = c.Others,
                })
                    ?? [],
            ],
            look.Lacks
        );

    public IntakeView With(CustomerListRead read) =>
        this with
        {
            RowsRead = read.List.RowsRead,
            RowsKept = read.List.Customers.Count,
            RowsSetAside = read.List.RowsRead - read.List.Customers.Count,
            Customers = read.List.Customers.Count,
            NewCustomers = read.New,
            Errors = read.List.Findings.CountOf(Severity.Error),
            Warnings = read.List.Findings.CountOf(Severity.Warning),
            Findings = FindingGroupView.Of(read.List.Findings),
        };

    public IntakeView With(LedgerRead read) =>
        this with
        {
            RowsRead = read.Reader.RowsRead,
            RowsKept = read.Reader.RowsKept,
            RowsSetAside = read.Reader.RowsSetAside,
            RowsLeftOut = read.Reader.RowsLeftOut,
            TotalLines = read.Reader.TotalLineCount,
            Customers = read.Reader.Customers.Count,
            Sums = SumView.Of(read.Kept),
            SetAsideSums = SumView.Of(read.SetAside),
            LeftOutSums = SumView.Of(read.Reader.LeftOutSums),
            LedgerSums =
            [
                .. read
                    .Kept.Keys.Union(read.SetAside.Keys)
                    .Order()
                    .Select(c => SumView.Of(c, read.Kept.GetValueOrDefault(c) + read.SetAside.GetValueOrDefault(c))),
            ],
            Checks = [.. read.Reader.Checks.Select(CheckView.Of)],
            Errors = read.Reader.Findings.CountOf(Severity.Error),
            Warnings = read.Reader.Findings.CountOf(Severity.Warning),
            Findings = FindingGroupView.Of(read.Reader.Findings),
            Doubts = read.Doubts,
        };

    private static IntakeView Of(
        IntakeRecord intake,
        LedgerTable table,
        int? headingRow,
        IReadOnlyList<ColumnView> columns,
        IReadOnlyList<string> lacks
    ) =>
        new(
            intake.Id,
            intake.Kind,
            intake.FileName,
            intake.State,
            OpeningView.Of(table),
            headingRow,
            null,
            "",
            new Dictionary<string, ItemKind>(),
            new Dictionary<string, string>(),
            columns,
            lacks,
            ((RowSpool)table.Rows).LastRow,
            0,
            0,
            0,
            0,
            0,
            0,
            0,
            [],
            [],
            [],
            [],
            [],
            0,
            0,
            [],
            []
        );
}

/// <summary>What the person decided about a reading.</summary>
internal sealed record ReadingRequest(
    string? Sheet = null,
    string? Delimiter = null,
    string? Encoding = null,
    int? HeadingRow = null,
    bool? CarriesDown = null,
    Dictionary<int, ColumnMeaning>? Meanings = null,
    Dictionary<int, CardField>? Fields = null,
    Dictionary<int, DecimalMark>? Marks = null,
    Dictionary<int, DateOrder>? Orders = null,
    Dictionary<int, bool>? UnsignedCredits = null,
    Dictionary<string, ItemKind>? Kinds = null,
    Dictionary<string, decimal>? Totals = null,
    List<int>? Remembered = null,
    bool? LeavesOutHidden = null,
    bool? LeavesOutHiddenColumns = null
)
{
    public ReadingChange Change() =>
        new()
        {
            Opening = new FileOpening(Sheet, Delimiter is { Length: 1 } ? Delimiter[0] : null, Encoding),
            HeadingRow = HeadingRow,
            CarriesDown = CarriesDown,
            LeavesOutHidden = LeavesOutHidden,
            LeavesOutHiddenColumns = LeavesOutHiddenColumns,
            Meanings = Meanings ?? [],
            Fields = Fields ?? [],
            Marks = Marks ?? [],
            Orders = Orders ?? [],
            UnsignedCredits = UnsignedCredits ?? [],
            Kinds = Kinds ?? [],
            Remembered = Remembered ?? [],
            Totals = (Totals ?? []).Where(t => Currency.TryParse(t.Key, out _)).ToDictionary(t => Currency.Of(t.Key).Code, t => t.Value),
        };

    public static ReadingRequest Of(ReadingChange c) =>
        new(
            c.Opening.Sheet,
            c.Opening.Delimiter?.ToString(),
            c.Opening.Encoding,
            c.HeadingRow,
            c.CarriesDown,
            new(c.Meanings),
            new(c.Fields),
            new(c.Marks),
            new(c.Orders),
            new(c.UnsignedCredits),
            new(c.Kinds),
            new(c.Totals),
            [.. c.Remembered],
            c.LeavesOutHidden,
            c.LeavesOutHiddenColumns
        );
}

/// <summary>Cells that were copied from a spreadsheet.</summary>
internal sealed record PasteRequest([property: StringLength(20_000_000)] string Text, IntakeKind Kind);

/// <summary>The ledger as it is now.</summary>
internal sealed record LedgerView(
    long IntakeId,
    string File,
    string? Sheet,
    DateTimeOffset KeptAt,
    int Rows,
    int RowsSetAside,
    int RowsLeftOut,
    int Customers,
    IReadOnlyList<LedgerSumView> Sums,
    IReadOnlyList<FindingGroupView> Findings
);

/// <summary>What is owed in one currency, by age.</summary>
internal sealed record LedgerSumView(string Currency, string Total, string Overdue, string Credits, IReadOnlyList<string> Bands)
{
    public static IEnumerable<LedgerSumView> Of(IEnumerable<Owed> owed, Currency first) =>
        owed.GroupBy(s => s.Currency)
            .OrderByDescending(g => g.Key == first)
            .ThenBy(g => g.Key)
            .Select(g => new LedgerSumView(
                g.Key.Code,
                g.Key.Plain(g.Sum(s => s.Total)),
                g.Key.Plain(g.Sum(s => s.Overdue)),
                g.Key.Plain(g.Sum(s => s.Ageing.Credits)),
                [.. Enumerable.Range(0, g.First().Ageing.Bands.Count).Select(b => g.Key.Plain(g.Sum(s => s.Ageing.Bands[b])))]
            ));
}

/// <summary>One side of an item that changed.</summary>
internal sealed record ItemSideView(string Open, DateOnly? Date, DateOnly Due, string Held, int Row);

/// <summary>An item that changed.</summary>
internal sealed record ChangedItemView(
    ItemChange Change,
    string Customer,
    string Name,
    ItemKind Kind,
    string Number,
    string Currency,
    ItemSideView? Before,
    ItemSideView? After
)
{
    public static ChangedItemView Of(ChangedItem i) =>
        new(i.Change, i.Row.Customer, i.Row.CustomerName, i.Row.Kind, i.Row.Number, i.Row.Currency.Code, Side(i.Before), Side(i.After));

    private static ItemSideView? Side(LedgerRow? row) =>
        row is null ? null : new(row.Currency.Plain(row.Open), row.Date, row.Due, row.Held, row.Source.Row);
}

/// <summary>The changes of one kind in one currency.</summary>
internal sealed record ChangeSumView(string Currency, ItemChange Change, int Items, string Before, string After);

/// <summary>The changes of one customer in one currency.</summary>
internal sealed record CustomerChangeView(
    string Customer,
    string Currency,
    int New,
    int Altered,
    int Settled,
    int Gone,
    string Before,
    string After
);

/// <summary>What a newer file changes.</summary>
internal sealed record ChangesView(
    string Before,
    DateTimeOffset BeforeKeptAt,
    int Count,
    int Unchanged,
    IReadOnlyList<ChangeSumView> Sums,
    IReadOnlyList<CustomerChangeView> Customers,
    int CustomerCount,
    IReadOnlyList<ChangedItemView> Items
)
{
    private const int CustomersShown = 500;

    public static ChangesView Of(LedgerComparison c, IntakeRecord before)
    {
        var customers = c.Customers;
        return new ChangesView(
            before.FileName,
            before.KeptAt!.Value,
            c.Count,
            c.Unchanged,
            [
                .. c.Sums.Select(s => new ChangeSumView(
                    s.Currency.Code,
                    s.Change,
                    s.Items,
                    s.Currency.Plain(s.Before),
                    s.Currency.Plain(s.After)
                )),
            ],
            [
                .. customers
                    .Take(CustomersShown)
                    .Select(x => new CustomerChangeView(
                        x.Customer,
                        x.Currency.Code,
                        x.Items[ItemChange.New],
                        x.Items[ItemChange.Altered],
                        x.Items[ItemChange.Settled],
                        x.Items[ItemChange.Gone],
                        x.Currency.Plain(x.Before),
                        x.Currency.Plain(x.After)
                    )),
            ],
            customers.Count,
            [.. c.Items.Select(ChangedItemView.Of)]
        );
    }
}
