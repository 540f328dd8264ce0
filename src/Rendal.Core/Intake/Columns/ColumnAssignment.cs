using Rendal.Core.Ledger;

namespace Rendal.Core.Intake.Columns;

/// <summary>
/// Finds what the columns of a ledger are, by their headings, by their values, and by what fits together; the assignment that is best as a
/// whole.
/// </summary>
internal sealed class ColumnAssignment
{
    // Of so many candidates for one meaning, pairs are tried.
    private const int MostTried = 8;
    private const double Enough = 2;
    private const double Certain = 3;

    private readonly HeadingEvidence headings;
    private readonly IReadOnlyList<string> names;
    private readonly SampleRows sample;
    private readonly ReadingSettings settings;
    private readonly ColumnProfile[] profiles;
    private readonly Lazy<bool>[] isInOtherCurrency;
    private readonly double?[,] values;
    private readonly ColumnMeaning[] meanings;
    private readonly bool[] isLikely;
    private readonly List<string>[] reasons;
    private readonly IReadOnlyDictionary<int, ColumnMeaning> decided;

    private ColumnAssignment(
        IReadOnlyList<string> names,
        IReadOnlyList<string> written,
        SampleRows sample,
        ReadingSettings settings,
        IReadOnlyDictionary<int, ColumnMeaning> decided,
        TaughtHeadings taught
    )
    {
        this.names = names;
        this.sample = sample;
        this.settings = settings;
        this.decided = decided;
        headings = new HeadingEvidence(written, taught);
        profiles = [.. Enumerable.Range(0, names.Count).Select(i => ColumnProfile.Of(sample.Items, i, settings))];
        isInOtherCurrency = [.. Enumerable.Range(0, names.Count).Select(i => new Lazy<bool>(() => IsInOtherCurrency(i)))];
        values = new double?[names.Count, Enum.GetValues<ColumnMeaning>().Length];
        meanings = new ColumnMeaning[names.Count];
        isLikely = new bool[names.Count];
        reasons = [.. names.Select(_ => new List<string>())];
        foreach (var (index, meaning) in decided.Where(d => d.Key < names.Count))
        {
            meanings[index] = meaning;
        }
    }

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
        var assignment = new ColumnAssignment(names, written, sample, settings, decided, taught);
        assignment.FindDates();
        assignment.FindAmounts();
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
        decided.Values.Any(m => m != ColumnMeaning.Extra) ? null : new OtherListSearch(names, headings, profiles, meanings).Find();

    /// <summary>
    /// What a column is, how certain that is and why, and what else it could be. The reason is empty where a person said it.
    /// </summary>
    public AssignedColumn Column(int index)
    {
        var meaning = meanings[index];
        if (decided.ContainsKey(index))
        {
            return new(meaning, Confidence.Sure, "", Others(index));
        }

        var asked = Question is { } question && (question.Taken.Index == index || question.Other.Index == index);
        return new(
            meaning,
            asked ? Confidence.Asked
                : isLikely[index] ? Confidence.Likely
                : Confidence.Sure,
            string.Join("; ", reasons[index].Where(r => r.Length > 0).Distinct()),
            Others(index)
        );
    }

    private List<OtherMeaning> Others(int index) =>
        [
            .. Enum.GetValues<ColumnMeaning>()
                .Where(m => m != ColumnMeaning.Extra && m != meanings[index])
                .Select(m => (Meaning: m, Score: headings.For(index, m) + Values(index, m)))
                .Where(m => m.Score >= 1)
                .OrderByDescending(m => m.Score)
                .Take(3)
                .Select(m => new OtherMeaning(m.Meaning, profiles[index].First(m.Meaning))),
        ];

    private bool IsFree(int index) => meanings[index] == ColumnMeaning.Extra && !decided.ContainsKey(index);

    private bool IsTaken(ColumnMeaning meaning) => meanings.Contains(meaning);

    private void Take(int index, ColumnMeaning meaning, double score, params string[] why)
    {
        meanings[index] = meaning;
        isLikely[index] = score < Certain && !headings.IsPhrase(index, meaning);
        var heading = headings.For(index, meaning);
        reasons[index]
            .Add(
                headings.IsTaught(index) ? HeadingEvidence.AsTaught
                : heading >= 1.5 ? "by heading"
                : "by its values"
            );
        reasons[index].AddRange(why);
    }

    private double Score(int index, ColumnMeaning meaning) => headings.For(index, meaning) + Values(index, meaning);

