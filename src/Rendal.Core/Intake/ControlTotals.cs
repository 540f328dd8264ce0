using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>A total that was compared with the rows it is over.</summary>
/// <param name="Source">The total line; row 0 for a total that a person typed in.</param>
/// <param name="Currency">The currency.</param>
/// <param name="Said">What the line says.</param>
/// <param name="Sum">What the rows come to.</param>
public sealed record ControlCheck(SourceRef Source, Currency Currency, decimal Said, decimal Sum)
{
    /// <summary>Whether they agree, to the last decimal.</summary>
    public bool Agrees => Said == Sum;
}

/// <summary>
/// Compares total lines with the rows above them. A line agrees when it is the sum of the rows back to any total line before it, or to the
/// beginning: so totals of customers, of the units that they belong to, and of all can stand together. Rows that a person left out count
/// here, since the line of the file counts them too.
/// </summary>
/// <param name="leavesOutHidden">Whether a person has hidden rows left out; a total of the visible ones is right then.</param>
internal sealed class ControlTotals(bool leavesOutHidden)
{
    /// <summary>How many checks are kept to be shown; all are made.</summary>
    public const int Kept = 200;

    private readonly Dictionary<Currency, Running> sums = [];
    private readonly List<ControlCheck> checks = [];

    /// <summary>The checks that were made, the first <see cref="Kept"/> of them.</summary>
    public IReadOnlyList<ControlCheck> Checks => checks;

    /// <summary>Whether a row of a currency was counted so far, so that there is something to compare a total in it with.</summary>
    public bool Has(Currency currency) => sums.ContainsKey(currency);

    /// <summary>Counts a row into the sums that the total lines after it are compared with.</summary>
    /// <param name="currency">Its currency.</param>
    /// <param name="amount">Its amount.</param>
    /// <param name="isHidden">Whether the workbook hides it: a total line may count it or not.</param>
    public void Count(Currency currency, decimal amount, bool isHidden = false)
    {
        if (!sums.TryGetValue(currency, out var running))
        {
            sums.Add(currency, running = new Running());
        }

        running.Sum += amount;
        running.Hidden += isHidden ? amount : 0;
    }

    /// <summary>
    /// What is wrong with a total line; null where it agrees, or where several currencies stand above it and none beside it.
    /// </summary>
    public Finding? Compare(decimal total, Currency? currency, SourceRef source, string column)
    {
        var of = currency ?? (sums.Count == 1 ? sums.Keys.First() : null);
        if (of is not { } one)
        {
            return null;
        }

        var running = sums.TryGetValue(one, out var known) ? known : new Running();
        var block = running.Sum - running.LastLine;
        var agrees = running.Lines.Contains(running.Sum - total);
        var hidden = running.Hidden - running.LastHidden;
        var agreesWithVisible = running.Hidden != 0 && running.VisibleLines.Contains(running.Sum - running.Hidden - total);
        running.EndLine();
        Keep(new ControlCheck(source, one, total, agrees || (leavesOutHidden && agreesWithVisible) ? total : block));
        return agrees || (leavesOutHidden && agreesWithVisible) ? null
            : agreesWithVisible
                ? new Finding(
                    FindingCodes.ControlTotalDiffers,
                    Severity.Warning,
                    source,
                    column,
                    null,
                    $"The total line in row {source.Row} says {one.Plain(total)}, which is what the visible rows above it come "
                        + $"to; with the hidden ones they come to {one.Plain(block)}, a difference of {one.Plain(-hidden)}.",
                    "Leave the hidden rows out, if the total is right."
                )
            : new Finding(
                FindingCodes.ControlTotalDiffers,
                Severity.Warning,
                source,
                column,
                null,
                $"The total line in row {source.Row} says {one.Plain(total)}; the rows above it come to {one.Plain(block)}, a "
                    + $"difference of {one.Plain(total - block)}.",
                "Look for rows of this block that were set aside or are missing from the file."
            );
    }

    /// <summary>Compares a total that a person typed in with all rows of its currency.</summary>
    public Finding? CompareTyped(decimal total, Currency currency, SourceRef file)
    {
        var sum = sums.TryGetValue(currency, out var running) ? running.Sum : 0;
        Keep(new ControlCheck(file, currency, total, sum));
        return sum == total
            ? null
            : new Finding(
                FindingCodes.ControlTotalDiffers,
                Severity.Warning,
                file,
                null,
                null,
                $"You typed in a total of {currency.Plain(total)} {currency}; the rows come to {currency.Plain(sum)}, a "
                    + $"difference of {currency.Plain(total - sum)}.",
                "Look for rows that were set aside or are missing from the file, and whether the total is of the same day."
            );
    }

    private void Keep(ControlCheck check)
    {
        if (checks.Count < Kept)
        {
            checks.Add(check);
        }
    }

    /// <summary>The sum of one currency so far, and what it was at each total line.</summary>
    private sealed class Running
    {
        /// <summary>What the rows come to so far, hidden ones included.</summary>
        public decimal Sum { get; set; }

        /// <summary>What they came to at the total line before; 0 before the first.</summary>
        public decimal LastLine { get; private set; }

        /// <summary>What the hidden ones among them come to.</summary>
        public decimal Hidden { get; set; }

        /// <summary>What the hidden ones came to at the total line before.</summary>
        public decimal LastHidden { get; private set; }

        /// <summary>What the rows came to at each total line, and 0 for the beginning.</summary>
        public HashSet<decimal> Lines { get; } = [0m];

        /// <summary>The same without the hidden rows.</summary>
        public HashSet<decimal> VisibleLines { get; } = [0m];

        /// <summary>Notes that a total line stands here.</summary>
        public void EndLine()
        {
            Lines.Add(Sum);
            VisibleLines.Add(Sum - Hidden);
            (LastLine, LastHidden) = (Sum, Hidden);
        }
    }
}
