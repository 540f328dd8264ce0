namespace Rendal.Core.Intake.Columns;

/// <summary>How well columns of the sample fit together.</summary>
internal static class ColumnFits
{
    private const int FewTerms = 3;

    // Of so many columns, pairs are tried.
    private const int MostTried = 8;

    /// <summary>
    /// Whether one column of dates is due dates of another: on or after it, mostly by a few whole terms. Above 0 for, below 0 against.
    /// </summary>
    public static (double Score, string Reason) Due(ColumnProfile date, ColumnProfile due, string dateHeading)
    {
        var terms = new Dictionary<int, int>();
        var both = 0;
        var before = 0;
        for (var i = 0; i < date.Dates.Length; i++)
        {
            if (date.Dates[i] is { } from && due.Dates[i] is { } to)
            {
                both++;
                var days = to.DayNumber - from.DayNumber;
                before += days < 0 ? 1 : 0;
                terms[days] = terms.GetValueOrDefault(days) + 1;
            }
        }

        if (both == 0)
        {
            return (0, "");
        }

        if (before * 20 > both)
        {
            return (-4, "");
        }

        var (usual, times) = terms.MaxBy(t => t.Value);
        var few = terms.Values.OrderDescending().Take(FewTerms).Sum() * 10 >= both * 6;
        var all = before == 0 ? "every value is" : "nearly every value is";
        return usual == 0 && times == both
            ? (0, $"the same days as “{dateHeading}”")
            : (
                1.5 + (few && both > 3 ? 1 : 0),
                $"{all} on or after “{dateHeading}”{(times * 2 > both && usual > 0 ? $"; most are {usual} days later" : "")}"
            );
    }

    /// <summary>Whether one column is what is open of another: between zero and it, with its sign.</summary>
    public static (double Score, string Reason) Open(ColumnProfile amount, ColumnProfile open, string amountHeading)
    {
        var both = 0;
        var within = 0;
        var same = 0;
        for (var i = 0; i < amount.Amounts.Length; i++)
        {
            if (amount.Amounts[i] is { } full && open.Amounts[i] is { } left)
            {
                both++;
                same += full == left ? 1 : 0;
                within += Math.Abs(left) <= Math.Abs(full) && (left == 0 || Math.Sign(left) == Math.Sign(full)) ? 1 : 0;
            }
        }

        if (both == 0)
        {
            return (0, "");
        }

        // A tax, a discount or another currency is the same part of every amount.
        var other = both - same;
        var ratios = Ratios(amount, open);
        ratios.Remove(1);
        if (other > 4 && ratios.Values.DefaultIfEmpty().Max() * 10 >= other * 7)
        {
            return (-4, "");
        }

        // Days and weeks are whole where the amounts are not.
        if (amount.DecimalShare > 0.3 && open.DecimalShare == 0 && open.Filled > 3)
        {
            return (-4, "");
        }

        return within * 50 >= both * 49
            ? (
                same < both && same * 5 >= both ? 2.5 : 1,
                $"lies between zero and “{amountHeading}” in {(within == both ? "every row" : "nearly every row")}"
            )
            : (-4, "");
    }

    /// <summary>Whether one column is another by a rate that hardly changes.</summary>
    public static bool IsConversion(ColumnProfile amount, ColumnProfile converted)
    {
        var ratios = Ratios(amount, converted);
        var all = ratios.Values.Sum();
        return all > 2 && ratios.MaxBy(r => r.Value) is var (rate, times) && rate != 1 && times * 2 > all;
    }

    /// <summary>What one column is of another, to two decimals, with how many rows it is so in; rows with a zero are left out.</summary>
    private static Dictionary<decimal, int> Ratios(ColumnProfile of, ColumnProfile other)
    {
        var ratios = new Dictionary<decimal, int>();
        for (var i = 0; i < of.Amounts.Length; i++)
        {
            if (of.Amounts[i] is { } from && other.Amounts[i] is { } to && from != 0 && to != 0)
            {
                var ratio = Math.Round(to / from, 2);
                ratios[ratio] = ratios.GetValueOrDefault(ratio) + 1;
            }
        }

        return ratios;
    }

    /// <summary>Whether two columns are debit and credit: never both filled, and one of them in each row.</summary>
    public static double DebitAndCredit(ColumnProfile debit, ColumnProfile credit)
    {
        var either = 0;
        var both = 0;
        for (var i = 0; i < debit.Amounts.Length; i++)
        {
            var d = debit.Amounts[i] is { } x && x != 0;
            var c = credit.Amounts[i] is { } y && y != 0;
            either += d || c ? 1 : 0;
            both += d && c ? 1 : 0;
        }

        return either == 0 || both * 50 > either ? -5
            : debit.Filled > 0 && credit.Filled > 0 && either * 20 >= debit.Amounts.Length * 19 ? 3
            : 0;
    }

