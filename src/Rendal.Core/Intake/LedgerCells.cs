using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>The cells of a ledger row by what they mean, and findings with their place.</summary>
internal sealed class LedgerCells(LedgerTable table, Reading reading, FindingList findings)
{
    private readonly ColumnReading?[] columns = [.. Enum.GetValues<ColumnMeaning>().Select(reading.Of)];

    public ColumnReading? Column(ColumnMeaning meaning) => columns[(int)meaning];

    public Cell Cell(FileRow row, ColumnMeaning meaning) => Column(meaning) is { } column ? row[column.Index] : Intake.Cell.Empty;

    public string Text(FileRow row, ColumnMeaning meaning) => Cell(row, meaning).Text;

    public SourceRef Source(FileRow row) => new(table.File, table.Sheet, row.Number);

    public void Add(string code, Severity severity, FileRow row, ColumnMeaning meaning, string? customer, string message, string remedy, string? other = null) =>
        findings.Add(new Finding(code, severity, Source(row), Column(meaning)?.Heading, string.IsNullOrEmpty(customer) ? null : customer, message, remedy) { Other = other });

    public static string Short(string text) => text.Length <= 60 ? text : text[..59] + "…";
}
