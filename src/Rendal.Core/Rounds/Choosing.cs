using Rendal.Core.Ledger;
using Rendal.Core.Money;
using Rendal.Core.Statements;

namespace Rendal.Core.Rounds;

/// <summary>Chooses who is written to about what, and accounts for everything else.</summary>
public static class Choosing
{
    /// <summary>
    /// Chooses from a whole ledger. Every row ends in exactly one place: on a statement, or left out for one reason.
    /// </summary>
    /// <param name="rows">The ledger rows.</param>
    /// <param name="setAside">The rows that could not be used; each blocks its customer in its currency, or in all where that is unknown.</param>
    /// <param name="choice">Who and what is wanted.</param>
    /// <param name="settlement">How payments are set against invoices first.</param>
    /// <param name="ageing">The bands.</param>
    /// <param name="reachability">What is known of a customer beside the ledger.</param>
    /// <param name="byHand">What people have decided about single customers and items.</param>
    public static ChosenRound Choose(
        IEnumerable<LedgerRow> rows,
        IReadOnlyCollection<RowSetAside> setAside,
        Choice choice,
        SettlementRule settlement,
        AgeingRule ageing,
        Func<string, Reachability> reachability,
        ByHand? byHand = null)
    {
        var hand = new HandIndex(byHand ?? ByHand.Nothing, choice.AsOf);
        var accounts = CustomerAccount.Group(rows);
        var blocked = setAside.Where(r => r.Customer is not null).ToLookup(r => r.Customer!, StringComparer.Ordinal);
        var statements = new List<Statement>();
        var leftOut = new LeftOutSums();
        var ledger = new SortedDictionary<Currency, decimal>();
        foreach (var row in setAside)
        {
            leftOut.Add(row.Customer, row.Currency, LeftOutReason.Error, row.Amount);
            if (row.Currency is { } currency)
            {
                ledger[currency] = ledger.GetValueOrDefault(currency) + row.Amount;
            }
        }

        foreach (var account in accounts)
        {
            ledger[account.Currency] = ledger.GetValueOrDefault(account.Currency) + account.Rows.Sum(r => r.Open);
            var settled = Settlement.Settle(account, choice.AsOf, settlement, hand.Settlements(account.Customer));
            var wanted = WantedItems(settled, account, choice, hand, leftOut);
            if (wanted.Count == 0)
            {
                continue;
            }

            var statement = Statement.Of(account.Customer, account.Currency, wanted, choice.AsOf, ageing);
            if (choice.Form == StatementForm.BroughtForward)
            {
                var movements = settled.Where(i => !Settlement.IsAfter(i.Row, choice.AsOf) && FilteredOut(i, choice, hand) is null).Select(i => i.Row);
                statement = statement with { Forward = BroughtForward.Of(movements, new Period(choice.PeriodFrom ?? Period.MonthOf(choice.AsOf).From, choice.AsOf)) };
            }

            if (choice.InterestPercent is { } rate)
            {
                statement = statement with { Interest = InterestLine.On(statement, rate) };
            }

            var isBlocked = blocked[account.Customer].Any(r => r.Currency is null || r.Currency == account.Currency);
            if (ReasonAgainst(statement, isBlocked, choice, hand, reachability) is { } reason)
            {
                leftOut.Add(account.Customer, account.Currency, reason, statement.Total, wanted.Count);
            }
            else
            {
                statements.Add(statement);
            }
        }

        var sent = statements.GroupBy(s => s.Currency).ToDictionary(g => g.Key, g => g.Sum(s => s.Total));
        var proof = ledger.Select(l => new Proof(l.Key, l.Value, sent.GetValueOrDefault(l.Key), leftOut.Of(l.Key))).ToList();
        return new ChosenRound(statements, leftOut.Listed(), proof);
    }

    /// <summary>Where each item of one customer ends, in the order of statements: by due date, date and number.</summary>
    /// <param name="rows">All rows of the customer.</param>
    /// <param name="choice">Which items are wanted.</param>
    /// <param name="settlement">How payments are set against invoices first.</param>
    /// <param name="byHand">What people have decided.</param>
    public static IReadOnlyList<ItemChosen> Items(IEnumerable<LedgerRow> rows, Choice choice, SettlementRule settlement, ByHand byHand)
    {
        var hand = new HandIndex(byHand, choice.AsOf);
        return
        [
            .. CustomerAccount.Group(rows).SelectMany(account => Settlement.Settle(account, choice.AsOf, settlement, hand.Settlements(account.Customer))
                .Select(item => new ItemChosen(item, ReasonAgainst(item, choice, hand)))
                .OrderBy(c => c.Item.Row, Comparer<LedgerRow>.Create(StatementItem.Compare))),
        ];
    }

