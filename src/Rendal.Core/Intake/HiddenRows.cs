using Rendal.Core.Ledger;
using Rendal.Core.Money;

namespace Rendal.Core.Intake;

/// <summary>
/// The rows of a workbook that are hidden, by hand or by a filter. Whoever looks at the workbook does not see them, so that
/// a person says whether they count.
/// </summary>
/// <param name="leftOut">Whether a person has them left out.</param>
internal sealed class HiddenRows(bool leftOut)
{
    private const int MostNamed = 5;

    private readonly SortedDictionary<Currency, decimal> sums = [];
    private readonly List<int> rows = [];
    private int count;

    /// <summary>Counts a hidden row, with its amount where that can be read.</summary>
    /// <param name="row">Its number.</param>
    /// <param name="currency">Its currency; null where its amount cannot be read.</param>
    /// <param name="amount">Its amount.</param>
    public void Count(int row, Currency? currency, decimal amount)
    {
        count++;
        if (rows.Count < MostNamed)
        {
            rows.Add(row);
        }

        if (currency is { } known)
        {
            sums[known] = sums.GetValueOrDefault(known) + amount;
        }
    }

    /// <summary>What there is to say of them; null where there are none.</summary>
    /// <param name="file">Where they stand.</param>
    /// <param name="remedy">What a person can do where they are read.</param>
    public Finding? Finding(SourceRef file, string remedy)
    {
        if (count == 0)
        {
            return null;
        }

        var which = $"row{(count == 1 ? "" : "s")} {string.Join(", ", rows)}{(count > MostNamed ? ", …" : "")}";
        var sum = string.Join(" and ", sums.Select(s => $"{s.Key.Plain(s.Value)} {s.Key}"));
        var (are, come) = count == 1 ? ("is", "comes") : ("are", "come");
        return new Finding(
            FindingCodes.RowsHidden,
            leftOut ? Severity.Note : Severity.Warning,
            file with
            {
                Row = rows[0],
            },
            null,
            null,
            $"{(count == 1 ? "One row is" : $"{count} rows are")} hidden in the workbook "
                + $"({which}){(sum.Length > 0 ? $" and {come} to {sum}" : "")}. {(count == 1 ? "It" : "They")} {are} "
                + $"{(leftOut ? "left out" : "read like the others")}.",
            leftOut ? "" : remedy
        );
    }
}
