namespace Rendal.Core.Intake.Columns;

/// <summary>
/// Finds which columns of a ledger are amounts, and which of them counts, by what fits together and what the file adds up.
/// </summary>
/// <param name="columns">The columns, of which dates are taken.</param>
/// <param name="sample">The first rows.</param>
/// <param name="settings">What holds where the file does not say.</param>
internal sealed class AmountSearch(TakenColumns columns, SampleRows sample, ReadingSettings settings)
{
    private readonly HeadingEvidence headings = columns.Headings;
    private readonly ColumnProfile[] profiles = columns.Profiles;

    /// <summary>
    /// Takes the columns of amounts for what they are. Nothing is asked where a person said of one what it is.
    /// </summary>
    /// <returns>What could not be told without a person; null where nothing is left open.</returns>
    public AmountQuestion? Find()
    {
        if (columns.Decided.Values.Any(m => m.IsAmount()))
        {
            DecidedAmounts();
            return null;
        }

        var plans = Plans();
        if (plans.Count == 0)
        {
            return null;
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
            if (columns.Meanings[index] == ColumnMeaning.Extra)
            {
                columns.Take(index, meaning, Math.Min(margin + 1.5, columns.Score(index, meaning)), why);
                if ((margin < 1.5 && !headings.IsPhrase(index, meaning)) || columns.IsInOtherCurrency(index))
                {
                    columns.Doubt(index);
                }
            }
        }

        // Filled where the other is not, they are two halves of the amounts.
        var half = best.Meaning == ColumnMeaning.Debit || IsFull(best.Counted) ? -1 : HalfOf(best.Counted);
        return half >= 0 ? Asked(best, half)
            : rival is not null && margin < 1 && best.Columns.Length > 0 && !headings.IsPhrase(best.Counted, best.Meaning)
                ? Asked(best, rival.Counted)
            : null;
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
            columns.IsFree(i)
            && !taken.Contains(i)
            && profiles[i].IsAmountLike
            && profiles[i].DecimalShare > 0.2
            && (!headings.IsForeign(i) || IsOpenOf(best, i))
            && !columns.IsInOtherCurrency(i)
            && !taken.Any(t => ColumnFits.IsConversion(profiles[t], profiles[i]))
            && !IsRunningOf(i, taken)
        );
    }

    /// <summary>Beside what a person said, what else the amounts plainly are. Nothing is asked any more.</summary>
    private void DecidedAmounts()
    {
        foreach (var meaning in new[] { ColumnMeaning.Debit, ColumnMeaning.Credit, ColumnMeaning.Amount, ColumnMeaning.Outstanding })
        {
            if (!columns.IsTaken(meaning) && columns.Candidates(meaning, 4).Find(c => !IsBalance(c.Index)) is { Score: > 0 } first)
            {
                columns.Take(first.Index, meaning, first.Score);
            }
        }

        bool IsBalance(int index) =>
            IsBalanceOfAccount(index)
            || IsRunningOf(index, Enumerable.Range(0, profiles.Length).Where(i => columns.Meanings[i].IsAmount()));
    }

    private decimal Sum(int index) => profiles[index].Amounts.Sum(v => v ?? 0);

    private decimal Sum(AmountPlan plan) =>
        plan.Meaning == ColumnMeaning.Debit ? Sum(plan.Columns[0].Index) - Sum(plan.Columns[1].Index) : Sum(plan.Counted);

    /// <summary>What the amounts could be, the best first.</summary>
    private List<AmountPlan> Plans()
    {
        var open = columns.Candidates(ColumnMeaning.Outstanding, 0.5).Where(c => !IsBalanceOfAccount(c.Index)).ToList();
        var amount = columns.Candidates(ColumnMeaning.Amount, 0.5);
        var debit = columns.Candidates(ColumnMeaning.Debit, 0.5);
        var credit = columns.Candidates(ColumnMeaning.Credit, 0.5);
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
                var (fit, reason) = ColumnFits.Open(profiles[a], profiles[o], columns.Names[a]);

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
            : said >= TakenColumns.Certain ? 4
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
                            (d, ColumnMeaning.Debit, fit > 0 ? $"never filled where “{columns.Names[c]}” is" : ""),
                            (c, ColumnMeaning.Credit, fit > 0 ? $"never filled where “{columns.Names[d]}” is" : ""),
                        ]
                    )
                );
            }
        }

        plans = plans.ConvertAll(p => p.Meaning == ColumnMeaning.Debit || IsFull(p.Counted) ? p : p with { Score = p.Score - 2 });
        return [.. plans.Where(p => p.Score >= TakenColumns.Enough).OrderByDescending(p => p.Score).ThenBy(p => p.Counted)];
    }

    /// <summary>Beside debit and credit, a balance is the running one of the account, not what is open of the row.</summary>
    private bool IsBalanceOfAccount(int index) =>
        headings.IsBareBalance(index) && IsSaidOrTaken(ColumnMeaning.Debit) && IsSaidOrTaken(ColumnMeaning.Credit);

    private bool IsSaidOrTaken(ColumnMeaning meaning) =>
        columns.IsTaken(meaning) || Enumerable.Range(0, profiles.Length).Any(i => columns.IsFree(i) && headings.IsPhrase(i, meaning));

    private bool IsRunningOf(int balance, IEnumerable<int> changes) => ColumnFits.IsRunningOf(profiles, balance, changes);

    private double Proof(int index) => IsProven(index) ? 1 : 0;

    private string Proven(int index) => IsProven(index) ? "the total lines add it up" : "";

    private bool IsProven(int index) => ProvenTotals(index) is var (proven, of) && of > 0 && proven * 2 > of;

    private (int Proven, int Of) ProvenTotals(int index) =>
        sample.Lines.Count == sample.Items.Count
            ? (0, 0)
            : ColumnFits.Totals(sample, profiles[index], index, cell => ColumnProfile.ValueOf(cell, settings));

    /// <summary>One way to take the amounts.</summary>
    private sealed record AmountPlan(
        double Score,
        int Counted,
        ColumnMeaning Meaning,
        (int Index, ColumnMeaning Meaning, string Why)[] Columns
    );
}
