using System.Globalization;
using CsvHelper;

namespace Rendal.Files.Csv;

/// <summary>Writes tables as CSV for spreadsheets: UTF-8 with mark, commas, RFC 4180 quotes.</summary>
public static class CsvText
{
    /// <summary>
    /// Writes rows. A cell that a spreadsheet would take for a formula (it begins with <c>= + - @</c>, tab or carriage return) gets an
    /// apostrophe in front, unless it is a plain number such as <c>-12.00</c>.
    /// </summary>
    public static async Task WriteAsync(Stream stream, IAsyncEnumerable<IReadOnlyList<string>> rows, CancellationToken cancel)
    {
        await using var csv = CsvWriter.Create(stream, Options(), leaveOpen: true);
        await foreach (var row in rows.WithCancellation(cancel))
        {
            await csv.WriteRecordAsync([.. row.Select(Harmless)], cancel);
        }
    }

    /// <summary>Writes rows that are at hand, in the same way.</summary>
    public static void Write(Stream stream, IEnumerable<IReadOnlyList<string>> rows)
    {
        using var csv = CsvWriter.Create(stream, Options(), leaveOpen: true);
        foreach (var row in rows)
        {
            csv.WriteRecord([.. row.Select(Harmless)]);
        }
    }

    /// <summary>The cell as it can be opened in a spreadsheet without being reckoned: <c>=1+1</c> gives <c>'=1+1</c>.</summary>
    public static string Harmless(string cell) =>
        cell.Length > 0
        && (cell[0] is '=' or '+' or '-' or '@' or '\t' or '\r')
        && !decimal.TryParse(cell, NumberStyles.Number, CultureInfo.InvariantCulture, out _)
            ? "'" + cell
            : cell;

    private static CsvWriterOptions Options() =>
        new()
        {
            HasHeader = false,
            NewLine = "\r\n",
            WriteByteOrderMark = true,
        };
}
