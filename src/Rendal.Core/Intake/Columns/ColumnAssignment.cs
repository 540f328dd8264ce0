using Rendal.Core.Ledger;

namespace Rendal.Core.Intake.Columns;

/// <summary>
/// Finds what the columns of a ledger are, by their headings, by their values, and by what fits together; the assignment that is best as a
/// whole.
/// </summary>
internal sealed class ColumnAssignment
{
    private readonly TakenColumns columns;
    private readonly HeadingEvidence headings;
    private readonly ColumnProfile[] profiles;

    private ColumnAssignment(TakenColumns columns) => (this.columns, headings, profiles) = (columns, columns.Headings, columns.Profiles);

    /// <summary>What could not be told without a person; null where nothing is left open.</summary>
    public AmountQuestion? Question { get; private set; }

    /// <summary>
    /// Works out what each column of a ledger is, from headings and values and from what adds up; what a person said is not doubted.
    /// </summary>
    /// <param name="names">The names of the columns, each another.</param>
    /// <param name="written">Their headings as they are written; empty where there is none.</param>
    /// <param name="sample">The first rows.</param>
    /// <param name="settings">What holds where the file does not say.</param>
    /// <param name="decided">What a person said that columns are, by their index.</param>
    /// <param name="taught">What people said of headings before.</param>
    public static ColumnAssignment Of(
        IReadOnlyList<string> names,
        IReadOnlyList<string> written,
        SampleRows sample,
        ReadingSettings settings,
        IReadOnlyDictionary<int, ColumnMeaning> decided,
        TaughtHeadings taught
    )
    {
        var columns = new TakenColumns(names, new HeadingEvidence(written, taught), sample, settings, decided);
        var assignment = new ColumnAssignment(columns);
        assignment.FindDates();
        assignment.Question = new AmountSearch(columns, sample, settings).Find();
        assignment.FindPlain(ColumnMeaning.Email, ColumnMeaning.Currency);
        assignment.FindNumber();
        assignment.FindCustomer();
        assignment.FindPlain(ColumnMeaning.Kind);
        assignment.FindSigns();
        assignment.FindPlain(ColumnMeaning.Reference, ColumnMeaning.Unit, ColumnMeaning.Held);
        return assignment;
    }

    /// <summary>What the file seems to be instead of a ledger; null where it may well be one. What a person said is not doubted.</summary>
    public OtherList? SeemsToBe() =>
        columns.Decided.Values.Any(m => m != ColumnMeaning.Extra)
            ? null
            : new OtherListSearch(columns.Names, headings, profiles, columns.Meanings).Find();

    /// <summary>
    /// What a column is, how certain that is and why, and what else it could be. The reason is empty where a person said it.
    /// </summary>
    public AssignedColumn Column(int index)
    {
        var meaning = columns.Meanings[index];
        if (columns.Decided.ContainsKey(index))
        {
            return new(meaning, Confidence.Sure, "", columns.Others(index));
        }

        var asked = Question is { } question && (question.Taken.Index == index || question.Other.Index == index);
        return new(
            meaning,
            asked ? Confidence.Asked
                : columns.IsLikely(index) ? Confidence.Likely
                : Confidence.Sure,
            columns.Reason(index),
            columns.Others(index)
        );
    }