    /// <summary>The columns that could be of a meaning, the best first.</summary>
    private List<(int Index, double Score)> Candidates(ColumnMeaning meaning, double least) =>
        [
            .. Enumerable
                .Range(0, profiles.Length)
                .Where(IsFree)
                .Select(i => (Index: i, Score: Score(i, meaning)))
                .Where(c => c.Score >= least)
                .OrderByDescending(c => c.Score)
                .ThenBy(c => c.Index)
                .Take(MostTried),
        ];

    /// <summary>
    /// How much the values of a column say for a meaning. What stands whole in the lists is not given up for a few odd values.
    /// </summary>
    private double Values(int index, ColumnMeaning meaning) => values[index, (int)meaning] ??= Weighed(index, meaning);

    private double Weighed(int index, ColumnMeaning meaning)
    {
        var found = Typed(index, meaning);
        return headings.IsPhrase(index, meaning) ? Math.Max(found, profiles[index].Filled < 8 ? -1 : -4) : found;
    }

    private double Typed(int index, ColumnMeaning meaning) =>
        // A column of nothing is what its heading says, as far as that is plain.
        profiles[index].Filled == 0
            ? headings.IsPhrase(index, meaning)
                ? 0
                : -3
            : ValueEvidence.For(profiles[index], meaning, isInOtherCurrency[index].Value);

    /// <summary>
    /// Whether the heading names a currency that is not the file's: another than the column of currencies holds, or one where another
    /// column is the same amounts without.
    /// </summary>
    private bool IsInOtherCurrency(int index)
    {
        if (headings.CurrencyOf(index) is not { } named)
        {
            return false;
        }

        var columns = Enumerable.Range(0, profiles.Length).Where(i => profiles[i].CurrencyShare >= 0.95 && profiles[i].Distinct == 1);
        return columns.Any(i => profiles[i].Texts.First(t => t.Length > 0) != named.Code)
            || Enumerable
                .Range(0, profiles.Length)
                .Any(i =>
                    i != index
                    && headings.CurrencyOf(i) is null
                    && profiles[i].IsAmountLike
                    && ColumnFits.IsConversion(profiles[i], profiles[index])
                );
    }

    private void FindDates()
    {
        var dates = Candidates(ColumnMeaning.Date, 0.5);
        var dues = Candidates(ColumnMeaning.DueDate, 0.5);
        var best = (Score: 0.0, Date: -1, Due: -1, Reason: "");
        foreach (var (date, dateScore) in dates.Prepend((Index: -1, Score: 0)))
        {
            foreach (var (due, dueScore) in dues.Prepend((Index: -1, Score: 0)).Where(d => d.Index != date || d.Index < 0))
            {
                var (fit, reason) = date >= 0 && due >= 0 ? ColumnFits.Due(profiles[date], profiles[due], names[date]) : (0, "");

                // Of two columns of dates that say nothing, the earlier is the date of the document.
                var all = dateScore + dueScore + fit - (date < 0 ? 0.5 : 0);
                if (all > best.Score + 1e-9)
                {
                    best = (all, date, due, reason);
                }
            }
        }

        if (best.Date >= 0 && !IsTaken(ColumnMeaning.Date))
        {
            Take(best.Date, ColumnMeaning.Date, Sureness(best.Date, ColumnMeaning.Date, dates, best.Reason.Length > 0));
        }

        if (best.Due >= 0 && !IsTaken(ColumnMeaning.DueDate))
        {
            Take(best.Due, ColumnMeaning.DueDate, Sureness(best.Due, ColumnMeaning.DueDate, dues, best.Reason.Length > 0), best.Reason);
        }
    }

    /// <summary>How far a column is before the next one that could be the same; what fits with another counts for it.</summary>
    private double Sureness(int index, ColumnMeaning meaning, List<(int Index, double Score)> candidates, bool fits)
    {
        var own = Score(index, meaning);
        var next = candidates.Where(c => c.Index != index && IsFree(c.Index)).Select(c => c.Score).DefaultIfEmpty(-10).Max();
        return Math.Min(own + (fits ? 1 : 0), own - next + (fits ? 1.5 : 0) + 1);
    }

