using System.Globalization;
using System.Text;
using Rendal.Core.Intake;
using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Files.Tests.Awkward;

/// <summary>What came of a file, written so that a person can check every word of it.</summary>
internal static class Outcome
{
    private static readonly ReadingSettings Settings = new(Currency.Of("GBP"));

    public static string Of(string name, Func<Stream> open)
    {
        try
        {
            return Read(TableFile.Open(name, open, FileOpening.Unsaid));
        }
        catch (FileRefused refused)
        {
            return $"refused: {refused.Message}\n";
        }
    }

    private static string Read(LedgerTable table)
    {
        var text = new StringBuilder();
        void Line(string line) => text.Append(line.ReplaceLineEndings("⏎")).Append('\n');
        var traits = table.Traits;
        if (table.Sheet is not null)
        {
            Line(
                $"sheet “{table.Sheet}” of "
                    + $"{string.Join(", ", traits.Sheets.Select(s => $"“{s.Name}”{(s.IsHidden ? " (hidden)" : "")}"))}: "
                    + $"{traits.SheetReason}"
            );
        }
        else
        {
            Line(
                $"{traits.Encoding}: {traits.EncodingReason}; “{(traits.Delimiter == '\t' ? "tab" : traits.Delimiter)}”: "
                    + $"{traits.DelimiterReason}"
            );
        }

        if (Recognition.Recognise(table, Settings, ReadingChange.None) is not { } recognised)
        {
            Line("no row of headings");
            return text.ToString();
        }

        var reading = recognised.Reading;
        Line($"headings in row {reading.HeadingRow}");
        foreach (var column in reading.Columns)
        {
            Line(
                $"  {column.Heading} = "
                    + $"{column.Meaning}{(column.Notation.Length > 0 ? $", {column.Notation}" : "")}{(column.UnsignedCredits ? ", credits without sign" : "")}"
            );
        }

        if (reading.CarryReason.Length > 0)
        {
            Line($"customers {(reading.CarriesDown ? "" : "not ")}carried down: {reading.CarryReason}");
        }

        foreach (var lack in reading.Lacks())
        {
            Line($"lacks: {lack}");
        }

        if (reading.Lacks().Count == 0)
        {
            ReadRows(table, recognised, Line);
        }

        return text.ToString();
    }

    private static void ReadRows(LedgerTable table, RecognisedReading recognised, Action<string> line)
    {
        var reader = new LedgerReader(table, recognised, Settings);
        foreach (var read in reader.Rows())
        {
            if (read.Row is { } row)
            {
                var extra = row.Extra.Count == 0 ? "" : $"; {string.Join(", ", row.Extra.Select(e => $"{e.Key}: {e.Value}"))}";
                line(
                    $"row {row.Source.Row}: {row.Customer}{(row.CustomerName.Length > 0 ? $" ({row.CustomerName})" : "")}, "
                        + $"{row.Kind.Code()} {row.Number}, {Day(row.Date)}, due {Day(row.Due)}, {row.Currency} "
                        + $"{row.Currency.Plain(row.Open)}{(row.Original != row.Open ? $" of {row.Currency.Plain(row.Original)}" : "")}{extra}"
                );
            }
            else
            {
                var aside = read.SetAside!;
                line(
                    $"row {aside.Source.Row} set aside: {aside.Customer ?? "nobody"}, {aside.Currency?.Code ?? "no currency"} "
                        + $"{aside.Amount.ToString(CultureInfo.InvariantCulture)}"
                );
            }
        }

        line($"{reader.RowsRead} read, {reader.RowsKept} kept, {reader.TotalLineCount} total lines");
        foreach (var check in reader.Checks)
        {
            line(
                $"total in row {check.Source.Row}: {check.Currency.Plain(check.Said)} "
                    + $"{(check.Agrees ? "agrees" : $"against {check.Currency.Plain(check.Sum)}")}"
            );
        }

        foreach (var finding in reader.Findings.Listed())
        {
            line(
                $"{finding.Severity.ToString().ToLowerInvariant()} {finding.Code}, row "
                    + $"{finding.Source.Row}{(finding.Column is null ? "" : $", {finding.Column}")}: {finding.Message}"
            );
        }
    }

    private static string Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "no date";
}
