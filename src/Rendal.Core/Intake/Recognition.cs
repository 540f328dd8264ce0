using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>Finds out how a file is to be read.</summary>
public static class Recognition
{
    /// <summary>How far down the row of headings is looked for.</summary>
    public const int RowsSearched = 100;

    private const int HeadingsNeeded = 2;

    /// <summary>
    /// Works out the reading of a table: the heading row is the one among the first <see cref="RowsSearched"/> with
    /// the most known headings; each column gets its meaning by its heading; marks and orders are decided over all
    /// values. What the person decided in <paramref name="change"/> stands above all of that.
    /// </summary>
    /// <returns>
    /// The reading with the survey that it rests on; null where no row has at least two known headings and the person
    /// named none. A reading may still lack needed columns: see <see cref="Reading.Lacks"/>.
    /// </returns>
    public static RecognisedReading? Recognise(LedgerTable table, ReadingSettings settings, ReadingChange change)
    {
        var heading = change.HeadingRow is { } chosen
            ? table.Rows.Where(row => row.Number == chosen).Select(row => (FileRow?)row).FirstOrDefault()
            : HeadingRow(table);
        if (heading is not { } row)
        {
            return null;
        }

        var columns = WithMeanings(row, change);
        var survey = LedgerSurvey.Of(table, row.Number, columns);
        var decided = columns.Select(column => WithNotation(column, survey, settings, change)).ToList();
        return new RecognisedReading(new Reading(row.Number, decided), survey, Assumed(table, row.Number, decided, survey, change));
    }

    private static FileRow? HeadingRow(LedgerTable table)
    {
        FileRow? best = null;
        var most = HeadingsNeeded - 1;
        foreach (var row in table.Rows.TakeWhile(row => row.Number <= RowsSearched))
        {
            var known = row.Cells.Where(c => c.Number is null && c.Date is null)
                .Select(c => HeadingWords.IsCodeOrName(c.Text) ? ColumnMeaning.CustomerName : HeadingWords.Of(c.Text)?.Meaning)
                .Where(m => m is not null).Distinct().Count();
            if (known > most)
            {
                (best, most) = (row, known);
            }
        }

        return best;
    }

    private static List<ColumnReading> WithMeanings(FileRow headings, ReadingChange change)
    {
        var names = Names(headings);
        var meanings = new ColumnMeaning[names.Count];
        var ranked = names
            .Select((name, index) => (index, found: HeadingWords.Of(headings[index].Text)))
            .Where(c => c.found is not null)
            .Select(c => (c.index, c.found!.Value.Meaning, c.found.Value.Rank))
            .OrderBy(c => c.Rank).ThenBy(c => c.index);
        foreach (var (index, meaning, _) in ranked)
        {
            if (!meanings.Contains(meaning))
            {
                meanings[index] = meaning;
            }
        }

        PlaceCodeOrName(headings, meanings);

        // Beside debit and credit, a balance is the running balance of the account, not what is open of the row.
        if (meanings.Contains(ColumnMeaning.Debit) && meanings.Contains(ColumnMeaning.Credit))
        {
            var balance = Array.IndexOf(meanings, ColumnMeaning.Outstanding);
            if (balance >= 0 && HeadingWords.Plain(headings[balance].Text) is "balance" or "saldo" or "solde")
            {
                meanings[balance] = ColumnMeaning.Extra;
            }
        }

        return [.. names.Select((name, index) => change.Meanings.TryGetValue(index, out var set)
            ? new ColumnReading(index, name, set, "set by you")
            : new ColumnReading(index, name, meanings[index], meanings[index] == ColumnMeaning.Extra ? "kept for slots" : "by heading"))];
    }

    private static void PlaceCodeOrName(FileRow headings, ColumnMeaning[] meanings)
    {
        var index = Enumerable.Range(0, meanings.Length).FirstOrDefault(i => HeadingWords.IsCodeOrName(headings[i].Text), -1);
        if (index >= 0)
        {
            meanings[index] = !meanings.Contains(ColumnMeaning.CustomerName) ? ColumnMeaning.CustomerName
                : !meanings.Contains(ColumnMeaning.CustomerCode) ? ColumnMeaning.CustomerCode
                : ColumnMeaning.Extra;
        }
    }

    private static List<string> Names(FileRow headings)
    {
        var names = new List<string>();
        for (var i = 0; i < headings.Cells.Count; i++)
        {
            var written = headings[i].Text;
            var name = written.Length > 0 ? written : $"Column {ColumnLetters(i)}";
            var twice = names.Count(n => n == name || n.StartsWith(name + " (", StringComparison.Ordinal));
            names.Add(twice == 0 ? name : $"{name} ({twice + 1})");
        }

        return names;
    }

    private static string ColumnLetters(int index) =>
        index < 26 ? ((char)('A' + index)).ToString() : ColumnLetters((index / 26) - 1) + (char)('A' + (index % 26));

    private static ColumnReading WithNotation(ColumnReading column, LedgerSurvey survey, ReadingSettings settings, ReadingChange change)
    {
        if (column.Meaning.IsAmount())
        {
            var amounts = survey.Amounts(column.Index);
            column = column with { UnsignedCredits = survey.Signs(column.Index).Unsigned };
            return change.Marks.TryGetValue(column.Index, out var mark)
                ? column with { Mark = mark, Notation = "set by you" }
                : column with { Mark = amounts.Decide(settings.Mark), Notation = amounts.Reason(settings.Mark) };
        }

        if (column.Meaning.IsDate())
        {
            var dates = survey.Dates(column.Index);
            return change.Orders.TryGetValue(column.Index, out var order)
                ? column with { Order = order, Notation = "set by you" }
                : column with { Order = dates.Decide(settings.Order), Notation = dates.Reason(settings.Order) };
        }

        return column;
    }

    private static List<Finding> Assumed(LedgerTable table, int headingRow, List<ColumnReading> columns, LedgerSurvey survey, ReadingChange change)
    {
        var findings = new List<Finding>();
        var source = new SourceRef(table.File, table.Sheet, headingRow);
        foreach (var column in columns)
        {
            if (column.Mark is { } mark && !change.Marks.ContainsKey(column.Index) && survey.Amounts(column.Index).RestsOnSetting)
            {
                findings.Add(new Finding(FindingCodes.DecimalMarkAssumed, Severity.Warning, source, column.Heading, null,
                    $"Nothing in “{column.Heading}” says whether 1,234 is a thousand or a little over one; a decimal {(mark == Money.DecimalMark.Point ? "point" : "comma")} was assumed.",
                    "Look at a row whose amount you know, and set the decimal mark of the column if it is wrong."));
            }

            if (column.Order is { } order && !change.Orders.ContainsKey(column.Index) && survey.Dates(column.Index).RestsOnSetting)
            {
                findings.Add(new Finding(FindingCodes.DateOrderAssumed, Severity.Warning, source, column.Heading, null,
                    $"No date in “{column.Heading}” shows whether the day or the month comes first; {(order == DateOrder.MonthFirst ? "month first" : order == DateOrder.DayFirst ? "day first" : "year first")} was assumed.",
                    "Look at a row whose date you know, and set the order of the column if it is wrong."));
            }
        }

        return findings;
    }
}

/// <summary>A reading with what it rests on.</summary>
/// <param name="Reading">How the file is read.</param>
/// <param name="Survey">What was learnt from all its rows.</param>
/// <param name="Findings">What had to be assumed.</param>
public sealed record RecognisedReading(Reading Reading, LedgerSurvey Survey, IReadOnlyList<Finding> Findings);