    private void FindAmounts()
    {
        if (decided.Values.Any(m => m.IsAmount()))
        {
            DecidedAmounts();
            return;
        }

        var plans = Plans();
        if (plans.Count == 0)
        {
            return;
        }

        var best = plans[0];
        var rival = plans.Find(p => p.Counted != best.Counted && Sum(p) != Sum(best));
        var margin = rival is null ? 10 : best.Score - rival.Score;
        var isSaid = headings.For(best.Counted, best.Meaning) >= 4 && (best.Meaning == ColumnMeaning.Debit || IsFull(best.Counted));
        var left = Unexplained(best);
        if (IsProven(best.Counted) && !(rival is not null && IsProven(rival.Counted)) && !MayCount(best, left))
        {
            // The file adds up this column and no other: that is looked at, and not asked.
            margin = Math.Max(margin, 1.4);
        }
        else if (left >= 0 && !headings.IsPhrase(best.Counted, best.Meaning))
        {
            margin = Math.Min(margin, isSaid ? 1.4 : 0);
            rival ??= new(0, left, best.Meaning, []);
        }
        else if (!isSaid && best.Columns.All(c => c.Why.Length == 0))
        {
            margin = Math.Min(margin, 1.4);
        }

        foreach (var (index, meaning, why) in best.Columns)
        {
            if (meanings[index] == ColumnMeaning.Extra)
            {
                Take(index, meaning, Math.Min(margin + 1.5, Score(index, meaning)), why);
                isLikely[index] |= (margin < 1.5 && !headings.IsPhrase(index, meaning)) || isInOtherCurrency[index].Value;
            }
        }

        // Filled where the other is not, they are two halves of the amounts.
        var half = best.Meaning == ColumnMeaning.Debit || IsFull(best.Counted) ? -1 : HalfOf(best.Counted);
        if (half >= 0)
        {
            Question = Asked(best, half);
        }
        else if (rival is not null && margin < 1 && best.Columns.Length > 0 && !headings.IsPhrase(best.Counted, best.Meaning))
        {
            Question = Asked(best, rival.Counted);
        }
    }

    private AmountQuestion Asked(AmountPlan best, int other) =>
        new(best.Meaning, new(best.Counted, Sum(best.Counted)), new(other, Sum(other)), sample.Items.Count);

    /// <summary>Whether a column fits as what is open of an amount, whatever its heading says.</summary>
    private bool IsOpenOf(AmountPlan best, int index) =>
        best.Meaning == ColumnMeaning.Amount && ColumnFits.Open(profiles[best.Counted], profiles[index], "").Score >= 2.5;

    /// <summary>Whether a column that was left over is added up by the file too, or is what is open of the amount.</summary>
    private bool MayCount(AmountPlan best, int left) => left >= 0 && (IsProven(left) || IsOpenOf(best, left));

    private int HalfOf(int counted) =>
        Array.FindIndex(profiles, p => p != profiles[counted] && p.IsAmountLike && ColumnFits.DebitAndCredit(profiles[counted], p) >= 3);

    /// <summary>Whether nearly every row has a value in the column, as each item has an amount.</summary>
    private bool IsFull(int index) => profiles[index].FilledShare >= 0.95;

    /// <summary>
    /// A column of amounts that the best plan leaves over and that is no tax, no discount, no running balance and no other currency; -1
    /// where there is none.
    /// </summary>
    private int Unexplained(AmountPlan best)
    {
        var taken = best.Columns.Select(c => c.Index).ToHashSet();
        return Array.FindIndex([.. Enumerable.Range(0, profiles.Length)], i =>
            IsFree(i)
            && !taken.Contains(i)
            && profiles[i].IsAmountLike
            && profiles[i].DecimalShare > 0.2
            && (!headings.IsForeign(i) || IsOpenOf(best, i))
            && !isInOtherCurrency[i].Value
            && !taken.Any(t => ColumnFits.IsConversion(profiles[t], profiles[i]))
            && !IsRunningOf(i, taken)
        );
    }

    /// <summary>Beside what a person said, what else the amounts plainly are. Nothing is asked any more.</summary>
    private void DecidedAmounts()
    {
        foreach (var meaning in new[] { ColumnMeaning.Debit, ColumnMeaning.Credit, ColumnMeaning.Amount, ColumnMeaning.Outstanding })
        {
            if (!IsTaken(meaning) && Candidates(meaning, 4).Find(c => !IsBalance(c.Index)) is { Score: > 0 } first)
            {
                Take(first.Index, meaning, first.Score);
            }
        }

        bool IsBalance(int index) =>
            IsBalanceOfAccount(index) || IsRunningOf(index, Enumerable.Range(0, profiles.Length).Where(i => meanings[i].IsAmount()));
    }

    private decimal Sum(int index) => profiles[index].Amounts.Sum(v => v ?? 0);

    private decimal Sum(AmountPlan plan) =>
        plan.Meaning == ColumnMeaning.Debit ? Sum(plan.Columns[0].Index) - Sum(plan.Columns[1].Index) : Sum(plan.Counted);

