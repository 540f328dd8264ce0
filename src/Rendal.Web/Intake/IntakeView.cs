using Rendal.App.Intake;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Files;
using Rendal.Store.Intake;

namespace Rendal.Web.Intake;

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

    /// <summary>A ledger file that was looked at and not read yet.</summary>
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

    /// <summary>A customer list that was looked at and not read yet.</summary>
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

    /// <summary>The same with what was read.</summary>
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

    /// <summary>The same with what was read.</summary>
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
