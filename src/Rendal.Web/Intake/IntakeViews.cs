using Rendal.Core.Intake;
using Rendal.Core.Money;
using Rendal.Core.Rounds;

namespace Rendal.Web.Intake;

/// <summary>An intake in a list.</summary>
internal sealed record IntakeLine(long Id, string File, string State, DateTimeOffset MadeAt, DateTimeOffset? KeptAt, int RowsRead, int RowsKept, bool IsLedger);

/// <summary>A column as it was taken.</summary>
internal sealed record ColumnView(int Index, string Heading, ColumnMeaning Meaning, string Reason, DecimalMark? Mark, DateOrder? Order, string Notation);

/// <summary>A finding with its place.</summary>
internal sealed record FindingView(string Code, Severity Severity, string File, int Row, string? Column, string? Customer, string Message, string Remedy)
{
    public static FindingView Of(Finding f) => new(f.Code, f.Severity, f.Source.File, f.Source.Row, f.Column, f.Customer, f.Message, f.Remedy);
}

/// <summary>A sum in one currency, written for a file: full stop, the currency's decimals.</summary>
internal sealed record SumView(string Currency, string Amount)
{
    public static SumView Of(Currency currency, decimal amount) => new(currency.Code, currency.Plain(amount));
}

/// <summary>A row of the file as it stands.</summary>
/// <param name="Number">The row as a spreadsheet shows it.</param>
/// <param name="Role"><c>above</c> the headings, the <c>heading</c>, a <c>total</c> line, an <c>item</c>, an item <c>set-aside</c>, or <c>blank</c>.</param>
/// <param name="Cells">The cells as text.</param>
internal sealed record FileRowView(int Number, string Role, IReadOnlyList<string> Cells);

/// <summary>A file as it was looked at.</summary>
internal sealed record IntakeView(
    long Id,
    string File,
    string State,
    int? HeadingRow,
    IReadOnlyList<ColumnView> Columns,
    IReadOnlyList<string> Lacks,
    int RowsRead,
    int RowsKept,
    int RowsSetAside,
    int TotalLines,
    int Customers,
    IReadOnlyList<SumView> Sums,
    IReadOnlyList<SumView> SetAsideSums,
    IReadOnlyList<SumView> LedgerSums,
    int Errors,
    int Warnings,
    IReadOnlyList<FindingView> Findings,
    IReadOnlyList<FileRowView> Rows);

/// <summary>What the person decided about a reading.</summary>
internal sealed record ReadingRequest(int? HeadingRow, Dictionary<int, ColumnMeaning> Meanings, Dictionary<int, DecimalMark> Marks, Dictionary<int, DateOrder> Orders)
{
    public ReadingChange Change() => new() { HeadingRow = HeadingRow, Meanings = Meanings, Marks = Marks, Orders = Orders };
}

/// <summary>The ledger as it is now.</summary>
internal sealed record LedgerView(long IntakeId, string File, DateTimeOffset KeptAt, int Rows, int RowsSetAside, int Customers, IReadOnlyList<LedgerSumView> Sums, IReadOnlyList<FindingView> Findings);

/// <summary>What is owed in one currency, by age.</summary>
internal sealed record LedgerSumView(string Currency, string Total, string Overdue, string Credits, IReadOnlyList<string> Bands)
{
    public static IEnumerable<LedgerSumView> Of(ChosenRound all, Currency first) =>
        all.Statements.GroupBy(s => s.Currency).OrderByDescending(g => g.Key == first).ThenBy(g => g.Key).Select(g => new LedgerSumView(
            g.Key.Code,
            g.Key.Plain(g.Sum(s => s.Total)),
            g.Key.Plain(g.Sum(s => s.Overdue)),
            g.Key.Plain(g.Sum(s => s.Ageing.Credits)),
            [.. Enumerable.Range(0, g.First().Ageing.Bands.Count).Select(b => g.Key.Plain(g.Sum(s => s.Ageing.Bands[b])))]));
}