    /// <summary>What the amounts could be, the best first.</summary>
    private List<AmountPlan> Plans()
    {
        var open = Candidates(ColumnMeaning.Outstanding, 0.5).Where(c => !IsBalanceOfAccount(c.Index)).ToList();
        var amount = Candidates(ColumnMeaning.Amount, 0.5);
        var debit = Candidates(ColumnMeaning.Debit, 0.5);
        var credit = Candidates(ColumnMeaning.Credit, 0.5);
        var plans = new List<AmountPlan>();
        foreach (var (o, score) in open)
        {
            if (IsRunningOf(o, amount.Concat(debit).Select(c => c.Index)))
            {
                continue;
            }

            plans.Add(new(score + Proof(o), o, ColumnMeaning.Outstanding, [(o, ColumnMeaning.Outstanding, Proven(o))]));
            foreach (var (a, with) in amount.Where(a => a.Index != o))
            {
                var (fit, reason) = ColumnFits.Open(profiles[a], profiles[o], names[a]);

                // Where both fit together the second says as much as the first; else it adds little.
                plans.Add(
                    new(
                        score + Proof(o) + fit + (fit >= 2.5 ? with : Math.Min(with, 4) * 0.5),
                        o,
                        ColumnMeaning.Outstanding,
                        [(o, ColumnMeaning.Outstanding, reason), (a, ColumnMeaning.Amount, "")]
                    )
                );
            }
        }

        // Where a heading says what is outstanding, the full amount alone is not what counts.
        var said = plans.Count == 0 ? 0 : plans.Max(p => headings.For(p.Counted, ColumnMeaning.Outstanding));
        var instead =
            said >= HeadingEvidence.Phrase - 1 ? 8
            : said >= Certain ? 4
            : 0;
        foreach (var (a, score) in amount)
        {
            if (!IsRunningOf(a, amount.Concat(debit).Select(c => c.Index).Where(i => i != a)))
            {
                plans.Add(new(score + Proof(a) - instead, a, ColumnMeaning.Amount, [(a, ColumnMeaning.Amount, Proven(a))]));
            }
        }

        foreach (var (d, one) in debit)
        {
            foreach (var (c, two) in credit.Where(c => c.Index != d))
            {
                var fit = ColumnFits.DebitAndCredit(profiles[d], profiles[c]);
                plans.Add(
                    new(
                        ((one + two) / 2) + fit,
                        d,
                        ColumnMeaning.Debit,
                        [
                            (d, ColumnMeaning.Debit, fit > 0 ? $"never filled where “{names[c]}” is" : ""),
                            (c, ColumnMeaning.Credit, fit > 0 ? $"never filled where “{names[d]}” is" : ""),
                        ]
                    )
                );
            }
        }

        plans = plans.ConvertAll(p => p.Meaning == ColumnMeaning.Debit || IsFull(p.Counted) ? p : p with { Score = p.Score - 2 });
        return [.. plans.Where(p => p.Score >= Enough).OrderByDescending(p => p.Score).ThenBy(p => p.Counted)];
    }

    /// <summary>Beside debit and credit, a balance is the running one of the account, not what is open of the row.</summary>
    private bool IsBalanceOfAccount(int index) =>
        headings.IsBareBalance(index) && IsSaidOrTaken(ColumnMeaning.Debit) && IsSaidOrTaken(ColumnMeaning.Credit);

    private bool IsSaidOrTaken(ColumnMeaning meaning) =>
        IsTaken(meaning) || Enumerable.Range(0, profiles.Length).Any(i => IsFree(i) && headings.IsPhrase(i, meaning));

    private bool IsRunningOf(int balance, IEnumerable<int> changes) => ColumnFits.IsRunningOf(profiles, balance, changes);

    private double Proof(int index) => IsProven(index) ? 1 : 0;

    private string Proven(int index) => IsProven(index) ? "the total lines add it up" : "";

    private bool IsProven(int index) => ProvenTotals(index) is var (proven, of) && of > 0 && proven * 2 > of;

    private (int Proven, int Of) ProvenTotals(int index) =>
        sample.Lines.Count == sample.Items.Count
            ? (0, 0)
            : ColumnFits.Totals(sample, profiles[index], index, cell => ColumnProfile.ValueOf(cell, settings));

    private void FindPlain(params ColumnMeaning[] wanted)
    {
        foreach (var meaning in wanted.Where(m => !IsTaken(m)))
        {
            var candidates = Candidates(meaning, Enough)
                .Select(c => c with { Score = c.Score + Fit(c.Index, meaning) })
                .Where(c => c.Score >= Least(meaning))
                .OrderByDescending(c => c.Score)
                .ThenBy(c => c.Index)
                .ToList();
            if (candidates is [var best, ..])
            {
                var next = candidates.Count > 1 ? candidates[1].Score : -10;
                Take(best.Index, meaning, Math.Min(best.Score, best.Score - next + 2));
            }
        }
    }

