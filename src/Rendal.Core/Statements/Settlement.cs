using Rendal.Core.Ledger;

namespace Rendal.Core.Statements;

/// <summary>How payments and credits are set against invoices.</summary>
public enum SettlementRule
{
    /// <summary>Not at all: the file already says what is outstanding.</summary>
    None,

    /// <summary>Only against the document that the payment names; the rest stays a credit.</summary>
    Reference,

    /// <summary>Against the named document first, then the oldest.</summary>
    Oldest,
}

/// <summary>Sets the payments and credits of one account against its invoices.</summary>
public static class Settlement
{
    /// <summary>
    /// What is open of each row after settlement. Rows dated after <paramref name="asOf"/> take no part and keep their
    /// amount. The sum of what is open equals the sum of the amounts; nothing changes its sign. The result does not
    /// depend on the order of the rows.
    /// </summary>
    /// <remarks>
    /// First every credit that names a document settles it, up to what is open of it, in order of the credit's date,
    /// then number. Then, by <see cref="SettlementRule.Oldest"/>, what remains of the credits in that same order settles
    /// items in order of due date, document date, number. Invoices of 100.00 due 1 March and 50.00 due 1 April with a
    /// payment of 120.00 leave 0.00 and 30.00 open; with the second one named, 30.00 of the first and nothing of the second.
    /// </remarks>
    public static IReadOnlyList<OpenItem> Settle(CustomerAccount account, DateOnly asOf, SettlementRule rule)
    {
        var rows = account.Rows;
        var open = rows.Select(r => r.Open).ToArray();
        if (rule != SettlementRule.None)
        {
            var takingPart = Enumerable.Range(0, rows.Count).Where(i => !IsAfter(rows[i], asOf)).ToList();
            var charges = takingPart.Where(i => open[i] > 0).OrderBy(i => rows[i], ByAge).ToList();
            var credits = takingPart.Where(i => open[i] < 0).OrderBy(i => rows[i], ByDate).ToList();
            SettleNamed(rows, open, charges, credits);
            if (rule == SettlementRule.Oldest)
            {
                SettleOldest(open, charges, credits);
            }
        }

        return [.. rows.Select((row, i) => new OpenItem(row, open[i]))];
    }

    /// <summary>Whether a row lies after the as-of date: by its document date, or its due date where it has no other.</summary>
    public static bool IsAfter(LedgerRow row, DateOnly asOf) => (row.Date ?? row.Due) > asOf;

    private static Comparer<LedgerRow> ByAge { get; } = Comparer<LedgerRow>.Create((a, b) => StatementItem.Compare(a, b) is var order and not 0 ? order : Tie(a, b));

    private static Comparer<LedgerRow> ByDate { get; } = Comparer<LedgerRow>.Create((a, b) =>
        (a.Date ?? a.Due).CompareTo(b.Date ?? b.Due) is var byDate and not 0 ? byDate
        : string.CompareOrdinal(a.Number, b.Number) is var byNumber and not 0 ? byNumber
        : Tie(a, b));

    /// <summary>Rows alike in date and number are served by amount and reference, so that the file's order decides nothing.</summary>
    private static int Tie(LedgerRow a, LedgerRow b) =>
        a.Open.CompareTo(b.Open) is var byAmount and not 0 ? byAmount : string.CompareOrdinal(a.Reference, b.Reference);

    private static void SettleNamed(IReadOnlyList<LedgerRow> rows, decimal[] open, List<int> charges, List<int> credits)
    {
        var byNumber = charges.Where(i => rows[i].Number.Length > 0).ToLookup(i => rows[i].Number, StringComparer.Ordinal);
        foreach (var credit in credits.Where(i => rows[i].Reference.Length > 0))
        {
            foreach (var charge in byNumber[rows[credit].Reference])
            {
                Set(open, charge, credit);
            }
        }
    }

    private static void SettleOldest(decimal[] open, List<int> charges, List<int> credits)
    {
        var next = 0;
        foreach (var credit in credits)
        {
            for (; next < charges.Count && open[credit] < 0; next += open[charges[next]] == 0 ? 1 : 0)
            {
                Set(open, charges[next], credit);
            }
        }
    }

    private static void Set(decimal[] open, int charge, int credit)
    {
        var amount = Math.Min(open[charge], -open[credit]);
        open[charge] -= amount;
        open[credit] += amount;
    }
}
