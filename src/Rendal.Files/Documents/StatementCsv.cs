using System.Globalization;
using Rendal.Core.Layouts;
using Rendal.Core.Money;
using Rendal.Files.Csv;

namespace Rendal.Files.Documents;

/// <summary>
/// A statement as CSV: one line an item, with its currency last; no totals, so that the lines can be taken in elsewhere.
/// </summary>
internal static class StatementCsv
{
    /// <summary>The items of all sections as CSV (RFC 4180), in UTF-8 with a mark at its head, as spreadsheets expect.</summary>
    /// <param name="document">A document whose sections have their values.</param>
    public static byte[] Write(StatementDocument document)
    {
        var sheets = document
            .Sections.Select(s => s.Sheet ?? throw new ArgumentException("The document was set without its values.", nameof(document)))
            .ToList();
        using var stream = new MemoryStream();
        CsvText.Write(
            stream,
            sheets.SelectMany(s => s.Rows.Select(row => Line(row, s.Currency))).Prepend([.. sheets[0].Headings, document.CurrencyWord])
        );
        return stream.ToArray();
    }

    private static IReadOnlyList<string> Line(IReadOnlyList<SheetCell> row, Currency currency) =>
        [.. row.Select(cell => Plain(cell, currency)), currency.Code];

    private static string Plain(SheetCell cell, Currency currency) =>
        cell.Amount is { } amount ? currency.Plain(amount)
        : cell.Day is { } day ? day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
        : cell.Count is { } count ? count.ToString(CultureInfo.InvariantCulture)
        : cell.Text ?? "";
}