    private static List<OpenItem> WantedItems(IReadOnlyList<OpenItem> items, CustomerAccount account, Choice choice, HandIndex hand, LeftOutSums leftOut)
    {
        var wanted = new List<OpenItem>(items.Count);
        foreach (var item in items)
        {
            if (ReasonAgainst(item, choice, hand) is { } reason)
            {
                leftOut.Add(account.Customer, account.Currency, reason, item.Open);
            }
            else
            {
                wanted.Add(item);
            }
        }

        return wanted;
    }

    private static LeftOutReason? ReasonAgainst(OpenItem item, Choice choice, HandIndex hand) =>
        Settlement.IsAfter(item.Row, choice.AsOf) ? LeftOutReason.AfterTheDate
        : item.Open == 0 ? null
        : FilteredOut(item, choice, hand);

    private static LeftOutReason? FilteredOut(OpenItem item, Choice choice, HandIndex hand)
    {
        var row = item.Row;
        var date = row.Date ?? row.Due;
        var key = hand.KeyOf(row);
        return hand.IsItemIn(key) ? null
            : date < choice.DatedFrom || date > choice.DatedTo || row.Due < choice.DueFrom || row.Due > choice.DueTo ? LeftOutReason.OutsideTheDates
            : (choice.LeaveOutHeld && row.Held.Length > 0) || hand.IsHeld(key) ? LeftOutReason.HeldBack
            : (choice.Units is { } units && !units.Contains(row.Unit)) || !HasWantedValues(row, choice) ? LeftOutReason.OtherUnit
            : !choice.WithCredits && item.Open < 0 ? LeftOutReason.CreditsNotWanted
            : hand.IsItemOut(key) ? LeftOutReason.TakenOut
            : null;
    }

    private static bool HasWantedValues(LedgerRow row, Choice choice)
    {
        if (choice.Columns.Count == 0)
        {
            return true;
        }

        foreach (var (column, values) in choice.Columns)
        {
            if (!values.Contains(row.Extra.TryGetValue(column, out var value) ? value : ""))
            {
                return false;
            }
        }

        return true;
    }

    private static LeftOutReason? ReasonAgainst(Statement statement, bool isBlocked, Choice choice, HandIndex hand, Func<string, Reachability> reachability)
    {
        if (isBlocked)
        {
            return LeftOutReason.Error;
        }

        var of = reachability(statement.Customer);
        var isPutIn = hand.IsIn(statement.Customer);
        return hand.IsOut(statement.Customer) ? LeftOutReason.RemovedByHand
            : !isPutIn && !IsChosen(statement.Customer, of, choice) ? LeftOutReason.NotChosen
            : of.OnHold ? LeftOutReason.OnHold
            : statement.Total == 0 ? LeftOutReason.NothingOpen
            : statement.Total < 0 ? LeftOutReason.CreditBalance
            : !isPutIn && statement.Total < (of.MinimumBalance ?? choice.LeastBalance) ? LeftOutReason.BelowTheMinimum
            : !isPutIn && choice.OverdueDays is { } days && statement.OldestDaysPastDue < days ? LeftOutReason.NotOverdueEnough
            : !isPutIn && choice.NotWithinDays is { } within && of.LastWritten is { } last && last > choice.AsOf.AddDays(-within) ? LeftOutReason.WrittenToRecently
            : choice.NeedsAddress && !of.HasAddress ? LeftOutReason.NoWayToReach
            : null;
    }

    private static bool IsChosen(string customer, Reachability of, Choice choice) =>
        (choice.Customers is not { } chosen || chosen.Contains(customer)) && (choice.HeadOffices is not { } offices || offices.Contains(of.HeadOffice ?? customer));

    private sealed class LeftOutSums
    {
        private readonly Dictionary<(string? Customer, Currency? Currency, LeftOutReason Reason), (decimal Amount, int Items)> sums = [];

        public void Add(string? customer, Currency? currency, LeftOutReason reason, decimal amount, int items = 1)
        {
            var (sum, count) = sums.GetValueOrDefault((customer, currency, reason));
            sums[(customer, currency, reason)] = (sum + amount, count + items);
        }

        public decimal Of(Currency currency) => sums.Where(s => s.Key.Currency == currency).Sum(s => s.Value.Amount);

        public IReadOnlyList<LeftOut> Listed() =>
        [
            .. sums.Select(s => new LeftOut(s.Key.Customer, s.Key.Currency, s.Key.Reason, s.Value.Amount, s.Value.Items))
                .OrderBy(l => l.Customer, StringComparer.Ordinal)
                .ThenBy(l => l.Currency)
                .ThenBy(l => l.Reason),
        ];
    }
}
