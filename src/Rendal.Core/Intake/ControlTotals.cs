using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// Compares total lines with the sum of the rows above them: those since the last total line, or all of them.
/// </summary>
internal sealed class ControlTotals
{
    private readonly Dictionary<Currency, decimal> all = [];
    private readonly Dictionary<Currency, decimal> sinceLast = [];

    public void Count(Currency currency, decimal amount)
    {
        all[currency] = all.GetValueOrDefault(currency) + amount;
        sinceLast[currency] = sinceLast.GetValueOrDefault(currency) + amount;
    }

    /// <summary>What is wrong with a total line; null where it agrees, or where several currencies stand above it and none beside it.</summary>
    public Finding? Compare(decimal total, Currency? currency, SourceRef source, string column)
    {
        var block = Sum(sinceLast, currency);
        var whole = Sum(all, currency);
        sinceLast.Clear();
        if (block == total || whole == total || whole is null)
        {
            return null;
        }

        var of = currency ?? all.Keys.First();
        var sum = block ?? 0;
        return new Finding(FindingCodes.ControlTotalDiffers, Severity.Warning, source, column, null,
            $"The total line in row {source.Row} says {of.Plain(total)}; the rows above it come to {of.Plain(sum)}, a difference of {of.Plain(total - sum)}.",
            "Look for rows of this block that were set aside or are missing from the file.");
    }

    private static decimal? Sum(Dictionary<Currency, decimal> sums, Currency? currency) =>
        currency is { } one ? sums.GetValueOrDefault(one)
        : sums.Count == 1 ? sums.Values.First()
        : null;
}
