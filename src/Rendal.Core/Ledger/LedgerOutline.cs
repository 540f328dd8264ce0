using System.Globalization;

namespace Rendal.Core.Ledger;

/// <summary>A ledger seen from afar, by which a file is told to be the next one of the same firm.</summary>
/// <param name="Rows">How many rows it has.</param>
/// <param name="Customers">Its customers.</param>
/// <param name="NewestDate">The newest document date; null where no row has one.</param>
public sealed record LedgerOutline(int Rows, IReadOnlySet<string> Customers, DateOnly? NewestDate)
{
    private const int FewRows = 10;

    /// <summary>
    /// What makes it doubtful that a file is the next ledger after this one, a sentence each: fewer than a fifth of its customers are
    /// known, so that it may be another firm's; its newest document is older than the one here, or more than 92 days newer, so that it may
    /// be of another period; it has fewer than half as many rows. Ledgers of fewer than ten rows say nothing by their size.
    /// </summary>
    public IReadOnlyList<string> DoubtsAbout(LedgerOutline next)
    {
        var doubts = new List<string>();
        if (next.Customers.Count > 0 && Customers.Count > 0)
        {
            var known = next.Customers.Count(Customers.Contains);
            if (known * 5 < next.Customers.Count)
            {
                doubts.Add($"Only {known} of its {next.Customers.Count} customers are in the ledger as it is: it may be another firm’s.");
            }
        }

        if (NewestDate is { } last && next.NewestDate is { } newest && (newest < last || newest.DayNumber - last.DayNumber > 92))
        {
            doubts.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Its newest document is of {newest:d MMMM yyyy}, that of the ledger as it is of {last:d MMMM yyyy}: it "
                        + $"may be of another period."
                )
            );
        }

        if (Rows >= FewRows && next.Rows * 2 < Rows)
        {
            doubts.Add(
                $"It has {next.Rows} {(next.Rows == 1 ? "row" : "rows")}, the ledger as it is has {Rows}: part of it may be missing."
            );
        }

        return doubts;
    }
}
