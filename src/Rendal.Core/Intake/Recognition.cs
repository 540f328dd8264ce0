using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>Finds out how a file is to be read.</summary>
public static class Recognition
{
    /// <summary>How far down the row of headings is looked for.</summary>
    public const int RowsSearched = 100;

    private const int HeadingsNeeded = 2;

    /// <summary>
    /// Works out the reading of a table: the heading row is the one among the first <see cref="RowsSearched"/> with the most known
    /// headings; each column gets its meaning by its heading; marks and orders are decided over all values. What the person decided in
    /// <paramref name="change"/> stands above all of that.
    /// </summary>
    /// <param name="table">The file.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="change">What the person decided.</param>
    /// <param name="corrections">What was put right over the source.</param>
    /// <returns>
    /// The reading with the survey that it rests on; null where no row has at least two known headings and the person named none. A
    /// reading may still lack needed columns: see <see cref="Reading.Lacks"/>.
    /// </returns>
    public static RecognisedReading? Recognise(
        LedgerTable table,
        ReadingSettings settings,
        ReadingChange change,
        IReadOnlyList<Correction>? corrections = null
    )
    {
        if (HeadingRow(table, change.HeadingRow) is not { } row)
        {
            return null;
        }

        var reading = new Reading(row.Number, WithMeanings(row, change)) { Kinds = change.Kinds };
        var applied = new AppliedCorrections(reading, corrections ?? []);
        var survey = LedgerSurvey.Of(table, reading, applied);
        var (carries, reason) = survey.Carrying(reading.Has(ColumnMeaning.CustomerCode) || reading.Has(ColumnMeaning.CustomerName));
        reading = reading with
        {
            Columns = [.. reading.Columns.Select(column => WithNotation(column, survey, settings, change))],
            CarriesDown = change.CarriesDown ?? carries,
            CarryReason = change.CarriesDown is null ? reason : "set by you",
        };
        return new RecognisedReading(reading, survey, applied, Assumed(table, reading, survey, change));
    }

    /// <summary>
    /// The reading of a ledger file as far as its headings tell: what the columns are, without what only going through all rows decides
    /// (marks, orders, signs, whether customers are carried down). Null where no row of headings was found.
    /// </summary>
    public static Reading? Outline(LedgerTable table, ReadingChange change) =>
        HeadingRow(table, change.HeadingRow) is { } row
            ? new Reading(row.Number, WithMeanings(row, change)) { Kinds = change.Kinds }
            : null;

    /// <summary>
    /// The headings of a ledger file, each made another, by which a saved reading is found again; null where no row of headings was found.
    /// </summary>
    /// <param name="table">The file.</param>
    /// <param name="chosen">The row that a person named; null to find it.</param>
    public static IReadOnlyList<string>? Headings(LedgerTable table, int? chosen) =>
        HeadingRow(table, chosen) is { } row ? Names(row) : null;

