namespace Rendal.Core.Intake;

/// <summary>Tells total and subtotal lines from items.</summary>
public static class TotalLines
{
    private static readonly string[] Words =
    [
        "total",
        "totals",
        "grand total",
        "subtotal",
        "sub total",
        "sum",
        "balance total",
        "summe",
        "gesamt",
        "gesamtsumme",
        "zwischensumme",
        "endsumme",
        "sous total",
        "total general",
        "suma",
        "totale",
        "subtotale",
        "totaal",
        "subtotaal",
        "soma",
        "summa",
        "totalt",
        "delsumma",
        "i alt",
        "delsum",
        "yhteensa",
        "kaikki yhteensa",
        "valisumma",
        "razem",
        "ogołem",
        "łacznie",
        "celkem",
        "soucet",
        "mezisoucet",
    ];

    /// <summary>
    /// Whether a row is a total line: its first text with a letter begins with a word for total (<c>Total Beacon Lodge</c>,
    /// <c>Zwischensumme</c>), and it has neither a document date nor a due date. A customer called
    /// <c>Total Linen Care</c> has dated rows, so its rows stay items.
    /// </summary>
    /// <param name="row">The row.</param>
    /// <param name="dates">The columns of the document date and the due date, as far as there are any.</param>
    public static bool Is(FileRow row, IReadOnlyList<ColumnReading> dates)
    {
        for (var i = 0; i < dates.Count; i++)
        {
            if (!row[dates[i].Index].IsEmpty)
            {
                return false;
            }
        }

        // In a text file amounts are text too, and may stand in front of the word.
        var first = row.Cells.FirstOrDefault(c => c.IsText && c.Text.Any(char.IsLetter)).Text;
        if (first.Length == 0)
        {
            return false;
        }

        var plain = HeadingWords.Plain(first);
        return Words.Any(word => plain == word || plain.StartsWith(word + " ", StringComparison.Ordinal));
    }
}