    /// <summary>Whether a column is the running balance of another: each value is the one above and what the row adds.</summary>
    public static bool IsRunning(ColumnProfile balance, Func<int, decimal?> change)
    {
        var steps = 0;
        var kept = 0;
        decimal? before = null;
        for (var i = 0; i < balance.Amounts.Length; i++)
        {
            if (balance.Amounts[i] is not { } now || change(i) is not { } by)
            {
                before = null;
                continue;
            }

            // Where nothing is added, any column stays as it is.
            if (before is { } from && by != 0)
            {
                steps++;
                kept += from + by == now ? 1 : 0;
            }

            before = now;
        }

        // It begins anew with each customer.
        return steps >= 3 && kept * 10 >= steps * 6;
    }

    /// <summary>Whether a column is the running balance of one of some others, or of one less another, as of debit and credit.</summary>
    public static bool IsRunningOf(IReadOnlyList<ColumnProfile> profiles, int balance, IEnumerable<int> changes)
    {
        var of = changes.Where(i => i != balance).Distinct().Take(MostTried).ToList();
        if (of.Exists(i => IsRunning(profiles[balance], at => profiles[i].Amounts[at])))
        {
            return true;
        }

        return of.Exists(d =>
            of.Exists(c =>
                c != d
                && IsRunning(profiles[balance], at =>
                    (profiles[d].Amounts[at], profiles[c].Amounts[at]) is (null, null)
                        ? null
                        : (profiles[d].Amounts[at] ?? 0) - (profiles[c].Amounts[at] ?? 0)
                )
            )
        );
    }

    /// <summary>How many of the total lines say what the column adds up to since the one before; none where there are none.</summary>
    public static (int Proven, int Of) Totals(SampleRows sample, ColumnProfile column, int index, Func<Cell, decimal?> read)
    {
        var proven = 0;
        var of = 0;
        decimal since = 0;
        decimal all = 0;
        var item = 0;
        foreach (var (row, isTotal) in sample.Lines)
        {
            if (!isTotal)
            {
                var value = column.Amounts[item++] ?? 0;
                (since, all) = (since + value, all + value);
                continue;
            }

            if (read(row[index]) is { } said)
            {
                of++;
                proven += said == since || said == all ? 1 : 0;
                since = 0;
            }
        }

        return (proven, of);
    }

    /// <summary>How many of the rows break the rule that one value of a column has one value of another; from 0 to 1.</summary>
    public static double Breaks(ColumnProfile of, ColumnProfile has)
    {
        var known = new Dictionary<string, string>(StringComparer.Ordinal);
        var both = 0;
        var broken = 0;
        for (var i = 0; i < of.Texts.Length; i++)
        {
            if (of.Texts[i].Length == 0 || has.Texts[i].Length == 0)
            {
                continue;
            }

            both++;
            if (!known.TryAdd(of.Texts[i], has.Texts[i]) && known[of.Texts[i]] != has.Texts[i])
            {
                broken++;
            }
        }

        return both == 0 ? 1 : (double)broken / both;
    }

    /// <summary>How many of the values of a column stand in another; from 0 to 1.</summary>
    public static double Within(ColumnProfile values, ColumnProfile of)
    {
        var known = of.Texts.Where(t => t.Length > 0).ToHashSet(StringComparer.Ordinal);
        var filled = values.Texts.Where(t => t.Length > 0).ToList();
        return filled.Count == 0 ? 0 : (double)filled.Count(known.Contains) / filled.Count;
    }

    /// <summary>
    /// Whether the few values of a column go with the sign of an amount: rows of one value are all above zero, or all below.
    /// </summary>
    public static bool GoesWithSign(ColumnProfile kind, ColumnProfile amount)
    {
        var signs = new Dictionary<string, (int Above, int Below)>(StringComparer.Ordinal);
        for (var i = 0; i < kind.Texts.Length; i++)
        {
            if (kind.Texts[i].Length > 0 && amount.Amounts[i] is { } value && value != 0)
            {
                var (above, below) = signs.GetValueOrDefault(kind.Texts[i]);
                signs[kind.Texts[i]] = value > 0 ? (above + 1, below) : (above, below + 1);
            }
        }

        return signs.Values.Any(s => s.Above > 0)
            && signs.Values.Any(s => s.Below > 0)
            && signs.Values.All(s => Math.Min(s.Above, s.Below) * 20 <= s.Above + s.Below);
    }
}