    private void FindDates()
    {
        var dates = columns.Candidates(ColumnMeaning.Date, 0.5);
        var dues = columns.Candidates(ColumnMeaning.DueDate, 0.5);
        var best = (Score: 0.0, Date: -1, Due: -1, Reason: "");
        foreach (var (date, dateScore) in dates.Prepend((Index: -1, Score: 0)))
        {
            foreach (var (due, dueScore) in dues.Prepend((Index: -1, Score: 0)).Where(d => d.Index != date || d.Index < 0))
            {
                var (fit, reason) = date >= 0 && due >= 0 ? ColumnFits.Due(profiles[date], profiles[due], columns.Names[date]) : (0, "");

                // Of two columns of dates that say nothing, the earlier is the date of the document.
                var all = dateScore + dueScore + fit - (date < 0 ? 0.5 : 0);
                if (all > best.Score + 1e-9)
                {
                    best = (all, date, due, reason);
                }
            }
        }

        if (best.Date >= 0 && !columns.IsTaken(ColumnMeaning.Date))
        {
            columns.Take(best.Date, ColumnMeaning.Date, columns.Sureness(best.Date, ColumnMeaning.Date, dates, best.Reason.Length > 0));
        }

        if (best.Due >= 0 && !columns.IsTaken(ColumnMeaning.DueDate))
        {
            columns.Take(
                best.Due,
                ColumnMeaning.DueDate,
                columns.Sureness(best.Due, ColumnMeaning.DueDate, dues, best.Reason.Length > 0),
                best.Reason
            );
        }
    }

    private void FindPlain(params ColumnMeaning[] wanted)
    {
        foreach (var meaning in wanted.Where(m => !columns.IsTaken(m)))
        {
            var candidates = columns
                .Candidates(meaning, TakenColumns.Enough)
                .Select(c => c with { Score = c.Score + Fit(c.Index, meaning) })
                .Where(c => c.Score >= Least(meaning))
                .OrderByDescending(c => c.Score)
                .ThenBy(c => c.Index)
                .ToList();
            if (candidates is [var best, ..])
            {
                var next = candidates.Count > 1 ? candidates[1].Score : -10;
                columns.Take(best.Index, meaning, Math.Min(best.Score, best.Score - next + 2));
            }
        }
    }

    /// <summary>
    /// Where no amount is below zero, credits may be told by a word alone: a column of such words is the kind whatever its heading, and
    /// words that are not known leave the sum open.
    /// </summary>
    private void FindSigns()
    {
        var counted = Array.FindIndex(columns.Meanings, m => m is ColumnMeaning.Outstanding);
        counted = counted >= 0 ? counted : Array.FindIndex(columns.Meanings, m => m is ColumnMeaning.Amount);
        if (counted < 0 || profiles[counted].BelowShare > 0)
        {
            return;
        }

        var words = Enumerable
            .Range(0, profiles.Length)
            .FirstOrDefault(
                i => columns.IsFree(i) && profiles[i].KindShare >= 0.5 && profiles[i].Texts.Any(t => KindWords.Of(t)?.IsCredit() == true),
                -1
            );
        if (words >= 0 && !columns.IsTaken(ColumnMeaning.Kind))
        {
            columns.Take(words, ColumnMeaning.Kind, TakenColumns.Enough);
        }

        if (
            Array.IndexOf(columns.Meanings, ColumnMeaning.Kind) is var kind and >= 0
            && (profiles[kind].KindShare < 1 || profiles[kind].Texts.Any(t => KindWords.Of(t) == ItemKind.Adjustment))
            && profiles[kind].Distinct > 1
        )
        {
            columns.Doubt(counted);
        }
    }

    // What nothing depends on is not taken from its slot by values alone.
    private static double Least(ColumnMeaning meaning) =>
        meaning is ColumnMeaning.Unit or ColumnMeaning.Held or ColumnMeaning.Reference ? TakenColumns.Certain : TakenColumns.Enough;

    private double Fit(int index, ColumnMeaning meaning)
    {
        if (meaning == ColumnMeaning.Kind)
        {
            var amount = Array.FindIndex(columns.Meanings, m => m is ColumnMeaning.Outstanding or ColumnMeaning.Amount);
            return amount >= 0 && ColumnFits.GoesWithSign(profiles[index], profiles[amount]) ? 1.5 : 0;
        }

        if (meaning == ColumnMeaning.Reference && Array.IndexOf(columns.Meanings, ColumnMeaning.Number) is var number and >= 0)
        {
            return ColumnFits.Within(profiles[index], profiles[number]) switch
            {
                > 0.5 => 3,
                > 0.2 => 1,
                _ => 0,
            };
        }

        return 0;
    }