    /// <summary>
    /// Where no amount is below zero, credits may be told by a word alone: a column of such words is the kind whatever its heading, and
    /// words that are not known leave the sum open.
    /// </summary>
    private void FindSigns()
    {
        var counted = Array.FindIndex(meanings, m => m is ColumnMeaning.Outstanding);
        counted = counted >= 0 ? counted : Array.FindIndex(meanings, m => m is ColumnMeaning.Amount);
        if (counted < 0 || profiles[counted].BelowShare > 0)
        {
            return;
        }

        var words = Enumerable
            .Range(0, profiles.Length)
            .FirstOrDefault(
                i => IsFree(i) && profiles[i].KindShare >= 0.5 && profiles[i].Texts.Any(t => KindWords.Of(t)?.IsCredit() == true),
                -1
            );
        if (words >= 0 && !IsTaken(ColumnMeaning.Kind))
        {
            Take(words, ColumnMeaning.Kind, Enough);
        }

        if (
            Array.IndexOf(meanings, ColumnMeaning.Kind) is var kind and >= 0
            && (profiles[kind].KindShare < 1 || profiles[kind].Texts.Any(t => KindWords.Of(t) == ItemKind.Adjustment))
            && profiles[kind].Distinct > 1
        )
        {
            isLikely[counted] = true;
        }
    }

    // What nothing depends on is not taken from its slot by values alone.
    private static double Least(ColumnMeaning meaning) =>
        meaning is ColumnMeaning.Unit or ColumnMeaning.Held or ColumnMeaning.Reference ? Certain : Enough;

    private double Fit(int index, ColumnMeaning meaning)
    {
        if (meaning == ColumnMeaning.Kind)
        {
            var amount = Array.FindIndex(meanings, m => m is ColumnMeaning.Outstanding or ColumnMeaning.Amount);
            return amount >= 0 && ColumnFits.GoesWithSign(profiles[index], profiles[amount]) ? 1.5 : 0;
        }

        if (meaning == ColumnMeaning.Reference && Array.IndexOf(meanings, ColumnMeaning.Number) is var number and >= 0)
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
        if (IsTaken(ColumnMeaning.Number))
        {
            return;
        }

        // A column that could as well be the customer’s code is left to it, unless its values stand once.
        var candidates = Candidates(ColumnMeaning.Number, Enough).Where(c => !IsCustomerRather(c.Index)).ToList();
        if (candidates is [var best, ..])
        {
            Take(best.Index, ColumnMeaning.Number, Sureness(best.Index, ColumnMeaning.Number, candidates, fits: false));
        }
    }

    private bool IsCustomerRather(int index) =>
        Score(index, ColumnMeaning.CustomerCode) > Score(index, ColumnMeaning.Number)
        || Score(index, ColumnMeaning.CustomerName) > Score(index, ColumnMeaning.Number);

    private void FindCustomer()
    {
        var codes = IsTaken(ColumnMeaning.CustomerCode) ? [] : Candidates(ColumnMeaning.CustomerCode, 0.5);
        var names = IsTaken(ColumnMeaning.CustomerName) ? [] : Candidates(ColumnMeaning.CustomerName, 0.5);
        var best = (Score: Enough - 0.01, Code: -1, Name: -1, Fit: 0.0);
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
            Take(
                best.Code,
                ColumnMeaning.CustomerCode,
                Sureness(best.Code, ColumnMeaning.CustomerCode, codes, best.Fit > 0),
                best.Fit > 0 ? $"each has one “{this.names[best.Name]}”" : ""
            );
        }

        if (best.Name >= 0)
        {
            Take(
                best.Name,
                ColumnMeaning.CustomerName,
                Sureness(best.Name, ColumnMeaning.CustomerName, names, best.Fit > 0),
                best.Fit > 0 ? $"one for each “{this.names[best.Code]}”" : ""
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
        || (profiles[index].Filled > 3 && profiles[index].Distinct > 1 && Typed(index, meaning) >= 1.5 && !IsSaidOtherwise(index));

    /// <summary>Whether the heading says that the column is something else.</summary>
    private bool IsSaidOtherwise(int index) =>
        headings.IsForeign(index) || Enum.GetValues<ColumnMeaning>().Any(m => headings.For(index, m) >= Certain);

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

    /// <summary>One way to take the amounts.</summary>
    private sealed record AmountPlan(
        double Score,
        int Counted,
        ColumnMeaning Meaning,
        (int Index, ColumnMeaning Meaning, string Why)[] Columns
    );
}
