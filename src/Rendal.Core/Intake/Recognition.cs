using Rendal.Core.Intake.Columns;
using Rendal.Core.Ledger;

namespace Rendal.Core.Intake;

/// <summary>Finds out how a file is to be read.</summary>
public static class Recognition
{
    /// <summary>How far down the row of headings is looked for.</summary>
    public const int RowsSearched = 100;

    /// <summary>So many columns are told apart; all beyond are kept for slots.</summary>
    public const int ColumnsToldApart = 400;

    // What columns are does not depend on how a book writes; where values leave it open, either way fits as well.
    /// <summary>What is taken while a file is looked at and nothing is known of its book.</summary>
    internal static readonly ReadingSettings Neutral = new(Money.Currency.Of("GBP"));

    /// <summary>
    /// Works out the reading of a table: the heading row is the one among the first <see cref="RowsSearched"/> that looks most like one;
    /// each column gets its meaning by its heading, its values and what fits together; marks and orders are decided over all values. What
    /// the person decided in <paramref name="change"/> stands above all of that.
    /// </summary>
    /// <param name="table">The file.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="change">What the person decided.</param>
    /// <param name="corrections">What was put right over the source.</param>
    /// <returns>
    /// The reading with the survey that it rests on; null where nothing looks like a table and the person named no row. A reading may
    /// still lack needed columns: see <see cref="Reading.Lacks"/>.
    /// </returns>
    public static RecognisedReading? Recognise(
        LedgerTable table,
        ReadingSettings settings,
        ReadingChange change,
        IReadOnlyList<Correction>? corrections = null
    )
    {
        if (Outline(table, change) is not { } reading)
        {
            return null;
        }

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
        HeadingRow(table, change.HeadingRow) is { } row ? WithMeanings(table, row, change) : null;

    /// <summary>
    /// The headings of a ledger file, each made another, by which a saved reading is found again; null where no row of headings was found.
    /// </summary>
    /// <param name="table">The file.</param>
    /// <param name="chosen">The row that a person named; null to find it.</param>
    public static IReadOnlyList<string>? Headings(LedgerTable table, int? chosen) =>
        HeadingRow(table, chosen) is { } row ? Names(row) : null;

    private static FileRow? HeadingRow(LedgerTable table, int? chosen)
    {
        var found = HeadingSearch.Find(table);
        return chosen is not { } number || found?.Number == number ? found
            : number == 0 ? HeadingSearch.None(table)
            : table
                .Rows.TakeWhile(row => row.Number <= number)
                .Where(row => row.Number == number)
                .Select(row => (FileRow?)row)
                .FirstOrDefault();
    }

    private static Reading WithMeanings(LedgerTable table, FileRow headings, ReadingChange change)
    {
        var sample = SampleRows.Of(table, headings);
        var names = Names(headings);
        var written = names.Select((_, index) => headings[index].Text).ToList();
        var hidden = table.Traits.HiddenColumns.ToHashSet();
        var leftOut = change.LeavesOutHiddenColumns == true ? hidden.Where(i => !change.IsSaidHere(i)).ToHashSet() : [];
        var said = change.Meanings.Where(m => !leftOut.Contains(m.Key)).ToDictionary();
        var decided = said.Concat(leftOut.Select(i => KeyValuePair.Create(i, ColumnMeaning.Extra))).ToDictionary();
        var assigned = ColumnAssignment.Of([.. names.Take(sample.Width)], written, sample, Neutral, decided, change.Taught);
        return new Reading(headings.Number, [.. names.Select(Column)])
        {
            Kinds = change.Kinds,
            Question = assigned.Question,
            SeemsToBe = assigned.SeemsToBe(),
        };

        ColumnReading Column(string name, int index)
        {
            if (said.TryGetValue(index, out var set))
            {
                return new ColumnReading(index, name, set, change.DecidedBy(index))
                {
                    Written = written[index],
                    Others = index < sample.Width ? assigned.Column(index).Others : [],
                    IsHidden = hidden.Contains(index),
                };
            }

            var found = index < sample.Width ? assigned.Column(index) : null;
            return new ColumnReading(
                index,
                name,
                found?.Meaning ?? ColumnMeaning.Extra,
                leftOut.Contains(index) ? "hidden in the workbook"
                    : found is null or { Meaning: ColumnMeaning.Extra } ? "kept for slots"
                    : found.Reason
            )
            {
                Written = written[index],
                Confidence = found?.Confidence ?? Confidence.Sure,
                Others = found?.Others ?? [],
                IsHidden = hidden.Contains(index),
                IsLeftOut = leftOut.Contains(index),
            };
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
        if (reading.SeemsToBe is { } other)
        {
            findings.Add(
                new Finding(
                    FindingCodes.SeemsNoLedger,
                    Severity.Warning,
                    source,
                    null,
                    null,
                    other.Says,
                    "Look whether it is the file that you meant."
                )
            );
        }

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