    private void FindNumber()
    {
        if (columns.IsTaken(ColumnMeaning.Number))
        {
            return;
        }

        // A column that could as well be the customer’s code is left to it, unless its values stand once.
        var candidates = columns.Candidates(ColumnMeaning.Number, TakenColumns.Enough).Where(c => !IsCustomerRather(c.Index)).ToList();
        if (candidates is [var best, ..])
        {
            columns.Take(best.Index, ColumnMeaning.Number, columns.Sureness(best.Index, ColumnMeaning.Number, candidates, fits: false));
        }
    }

    private bool IsCustomerRather(int index) =>
        columns.Score(index, ColumnMeaning.CustomerCode) > columns.Score(index, ColumnMeaning.Number)
        || columns.Score(index, ColumnMeaning.CustomerName) > columns.Score(index, ColumnMeaning.Number);

    private void FindCustomer()
    {
        var codes = columns.IsTaken(ColumnMeaning.CustomerCode) ? [] : columns.Candidates(ColumnMeaning.CustomerCode, 0.5);
        var names = columns.IsTaken(ColumnMeaning.CustomerName) ? [] : columns.Candidates(ColumnMeaning.CustomerName, 0.5);
        var best = (Score: TakenColumns.Enough - 0.01, Code: -1, Name: -1, Fit: 0.0);
        foreach (var (code, codeScore) in codes.Prepend((Index: -1, Score: 0)))
        {
            foreach (var (name, nameScore) in names.Prepend((Index: -1, Score: 0)).Where(n => n.Index != code || n.Index < 0))
            {
                var fit = code >= 0 && name >= 0 ? Pairs(code, name) : 0;
                if (
                    IsSaidOrPaired(code, ColumnMeaning.CustomerCode, fit)
                    && IsSaidOrPaired(name, ColumnMeaning.CustomerName, fit)
                    && codeScore + nameScore + fit > best.Score
                )
                {
                    best = (codeScore + nameScore + fit, code, name, fit);
                }
            }
        }

        if (best.Code >= 0)
        {
            columns.Take(
                best.Code,
                ColumnMeaning.CustomerCode,
                columns.Sureness(best.Code, ColumnMeaning.CustomerCode, codes, best.Fit > 0),
                best.Fit > 0 ? $"each has one “{columns.Names[best.Name]}”" : ""
            );
        }

        if (best.Name >= 0)
        {
            columns.Take(
                best.Name,
                ColumnMeaning.CustomerName,
                columns.Sureness(best.Name, ColumnMeaning.CustomerName, names, best.Fit > 0),
                best.Fit > 0 ? $"one for each “{columns.Names[best.Code]}”" : ""
            );
        }
    }

    /// <summary>
    /// By values alone a column is only taken where it goes with the other one, or where several customers can be told apart.
    /// </summary>
    private bool IsSaidOrPaired(int index, ColumnMeaning meaning, double fit) =>
        index < 0
        || headings.For(index, meaning) >= 1.5
        || fit >= 2
        || (profiles[index].Filled > 3 && profiles[index].Distinct > 1 && columns.Typed(index, meaning) >= 1.5 && !IsSaidOtherwise(index));

    /// <summary>Whether the heading says that the column is something else.</summary>
    private bool IsSaidOtherwise(int index) =>
        headings.IsForeign(index) || Enum.GetValues<ColumnMeaning>().Any(m => headings.For(index, m) >= TakenColumns.Certain);

    /// <summary>A code has one name, and both come in the same runs.</summary>
    private double Pairs(int code, int name)
    {
        var breaks = ColumnFits.Breaks(profiles[code], profiles[name]);
        var isKeyOfMany = profiles[code].Distinct < profiles[code].Filled;
        return breaks > 0.2 ? -2
            : !isKeyOfMany ? 0
            : breaks < 0.05 && Math.Abs(profiles[code].Distinct - profiles[name].Distinct) * 5 <= profiles[code].Distinct ? 2
            : 0.5;
    }
}
