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
    /// What is open of each row after settlement. Rows dated after <paramref name="asOf"/> take no part and keep their amount. The sum of
    /// what is open equals the sum of the amounts; nothing changes its sign. The result does not depend on the order of the rows.
    /// </summary>
    /// <remarks>
    /// First every credit that names a document settles it, up to what is open of it, in order of the credit's date, then number. Then, by
    /// <see cref="SettlementRule.Oldest"/>, what remains of the credits in that same order settles items in order of due date, document
    /// date, number. Invoices of 100.00 due 1 March and 50.00 due 1 April with a payment of 120.00 leave 0.00 and 30.00 open; with the
    /// second one named, 30.00 of the first and nothing of the second.
    /// </remarks>
    /// <param name="account">The account.</param>
    /// <param name="asOf">The last day that counts.</param>
    /// <param name="rule">How it is done where nobody has said.</param>
    /// <param name="byHand">
    /// What people have said, in the order in which they said it; it comes before everything else and holds whatever the rule.
    /// Whatever of it the account has no rows for rests.
    /// </param>
    public static IReadOnlyList<OpenItem> Settle(
        CustomerAccount account,
        DateOnly asOf,
        SettlementRule rule,
        IReadOnlyList<SettledByHand>? byHand = null
    ) => Run(account, asOf, rule, byHand ?? [], null);

    /// <summary>The same, with each amount that was set against an item: what settled it, and where a payment went.</summary>
    /// <inheritdoc cref="Settle"/>
    public static IReadOnlyList<Settling> Explain(
        CustomerAccount account,
        DateOnly asOf,
        SettlementRule rule,
        IReadOnlyList<SettledByHand>? byHand = null
    )
    {
        var told = new List<Settling>();
        Run(account, asOf, rule, byHand ?? [], told);
        return told;
    }

    private static OpenItem[] Run(
        CustomerAccount account,
        DateOnly asOf,
        SettlementRule rule,
        IReadOnlyList<SettledByHand> byHand,
        List<Settling>? told
    )
    {
        var rows = account.Rows;
        var open = rows.Select(r => r.Open).ToArray();
        if (rule != SettlementRule.None || byHand.Count > 0)
        {
            var takingPart = Enumerable.Range(0, rows.Count).Where(i => !IsAfter(rows[i], asOf)).ToList();
            var charges = takingPart.Where(i => open[i] > 0).OrderBy(i => rows[i], ByAge).ToList();
            var credits = takingPart.Where(i => open[i] < 0).OrderBy(i => rows[i], ByDate).ToList();
            var set = new Setting(rows, open, told);
            if (byHand.Count > 0)
            {
                credits = SettleByHand(set, charges, credits, byHand);
            }

            if (rule != SettlementRule.None)
            {
                SettleNamed(set, charges, credits);
            }

            if (rule == SettlementRule.Oldest)
            {
                SettleOldest(set, charges, credits);
            }
        }

        return [.. rows.Select((row, i) => new OpenItem(row, open[i]))];
    }

    /// <summary>Whether a row lies after the as-of date: by its document date, or its due date where it has no other.</summary>
    public static bool IsAfter(LedgerRow row, DateOnly asOf) => (row.Date ?? row.Due) > asOf;

    private static Comparer<LedgerRow> ByAge { get; } =
        Comparer<LedgerRow>.Create((a, b) => StatementItem.Compare(a, b) is var order and not 0 ? order : Tie(a, b));

    private static Comparer<LedgerRow> ByDate { get; } =
        Comparer<LedgerRow>.Create(
            (a, b) =>
                (a.Date ?? a.Due).CompareTo(b.Date ?? b.Due) is var byDate and not 0 ? byDate
                : string.CompareOrdinal(a.Number, b.Number) is var byNumber and not 0 ? byNumber
                : Tie(a, b)
        );

    /// <summary>Rows alike in date and number are served by amount and reference, so that the file's order decides nothing.</summary>
    private static int Tie(LedgerRow a, LedgerRow b) =>
        a.Open.CompareTo(b.Open) is var byAmount and not 0 ? byAmount : string.CompareOrdinal(a.Reference, b.Reference);

    /// <summary>Does what people have said, and returns the credits that are left to the rule.</summary>
    private static List<int> SettleByHand(Setting set, List<int> charges, List<int> credits, IReadOnlyList<SettledByHand> byHand)
    {
        var creditOf = credits.ToLookup(i => ItemKey.Of(set.Rows[i]).Text, StringComparer.Ordinal);
        var chargeOf = charges.ToLookup(i => ItemKey.Of(set.Rows[i]).Text, StringComparer.Ordinal);
        var kept = new HashSet<int>();
        foreach (var said in byHand)
        {
            var left = said.Amount ?? decimal.MaxValue;
            foreach (var credit in creditOf[said.Credit])
            {
                if (said.Charge is null)
                {
                    kept.Add(credit);
                    continue;
                }

                foreach (var charge in chargeOf[said.Charge])
                {
                    left -= set.Against(charge, credit, SettledBy.Hand, left);
                }
            }
        }

        return [.. credits.Where(i => !kept.Contains(i))];
    }

    private static void SettleNamed(Setting set, List<int> charges, List<int> credits)
    {
        var byNumber = charges.Where(i => set.Rows[i].Number.Length > 0).ToLookup(i => set.Rows[i].Number, StringComparer.Ordinal);
        foreach (var credit in credits.Where(i => set.Rows[i].Reference.Length > 0))
        {
            foreach (var charge in byNumber[set.Rows[credit].Reference])
            {
                set.Against(charge, credit, SettledBy.Reference, decimal.MaxValue);
            }
        }
    }

    private static void SettleOldest(Setting set, List<int> charges, List<int> credits)
    {
        var next = 0;
        foreach (var credit in credits)
        {
            for (; next < charges.Count && set.Open[credit] < 0; next += set.Open[charges[next]] == 0 ? 1 : 0)
            {
                set.Against(charges[next], credit, SettledBy.Age, decimal.MaxValue);
            }
        }
    }

    /// <summary>The rows of an account while credits are set against charges.</summary>
    /// <param name="Rows">The rows.</param>
    /// <param name="Open">What is open of each.</param>
    /// <param name="Told">Is told each amount; null where nobody wants to know.</param>
    private sealed record Setting(IReadOnlyList<LedgerRow> Rows, decimal[] Open, List<Settling>? Told)
    {
        /// <summary>
        /// Sets as much of a credit against a charge as both have open, at most <paramref name="most"/>, and returns how much it was.
        /// </summary>
        public decimal Against(int charge, int credit, SettledBy by, decimal most)
        {
            var amount = Math.Min(Math.Min(Open[charge], -Open[credit]), most);
            if (amount > 0)
            {
                Open[charge] -= amount;
                Open[credit] += amount;
                Told?.Add(new Settling(Rows[credit], Rows[charge], amount, by));
            }

            return amount;
        }
    }
}