    private static FileRow? HeadingRow(LedgerTable table, int? chosen)
    {
        if (chosen is { } number)
        {
            return table
                .Rows.TakeWhile(row => row.Number <= number)
                .Where(row => row.Number == number)
                .Select(row => (FileRow?)row)
                .FirstOrDefault();
        }

        FileRow? best = null;
        var most = HeadingsNeeded - 1;
        foreach (var row in table.Rows.TakeWhile(row => row.Number <= RowsSearched))
        {
            var known = HeadingScore.OfLedger(row);
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
            .OrderBy(c => c.Rank)
            .ThenBy(c => c.index);
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

        return
        [
            .. names.Select(
                (name, index) =>
                    change.Meanings.TryGetValue(index, out var set)
                        ? new ColumnReading(index, name, set, change.DecidedBy(index)) { Written = headings[index].Text }
                        : new ColumnReading(
                            index,
                            name,
                            meanings[index],
                            meanings[index] == ColumnMeaning.Extra ? "kept for slots" : "by heading"
                        )
                        {
                            Written = headings[index].Text,
                        }
            ),
        ];
    }

    private static void PlaceCodeOrName(FileRow headings, ColumnMeaning[] meanings)
    {
        var index = Enumerable.Range(0, meanings.Length).FirstOrDefault(i => HeadingWords.IsCodeOrName(headings[i].Text), -1);
        if (index >= 0)
        {
            meanings[index] =
                !meanings.Contains(ColumnMeaning.CustomerName) ? ColumnMeaning.CustomerName
                : !meanings.Contains(ColumnMeaning.CustomerCode) ? ColumnMeaning.CustomerCode
                : ColumnMeaning.Extra;
        }
    }

    /// <summary>
    /// The names of the columns, each another: as written, <c>Column C</c> where nothing is, with <c> (2)</c> behind a name that stands
    /// twice.
    /// </summary>
    internal static List<string> Names(FileRow headings)
    {
        var names = new List<string>();
        for (var i = 0; i < headings.Cells.Length; i++)
        {
            var written = headings[i].Text;
            var name = written.Length > 0 ? written : $"Column {ColumnLetters(i)}";
            var twice = names.Count(n => n == name || n.StartsWith(name + " (", StringComparison.Ordinal));
            names.Add(twice == 0 ? name : $"{name} ({twice + 1})");
        }

        return names;
    }

    private static string First(DateOrder order) =>
        order switch
        {
            DateOrder.MonthFirst => "month",
            DateOrder.DayFirst => "day",
            _ => "year",
        };

    private static string ColumnLetters(int index) =>
        index < 26 ? ((char)('A' + index)).ToString() : ColumnLetters((index / 26) - 1) + (char)('A' + (index % 26));

    private static ColumnReading WithNotation(ColumnReading column, LedgerSurvey survey, ReadingSettings settings, ReadingChange change)
    {
        if (column.Meaning.IsAmount())
        {
            var amounts = survey.Amounts(column.Index);
            var areSet = change.UnsignedCredits.TryGetValue(column.Index, out var unsigned);
            column = column with { UnsignedCredits = areSet ? unsigned : survey.Signs(column.Index).Unsigned, SignsAreSet = areSet };
            return change.Marks.TryGetValue(column.Index, out var mark)
                ? column with
                {
                    Mark = mark,
                    Notation = change.DecidedBy(column.Index),
                }
                : column with
                {
                    Mark = amounts.Decide(settings.Mark),
                    Notation = amounts.Reason(settings.Mark),
                };
        }

        if (column.Meaning.IsDate())
        {
            var dates = survey.Dates(column.Index);
            return change.Orders.TryGetValue(column.Index, out var order)
                ? column with
                {
                    Order = order,
                    Notation = change.DecidedBy(column.Index),
                }
                : column with
                {
                    Order = dates.Decide(settings.Order),
                    Notation = dates.Reason(settings.Order),
                };
        }

        return column;
    }

    private static List<Finding> Assumed(LedgerTable table, Reading reading, LedgerSurvey survey, ReadingChange change)
    {
        var findings = new List<Finding>();
        var source = new SourceRef(table.File, table.Sheet, reading.HeadingRow);
        foreach (var column in reading.Columns)
        {
            if (column.Mark is { } mark && !change.Marks.ContainsKey(column.Index) && survey.Amounts(column.Index).RestsOnSetting)
            {
                findings.Add(
                    new Finding(
                        FindingCodes.DecimalMarkAssumed,
                        Severity.Warning,
                        source,
                        column.Heading,
                        null,
                        $"Nothing in “{column.Heading}” says whether 1,234 is a thousand or a little over one; a decimal "
                            + $"{(mark == Money.DecimalMark.Point ? "point" : "comma")} was assumed.",
                        "Look at a row whose amount you know, and set the decimal mark of the column if it is wrong."
                    )
                );
            }

            if (column.Order is { } order && !change.Orders.ContainsKey(column.Index) && survey.Dates(column.Index).RestsOnSetting)
            {
                findings.Add(
                    new Finding(
                        FindingCodes.DateOrderAssumed,
                        Severity.Warning,
                        source,
                        column.Heading,
                        null,
                        $"No date in “{column.Heading}” shows whether the day or the month comes first; "
                            + $"{First(order)} first was assumed.",
                        "Look at a row whose date you know, and set the order of the column if it is wrong."
                    )
                );
            }
        }

        return findings;
    }
}

/// <summary>A reading with what it rests on.</summary>
/// <param name="Reading">How the file is read.</param>
/// <param name="Survey">What was learnt from all its rows.</param>
/// <param name="Corrections">What was put right in its rows.</param>
/// <param name="Findings">What had to be assumed.</param>
public sealed record RecognisedReading(
    Reading Reading,
    LedgerSurvey Survey,
    AppliedCorrections Corrections,
    IReadOnlyList<Finding> Findings
);
